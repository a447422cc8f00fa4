import { fail } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import { identitySetting, setIdentity } from '$lib/server/identity';
import { note } from '$lib/server/office-record';
import { accountIn, doerIn, statusOf } from '$lib/server/web';

export const load = ({ locals }) => ({
	setting: identitySetting(house().db),
	owner: accountIn(locals).level === 'owner'
});

export const actions = {
	default: async ({ request, locals }) => {
		const form = await formIn(request);
		const number = (name: string) => Number(form.text(name) || '0');
		const wanted = {
			known: number('known'),
			judges: number('judges'),
			keep: number('keep'),
			lettersOff: number('lettersOff')
		};
		const from = identitySetting(house().db);
		const set = setIdentity(house().db, wanted);
		if (isRefusal(set)) return fail(statusOf(set), { say: 'Give whole numbers, as each line says.', kept: wanted });
		note(house(), doerIn(locals), { type: 'SettingsChanged', what: 'showing who one is', from, to: set });
		return { done: true };
	}
};
