import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { roomView } from '$lib/server/notary';
import { languageOf, visitorOf } from '$lib/server/visitor';
import { answer } from '$lib/server/web';

/** The room as it is now; asked again and again by whoever is in it, who is heard of thereby. */
export const GET = async ({ params, locals }) => {
	const visitor = await visitorOf(params.token, locals);
	return answer(isRefusal(visitor) ? visitor : roomView(house(), visitor, languageOf(visitor, locals)));
};
