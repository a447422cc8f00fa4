import type { Verdict } from '../../core/sheet';
import type { House } from '../house';
import { saidOfRow, statesOf } from './standing';
import type { Batch } from './store';

/** The rows of a batch as its screen lists them. */

const ROW_STATES = ['ready', 'twice', 'faulty', 'left out', 'gone'] as const;
/** What of those that have gone: completed, and still out. */
const OF_GONE = ['have', 'out'] as const;
const SHOWN: readonly string[] = [...ROW_STATES, ...OF_GONE];
const PAGE = 200;

/**
 * A page from a row on, of one state (`show`; of those that have gone also `have` and `out`) or all, what is said of each, and how
 * many there are of each state.
 */
export function batchRows(house: House, batch: Batch, verdicts: Verdict[], query: URLSearchParams) {
	const wanted = query.get('show') ?? 'all';
	const show = SHOWN.includes(wanted) ? wanted : 'all';
	const after = Number.parseInt(query.get('after') ?? '', 10);
	const states = statesOf(house, batch.id);
	const all = verdicts.map((verdict, n) => {
		const packet = verdict.is === 'gone' ? { id: verdict.packet, ...states.get(verdict.packet)! } : null;
		// a row that was refused when it was tried counts as faulty
		const is = batch.faults[n] === undefined ? verdict.is : 'faulty';
		return {
			packet,
			// judged when the run began; what is not to go any more has gone
			is: is === 'ready' && batch.going !== 'rests' && !batch.begins && !batch.due.has(n) ? 'gone' : is,
			part: packet?.status === 'completed' ? 'have' : packet?.open ? 'out' : null
		};
	});
	const counts: Record<string, number> = { all: all.length, ...Object.fromEntries(SHOWN.map((s) => [s, 0])) };
	for (const { is, part } of all) for (const one of part ? [is, part] : [is]) counts[one]! += 1;
	const from = Number.isFinite(after) ? after + 1 : 0;
	const places: number[] = [];
	for (let n = from; n < batch.sheet.rows.length && places.length < PAGE; n++)
		if (show === 'all' || all[n]!.is === show || all[n]!.part === show) places.push(n);
	const rows = places.map((n) => {
		const verdict = verdicts[n]!;
		const { packet, is } = all[n]!;
		return {
			id: String(n),
			n,
			line: batch.sheet.lines[n]!,
			/** columns whose cell was put right, with what it was */
			before: Object.fromEntries(
				batch.sheet.columns.flatMap((_, column) => {
					const was = batch.before[`${n} ${column}`];
					return was === undefined ? [] : [[column, was]];
				})
			) as Record<number, string>,
			changed: verdict.is === 'gone' && verdict.changed.length > 0,
			cells: batch.sheet.rows[n]!,
			is,
			out: batch.setting.without.includes(n),
			packet: packet?.id ?? null,
			/** ISO 8601: since when its packet stands as it does */
			since: packet?.since ?? null,
			column: verdict.is === 'faulty' ? verdict.column : null,
			said:
				verdict.is === 'ready' && is === 'gone'
					? 'sent'
					: saidOfRow(verdict, batch.faults[n], packet?.status, batch.sheet.lines)
		};
	});
	const last = places[places.length - 1];
	return { show, counts, rows, next: places.length === PAGE ? { at: '', n: last! } : null };
}
