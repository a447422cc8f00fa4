import { house } from '$lib/server';
import { fail } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { formIn } from '$lib/server/forms';
import { setWitness, witness } from '$lib/server/keeping';
import { trustedRoots } from '$lib/server/keys';
import { note } from '$lib/server/office-record';
import { accountIn, doerIn, statusOf } from '$lib/server/web';

export const load = async ({ locals }) => ({
	witness: witness(house()),
	owner: accountIn(locals).level === 'owner',
	mail: house().config.smtp === null ? 'the Mailbox stand-in' : new URL(house().config.smtp!).host,
	roots: (await trustedRoots(house())).map((root) => root.name)
});

export const actions = {
	witness: async ({ request, locals }) => {
		const form = await formIn(request);
		const wanted = { by: form.text('by', 10), address: form.text('address', 254).trim() };
		const from = witness(house());
		const set = setWitness(house(), wanted);
		if (isRefusal(set)) return fail(statusOf(set), { say: set.say, kept: wanted });
		note(house(), doerIn(locals), {
			type: 'SettingsChanged',
			what: 'the witness of the roots',
			from: { ...from },
			to: { ...set }
		});
		return { done: true };
	}
};
