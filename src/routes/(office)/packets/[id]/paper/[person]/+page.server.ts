import { fail } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import { acceptReturn, askReturn, refuseReturn, returnLook } from '$lib/server/paper';
import { accountIn, orError, statusOf } from '$lib/server/web';

export const load = ({ params, locals }) => ({
	look: orError(returnLook(house(), accountIn(locals), params.id, params.person))
});

export const actions = {
	accept: async ({ params, request, locals }) => {
		const form = await formIn(request);
		const read = Object.fromEntries(
			form.entries().flatMap(([name]) => {
				const [, field] = /^read ([0-9A-Za-z_-]{1,40})$/.exec(name) ?? [];
				// what was not confirmed stays in the picture alone
				return field && form.on(`sure ${field}`) ? [[field, form.text(name, 2000)]] : [];
			})
		);
		const done = await acceptReturn(house(), accountIn(locals), params.id, params.person, {
			read,
			note: form.lines('note'),
			from: locals.from
		});
		return isRefusal(done) ? fail(statusOf(done), { form: 'accept', say: done.say, at: done.at }) : { form: 'accept' };
	},
	ask: async ({ params, request, locals }) => {
		const form = await formIn(request);
		const pages = form.all('page').map(Number);
		const word = form.lines('word');
		const done = askReturn(house(), accountIn(locals), params.id, params.person, pages, word);
		return isRefusal(done) ? fail(statusOf(done), { form: 'ask', say: done.say, word }) : { form: 'ask' };
	},
	refuse: async ({ params, request, locals }) => {
		const word = (await formIn(request)).lines('word');
		const done = refuseReturn(house(), accountIn(locals), params.id, params.person, word);
		return isRefusal(done) ? fail(statusOf(done), { form: 'refuse', say: done.say, word }) : { form: 'refuse' };
	}
};
