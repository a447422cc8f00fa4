import { fail } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { askBackup, backupList, backups, setBackups } from '$lib/server/backup';
import { formIn } from '$lib/server/forms';
import { doerIn, statusOf } from '$lib/server/web';

export const load = () => ({
	setting: backups(house()),
	list: backupList(house()),
	demo: house().config.demo
});

export const actions = {
	save: async ({ request, locals }) => {
		const form = await formIn(request);
		const wanted = { hours: Number(form.text('hours')), keep: Number(form.text('keep')) };
		const done = setBackups(house(), doerIn(locals), wanted);
		return isRefusal(done) ? fail(statusOf(done), { ...wanted, say: done.say }) : { ...wanted, say: '' };
	},
	now: () => {
		askBackup(house());
		return { ...backups(house()), asked: true, say: '' };
	}
};
