import { fail } from '@sveltejs/kit';
import { isRefusal, type Refusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { formIn, type Form } from '$lib/server/forms';
import { addLists, endMethod, keyRows, METHODS, methods, takeInKey, tryKey, withdrawKey } from '$lib/server/keys';
import { askDue, lastingNow } from '$lib/server/lasting';
import { doerIn, statusOf } from '$lib/server/web';

export const load = () => ({
	now: house().now().toISOString(),
	keys: keyRows(house()),
	lasting: lastingNow(house()),
	methods: Object.entries(METHODS).map(([id, name]) => ({
		id,
		name,
		from: methods(house().db)[id as 'sha256'] ?? null
	}))
});

const bytesOf = async (file: File) => new Uint8Array(await file.arrayBuffer());

const ownIn = async (form: Form) => {
	const file = form.file('file');
	return {
		file: file ? await bytesOf(file) : new Uint8Array(),
		password: form.raw('password').slice(0, 200),
		more: await Promise.all(form.files('more').slice(0, 10).map(bytesOf))
	};
};

const no = (form: string, refusal: Refusal) => fail(statusOf(refusal), { form, say: refusal.say, at: refusal.at });

export const actions = {
	try: async ({ request }) => {
		const came = await tryKey(house(), await ownIn(await formIn(request)));
		return isRefusal(came) ? no('own', came) : { form: 'own', tried: came.tried };
	},
	use: async ({ request, locals }) => {
		const came = await takeInKey(house(), doerIn(locals), await ownIn(await formIn(request)));
		return isRefusal(came) ? no('own', came) : { form: 'own', used: came.of };
	},
	lists: async ({ request, locals }) => {
		const files = (await formIn(request)).files('more').slice(0, 10);
		const came = addLists(house(), doerIn(locals), await Promise.all(files.map(bytesOf)));
		return isRefusal(came) ? no('lists', came) : { form: 'lists', until: came.until };
	},
	withdraw: async ({ request, locals }) => {
		const form = await formIn(request);
		const why = form.text('why') === 'lost' ? 'keyCompromise' : 'cessationOfOperation';
		const came = await withdrawKey(house(), doerIn(locals), form.text('name', 80), why, form.text('note'));
		return isRefusal(came) ? no('withdraw', came) : { form: 'withdraw', listed: came.listed };
	},
	stamp: () => ({ form: 'stamp', asked: askDue(house()) }),
	method: async ({ request, locals }) => {
		const form = await formIn(request);
		const wish = { method: form.text('method', 10), from: form.text('from', 10), why: form.text('why') };
		const came = endMethod(house(), doerIn(locals), wish);
		return isRefusal(came) ? no('method', came) : { form: 'method', done: true };
	}
};
