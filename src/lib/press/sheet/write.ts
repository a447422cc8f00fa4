import { workbook } from './workbook';

/** What is added to a workbook that goes back: heads and cells behind its own columns, by the line of the file they stand in. */
export interface Added {
	/** the workbook as it came */
	bytes: Uint8Array;
	sheet: string;
	/** the line of the headings, from 1 */
	heads: number;
	columns: string[];
	/** by the line of the file, from 1 */
	cells: { line: number; texts: string[] }[];
}

/** The same workbook with columns behind its own. What is written is typed as text, so that nothing of it runs as a formula. */
export async function addColumns({ bytes, sheet, heads, columns, cells }: Added): Promise<Uint8Array> {
	const book = await workbook();
	await book.xlsx.load(Buffer.from(bytes) as unknown as ArrayBuffer);
	const found = book.getWorksheet(sheet)!;
	const first = found.actualColumnCount === 0 ? 1 : found.columnCount + 1;
	const put = (line: number, texts: string[], bold = false) =>
		texts.forEach((text, i) => {
			const cell = found.getCell(line, first + i);
			cell.value = text;
			cell.numFmt = '@';
			if (bold) cell.font = { bold: true };
		});
	put(heads, columns, true);
	for (const { line, texts } of cells) put(line, texts);
	columns.forEach((_, i) => (found.getColumn(first + i).width = 24));
	return new Uint8Array(await book.xlsx.writeBuffer());
}

/** Rows under their heads. */
export interface Plain {
	title: string;
	columns: string[];
	rows: string[][];
}

/** That as a workbook; every cell is typed as text, so that nothing runs as a formula. */
export async function plainBook({ title, columns, rows }: Plain): Promise<Uint8Array> {
	const book = await workbook();
	book.title = title;
	const sheet = book.addWorksheet('Cases', { views: [{ state: 'frozen', ySplit: 1 }] });
	sheet.columns = columns.map((header) => ({ header, width: 24, style: { numFmt: '@' } }));
	sheet.getRow(1).font = { bold: true };
	sheet.addRows(rows);
	return new Uint8Array(await book.xlsx.writeBuffer());
}

/** A sheet to be filled in: heads, an example, and a second sheet that says what each column takes. */
export interface Ready {
	title: string;
	columns: {
		head: string;
		example: string;
		/** what it takes, in a sentence */
		takes: string;
		needed: boolean;
		/** what there is to choose from */
		choices?: string[];
	}[];
}

const MOST_LISTED = 2000;

/** That sheet as a workbook: one empty row below the example, choices as lists that the cells are checked against. */
export async function readyBook({ title, columns }: Ready): Promise<Uint8Array> {
	const book = await workbook();
	book.title = title;
	const sheet = book.addWorksheet('People', { views: [{ state: 'frozen', ySplit: 1 }] });
	sheet.columns = columns.map(({ head }) => ({ header: head, width: Math.min(40, Math.max(16, head.length + 4)) }));
	sheet.getRow(1).font = { bold: true };
	sheet.addRow(columns.map(({ example }) => example)).font = { italic: true };
	const told = book.addWorksheet('What each column takes');
	told.columns = [
		{ header: 'Column', width: 32 },
		{ header: 'Takes', width: 72 },
		{ header: 'Needed', width: 10 }
	];
	told.getRow(1).font = { bold: true };
	for (const { head, takes, needed } of columns) told.addRow([head, takes, needed ? 'yes' : 'no']);
	told.addRow([]);
	told.addRow(['The second row of the first sheet is an example: write over it.']);
	// a list in a cell's own check may have 255 letters at most: the choices stand in a sheet of their own
	const listed = columns.flatMap((column, i) =>
		column.choices?.length ? [{ choices: column.choices, at: i + 1 }] : []
	);
	if (listed.length > 0) {
		const lists = book.addWorksheet('Choices');
		listed.forEach(({ choices, at }, i) => {
			const head = lists.getCell(1, i + 1);
			head.value = columns[at - 1]!.head;
			head.font = { bold: true };
			choices.forEach((choice, n) => (lists.getCell(n + 2, i + 1).value = choice));
			const letter = lists.getColumn(i + 1).letter;
			for (let line = 2; line <= MOST_LISTED; line++)
				sheet.getCell(line, at).dataValidation = {
					type: 'list',
					allowBlank: true,
					formulae: [`Choices!$${letter}$2:$${letter}$${choices.length + 1}`]
				};
		});
	}
	return new Uint8Array(await book.xlsx.writeBuffer());
}
