import { paceAskedIn } from '$lib/core/pace';
import { house } from '$lib/server';
import { paceSeen, tablesOf } from '$lib/server/pace';
import { accountIn } from '$lib/server/web';

export const load = ({ url, locals }) => {
	const account = accountIn(locals);
	const asked = paceAskedIn(url.searchParams);
	const now = house().now().toISOString();
	const seen = paceSeen(house(), account, asked);
	return { asked, seen, tables: tablesOf(seen, now), now };
};
