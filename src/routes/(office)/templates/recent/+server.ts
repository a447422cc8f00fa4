import { json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { templateNames } from '$lib/server/templates';
import { accountIn } from '$lib/server/web';

const MOST = 8;

/** Templates in use, the most recently used first; with `?q=` those of that name. */
export const GET = ({ url, locals }) =>
	json(
		templateNames(house(), accountIn(locals), { search: (url.searchParams.get('q') ?? '').slice(0, 200), most: MOST })
	);
