import { fail } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import { note } from '$lib/server/office-record';
import { paperSetting, setPaper } from '$lib/server/paper';
import { accountIn, doerIn, statusOf } from '$lib/server/web';

export const load = ({ locals }) => ({
	setting: paperSetting(house().db),
	owner: accountIn(locals).level === 'owner'
});

export const actions = {
	default: async ({ request, locals }) => {
		const form = await formIn(request);
		const wanted = { permitted: form.on('permitted'), goesOn: form.on('goesOn'), post: form.lines('post', 400).trim() };
		const from = paperSetting(house().db);
		const set = setPaper(house().db, wanted);
		if (isRefusal(set)) return fail(statusOf(set), { say: set.say, kept: wanted });
		note(house(), doerIn(locals), { type: 'SettingsChanged', what: 'signing on paper', from, to: set });
		return { done: true };
	}
};
