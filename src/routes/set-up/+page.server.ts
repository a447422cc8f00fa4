import { fail, redirect } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { addFirstOwner, hasAccounts } from '$lib/server/accounts';
import { formIn } from '$lib/server/forms';
import { count } from '$lib/server/limits';
import { note } from '$lib/server/office-record';
import { organisation, setOrganisation } from '$lib/server/settings';

export const load = () => {
	if (hasAccounts(house())) redirect(303, '/sign-in');
	return {};
};

export const actions = {
	default: async ({ request, locals }) => {
		if (hasAccounts(house())) redirect(303, '/sign-in');
		const form = await formIn(request);
		const [organised, name, email, zone] = ['organisation', 'name', 'email', 'zone'].map((one) => form.text(one, 254));
		const kept = { code: form.text('code', 40), organisation: organised!, name: name!, email: email!, zone: zone! };
		// judged first, in settings as they would be; written once there is an owner
		const before = organisation(house().db);
		const set = setOrganisation(
			house().db,
			{ ...before, name: kept.organisation.trim(), zone: kept.zone },
			'only judge'
		);
		if (isRefusal(set))
			return fail(422, { ...kept, say: set.at === 'name' ? 'Give the organisation a name.' : set.say, at: set.at });
		if (!(await count('setUp', locals.from.address)))
			return fail(429, { ...kept, say: 'Too many tries. Wait a quarter of an hour, then try again.' });
		const account = await addFirstOwner(house(), kept.code, { ...kept, password: form.raw('password') });
		if (isRefusal(account)) return fail(422, { ...kept, say: account.say, at: account.at });
		setOrganisation(house().db, set);
		note(house(), { account, address: locals.from.address }, { type: 'SetUp', organisation: set.name });
		redirect(303, '/sign-in');
	}
};
