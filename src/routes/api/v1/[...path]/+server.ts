import { house } from '$lib/server';
import { answerCall } from '$lib/server/api';

/** A call of another program, by its key; see `server/api`. */
export const fallback = ({ request, url, params, locals }) =>
	answerCall(house(), { request, url, path: `/${params.path}`, number: locals.request, address: locals.from.address });
