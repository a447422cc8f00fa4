import type ExcelJS from 'exceljs';
import { strFromU8 } from 'fflate';
import Papa from 'papaparse';
import { refuse, type Refusal } from '../../core/refusal';
import { unfold } from '../unfold';
import { workbook } from './workbook';

/** A table as it stands in a file: lines of texts, the first of the file at 0. */
export interface Table {
	/** `csv`, or a workbook */
	kind: 'csv' | 'xlsx';
	/** the sheets of a workbook, and which of them this is; '' in a CSV file */
	sheets: string[];
	sheet: string;
	lines: string[][];
}

export const MOST_ROWS = 10_000;
export const MOST_COLUMNS = 200;
const MOST_LINES = MOST_ROWS + 20;
const MOST_INSIDE = { bytes: 150 * 1024 * 1024, parts: 2000 };

export const TOO_LONG = refuse(
	'sheet-too-long',
	'A sheet may have 10,000 rows and 200 columns. Take it in parts, or take out columns that nothing needs.'
);
const NO_TABLE = refuse(
	'sheet-unreadable',
	'This is no table that can be read. Save the sheet as XLSX or CSV, and take that.'
);

/**
 * The table in a file: a workbook (ECMA-376, XLSX), or values between commas, semicolons, tabs or bars (RFC 4180) in UTF-8, UTF-16
 * or Windows-1252. Numbers, days and formulas come as a person reads them: 1234.5, 2026-12-24, the last value. Refuses
 * `sheet-unreadable`, `sheet-shut` (a password, or the format of before 2007), `sheet-too-heavy` (a bomb), `sheet-too-long`,
 * `no-such-sheet`.
 */
export async function readTable({ bytes, sheet }: { bytes: Uint8Array; sheet?: string }): Promise<Table | Refusal> {
	if (starts(bytes, [0x50, 0x4b])) return readBook(bytes, sheet);
	// a compound file: how workbooks with a password lie, and those of before 2007
	if (starts(bytes, [0xd0, 0xcf, 0x11, 0xe0]))
		return refuse(
			'sheet-shut',
			'This workbook is shut with a password, or older than XLSX. Save it as XLSX without a password.'
		);
	const text = decoded(bytes);
	if (text.includes('\u0000')) return NO_TABLE;
	const { data } = Papa.parse<string[]>(text, { preview: MOST_LINES + 1, delimiter: separatorOf(text) });
	const lines = data.map((line) => (line.length === 1 && line[0]!.trim() === '' ? [] : line));
	while (lines.length > 0 && lines.at(-1)!.length === 0) lines.pop();
	if (lines.length > MOST_LINES || lines.some((line) => line.length > MOST_COLUMNS)) return TOO_LONG;
	return { kind: 'csv', sheets: [], sheet: '', lines };
}

const starts = (bytes: Uint8Array, mark: number[]) => mark.every((byte, i) => bytes[i] === byte);

/** UTF-16 by its mark (RFC 2781) or by its zeros, UTF-8 where it is that, else what Western spreadsheets write. */
function decoded(bytes: Uint8Array): string {
	if (starts(bytes, [0xff, 0xfe])) return new TextDecoder('utf-16le').decode(bytes);
	if (starts(bytes, [0xfe, 0xff])) return new TextDecoder('utf-16be').decode(bytes);
	const head = bytes.subarray(0, 200);
	const zeros = (odd: number) => head.filter((byte, i) => i % 2 === odd && byte === 0).length;
	if (zeros(1) > head.length / 4) return new TextDecoder('utf-16le').decode(bytes);
	if (zeros(0) > head.length / 4) return new TextDecoder('utf-16be').decode(bytes);
	try {
		return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
	} catch {
		return new TextDecoder('windows-1252').decode(bytes);
	}
}

const SEPARATORS = [',', ';', '\t', '|'];

/** What stands between the values: that by which most of the first lines fall into equally many, whatever titles stand above. */
function separatorOf(text: string): string {
	const head = text.slice(0, 65_536);
	const scores = SEPARATORS.map((delimiter) => {
		const { data } = Papa.parse<string[]>(head, { delimiter, preview: 30, skipEmptyLines: 'greedy' });
		const times = new Map<number, number>();
		for (const { length } of data) if (length > 1) times.set(length, (times.get(length) ?? 0) + 1);
		const [width, lines] = [...times].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0] ?? [0, 0];
		return { delimiter, score: lines * 1000 + width };
	});
	return scores.sort((a, b) => b.score - a.score)[0]!.delimiter;
}

async function readBook(bytes: Uint8Array, wanted?: string): Promise<Table | Refusal> {
	const parts = unfold(bytes, MOST_INSIDE);
	if (parts === 'broken') return NO_TABLE;
	if (parts === 'heavy')
		return refuse(
			'sheet-too-heavy',
			'The workbook unfolds to more than is permitted. Save only the sheet that is needed.'
		);
	if (!parts.has('xl/workbook.xml')) return NO_TABLE;
	// a million rows would be read for minutes before they were counted
	for (const [name, part] of parts)
		if (/^xl\/worksheets\/[^/]+\.xml$/.test(name) && countOf(strFromU8(part), '<row', MOST_LINES) > MOST_LINES)
			return TOO_LONG;
	const book = await workbook();
	try {
		await book.xlsx.load(Buffer.from(bytes) as unknown as ArrayBuffer, { ignoreNodes: IGNORED });
	} catch {
		return NO_TABLE;
	}
	const seen = book.worksheets.filter((one) => one.state === 'visible');
	const sheets = (seen.length > 0 ? seen : book.worksheets).map((one) => one.name);
	// the first that holds anything, where nobody has said
	const name = wanted ?? sheets.find((one) => book.getWorksheet(one)!.actualRowCount > 0) ?? sheets[0];
	const found = name === undefined ? undefined : book.worksheets.find((one) => one.name === name);
	if (!found) return refuse('no-such-sheet', 'The workbook has no sheet of this name.');
	if (found.columnCount > MOST_COLUMNS && found.actualColumnCount > MOST_COLUMNS) return TOO_LONG;
	const lines: string[][] = [];
	found.eachRow({ includeEmpty: false }, (row, number) => {
		while (lines.length < number - 1 && lines.length < MOST_LINES) lines.push([]);
		const line: string[] = [];
		row.eachCell({ includeEmpty: false }, (cell, column) => {
			if (column > MOST_COLUMNS) return;
			while (line.length < column - 1) line.push('');
			// of cells drawn as one, only the first holds it
			line.push(cell.isMerged && cell.master !== cell ? '' : written(cell.value, cell.numFmt));
		});
		if (lines.length < MOST_LINES) lines.push(line);
	});
	return { kind: 'xlsx', sheets, sheet: found.name, lines };
}

const IGNORED = [
	'conditionalFormatting',
	'dataValidations',
	'drawing',
	'picture',
	'extLst',
	'pageSetup',
	'headerFooter'
];

function countOf(text: string, what: string, most: number): number {
	let n = 0;
	for (let at = text.indexOf(what); at >= 0 && n <= most; at = text.indexOf(what, at + what.length)) n++;
	return n;
}

/** A cell as a person reads it, without what the machine adds: days as ISO 8601, numbers with a full stop and no grouping. */
function written(value: ExcelJS.CellValue, format = ''): string {
	if (value === null || value === undefined) return '';
	if (value instanceof Date) {
		const iso = Number.isNaN(value.getTime()) ? '' : value.toISOString();
		return iso.endsWith('T00:00:00.000Z') || !/h/i.test(format) ? iso.slice(0, 10) : iso.slice(0, 16).replace('T', ' ');
	}
	if (typeof value === 'number') return String(Number(value.toPrecision(15)));
	if (typeof value === 'boolean') return value ? 'yes' : 'no';
	if (typeof value === 'string') return value;
	if ('richText' in value) return value.richText.map(({ text }) => text).join('');
	if ('hyperlink' in value)
		return typeof value.text === 'string' ? value.text : written(value.text as ExcelJS.CellValue);
	if ('error' in value) return '';
	if ('result' in value || 'formula' in value || 'sharedFormula' in value)
		return written((value as { result?: ExcelJS.CellValue }).result, format);
	return '';
}
