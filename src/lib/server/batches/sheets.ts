import {
	matched,
	sheetOf,
	targetsOf,
	headKey,
	type Mapping,
	type Remembered,
	type Sheet,
	type Source
} from '../../core/sheet';
import type { Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { tableInWorker } from '../../press';
import type { Db } from '../db';

/** From a file to a sheet, and what headings meant before. */

const MOST_ROWS = 10_000;
const MOST_COLUMNS = 200;
const MOST_BYTES = 10 * 1024 * 1024;

/** Where a sheet stands: in which file, which sheet of it, where there. */
export interface Origin {
	/** digest of the file; '' of batches from before files were kept */
	file: string;
	kind: 'csv' | 'xlsx';
	/** of a workbook: its sheets, and which this is */
	sheets: string[];
	sheet: string;
	heads: number;
	places: number[];
}

/**
 * The sheet in a file: XLSX or CSV. Refuses `sheet-too-large`, `sheet-too-long`, and whatever `readTable` and `sheetOf` refuse.
 */
export async function readSheet(
	bytes: Uint8Array,
	wanted?: string
): Promise<{ sheet: Sheet; origin: Omit<Origin, 'file'> } | Refusal> {
	if (bytes.length > MOST_BYTES) return refuse('sheet-too-large', 'A sheet may have 10 MB at most.');
	const table = await tableInWorker(bytes, wanted);
	if (isRefusal(table)) return table;
	const sheet = sheetOf(table.lines);
	if (isRefusal(sheet)) return sheet;
	if (sheet.rows.length > MOST_ROWS || sheet.columns.length > MOST_COLUMNS)
		return refuse('sheet-too-long', 'A sheet may have 10,000 rows and 200 columns. Take it in parts.');
	const { kind, sheets, sheet: name } = table;
	return { sheet, origin: { kind, sheets, sheet: name, heads: sheet.heads, places: sheet.places } };
}

/** Which columns are what, as far as can be told. */
export function mappingFor(db: Db, template: string, plan: Plan, sheet: Sheet, documents = false): Mapping {
	const heads = db
		.prepare<[string], { head: string; target: string }>('SELECT head, target FROM sheet_heads WHERE template = ?')
		.all(template);
	const remembered: Remembered = Object.fromEntries(heads.map(({ head, target }) => [head, target]));
	return matched(sheet, targetsOf(plan, documents), plan, remembered);
}

/** Keeps what headings mean with this template, as a person has settled it. */
export function rememberHeads(db: Db, template: string, sheet: Sheet, mapping: Mapping): void {
	const keep = db.prepare(
		'INSERT INTO sheet_heads (template, head, target) VALUES (?, ?, ?) ON CONFLICT DO UPDATE SET target = excluded.target'
	);
	for (const [target, { columns }] of Object.entries(mapping))
		for (const column of columns) {
			const head = headKey(sheet.columns[column] ?? '');
			if (head !== '') keep.run(template, head, target);
		}
}

/** A mapping as it is kept; of older batches each target has the number of its column. */
export function mappingIn(kept: Record<string, Source | number>): Mapping {
	return Object.fromEntries(
		Object.entries(kept).map(([id, source]) => [
			id,
			typeof source === 'number' ? { columns: [source], sure: true } : source
		])
	);
}
