import { fail, redirect } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import { listIntakes, newIntake } from '$lib/server/intakes';
import { listTemplates } from '$lib/server/templates';
import { accountIn, statusOf } from '$lib/server/web';

export const load = ({ locals }) => ({
	rows: listIntakes(house(), accountIn(locals)),
	templates: listTemplates(house(), accountIn(locals), { show: 'all', most: 500 }).flatMap(({ id, title, version }) =>
		version > 0 ? [{ id, title }] : []
	),
	now: house().now().toISOString()
});

export const actions = {
	default: async ({ request, locals }) => {
		const made = newIntake(house(), accountIn(locals), (await formIn(request)).text('template'));
		if (isRefusal(made)) return fail(statusOf(made), { say: made.say });
		redirect(303, `/intakes/${made.id}`);
	}
};
