import { json } from '@sveltejs/kit';
import { placeOf } from '$lib/core/packet';
import { house } from '$lib/server';
import { casesOf } from '$lib/server/intakes';
import { accountIn } from '$lib/server/web';

/** The next page of an intake's cases. */
export const GET = ({ params, locals, url }) =>
	json(casesOf(house(), accountIn(locals), params.id, placeOf(url.searchParams.get('after'))));
