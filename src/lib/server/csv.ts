import Papa from 'papaparse';

/** A cell that a spreadsheet would run as a formula, led by an apostrophe; a negative number is none. */
function harmlessCell(cell: string): string {
	return /^[=+\-@\t\r]/.test(cell) && !/^-?\d+(\.\d+)?$/.test(cell) ? `'${cell}` : cell;
}

/** Rows as CSV (RFC 4180). A cell that a spreadsheet would run as a formula is led by an apostrophe. */
export function harmlessCsv(columns: string[], rows: string[][]): string {
	const data = rows.map((row) => row.map(harmlessCell));
	return `${Papa.unparse({ fields: columns.map(harmlessCell), data }, { newline: '\r\n' })}\r\n`;
}

/** The same for a spreadsheet, led by the mark by which those know UTF-8. */
export const csvForSpreadsheets = (columns: string[], rows: string[][]): string =>
	`\uFEFF${harmlessCsv(columns, rows)}`;
