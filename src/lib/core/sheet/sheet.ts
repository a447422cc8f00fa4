import { isAddress } from '../packet';
import { refuse, type Refusal } from '../refusal';

/** A table of people and values: headings, and rows of as many cells, all of them texts without blanks round them. */
export interface Sheet {
	columns: string[];
	rows: string[][];
	/** where it stands in the file: the line of the headings and of each row, from 1; the place of each column, from 0 */
	heads: number;
	lines: number[];
	places: number[];
}

/** Headings are looked for in so many lines that hold anything. */
const TOP = 15;

const HEADLESS = refuse(
	'sheet-headless',
	'The first line looks like a person, not like headings. Put a line above it that says what each column is.'
);

/**
 * A table as it was read: the headings found, what stands above them left out, blanks off, rows made equally long, empty lines and
 * columns left out. Refuses `sheet-headless`, `sheet-empty`.
 */
export function sheetOf(lines: readonly (readonly string[])[]): Sheet | Refusal {
	const table = lines.map((line) => line.map((cell) => cell.trim()));
	const heads = headsAt(table);
	const [first = [], ...rest] = table.slice(heads);
	if (first.some((cell) => isAddress(cell))) return HEADLESS;
	const width = Math.max(0, ...[first, ...rest].map((line) => line.length));
	const places = Array.from({ length: width }, (_, i) => i).filter((i) => [first, ...rest].some((line) => line[i]));
	const filled = rest.flatMap((line, n) => (line.some(Boolean) ? [{ line, n: heads + n + 2 }] : []));
	if (filled.length === 0)
		return refuse('sheet-empty', 'The sheet has no rows: below its line of headings, one for each person.');
	return {
		columns: places.map((i) => first[i] ?? ''),
		rows: filled.map(({ line }) => places.map((i) => line[i] ?? '')),
		heads: heads + 1,
		lines: filled.map(({ n }) => n),
		places
	};
}

/** The line of the headings, from 0: the first that is about as full as those below it; a title above fills one cell or two. */
function headsAt(table: readonly (readonly string[])[]): number {
	const full = (line: readonly string[]) => line.filter(Boolean).length;
	const top = table.flatMap((line, at) => (full(line) > 0 ? [{ at, full: full(line) }] : [])).slice(0, TOP);
	const widest = Math.max(0, ...top.map((line) => line.full));
	return top.find((line) => line.full * 2 > widest)?.at ?? 0;
}

/** The name of a cell as spreadsheets have it: its column in letters, and its line. */
export function cellName({ places, lines }: Sheet, n: number, column: number): string {
	let letters = '';
	for (let at = places[column]! + 1; at > 0; at = Math.floor((at - 1) / 26))
		letters = String.fromCharCode(65 + ((at - 1) % 26)) + letters;
	return `${letters}${lines[n]}`;
}

/** What each column is called: by its heading; one without, and one of several alike, also by its place. */
export function columnNames({ columns, places }: Sheet): string[] {
	const letter = (i: number) =>
		cellName({ columns, places, rows: [], heads: 0, lines: [] }, 0, i).replace('undefined', '');
	return columns.map((head, i) =>
		head === ''
			? `Column ${letter(i)}`
			: columns.filter((one) => one.toLowerCase() === head.toLowerCase()).length > 1
				? `${head} (${letter(i)})`
				: head
	);
}
