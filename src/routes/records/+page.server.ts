import { house } from '$lib/server';
import { PAGE, records } from '$lib/server/desk';

export const load = ({ url }) => {
	const search = (url.searchParams.get('q') ?? '').slice(0, 200);
	const offset = Math.max(0, Math.min(1_000_000, Number.parseInt(url.searchParams.get('from') ?? '0', 10) || 0));
	return { rows: records(house(), search, offset), search, offset, page: PAGE };
};
