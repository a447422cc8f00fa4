import { json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { listTemplates } from '$lib/server/templates';
import { accountIn } from '$lib/server/web';

/** Templates in use, the most recently used first; with `?q=` those of that name. */
export const GET = ({ url, locals }) =>
	json(
		listTemplates(house(), accountIn(locals), {
			show: 'all',
			search: (url.searchParams.get('q') ?? '').slice(0, 200),
			most: 8
		})
			.filter((row) => row.version > 0)
			.map(({ id, title, folder, lastUsedAt }) => ({ id, title, folder, lastUsedAt }))
	);
