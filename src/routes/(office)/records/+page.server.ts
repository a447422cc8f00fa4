import { askedIn, askedOf } from '$lib/core/packet';
import { house } from '$lib/server';
import { keepingSetting } from '$lib/server/filing';
import { foldersFor } from '$lib/server/folders';
import { listSettings, typesIn } from '$lib/server/lists';
import { countEnded, records } from '$lib/server/records';
import { binnedDrafts } from '$lib/server/packets/draft-bin';
import { accountIn } from '$lib/server/web';

export const load = ({ url, locals }) => {
	const account = accountIn(locals);
	const search = (url.searchParams.get('q') ?? '').slice(0, 200);
	const asked = askedIn('ended', url.searchParams);
	const query = askedOf(asked);
	if (search) query.set('q', search);
	const put = asked.filter?.put ?? null;
	const mayAct = account.level !== 'viewer';
	return {
		lies: put,
		mayAct,
		folders: mayAct ? foldersFor(house(), account) : [],
		types: mayAct ? typesIn(house(), account) : [],
		drafts: mayAct && put === 'bin' ? binnedDrafts(house(), account) : [],
		binDays: keepingSetting(house().db).binDays,
		now: house().now().toISOString(),
		list: records(house(), account, search, asked),
		asked,
		query: query.toString(),
		// how many fit a search or a filter is not counted: they are shown as one goes on
		count:
			search || Object.keys(asked.filter ?? {}).some((name) => name !== 'put')
				? null
				: countEnded(house(), account, put ?? ''),
		search,
		settings: listSettings(house(), account, 'records')
	};
};
