import { house } from '$lib/server';
import { PAGE } from '$lib/server/packets/rows';
import { records } from '$lib/server/records';
import { accountIn } from '$lib/server/web';

export const load = ({ url, locals }) => {
	const search = (url.searchParams.get('q') ?? '').slice(0, 200);
	const offset = Math.max(0, Math.min(1_000_000, Number.parseInt(url.searchParams.get('from') ?? '0', 10) || 0));
	return { rows: records(house(), accountIn(locals), search, offset), search, offset, page: PAGE };
};
