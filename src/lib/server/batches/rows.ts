import type { Verdict } from '../../core/sheet';
import type { House } from '../house';
import { saidOfRow, statusesOf } from './standing';
import type { Batch } from './store';

/** The rows of a batch as its screen lists them. */

const ROW_STATES = ['ready', 'twice', 'faulty', 'left out', 'gone'] as const;
/** each page judges the whole sheet, so there are few of them */
const PAGE = 500;

/** A page from a row on, of one state (`show`) or all, what is said of each, and how many there are of each state. */
export function batchRows(house: House, batch: Batch, verdicts: Verdict[], query: URLSearchParams) {
	const wanted = query.get('show') ?? 'all';
	const show = (ROW_STATES as readonly string[]).includes(wanted) ? wanted : 'all';
	const after = Number.parseInt(query.get('after') ?? '', 10);
	// a row that was refused when it was tried counts as faulty
	const stateOf = (n: number) => (batch.faults[n] === undefined ? verdicts[n]!.is : 'faulty');
	const counts: Record<string, number> = { all: verdicts.length, ...Object.fromEntries(ROW_STATES.map((s) => [s, 0])) };
	verdicts.forEach((_verdict, n) => (counts[stateOf(n)]! += 1));
	const from = Number.isFinite(after) ? after + 1 : 0;
	const places: number[] = [];
	for (let n = from; n < batch.sheet.rows.length && places.length < PAGE; n++)
		if (show === 'all' || stateOf(n) === show) places.push(n);
	const statuses = statusesOf(house, batch.id);
	const rows = places.map((n) => {
		const verdict = verdicts[n]!;
		const packet = verdict.is === 'gone' ? verdict.packet : null;
		return {
			id: String(n),
			n,
			cells: batch.sheet.rows[n]!,
			is: stateOf(n),
			out: batch.setting.without.includes(n),
			packet,
			column: verdict.is === 'faulty' ? verdict.column : null,
			said: saidOfRow(verdict, batch.faults[n], packet === null ? undefined : statuses.get(packet))
		};
	});
	const last = places[places.length - 1];
	return { show, counts, rows, next: places.length === PAGE ? { at: '', n: last! } : null };
}
