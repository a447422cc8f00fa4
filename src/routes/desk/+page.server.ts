import { house } from '$lib/server';
import { CHIPS, countOut, needsYou, outNow, type Chip } from '$lib/server/desk';
import { retryNow } from '$lib/server/jobs';
import { PAGE } from '$lib/server/packets/rows';
import { accountIn } from '$lib/server/web';

export const load = ({ locals, url }) => {
	const account = accountIn(locals);
	const wanted = url.searchParams.get('show') ?? 'all';
	const chip: Chip = (CHIPS as readonly string[]).includes(wanted) ? (wanted as Chip) : 'all';
	const offset = Math.max(0, Math.min(1_000_000, Number.parseInt(url.searchParams.get('from') ?? '0', 10) || 0));
	return {
		needs: needsYou(house(), account),
		rows: outNow(house(), account, chip, offset),
		count: countOut(house(), account),
		chip,
		offset,
		page: PAGE,
		now: house().now().toISOString()
	};
};

export const actions = {
	retry: () => {
		retryNow(house());
		return { done: true };
	}
};
