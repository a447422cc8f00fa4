import { fail } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { safety, setSafety } from '$lib/server/accounts';
import { formIn } from '$lib/server/forms';
import { doerIn, proofIn, statusOf } from '$lib/server/web';

export const load = ({ locals }) => {
	const { directory } = house().config;
	return {
		safety: safety(house().db),
		directory: directory ? { name: directory.name, issuer: directory.issuer, levels: directory.levels } : null,
		proved: locals.session?.proved ?? false
	};
};

export const actions = {
	default: async ({ request, locals }) => {
		const form = await formIn(request);
		const wanted = {
			second: form.all('second'),
			idleHours: Number(form.text('idle-hours')),
			longestDays: Number(form.text('longest-days'))
		};
		const done = proofIn(locals) ?? setSafety(house(), doerIn(locals), wanted);
		return isRefusal(done) ? fail(statusOf(done), { ...wanted, say: done.say }) : { ...wanted, done: true };
	}
};
