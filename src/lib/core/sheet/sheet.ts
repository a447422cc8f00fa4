/** A table of people and values: headings, and rows of as many cells, all of them texts without blanks round them. */
export interface Sheet {
	columns: string[];
	rows: string[][];
}

/** A table as it was read, first line the headings: blanks off, lines made equally long, empty lines and columns left out. */
export function sheetOf(lines: readonly (readonly string[])[]): Sheet {
	const [first = [], ...rest] = lines.map((line) => line.map((cell) => cell.trim()));
	const width = Math.max(0, ...[first, ...rest].map((line) => line.length));
	const used = Array.from({ length: width }, (_, i) => i).filter((i) => [first, ...rest].some((line) => line[i]));
	return {
		columns: used.map((i) => first[i] ?? ''),
		rows: rest.filter((line) => line.some(Boolean)).map((line) => used.map((i) => line[i] ?? ''))
	};
}
