import { fail } from '@sveltejs/kit';
import { columnKeys, filterFault, targetsOf } from '$lib/core/sheet';
import { isRefusal, refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { batchRows, readBatch, replaceSheet, runBatch, settle, verdictsOf } from '$lib/server/batches';
import { formIn } from '$lib/server/forms';
import { accountIn, orError, statusOf } from '$lib/server/web';

export const load = ({ params, locals, url }) => {
	const account = accountIn(locals);
	const batch = orError(readBatch(house(), params.id));
	const { plan, title, verdicts } = orError(verdictsOf(house(), account, batch));
	const { counts, ...list } = batchRows(house(), batch, verdicts, url.searchParams);
	return {
		id: batch.id,
		name: batch.name,
		title,
		template: batch.template,
		columns: batch.sheet.columns,
		keys: columnKeys(batch.sheet),
		targets: targetsOf(plan).map(({ id, name, needed }) => ({ id, name, needed })),
		setting: batch.setting,
		fault: filterFault(batch.sheet, batch.setting.filter)?.say ?? '',
		running: batch.running,
		wanted: batch.wanted,
		sent: batch.sent,
		counts,
		own: verdicts.some((verdict) => verdict.is === 'ready' && verdict.own),
		list,
		query: `show=${encodeURIComponent(list.show)}`
	};
};

const result = (done: object | null) =>
	isRefusal(done) ? fail(statusOf(done), { say: done.say }) : { done: true, say: '' };

export const actions = {
	columns: async ({ params, request }) => {
		const mapping = Object.fromEntries((await formIn(request)).entries().map(([name, value]) => [name, Number(value)]));
		return result(settle(house(), params.id, { mapping }));
	},
	filter: async ({ params, request }) => {
		const filter = (await formIn(request)).lines('filter');
		return result(settle(house(), params.id, { filter }));
	},
	row: async ({ params, request }) => {
		const form = await formIn(request);
		const rows = form.all('n').map(Number);
		const batch = readBatch(house(), params.id);
		if (isRefusal(batch)) return result(batch);
		const { without, chosen } = batch.setting;
		switch (form.text('do')) {
			case 'take out':
				return result(settle(house(), params.id, { without: [...new Set([...without, ...rows])] }));
			case 'put back':
				return result(settle(house(), params.id, { without: without.filter((one) => !rows.includes(one)) }));
			case 'this one':
				return result(settle(house(), params.id, { chosen: [...chosen, ...rows] }));
			default:
				return result(refuse('no-such-thing', 'A row can’t do that.'));
		}
	},
	run: ({ params, locals }) => result(runBatch(house(), accountIn(locals), params.id)),
	again: async ({ params, request, locals }) => {
		const file = (await formIn(request)).file('sheet');
		if (!file) return result(refuse('file-empty', 'Choose a sheet: a CSV file.'));
		const bytes = new Uint8Array(await file.arrayBuffer());
		return result(replaceSheet(house(), accountIn(locals), params.id, bytes));
	}
};
