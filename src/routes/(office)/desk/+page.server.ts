import { askedIn, askedOf } from '$lib/core/packet';
import { house } from '$lib/server';
import { listAccounts } from '$lib/server/accounts';
import { countOut, needsYou } from '$lib/server/desk';
import { firstSteps } from '$lib/server/first-steps';
import { foldersFor } from '$lib/server/folders';
import { retryNow } from '$lib/server/jobs';
import { listSettings, packetPage } from '$lib/server/lists';
import { templateNames } from '$lib/server/templates';
import { accountIn } from '$lib/server/web';

export const load = ({ locals, url }) => {
	const account = accountIn(locals);
	const asked = askedIn('open', url.searchParams);
	return {
		needs: needsYou(house(), account),
		list: packetPage(house(), account, asked),
		asked,
		query: askedOf(asked).toString(),
		count: countOut(house(), account),
		settings: listSettings(house(), account, 'desk'),
		steps: firstSteps(house(), account),
		account,
		templates: account.level === 'viewer' ? [] : templateNames(house(), account, { most: 200 }),
		folders: foldersFor(house(), account),
		senders: listAccounts(house()).map(({ id, name }) => ({ id, name })),
		now: house().now().toISOString()
	};
};

export const actions = {
	retry: () => {
		retryNow(house());
		return { done: true };
	}
};
