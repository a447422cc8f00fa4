import { fail } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import { liftHold, listHolds, setHold } from '$lib/server/keeping';
import { accountIn, meIn, statusOf } from '$lib/server/web';

export const load = ({ locals }) => ({
	holds: listHolds(house().db),
	mayAct: accountIn(locals).level !== 'viewer',
	mayLift: accountIn(locals).level === 'owner'
});

const OF = ['packets', 'person', 'search'] as const;

export const actions = {
	set: async ({ request, locals }) => {
		const form = await formIn(request);
		const wanted = {
			name: form.text('name', 120).trim(),
			why: form.lines('why', 2000),
			of: OF.find((one) => one === form.text('of', 10)) ?? ('person' as const),
			what: form.text('what', 200).trim(),
			packets: form.text('packets', 50_000).split(' ').filter(Boolean)
		};
		const set = setHold(house(), meIn(locals), wanted);
		return isRefusal(set)
			? fail(statusOf(set), { form: 'set', say: set.say, at: set.at, kept: wanted })
			: { form: 'set', done: true };
	},
	lift: async ({ request, locals }) => {
		const form = await formIn(request);
		const [hold, why] = [form.text('hold', 40), form.lines('why', 2000)];
		const lifted = liftHold(house(), meIn(locals), hold, why);
		return isRefusal(lifted)
			? fail(statusOf(lifted), { form: 'lift', hold, say: lifted.say, kept: { why } })
			: { form: 'lift', done: true };
	}
};
