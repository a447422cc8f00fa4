import { fail } from '@sveltejs/kit';
import { columnKeys, filterFault, targetsOf } from '$lib/core/sheet';
import { isRefusal, refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { readBatch, replaceSheet, runBatch, saidOfRow, settle, statusesOf, verdictsOf } from '$lib/server/batches';
import { formIn } from '$lib/server/forms';
import { accountIn, orError, statusOf } from '$lib/server/web';

const STATES = ['ready', 'twice', 'faulty', 'left out', 'gone'] as const;
const PAGE = 50;

export const load = ({ params, locals, url }) => {
	const account = accountIn(locals);
	const batch = orError(readBatch(house(), params.id));
	const { plan, title, verdicts } = orError(verdictsOf(house(), account, batch));
	const statuses = statusesOf(house(), params.id);
	const wanted = url.searchParams.get('show') ?? 'all';
	const show = (STATES as readonly string[]).includes(wanted) ? wanted : 'all';
	const offset = Math.max(0, Math.min(20_000, Number.parseInt(url.searchParams.get('from') ?? '0', 10) || 0));
	// a row that was refused when it was tried counts as faulty
	const stateOf = (n: number) => (batch.faults[n] === undefined ? verdicts[n]!.is : 'faulty');
	const counts: Record<string, number> = { all: verdicts.length, ...Object.fromEntries(STATES.map((s) => [s, 0])) };
	verdicts.forEach((_verdict, n) => (counts[stateOf(n)]! += 1));
	const rows = batch.sheet.rows.flatMap((cells, n) => (show === 'all' || stateOf(n) === show ? [{ n, cells }] : []));
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
		show,
		offset,
		page: PAGE,
		rows: rows.slice(offset, offset + PAGE).map(({ n, cells }) => {
			const verdict = verdicts[n]!;
			const packet = verdict.is === 'gone' ? verdict.packet : null;
			return {
				n,
				cells,
				is: stateOf(n),
				out: batch.setting.without.includes(n),
				packet,
				column: verdict.is === 'faulty' ? verdict.column : null,
				said: saidOfRow(verdict, batch.faults[n], packet === null ? undefined : statuses.get(packet))
			};
		})
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
		const n = Number(form.text('n'));
		const batch = readBatch(house(), params.id);
		if (isRefusal(batch)) return result(batch);
		const { without, chosen } = batch.setting;
		switch (form.text('do')) {
			case 'take out':
				return result(settle(house(), params.id, { without: [...without, n] }));
			case 'put back':
				return result(settle(house(), params.id, { without: without.filter((one) => one !== n) }));
			case 'this one':
				return result(settle(house(), params.id, { chosen: [...chosen, n] }));
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
