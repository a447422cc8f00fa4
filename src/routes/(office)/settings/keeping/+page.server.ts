import { fail } from '@sveltejs/kit';
import { NAMED_BY } from '$lib/core/keeping';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { keepingSetting, setKeeping } from '$lib/server/filing';
import { listFolders } from '$lib/server/folders';
import { formIn } from '$lib/server/forms';
import { dropRule, keepRule, weigh, weightOf } from '$lib/server/keeping';
import { typesIn } from '$lib/server/lists';
import { note } from '$lib/server/office-record';
import { retentionRules } from '$lib/server/packets/kept';
import { templateNames } from '$lib/server/templates';
import { accountIn, doerIn, statusOf } from '$lib/server/web';

export const load = ({ locals }) => ({
	setting: keepingSetting(house().db),
	named: [...NAMED_BY],
	rules: retentionRules(house().db),
	weight: weightOf(house()),
	templates: templateNames(house(), accountIn(locals), { most: 200 }),
	folders: listFolders(house()).map(({ name }) => name),
	types: typesIn(house(), accountIn(locals)),
	owner: accountIn(locals).level === 'owner'
});

export const actions = {
	setting: async ({ request, locals }) => {
		const form = await formIn(request);
		const wanted = {
			fileNames: form.text('fileNames', 200).trim(),
			binDays: Math.round(Number(form.text('binDays', 6))),
			two: form.on('two')
		};
		const from = keepingSetting(house().db);
		const set = setKeeping(house().db, wanted);
		if (isRefusal(set)) return fail(statusOf(set), { form: 'setting', say: set.say, at: set.at, kept: wanted });
		note(house(), doerIn(locals), { type: 'SettingsChanged', what: 'keeping', from, to: set });
		return { form: 'setting', done: true };
	},
	rule: async ({ request, locals }) => {
		const form = await formIn(request);
		const wanted = {
			id: form.text('id', 40),
			name: form.text('name', 120).trim(),
			by: form.text('by', 10),
			of: form.text('of', 120).trim(),
			years: Math.round(Number(form.text('years', 4))),
			from: form.text('from', 10),
			key: form.text('key', 60).trim(),
			yearEnd: form.on('yearEnd'),
			then: form.text('then', 10)
		};
		const kept = keepRule(house(), doerIn(locals), wanted);
		return isRefusal(kept)
			? fail(statusOf(kept), { form: 'rule', say: kept.say, at: kept.at, rule: wanted })
			: { form: 'rule', done: true };
	},
	drop: async ({ request, locals }) => {
		const dropped = dropRule(house(), doerIn(locals), (await formIn(request)).text('id', 40));
		return isRefusal(dropped)
			? fail(statusOf(dropped), { form: 'drop', say: dropped.say })
			: { form: 'drop', done: true };
	},
	weigh: async () => {
		await weigh(house());
		return { form: 'weigh', done: true };
	}
};
