import { fail, redirect } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { addAccount, hasAccounts } from '$lib/server/accounts';
import { organisation, setOrganisation } from '$lib/server/settings';

export const load = () => {
	if (hasAccounts(house())) redirect(303, '/sign-in');
	return {};
};

export const actions = {
	default: async ({ request }) => {
		if (hasAccounts(house())) redirect(303, '/sign-in');
		const form = await request.formData();
		const text = (name: string) => String(form.get(name) ?? '').slice(0, 1000);
		const kept = { organisation: text('organisation'), name: text('name'), email: text('email'), zone: text('zone') };
		const set = setOrganisation(house().db, {
			...organisation(house().db),
			name: kept.organisation.trim(),
			zone: kept.zone
		});
		if (isRefusal(set))
			return fail(422, { ...kept, say: set.at === 'name' ? 'Give the organisation a name.' : set.say, at: set.at });
		const account = await addAccount(house(), { ...kept, level: 'owner', password: text('password') });
		if (isRefusal(account)) return fail(422, { ...kept, say: account.say, at: account.at });
		redirect(303, '/sign-in');
	}
};
