import type { ShownRect } from '../geometry';
import type { ShownPage, ShownWord } from '../shown-page';
import type { Blank } from './blanks';

const text = (words: ShownWord[]): string => words.map((w) => w.text).join(' ');
const lettered = (words: ShownWord[]): boolean => words.some((w) => /\p{L}/u.test(w.text.replace(/_+/g, '')));

/**
 * The words that say what a blank is for, and all words near it. For squares those at the right, then the left; for
 * lines those at the left, else the small print below, else above; for cells what stands in them, left of them, above.
 */
export function labelOf(page: ShownPage, blank: Blank, all: Blank[]): { label: string; near: string } {
	const right = () => rightOf(page, blank, all);
	const left = () => leftOf(page, blank, all);
	const below = () => beside(page, blank, blank.top + blank.height, 15, all);
	const above = () => beside(page, blank, blank.top, -17, all);
	const order =
		blank.by === 'square' || blank.by === 'ring'
			? [right, left]
			: blank.by === 'cell' || blank.by === 'letters'
				? [insideAbove(page, blank), left, () => headOf(page, blank), above]
				: [left, below, above];
	let label = '';
	for (const look of order) {
		label = look();
		if (label !== '') break;
	}
	const context = text(
		page.words.filter(
			(w) =>
				w.top < blank.top + blank.height + 16 &&
				w.top > blank.top - 150 &&
				w.left < blank.left + blank.width &&
				w.left + w.width > blank.left - 130
		)
	);
	return { label, near: `${label} ${context}` };
}

/** A blank is named by words on its own row, up to the blank before it or a wide gap. */
function leftOf(page: ShownPage, blank: Blank, all: Blank[]): string {
	const base = blank.top + blank.height - 2;
	const stop = Math.max(
		0,
		...all
			.filter(
				(b) =>
					b !== blank && Math.abs(b.top + b.height - blank.top - blank.height) < 8 && b.left + b.width <= blank.left + 2
			)
			.map((b) => b.left + b.width - 1)
	);
	const row = page.words
		.filter((w) => {
			const middle = w.top + w.height / 2;
			const level =
				blank.by === 'cell' || blank.by === 'letters'
					? middle > blank.top - 2 && middle < blank.top + blank.height + 2
					: middle > base - 12 && middle < base + 4;
			return level && w.left + 1 < blank.left && w.left >= stop - 1;
		})
		.sort((a, b) => b.left - a.left);
	const words: ShownWord[] = [];
	let edge = blank.left;
	for (const word of row) {
		const gap = edge - word.left - word.width;
		if (gap > (words.length === 0 ? 90 : 16) || words.length >= 9) break;
		words.unshift(word);
		edge = word.left;
	}
	const label = text(words).replace(/_{2,}.*$/, '');
	return lettered(words) ? lastSentence(label) : '';
}

/** A label is the end of what leads to it: of "…agreed between us. The fee is", "The fee is". */
function lastSentence(label: string): string {
	const parts = label.split(/(?<=[.;!?)])\s+/);
	return parts[parts.length - 1]!;
}

function rightOf(page: ShownPage, blank: Blank, all: Blank[]): string {
	const middle = blank.top + blank.height / 2;
	const right = blank.left + blank.width;
	const stop = Math.min(
		page.width,
		...all
			.filter((b) => b !== blank && Math.abs(b.top + b.height / 2 - middle) < 7 && b.left > right)
			.map((b) => b.left)
	);
	const row = page.words
		.filter((w) => Math.abs(w.top + w.height / 2 - middle) < 7 && w.left > right - 2 && w.left + w.width <= stop + 1)
		.sort((a, b) => a.left - b.left);
	const words: ShownWord[] = [];
	let edge = right;
	for (const word of row) {
		if (word.left - edge > 22 || words.length >= 12) break;
		words.push(word);
		edge = word.left + word.width;
	}
	return text(words);
}

/** Words right above (`reach` below 0) or below a line, within its width. */
function beside(page: ShownPage, blank: Blank, from: number, reach: number, all: Blank[]): string {
	const words = page.words
		.filter((w) => {
			const middle = w.top + w.height / 2;
			const level = reach > 0 ? middle > from && middle < from + reach : middle < from + 2 && middle > from + reach;
			return (
				level &&
				w.left > blank.left - 6 &&
				w.left < blank.left + blank.width &&
				!all.some((b) => b !== blank && b.by !== 'rule' && inside(w, b))
			);
		})
		.sort((a, b) => a.top - b.top || a.left - b.left);
	const words2 = words.filter((w, i) => i === 0 || Math.abs(w.top - words[0]!.top) < 6);
	return lettered(words2) && words2.length <= 10 ? text(words2) : '';
}

function inside(word: ShownWord, blank: ShownRect): boolean {
	const [x, y] = [word.left + word.width / 2, word.top + word.height / 2];
	return x > blank.left && x < blank.left + blank.width && y > blank.top && y < blank.top + blank.height;
}

/** The label printed at the top of the same cell, of which the blank is the rest. */
function insideAbove(page: ShownPage, blank: Blank): () => string {
	return () => {
		const words = page.words
			.filter(
				(w) =>
					w.top + w.height <= blank.top + 1.5 &&
					w.top + w.height > blank.top - 4 &&
					w.left > blank.left - 3 &&
					w.left + w.width < blank.left + blank.width + 3
			)
			.sort((a, b) => a.left - b.left);
		return lettered(words) && words.length <= 8 ? text(words) : '';
	};
}

/** The heading of a table's column: the nearest words above within the cell's width. */
function headOf(page: ShownPage, blank: Blank): string {
	const over = page.words.filter(
		(w) =>
			w.top + w.height < blank.top + 1 &&
			w.top > blank.top - 260 &&
			w.left >= blank.left - 4 &&
			w.left + w.width <= blank.left + blank.width + 4
	);
	if (over.length === 0) return '';
	const lowest = Math.max(...over.map((w) => w.top));
	const words = over.filter((w) => Math.abs(w.top - lowest) < 6).sort((a, b) => a.left - b.left);
	return lettered(words) && words.length <= 6 ? text(words) : '';
}
