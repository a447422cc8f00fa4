import { fail } from '@sveltejs/kit';
import { columnKeys, columnNames, filterFault, targetsOf, type Mapping } from '$lib/core/sheet';
import { isRefusal, refuse, type Refusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import {
	acceptDocument,
	batchRows,
	chooseSheet,
	comingIn,
	documentsOf,
	dropFolder,
	forAllOut,
	goOn,
	layAnew,
	pauseRun,
	putRight,
	readBatch,
	runBatch,
	settle,
	seenTrouble,
	standingOf,
	standingOpen,
	standOpen,
	stopRun,
	takeSheet,
	verdictsOf
} from '$lib/server/batches';
import { formIn, type Form } from '$lib/server/forms';
import { organisation } from '$lib/server/settings';
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
		names: columnNames(batch.sheet),
		keys: columnKeys(batch.sheet),
		heads: batch.sheet.heads,
		sheet: batch.origin.sheet,
		sheets: batch.origin.sheets,
		wanted: targetsOf(plan, batch.documents).map((target) => ({
			id: target.id,
			name: target.name,
			needed: target.needed,
			choices: target.choices ?? [],
			joins: target.what === 'person' && target.part === 'name'
		})),
		setting: batch.setting,
		fault: filterFault(batch.sheet, batch.setting.filter)?.say ?? '',
		going: batch.going,
		stopped: batch.stopped,
		run: {
			wanted: batch.wanted ?? 0,
			sent: batch.sent ?? 0,
			failed: batch.failed,
			beganAt: batch.beganAt,
			pace: organisation(house().db).pace ?? null
		},
		now: house().now().toISOString(),
		counts,
		changed: verdicts.filter((verdict) => verdict.is === 'gone' && verdict.changed.length > 0).length,
		own: verdicts.some((verdict) => verdict.is === 'ready' && verdict.own),
		list,
		query: `show=${encodeURIComponent(list.show)}`,
		standing: standingOf(house(), batch.id),
		documents: documentsOf(house(), batch.id),
		byItself: { ...standingOpen(house(), batch.id), folder: dropFolder(house(), batch.id) },
		api: `${house().config.origin}/api/v1/batches/${batch.id}/sheet`,
		days: comingIn(house(), batch.id)
	};
};

/** What an action came to, as the page's forms show it. */
const result = (done: object | null, form = '') =>
	isRefusal(done) ? fail(statusOf(done), { form, say: done.say }) : { done: true, form, say: '' };

/** The columns as the form has them; what was not changed is as sure as it was. */
function columnsIn(form: Form, id: string): { mapping: Mapping; values: Record<string, string> } | Refusal {
	const batch = readBatch(house(), id);
	if (isRefusal(batch)) return batch;
	const mapping: Mapping = {};
	const values: Record<string, string> = {};
	const given = new Map(form.entries());
	for (const [name, value] of given) {
		if (name === 'do' || value === '') continue;
		if (name.endsWith(' all')) values[name.slice(0, -4)] = value;
		else if (!name.endsWith(' then')) {
			const then = given.get(`${name} then`) ?? '';
			const columns = [value, then].filter((one) => one !== '').map(Number);
			const before = batch.setting.mapping[name];
			const same = JSON.stringify(before?.columns) === JSON.stringify(columns);
			mapping[name] = same
				? { ...before!, sure: before!.sure || given.get('do') === 'right' }
				: { columns, sure: true };
		}
	}
	return { mapping, values };
}

export const actions = {
	columns: async ({ params, request }) => {
		const columns = columnsIn(await formIn(request), params.id);
		return result(isRefusal(columns) ? columns : settle(house(), params.id, columns));
	},
	filter: async ({ params, request }) => {
		const filter = (await formIn(request)).lines('filter');
		return result(settle(house(), params.id, { filter }));
	},
	letter: async ({ params, request }) => {
		const form = await formIn(request);
		const letter = { subject: form.text('subject'), message: form.lines('message') };
		return result(settle(house(), params.id, { letter: letter.subject || letter.message ? letter : undefined }));
	},
	sheet: async ({ params, request, locals }) => {
		const sheet = (await formIn(request)).text('sheet');
		return result(await chooseSheet(house(), accountIn(locals), params.id, sheet));
	},
	right: async ({ params, request }) => {
		const form = await formIn(request);
		const [n, column] = [Number(form.text('n')), Number(form.text('column'))];
		return result(putRight(house(), params.id, n, column, form.text('text')));
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
	pause: ({ params }) => result(pauseRun(house(), params.id)),
	on: ({ params, locals }) => result(goOn(house(), accountIn(locals), params.id)),
	stop: ({ params }) => {
		stopRun(house(), { batch: params.id });
		return result(null);
	},
	remind: ({ params, locals }) => result(forAllOut(house(), accountIn(locals), params.id, 'remind')),
	withdraw: async ({ params, request, locals }) => {
		const reason = (await formIn(request)).lines('reason');
		return result(forAllOut(house(), accountIn(locals), params.id, 'withdraw', reason), 'withdraw');
	},
	accept: async ({ params, request }) => {
		const key = (await formIn(request)).text('key');
		return result(acceptDocument(house(), params.id, key));
	},
	lay: ({ params, locals }) => {
		layAnew(house(), accountIn(locals), params.id);
		return result(null);
	},
	open: ({ params, locals }) => result(standOpen(house(), accountIn(locals), params.id, true)),
	shut: ({ params, locals }) => result(standOpen(house(), accountIn(locals), params.id, false)),
	seen: ({ params }) => {
		seenTrouble(house(), params.id);
		return result(null);
	},
	again: async ({ params, request, locals }) => {
		const file = (await formIn(request)).file('sheet');
		if (!file) return result(refuse('file-empty', 'Choose a sheet: XLSX or CSV.'));
		const bytes = new Uint8Array(await file.arrayBuffer());
		return result(await takeSheet(house(), accountIn(locals), params.id, bytes));
	}
};
