import { fail, redirect } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { addAccount, hasAccounts } from '$lib/server/accounts';
import { formIn } from '$lib/server/bodies';
import { organisation, setOrganisation } from '$lib/server/settings';

export const load = () => {
	if (hasAccounts(house())) redirect(303, '/sign-in');
	return {};
};

export const actions = {
	default: async ({ request }) => {
		if (hasAccounts(house())) redirect(303, '/sign-in');
		const form = await formIn(request);
		const [organised, name, email, zone] = ['organisation', 'name', 'email', 'zone'].map((one) => form.text(one, 254));
		const kept = { organisation: organised!, name: name!, email: email!, zone: zone! };
		const set = setOrganisation(house().db, {
			...organisation(house().db),
			name: kept.organisation.trim(),
			zone: kept.zone
		});
		if (isRefusal(set))
			return fail(422, { ...kept, say: set.at === 'name' ? 'Give the organisation a name.' : set.say, at: set.at });
		const account = await addAccount(house(), { ...kept, level: 'owner', password: form.raw('password') });
		if (isRefusal(account)) return fail(422, { ...kept, say: account.say, at: account.at });
		redirect(303, '/sign-in');
	}
};
