import { Type } from '@sinclair/typebox';
import { cutText, oneLine } from '../../core/clean-text';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { filterFault, type Mapping, type Setting, type Sheet } from '../../core/sheet';
import type { Account } from '../accounts';
import { keepBlob, readBlob } from '../blobs';
import { border } from '../border';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { dropUnused } from '../sweeping';
import { planForUse } from '../templates';
import { mappingFor, mappingIn, readSheet, rememberHeads, type Origin } from './sheets';

/** Sheets and what has been settled about them; `running` sends them. */

/** Whether rows of it go now: it rests until somebody starts it, goes, or was told to pause. */
export type Going = 'rests' | 'goes' | 'pauses';
/** By `running`; the last two begin: what is to go is being kept, none has gone. */
const GOING: readonly Going[] = ['rests', 'goes', 'pauses', 'goes', 'pauses'];
export const BEGINS = 3;

export interface Batch {
	id: string;
	template: string;
	owner: string;
	name: string;
	madeAt: string;
	/** with what was put right in its cells */
	sheet: Sheet;
	origin: Origin;
	setting: Setting;
	/** the last run: how many were to go, how many have, how many could not, since when */
	wanted: number | null;
	sent: number | null;
	failed: number;
	beganAt: string | null;
	/** why the last run ended before its end; '' where it did not */
	stopped: string;
	going: Going;
	/** what is to go is being kept as it was shown; none has gone yet */
	begins: boolean;
	/** rows may have documents of their own: some were given */
	documents: boolean;
	revision: number;
	/** why rows did not go when they were tried, by their place */
	faults: Record<number, string>;
	/** what a cell was before it was put right, by `row column` */
	before: Record<string, string>;
	/** rows of the run that is under way which have not gone yet */
	due: ReadonlySet<number>;
}

interface Row {
	id: string;
	template: string;
	owner: string;
	name: string;
	made_at: string;
	columns: string;
	setting: string;
	origin: string;
	file: string;
	revision: number;
	wanted: number | null;
	sent: number | null;
	failed: number;
	began_at: string | null;
	stopped: string;
	running: number;
}

export const NO_BATCH = refuse('no-batch', 'There is no such batch.');
const RUNS = refuse('batch-runs', 'It is being sent. Pause or stop that first.');

/** A batch of a sheet and a template; its columns are matched as well as can be, to be put right by hand. */
export async function newBatch(
	house: House,
	account: Account,
	template: string,
	name: string,
	bytes: Uint8Array
): Promise<{ id: string } | Refusal> {
	const found = planForUse(house, account, template);
	if (isRefusal(found)) return found;
	const read = await readSheet(bytes);
	if (isRefusal(read)) return read;
	const id = newId(house.now());
	const setting: Setting = {
		mapping: mappingFor(house.db, template, found.plan, read.sheet),
		values: {},
		filter: '',
		without: [],
		chosen: []
	};
	inTransaction(house.db, () => {
		house.db
			.prepare(
				'INSERT INTO batches (id, template, owner, name, made_at, columns, setting) VALUES (?, ?, ?, ?, ?, ?, ?)'
			)
			.run(id, template, account.id, cutText(oneLine(name), 200), house.now().toISOString(), '[]', '{}');
		write(house, id, read, bytes, setting);
	});
	return { id };
}

/** Puts a sheet in the place of the one before. */
function write(
	house: House,
	id: string,
	{ sheet, origin }: { sheet: Sheet; origin: Omit<Origin, 'file'> },
	bytes: Uint8Array,
	setting: Setting
): void {
	const media =
		origin.kind === 'csv' ? 'text/csv' : 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
	const file = keepBlob(house.db, bytes, media, house.now());
	const before = house.db.prepare<[string], string>('SELECT file FROM batches WHERE id = ?').pluck().get(id);
	house.db
		.prepare('UPDATE batches SET columns = ?, setting = ?, origin = ?, file = ?, revision = revision + 1 WHERE id = ?')
		.run(JSON.stringify(sheet.columns), JSON.stringify(setting), JSON.stringify(origin), file, id);
	// what the sheet before said of people is nobody's business any more
	if (before && before !== file) dropUnused(house, before);
	house.db.prepare('DELETE FROM batch_rows WHERE batch = ?').run(id);
	const row = house.db.prepare('INSERT INTO batch_rows (batch, n, line, cells) VALUES (?, ?, ?, ?)');
	sheet.rows.forEach((cells, n) => row.run(id, n, sheet.lines[n]!, JSON.stringify(cells)));
}

/**
 * A newer sheet takes the place of the one before, or another sheet of the same workbook does; who has had theirs is known by
 * address, and is left out.
 */
export async function replaceSheet(
	house: House,
	account: Account,
	id: string,
	bytes: Uint8Array,
	wanted?: string
): Promise<Refusal | null> {
	const batch = readBatch(house, id);
	if (isRefusal(batch)) return batch;
	if (batch.going !== 'rests') return RUNS;
	const found = planForUse(house, account, batch.template);
	if (isRefusal(found)) return found;
	const read = await readSheet(bytes, wanted);
	if (isRefusal(read)) return read;
	const { sheet } = read;
	const same = JSON.stringify(sheet.columns) === JSON.stringify(batch.sheet.columns);
	const mapping = same
		? batch.setting.mapping
		: mappingFor(house.db, batch.template, found.plan, sheet, batch.documents);
	const filter = filterFault(sheet, batch.setting.filter) ? '' : batch.setting.filter;
	return inTransaction(house.db, () => {
		// it may have been started while the file was read
		const now = house.db.prepare<[string], number>('SELECT running FROM batches WHERE id = ?').pluck().get(id);
		if (now !== 0) return RUNS;
		write(house, id, read, bytes, { ...batch.setting, mapping, filter, without: [], chosen: [] });
		return null;
	});
}

/** Another sheet of the same workbook. */
export async function chooseSheet(house: House, account: Account, id: string, sheet: string): Promise<Refusal | null> {
	const batch = readBatch(house, id);
	if (isRefusal(batch)) return batch;
	const file = readBlob(house.db, batch.origin.file);
	if (!file) return refuse('no-file', 'The file is not kept any more. Take it in once more.');
	return replaceSheet(house, account, id, new Uint8Array(file.bytes), sheet);
}

const hasDocuments = (house: House, batch: string): boolean =>
	house.db.prepare('SELECT 1 FROM batch_documents WHERE batch = ? LIMIT 1').get(batch) !== undefined;

export function readBatch(house: House, id: string): Batch | Refusal {
	const row = house.db.prepare<[string], Row>('SELECT * FROM batches WHERE id = ?').get(id);
	if (!row) return NO_BATCH;
	const rows = house.db
		.prepare<
			[string],
			{ n: number; line: number; cells: string; righted: string | null; fault: string | null; due: 0 | 1 }
		>('SELECT n, line, cells, righted, fault, given IS NOT NULL AS due FROM batch_rows WHERE batch = ? ORDER BY n')
		.all(id);
	const columns = JSON.parse(row.columns) as string[];
	const origin = {
		...{ kind: 'csv', sheets: [], sheet: '', heads: 1, places: columns.map((_, i) => i) },
		...(JSON.parse(row.origin) as Partial<Origin>),
		file: row.file
	} as Origin;
	const setting = JSON.parse(row.setting) as Setting;
	const before: Record<string, string> = {};
	const cells = rows.map(({ n, cells, righted }) => {
		const texts = JSON.parse(cells) as string[];
		for (const [column, text] of Object.entries(JSON.parse(righted ?? '{}') as Record<string, string>)) {
			before[`${n} ${column}`] = texts[Number(column)] ?? '';
			texts[Number(column)] = text;
		}
		return texts;
	});
	return {
		id,
		template: row.template,
		owner: row.owner,
		name: row.name,
		madeAt: row.made_at,
		sheet: {
			columns,
			rows: cells,
			heads: origin.heads,
			lines: rows.map(({ n, line }) => line || n + 2),
			places: origin.places
		},
		origin,
		setting: { ...setting, values: setting.values ?? {}, mapping: mappingIn(setting.mapping) },
		wanted: row.wanted,
		sent: row.sent,
		failed: row.failed,
		beganAt: row.began_at,
		stopped: row.stopped,
		going: GOING[row.running] ?? 'rests',
		begins: row.running >= BEGINS,
		documents: hasDocuments(house, id),
		revision: row.revision,
		faults: Object.fromEntries(rows.flatMap(({ n, fault }) => (fault === null ? [] : [[n, fault]]))),
		before,
		due: new Set(rows.filter(({ due }) => due === 1).map(({ n }) => n))
	};
}

const Letter = border(
	Type.Object({ subject: Type.String({ maxLength: 200 }), message: Type.String({ maxLength: 4000 }) })
);

/** Keeps what was settled. Refuses columns and rows that are not there, and a batch that is being sent. */
export function settle(house: House, id: string, change: Partial<Setting>): Setting | Refusal {
	const batch = readBatch(house, id);
	if (isRefusal(batch)) return batch;
	if (batch.going !== 'rests') return RUNS;
	const setting = { ...batch.setting, ...change };
	const { columns, rows } = batch.sheet;
	const strange =
		Object.values(setting.mapping).some(
			(source) =>
				source.columns.length === 0 || source.columns.some((i) => !Number.isInteger(i) || i < 0 || i >= columns.length)
		) || [...setting.without, ...setting.chosen].some((n) => n < 0 || n >= rows.length);
	if (strange) return refuse('no-cell', 'The sheet has no such column or row.');
	const letter = setting.letter && Letter(setting.letter);
	if (letter && isRefusal(letter)) return letter;
	inTransaction(house.db, () => {
		house.db
			.prepare('UPDATE batches SET setting = ?, revision = revision + 1 WHERE id = ?')
			.run(JSON.stringify(setting), id);
		house.db.prepare('UPDATE batch_rows SET fault = NULL WHERE batch = ?').run(id);
		if (change.mapping)
			rememberHeads(house.db, batch.template, batch.sheet, changedIn(batch.setting.mapping, change.mapping));
	});
	return setting;
}

/** What a person has said of columns, and not only left as it was. */
const changedIn = (before: Mapping, now: Mapping): Mapping =>
	Object.fromEntries(
		Object.entries(now).filter(
			([id, { columns, sure }]) =>
				JSON.stringify([before[id]?.columns, before[id]?.sure]) !== JSON.stringify([columns, sure])
		)
	);

/** Puts a cell right in place; the file keeps what it says, and the sheet back says both. */
export function putRight(house: House, id: string, n: number, column: number, text: string): Refusal | null {
	const batch = readBatch(house, id);
	if (isRefusal(batch)) return batch;
	if (batch.going !== 'rests') return RUNS;
	if (batch.sheet.rows[n]?.[column] === undefined) return refuse('no-cell', 'The sheet has no such column or row.');
	return inTransaction(house.db, () => {
		const kept = house.db
			.prepare<[string, number], { cells: string; righted: string | null }>(
				'SELECT cells, righted FROM batch_rows WHERE batch = ? AND n = ?'
			)
			.get(id, n)!;
		const { [column]: _before, ...rest } = JSON.parse(kept.righted ?? '{}') as Record<string, string>;
		const said = cutText(oneLine(text).trim(), 1000);
		const righted = said === (JSON.parse(kept.cells) as string[])[column] ? rest : { ...rest, [column]: said };
		house.db
			.prepare('UPDATE batch_rows SET righted = ?, fault = NULL WHERE batch = ? AND n = ?')
			.run(Object.keys(righted).length > 0 ? JSON.stringify(righted) : null, id, n);
		house.db.prepare('UPDATE batches SET revision = revision + 1 WHERE id = ?').run(id);
		return null;
	});
}

/** The batches of an account, the newest first. */
export function batches(
	house: House,
	account: Account,
	most = 50
): { id: string; name: string; title: string; madeAt: string; rows: number; gone: number; running: number }[] {
	return house.db
		.prepare<
			[string, number],
			{ id: string; name: string; title: string; madeAt: string; rows: number; gone: number; running: number }
		>(
			`SELECT b.id, b.name, t.title, b.made_at AS madeAt, b.running,
			 (SELECT count(*) FROM batch_rows r WHERE r.batch = b.id) AS rows,
			 (SELECT count(*) FROM batch_packets p WHERE p.batch = b.id) AS gone
			 FROM batches b JOIN templates t ON t.id = b.template WHERE b.owner = ? ORDER BY b.made_at DESC LIMIT ?`
		)
		.all(account.id, most);
}
