import { folded } from '../folded';
import type { ShownRect } from '../page/geometry';
import type { ShownPage, TextRow } from '../page/shown-page';

/** Where words stand on a page, also over the ends of lines: a rectangle for each row that they take. */
export interface Found {
	rows: ShownRect[];
	/** the words with what stands around them */
	before: string;
	words: string;
	after: string;
}

interface At {
	row: TextRow;
	word: TextRow['words'][number];
	/** where it begins in the text of the page */
	from: number;
}

/** How much is told of what stands around, in letters. */
const AROUND = 40;

/** Each place of these words; capitals, accents and where a line ends don't matter. */
export function findAcross(page: ShownPage, wanted: string): Found[] {
	const needle = folded(wanted.trim().replace(/\s+/g, ' '));
	if (needle === '') return [];
	const ats: At[] = [];
	let text = '';
	let plain = '';
	for (const row of page.rows)
		for (const word of row.words) {
			if (text !== '') [text, plain] = [`${text} `, `${plain} `];
			ats.push({ row, word, from: text.length });
			const letters = folded(word.text);
			text += letters;
			// the same length, so that what is found in one is shown of the other
			plain += letters.length === word.text.length ? word.text : letters;
		}
	const found: Found[] = [];
	for (let at = text.indexOf(needle); at >= 0; at = text.indexOf(needle, at + needle.length)) {
		const end = at + needle.length;
		found.push({
			rows: rowsOf(ats, at, end),
			before: plain.slice(Math.max(0, at - AROUND), at),
			words: plain.slice(at, end),
			after: plain.slice(end, end + AROUND)
		});
	}
	return found;
}

function rowsOf(ats: readonly At[], from: number, end: number): ShownRect[] {
	const rows = new Map<TextRow, ShownRect>();
	for (const { row, word, from: begins } of ats) {
		const letters = Math.max(1, folded(word.text).length);
		if (begins >= end || begins + letters <= from) continue;
		const left = word.left + word.width * (Math.max(0, from - begins) / letters);
		const right = word.left + word.width * (Math.min(letters, end - begins) / letters);
		const one = rows.get(row);
		const begin = one ? Math.min(one.left, left) : left;
		const stop = one ? Math.max(one.left + one.width, right) : right;
		rows.set(row, { left: begin, top: row.top, width: stop - begin, height: row.height });
	}
	return [...rows.values()];
}
