import { plainBookInWorker } from '../press';
import { csvForSpreadsheets } from './csv';

/** A file that leaves the house. */
export interface Leaving {
	bytes: Uint8Array;
	media: string;
	name: string;
}

/** Rows as CSV (RFC 4180) or as a workbook; nothing of either runs as a formula. */
export async function asFile(title: string, columns: string[], rows: string[][], as: string): Promise<Leaving> {
	if (as === 'xlsx')
		return {
			bytes: await plainBookInWorker({ title, columns, rows }),
			media: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
			name: `${title}.xlsx`
		};
	const text = csvForSpreadsheets(columns, rows);
	return { bytes: new TextEncoder().encode(text), media: 'text/csv; charset=utf-8', name: `${title}.csv` };
}
