import ExcelJS from 'exceljs';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { csv, stewards } from '../demo/stewards';

/** The sheets of the scenario, as files to try: `npx tsx scripts/sheets.ts` writes them anew. */
const here = path.resolve('demo/sheets');

/** A thousand stewards as a workbook: a title above, names in two columns, a day typed, one address that can't be. */
async function thousand(): Promise<Uint8Array> {
	const book = new ExcelJS.Workbook();
	book.created = new Date('2026-11-20T09:00:00Z');
	const sheet = book.addWorksheet('Stewards');
	sheet.addRow(['Stewards of the winter tour 2026']);
	sheet.addRow([]);
	sheet.addRow(['First name', 'Surname', 'Mail (private)', 'Shift', 'From']);
	for (let i = 0; i < 1000; i++)
		sheet.addRow([
			'Steward',
			`No. ${i + 1}`,
			i === 417 ? 'steward418@post' : `steward${i + 1}@post.example`,
			i % 2 === 0 ? 'early' : 'late',
			new Date(Date.UTC(2026, 11, 1 + (i % 20)))
		]);
	return new Uint8Array(await book.xlsx.writeBuffer());
}

writeFileSync(path.join(here, 'stewards-64.csv'), csv(stewards()));
writeFileSync(path.join(here, 'stewards-1000.xlsx'), await thousand());
