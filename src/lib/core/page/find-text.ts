import { folded } from '../folded';
import type { ShownRect } from './geometry';
import type { ShownPage, TextRow } from './shown-page';

/** Where a text stands on a page: the rectangle round it, as shown. */
export interface TextHit {
	rect: ShownRect;
	/** the row's words with the hit among them */
	around: string;
}

/** Every place of a text on a page, row by row; capitals and accents don't matter. A hit may run over several words. */
export function findText(page: ShownPage, wanted: string): TextHit[] {
	const needle = folded(wanted.trim().replace(/\s+/g, ' '));
	if (needle === '') return [];
	return page.rows.flatMap((row) => hitsIn(row, needle));
}

function hitsIn(row: TextRow, needle: string): TextHit[] {
	// where each word begins in the row's text, a blank between two
	const starts: number[] = [];
	let text = '';
	for (const word of row.words) {
		if (text !== '') text += ' ';
		starts.push(text.length);
		text += folded(word.text);
	}
	const hits: TextHit[] = [];
	for (let at = text.indexOf(needle); at >= 0; at = text.indexOf(needle, at + needle.length)) {
		const left = edge(row, starts, at, false);
		const right = edge(row, starts, at + needle.length, true);
		hits.push({
			rect: { left, top: row.top, width: Math.max(1, right - left), height: row.height },
			around: row.words.map((w) => w.text).join(' ')
		});
	}
	return hits;
}

/** The place of a letter: within its word by the word's average width of a letter. */
function edge(row: TextRow, starts: number[], at: number, end: boolean): number {
	let i = starts.findLastIndex((start) => (end ? start < at : start <= at));
	i = Math.max(0, i);
	const word = row.words[i]!;
	const letters = Math.max(1, [...word.text].length);
	return word.left + word.width * Math.min(1, Math.max(0, at - starts[i]!) / letters);
}
