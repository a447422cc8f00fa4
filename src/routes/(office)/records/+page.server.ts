import { askedIn, askedOf } from '$lib/core/packet';
import { house } from '$lib/server';
import { listSettings } from '$lib/server/lists';
import { countEnded, records } from '$lib/server/records';
import { accountIn } from '$lib/server/web';

export const load = ({ url, locals }) => {
	const account = accountIn(locals);
	const search = (url.searchParams.get('q') ?? '').slice(0, 200);
	const asked = askedIn('ended', url.searchParams);
	const query = askedOf(asked);
	if (search) query.set('q', search);
	return {
		list: records(house(), account, search, asked),
		asked,
		query: query.toString(),
		// how many fit a search or a filter is not counted: they are shown as one goes on
		count: search || Object.keys(asked.filter ?? {}).length > 0 ? null : countEnded(house(), account),
		search,
		settings: listSettings(house(), account, 'records')
	};
};
