import { json } from '@sveltejs/kit';
import { askedIn } from '$lib/core/packet';
import { house } from '$lib/server';

import { records } from '$lib/server/records';
import { accountIn } from '$lib/server/web';

/** The next page of what has ended, or of what a search has found there. */
export const GET = ({ locals, url }) =>
	json(
		records(
			house(),
			accountIn(locals),
			(url.searchParams.get('q') ?? '').slice(0, 200),
			askedIn('ended', url.searchParams)
		)
	);
