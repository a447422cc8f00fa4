import { isRefusal, type Refusal } from '../../core/refusal';
import { cellName, columnNames, type Sheet, type Verdict } from '../../core/sheet';
import { addColumnsInWorker } from '../../press';
import type { Account } from '../accounts';
import { readBlob } from '../blobs';
import { csvForSpreadsheets } from '../csv';
import type { House } from '../house';
import { verdictsOf } from './judging';
import { readBatch, type Batch } from './store';

/** How the rows of a batch stand: in words, and as the sheet that goes back. */

/** How a row stands, in words. */
export function saidOfRow(
	verdict: Verdict,
	fault: string | undefined,
	status: string | undefined,
	lines: readonly number[]
): string {
	if (fault !== undefined) return fault;
	switch (verdict.is) {
		case 'ready':
			return verdict.own ? 'ready; this is you' : 'ready';
		case 'left out':
			return { filter: 'left out by the filter', 'by hand': 'taken out', another: 'another row is meant' }[verdict.why];
		case 'faulty':
			return verdict.say;
		case 'twice':
			return `the same address as row ${verdict.rows.map((n) => lines[n]!).join(' and ')}: which is meant?`;
		case 'gone':
			return `${status ?? 'sent'}${verdict.changed.length > 0 ? `; now with another ${verdict.changed.join(', ')}, which was not sent` : ''}`;
	}
}

const HEADS = [
	'Pellum: packet',
	'Pellum: state',
	'Pellum: since',
	'Pellum: who has it',
	'Pellum: fault',
	'Pellum: put right'
];

/**
 * The sheet back: the same file with columns behind its own, that say of each row its packet, how it stands and since when, who has
 * it, what is wrong, and what was put right. A workbook stays one; values between commas stay that.
 */
export async function sheetBack(
	house: House,
	account: Account,
	id: string
): Promise<{ bytes: Uint8Array; media: string; name: string } | Refusal> {
	const batch = readBatch(house, id);
	if (isRefusal(batch)) return batch;
	const found = verdictsOf(house, account, batch);
	if (isRefusal(found)) return found;
	const texts = addedTexts(house, batch, found.verdicts);
	const file = batch.origin.kind === 'xlsx' ? readBlob(house.db, batch.origin.file) : undefined;
	if (file) {
		const bytes = await addColumnsInWorker({
			bytes: new Uint8Array(file.bytes),
			sheet: batch.origin.sheet,
			heads: batch.sheet.heads,
			columns: HEADS,
			cells: texts.map((row, n) => ({ line: batch.sheet.lines[n]!, texts: row }))
		});
		// macros did not come back with it
		return isRefusal(bytes) ? bytes : { bytes, media: file.media, name: batch.name.replace(/\.xlsm$/i, '.xlsx') };
	}
	const rows = batch.sheet.rows.map((cells, n) => [...asItCame(batch, cells, n), ...texts[n]!]);
	const text = csvForSpreadsheets([...batch.sheet.columns, ...HEADS], rows);
	return { bytes: new TextEncoder().encode(text), media: 'text/csv; charset=utf-8', name: batch.name };
}

/** A row as the file has it, without what was put right. */
const asItCame = ({ before }: Batch, cells: readonly string[], n: number): string[] =>
	cells.map((cell, column) => before[`${n} ${column}`] ?? cell);

function addedTexts(house: House, batch: Batch, verdicts: Verdict[]): string[][] {
	const states = statesOf(house, batch.id);
	return verdicts.map((verdict, n) => {
		const packet = verdict.is === 'gone' ? verdict.packet : '';
		const state = states.get(packet);
		const said = saidOfRow(verdict, batch.faults[n], state?.status, batch.sheet.lines);
		const wrong = batch.faults[n] !== undefined || verdict.is === 'faulty' || verdict.is === 'twice';
		return [
			packet && `${house.config.origin}/packets/${packet}`,
			wrong ? 'not sent' : said,
			state?.since.slice(0, 10) ?? '',
			state?.open ? whoHas(state.thread) : '',
			wrong ? `${verdict.is === 'faulty' ? cellNamed(batch.sheet, n, verdict.column) : ''}${said}` : '',
			righted(batch, n)
		];
	});
}

const cellNamed = (sheet: Sheet, n: number, column: number | null) =>
	column === null ? '' : `${cellName(sheet, n, column)}: `;

function righted({ sheet, before }: Batch, n: number): string {
	const names = columnNames(sheet);
	return names
		.flatMap((name, column) => {
			const was = before[`${n} ${column}`];
			return was === undefined ? [] : [`${name}: ${was || 'empty'} → ${sheet.rows[n]![column] || 'empty'}`];
		})
		.join('; ');
}

/** How the packets of a batch stand, by their id: since when, and their thread as it is kept. */
export function statesOf(
	house: House,
	id: string
): Map<string, { status: string; open: boolean; since: string; thread: string }> {
	const rows = house.db
		.prepare<[string], { packet: string; status: string; open: 0 | 1; since: string; thread: string }>(
			`SELECT b.packet, p.status, p.ended_at IS NULL AS open, coalesce(p.ended_at, p.since) AS since, p.thread
			 FROM batch_packets b JOIN packets p ON p.id = b.packet WHERE b.batch = ?`
		)
		.all(id);
	return new Map(
		rows.map(({ packet, status, open, since, thread }) => [packet, { status, open: open === 1, since, thread }])
	);
}

const whoHas = (thread: string): string =>
	(JSON.parse(thread) as { name: string; standing: string; duty: string }[][])
		.flat()
		.filter((one) => ['notified', 'opened', 'unreachable', 'held'].includes(one.standing) && one.duty !== 'gets a copy')
		.map(({ name, standing }) => (standing === 'unreachable' ? `${name} (unreachable)` : name))
		.join(', ');
