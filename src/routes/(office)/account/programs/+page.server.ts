import { fail } from '@sveltejs/kit';
import { isRefusal, refuse, type Refusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { endKey, keysOf, makeKey, RIGHT_SAYS, RIGHTS } from '$lib/server/api';
import { endFeed, feedSince, newFeed } from '$lib/server/feeds';
import { formIn } from '$lib/server/forms';
import {
	deliveriesOf,
	endHook,
	hooksOf,
	KINDS_OF_HOOKS,
	makeHook,
	receiverAddress,
	renewSecret,
	tellAgain
} from '$lib/server/hooks';
import { listedHosts, listHosts } from '$lib/server/outside';
import { accountIn, meIn, proofIn, statusOf } from '$lib/server/web';

export const load = ({ locals }) => {
	const me = accountIn(locals);
	return {
		keys: keysOf(house(), me),
		rights: RIGHTS.map((right) => [right, RIGHT_SAYS[right]] as const),
		hooks: hooksOf(house(), me).map((hook) => ({ ...hook, deliveries: deliveriesOf(house(), me, hook.id) })),
		kinds: KINDS_OF_HOOKS,
		hosts: listedHosts(house()),
		owner: me.level === 'owner',
		feed: feedSince(house(), me),
		api: `${house().config.origin}/api/v1`,
		receiver: house().config.demo ? receiverAddress(house()) : null,
		proved: locals.session?.proved ?? false,
		now: house().now().toISOString()
	};
};

/** What a form is answered; `shown` is a secret, which is shown this once. */
const result = (form: string, done: object | Refusal | null, more: { shown?: string; kept?: object } = {}) =>
	isRefusal(done)
		? fail(statusOf(done), { form, say: done.say, at: done.at, kept: more.kept })
		: { form, shown: more.shown, done: true };

export const actions = {
	key: async ({ request, locals }) => {
		const form = await formIn(request);
		const [name, rights] = [form.text('name', 80), form.all('right')];
		const made = proofIn(locals) ?? makeKey(house(), meIn(locals), name, rights);
		return result('key', made, isRefusal(made) ? { kept: { name } } : { shown: made.key });
	},
	'end-key': async ({ request, locals }) => {
		const id = (await formIn(request)).text('id');
		return result('end-key', endKey(house(), meIn(locals), id));
	},
	hook: async ({ request, locals }) => {
		const form = await formIn(request);
		const [address, kinds] = [form.text('address', 2000), form.all('kind')];
		const made = proofIn(locals) ?? makeHook(house(), meIn(locals), address, kinds);
		return result('hook', made, isRefusal(made) ? { kept: { address } } : { shown: made.secret });
	},
	renew: async ({ request, locals }) => {
		const id = (await formIn(request)).text('id');
		const made = proofIn(locals) ?? renewSecret(house(), accountIn(locals), id);
		return result('hook', made, isRefusal(made) ? {} : { shown: made.secret });
	},
	'end-hook': async ({ request, locals }) => {
		const id = (await formIn(request)).text('id');
		return result('end-hook', endHook(house(), meIn(locals), id));
	},
	again: async ({ request, locals }) => {
		const form = await formIn(request);
		return result('again', tellAgain(house(), accountIn(locals), form.text('id'), Number(form.text('delivery'))));
	},
	hosts: async ({ request, locals }) => {
		const me = meIn(locals);
		const hosts = (await formIn(request)).lines('hosts', 4000).split(/[\s,;]+/);
		const no =
			proofIn(locals) ??
			(me.account.level === 'owner' ? null : refuse('not-permitted', 'Only an owner lists hosts of your own network.'));
		if (!no) listHosts(house(), me, hosts);
		return result('hosts', no);
	},
	feed: ({ locals }) => {
		const no = proofIn(locals);
		return no ? result('feed', no) : result('feed', null, { shown: newFeed(house(), meIn(locals)) });
	},
	'end-feed': ({ locals }) => {
		endFeed(house(), meIn(locals));
		return result('end-feed', null);
	}
};
