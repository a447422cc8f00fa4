import { cutText, oneLine } from '../../core/clean-text';
import Papa from 'papaparse';
import type { Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import {
	filterFault,
	judged,
	matched,
	sheetOf,
	targetsOf,
	type Facts,
	type Setting,
	type Sheet,
	type Verdict
} from '../../core/sheet';
import { isoDay } from '../../core/calendar';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { organisation } from '../settings';
import { planForUse } from '../templates';

/** Sheets and what has been settled about them; `running` sends them. */

const MOST_ROWS = 10_000;
const MOST_COLUMNS = 200;
const MOST_BYTES = 5 * 1024 * 1024;

export interface Batch {
	id: string;
	template: string;
	owner: string;
	name: string;
	madeAt: string;
	sheet: Sheet;
	setting: Setting;
	wanted: number | null;
	sent: number | null;
	running: boolean;
	/** why rows did not go when they were tried, by their place */
	faults: Record<number, string>;
}

interface Row {
	id: string;
	template: string;
	owner: string;
	name: string;
	made_at: string;
	columns: string;
	setting: string;
	wanted: number | null;
	sent: number | null;
	running: number;
}

export const NO_BATCH = refuse('no-batch', 'There is no such batch.');

/**
 * A CSV file (RFC 4180; comma, semicolon or tab) as a sheet. Refuses `sheet-too-large`, `sheet-unreadable` (no text),
 * `sheet-empty`, `sheet-too-long`.
 */
export function readSheet(bytes: Uint8Array): Sheet | Refusal {
	if (bytes.length > MOST_BYTES) return refuse('sheet-too-large', 'A sheet may have 5 MB at most.');
	let text: string;
	try {
		text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
	} catch {
		text = new TextDecoder('windows-1252').decode(bytes);
	}
	if (text.includes('\u0000'))
		return refuse('sheet-unreadable', 'This is not a table in text. Save the sheet as CSV, and take that.');
	const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', preview: MOST_ROWS + 2 });
	const sheet = sheetOf(data);
	if (sheet.rows.length === 0)
		return refuse('sheet-empty', 'The sheet has no rows. Its first line are the headings; people begin in the second.');
	if (sheet.rows.length > MOST_ROWS || sheet.columns.length > MOST_COLUMNS)
		return refuse('sheet-too-long', 'A sheet may have 10,000 rows and 200 columns. Take it in parts.');
	return sheet;
}

/** A batch of a sheet and a template; its columns are matched by their headings, to be put right by hand. */
export function newBatch(
	house: House,
	account: Account,
	template: string,
	name: string,
	bytes: Uint8Array
): { id: string } | Refusal {
	const found = planForUse(house, account, template);
	if (isRefusal(found)) return found;
	const sheet = readSheet(bytes);
	if (isRefusal(sheet)) return sheet;
	const id = newId(house.now());
	const mapping = matched(sheet.columns, targetsOf(found.plan));
	const setting: Setting = { mapping, filter: '', without: [], chosen: [] };
	inTransaction(house.db, () => {
		house.db
			.prepare(
				'INSERT INTO batches (id, template, owner, name, made_at, columns, setting) VALUES (?, ?, ?, ?, ?, ?, ?)'
			)
			.run(
				id,
				template,
				account.id,
				cutText(oneLine(name), 200),
				house.now().toISOString(),
				JSON.stringify(sheet.columns),
				JSON.stringify(setting)
			);
		writeRows(house, id, sheet);
	});
	return { id };
}

function writeRows(house: House, id: string, sheet: Sheet): void {
	house.db.prepare('DELETE FROM batch_rows WHERE batch = ?').run(id);
	const row = house.db.prepare('INSERT INTO batch_rows (batch, n, cells) VALUES (?, ?, ?)');
	sheet.rows.forEach((cells, n) => row.run(id, n, JSON.stringify(cells)));
}

/** A newer sheet takes the place of the one before; who has had theirs is known by address, and is left out. */
export function replaceSheet(house: House, account: Account, id: string, bytes: Uint8Array): Refusal | null {
	const batch = readBatch(house, id);
	if (isRefusal(batch)) return batch;
	if (batch.running) return refuse('batch-runs', 'It is being sent. Wait until that is done.');
	const found = planForUse(house, account, batch.template);
	if (isRefusal(found)) return found;
	const sheet = readSheet(bytes);
	if (isRefusal(sheet)) return sheet;
	const same = JSON.stringify(sheet.columns) === JSON.stringify(batch.sheet.columns);
	const mapping = same ? batch.setting.mapping : matched(sheet.columns, targetsOf(found.plan));
	const filter = filterFault(sheet, batch.setting.filter) ? '' : batch.setting.filter;
	inTransaction(house.db, () => {
		house.db
			.prepare('UPDATE batches SET columns = ?, setting = ? WHERE id = ?')
			.run(JSON.stringify(sheet.columns), JSON.stringify({ mapping, filter, without: [], chosen: [] }), id);
		writeRows(house, id, sheet);
	});
	return null;
}

export function readBatch(house: House, id: string): Batch | Refusal {
	const row = house.db.prepare<[string], Row>('SELECT * FROM batches WHERE id = ?').get(id);
	if (!row) return NO_BATCH;
	const rows = house.db
		.prepare<[string], { n: number; cells: string; fault: string | null }>(
			'SELECT n, cells, fault FROM batch_rows WHERE batch = ? ORDER BY n'
		)
		.all(id);
	return {
		id,
		template: row.template,
		owner: row.owner,
		name: row.name,
		madeAt: row.made_at,
		sheet: {
			columns: JSON.parse(row.columns) as string[],
			rows: rows.map(({ cells }) => JSON.parse(cells) as string[])
		},
		setting: JSON.parse(row.setting) as Setting,
		wanted: row.wanted,
		sent: row.sent,
		running: row.running === 1,
		faults: Object.fromEntries(rows.flatMap(({ n, fault }) => (fault === null ? [] : [[n, fault]])))
	};
}

/** Keeps what was settled. Refuses columns and rows that are not there, and a batch that is being sent. */
export function settle(house: House, id: string, change: Partial<Setting>): Setting | Refusal {
	const batch = readBatch(house, id);
	if (isRefusal(batch)) return batch;
	if (batch.running) return refuse('batch-runs', 'It is being sent. Wait until that is done.');
	const setting = { ...batch.setting, ...change };
	const { columns, rows } = batch.sheet;
	const strange =
		Object.values(setting.mapping).some((column) => column < 0 || column >= columns.length) ||
		[...setting.without, ...setting.chosen].some((n) => n < 0 || n >= rows.length);
	if (strange) return refuse('no-cell', 'The sheet has no such column or row.');
	house.db.prepare('UPDATE batches SET setting = ? WHERE id = ?').run(JSON.stringify(setting), id);
	house.db.prepare('UPDATE batch_rows SET fault = NULL WHERE batch = ?').run(id);
	return setting;
}

/** What becomes of each row, by the template as it is now. */
export function verdictsOf(
	house: House,
	account: Account,
	batch: Batch
): { plan: Plan; title: string; verdicts: Verdict[] } | Refusal {
	const found = planForUse(house, account, batch.template);
	if (isRefusal(found)) return found;
	const verdicts = judged(found.plan, batch.sheet, batch.setting, factsOf(house, account, batch.id));
	return { ...found, verdicts };
}

function factsOf(house: House, account: Account, id: string): Facts {
	const gone = house.db
		.prepare<[string], { who: string; packet: string }>('SELECT who, packet FROM batch_packets WHERE batch = ?')
		.all(id);
	return {
		own: account.email,
		today: isoDay(organisation(house.db).zone, house.now().toISOString()),
		gone: new Map(gone.map(({ who, packet }) => [who, packet]))
	};
}

/** Batches, the newest first. */
export function batches(
	house: House,
	most = 50
): { id: string; name: string; title: string; madeAt: string; rows: number; gone: number; running: number }[] {
	return house.db
		.prepare<
			[number],
			{ id: string; name: string; title: string; madeAt: string; rows: number; gone: number; running: number }
		>(
			`SELECT b.id, b.name, t.title, b.made_at AS madeAt, b.running,
			 (SELECT count(*) FROM batch_rows r WHERE r.batch = b.id) AS rows,
			 (SELECT count(*) FROM batch_packets p WHERE p.batch = b.id) AS gone
			 FROM batches b JOIN templates t ON t.id = b.template ORDER BY b.made_at DESC LIMIT ?`
		)
		.all(most);
}
