import type { ShownRect } from '../geometry';
import type { ShownPage, ShownWord } from '../shown-page';
import type { Blank, Blanks } from './blanks';
import { cellAbove } from './cells';
import { inReadingOrder, type Segment } from './segments';

const text = (words: ShownWord[]): string =>
	inReadingOrder(words)
		.map((w) => w.text)
		.join(' ');
const lettered = (words: ShownWord[]): boolean => words.some((w) => /\p{L}/u.test(w.text.replace(/_+/g, '')));

/**
 * The words that say what a blank is for. For squares those at the right, then the left; for lines those at the left, else
 * the small print below, else above, else what ends the row before; for cells what stands in them, left of them, at the
 * head of their column, above, below.
 */
export function labelOf(page: ShownPage, blank: Blank, { blanks: all, cells }: Blanks, segments: Segment[]): string {
	const right = () => rightOf(page, blank, all);
	const left = () => leftOf(page, blank, all);
	const below = () => beside(page, blank, blank.top + blank.height, 15, all);
	const above = () => beside(page, blank, blank.top, -17, all);
	const order =
		blank.by === 'square' || blank.by === 'ring'
			? [right, left]
			: blank.by === 'room'
				? [left]
				: blank.by === 'cell' || blank.by === 'letters'
					? [insideAbove(page, blank), left, () => headOf(page, blank, cells), above, below]
					: [left, below, above, () => wrappedOf(blank, segments, all)];
	for (const look of order) {
		const label = look();
		if (label !== '') return label;
	}
	return '';
}

/** A label that ends the row above, whose line had no room there and begins at the margin. */
function wrappedOf(blank: Blank, segments: Segment[], all: Blank[]): string {
	const margin = Math.min(...segments.map((s) => s.left));
	if (blank.left > margin + 40) return '';
	const base = blank.top + blank.height - 2;
	const row = segments.filter((s) => s.base < base - 8 && s.base > base - 40);
	const nearest = Math.max(...row.map((s) => s.base));
	const last = row.filter((s) => s.base === nearest).sort((a, b) => b.left - a.left)[0];
	if (!last || !last.text.endsWith(':')) return '';
	const followed = all.some((b) => b !== blank && b.left > last.left && Math.abs(b.top + b.height - 2 - last.base) < 8);
	if (followed) return '';
	// "Telephone: ____ E-mail:": only what comes after the blank before it
	const from = Math.max(
		0,
		...all
			.filter((b) => Math.abs(b.top + b.height - 2 - last.base) < 8 && b.left + b.width < last.left + last.width)
			.map((b) => b.left + b.width - 2)
	);
	return lastSentence(text(last.words.filter((w) => w.left >= from)));
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

/** Words right above (`reach` below 0) or below a line, within its width; not those that lead to another blank. */
function beside(page: ShownPage, blank: Blank, from: number, reach: number, all: Blank[]): string {
	const words = page.words.filter((w) => {
		const middle = w.top + w.height / 2;
		const level = reach > 0 ? middle > from && middle < from + reach : middle < from + 2 && middle > from + reach;
		return (
			level &&
			w.left > blank.left - 6 &&
			w.left < blank.left + blank.width &&
			!all.some((b) => b !== blank && b.by !== 'rule' && inside(w, b))
		);
	});
	const ordered = inReadingOrder(words);
	const line = ordered.filter((w) => Math.abs(w.top + w.height - ordered[0]!.top - ordered[0]!.height) < 6);
	const last = line[line.length - 1];
	const leads =
		last !== undefined &&
		all.some((b) => {
			const gap = b.left - last.left - last.width;
			return (
				b !== blank &&
				b.by !== 'square' &&
				b.by !== 'ring' &&
				gap > -3 &&
				gap < 30 &&
				Math.abs(b.top + b.height - 2 - last.top - last.height) < 7
			);
		});
	return lettered(line) && line.length <= 10 && !leads ? text(line) : '';
}

function inside(word: ShownRect, blank: ShownRect): boolean {
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

/** The heading of a table's column: what stands in the topmost cell of those right above, else the nearest words above. */
function headOf(page: ShownPage, blank: Blank, cells: ShownRect[]): string {
	let here = cells.find((c) => inside({ ...blank, height: Math.min(blank.height, 4) }, c));
	for (let i = 0; here && i < 60; i++) {
		const above: ShownRect | undefined = cellAbove(cells, here);
		if (!above) break;
		const words = page.words.filter((w) => inside(w, above));
		if (lettered(words) && words.length <= 8) return text(words);
		here = above;
	}
	const over = page.words.filter(
		(w) =>
			w.top + w.height < blank.top + 1 &&
			w.top > blank.top - 260 &&
			w.left >= blank.left - 4 &&
			w.left + w.width <= blank.left + blank.width + 4
	);
	if (over.length === 0) return '';
	const lowest = Math.max(...over.map((w) => w.top));
	const words = over.filter((w) => Math.abs(w.top - lowest) < 6);
	return lettered(words) && words.length <= 6 ? text(words) : '';
}
