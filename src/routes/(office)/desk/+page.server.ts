import { askedIn, askedOf } from '$lib/core/packet';
import { house } from '$lib/server';
import { batchLines } from '$lib/server/batches';
import { countOut, needsYou } from '$lib/server/desk';
import { firstSteps } from '$lib/server/first-steps';
import { retryNow } from '$lib/server/jobs';
import { listSettings, packetPage } from '$lib/server/lists';
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
		batches: batchLines(house(), account),
		settings: listSettings(house(), account, 'desk'),
		steps: firstSteps(house(), account),
		account,
		now: house().now().toISOString()
	};
};

export const actions = {
	retry: () => {
		retryNow(house());
		return { done: true };
	}
};
