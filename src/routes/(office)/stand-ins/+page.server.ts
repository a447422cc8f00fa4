import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import { DESK_MODES, deskMode, setDeskMode } from '$lib/server/identity';
import { moveClock } from '$lib/server/clock';
import { receivedMessages, receiverAddress } from '$lib/server/hooks';
import { mailboxMessages, refusedAddresses, setRefusedAddresses } from '$lib/server/mail/mailbox';
import { phoneMessages, refusedNumbers, setRefusedNumbers } from '$lib/server/mail/phone';
import { standInsFor } from '$lib/server/stand-ins';

/** The Mailbox holds signers' links: outside the demo only an owner may look into it. */
export const load = ({ url, locals }) => {
	const { config } = house();
	standInsFor(locals);
	const to = (url.searchParams.get('to') ?? '').slice(0, 254);
	const before = Number(url.searchParams.get('before')) || undefined;
	return {
		to,
		messages: mailboxMessages(house(), to, before),
		texts: phoneMessages(house(), (url.searchParams.get('number') ?? '').slice(0, 40), 20),
		refused: refusedAddresses(house()),
		refusedNumbers: refusedNumbers(house()),
		desk: deskMode(house().db),
		now: house().now().toISOString(),
		received: receivedMessages(house()),
		receiver: receiverAddress(house()),
		smtp: config.smtp !== null,
		clock: config.demo
	};
};

export const actions = {
	clock: async ({ request }) => {
		if (!house().config.demo) error(403, { message: 'Time can be moved in the demo only.' });
		const days = Number((await formIn(request)).text('days'));
		moveClock(house(), Number.isFinite(days) ? Math.min(400, Math.max(0, days)) : 0);
		return { done: true };
	},
	desk: async ({ request, locals }) => {
		standInsFor(locals);
		const wanted = (await formIn(request)).text('mode', 20);
		setDeskMode(house().db, DESK_MODES.find((one) => one === wanted) ?? 'as it is');
		return { done: true };
	},
	refuse: async ({ request, locals }) => {
		standInsFor(locals);
		const form = await formIn(request);
		setRefusedAddresses(house(), form.lines('addresses', 10_000).split(/[\s,;]+/));
		setRefusedNumbers(house(), form.lines('numbers', 10_000).split(/[\n,;]+/));
		return { done: true };
	}
};
