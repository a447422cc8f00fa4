import { shownSize, toShown, type PageSize, type Rect, type ShownRect } from './geometry';
import type { PageDrawing, PrintedPages } from './printed';

export interface ShownWord extends ShownRect {
	text: string;
}

/** Words that stand on one line, from left to right. */
export interface TextRow extends ShownRect {
	words: ShownWord[];
	/** distance of the baseline from the top of the page */
	base: number;
}

/** A level line: `at` from the top, from `from` to `to`. An upright one: `at` from the left. */
export interface Stroke {
	at: number;
	from: number;
	to: number;
}

/** Everything printed on a page, as it is shown: points, origin top left. */
export interface ShownPage {
	width: number;
	height: number;
	words: ShownWord[];
	rows: TextRow[];
	/** words that lie over the others, such as "Draft" across a page: no part of its text */
	across: ShownWord[];
	level: Stroke[];
	upright: Stroke[];
	boxes: ShownRect[];
	/** circles, by the square round them */
	rings: ShownRect[];
	/** which of the boxes are a shade without an edge */
	shaded: ShownRect[];
}

/** What is printed on a page, in the space in which people see it and fields are dragged. */
export function shownPage(reading: PrintedPages, number: number, page: PageSize): ShownPage {
	const drawn: PageDrawing = reading.drawn[number] ?? { lines: [], boxes: [] };
	const { words, across } = apart((reading.words[number] ?? []).map((w) => ({ text: w.text, ...toShown(page, w) })));
	const strokes = drawn.lines.map((l) =>
		toShown(page, { x: l.x1, y: l.y1, width: l.x2 - l.x1, height: l.y2 - l.y1 } satisfies Rect)
	);
	const boxes = drawn.boxes.map((box) => toShown(page, box));
	const { rings = [], shaded = [] } = drawn;
	return {
		...shownSize(page),
		words,
		rows: rowsOf(words),
		across,
		level: joined(
			strokes
				.filter((s) => s.width >= s.height)
				.map((s) => ({ at: s.top + s.height / 2, from: s.left, to: s.left + s.width }))
		),
		upright: joined(
			strokes
				.filter((s) => s.height > s.width)
				.map((s) => ({ at: s.left + s.width / 2, from: s.top, to: s.top + s.height }))
		),
		boxes: distinct(boxes),
		rings: distinct(rings.map((one) => toShown(page, one))),
		shaded: distinct(shaded.map((one) => toShown(page, one)))
	};
}

/** So many times as high as the usual word, and over at least so many others, a word lies across the text. */
const ACROSS = { heights: 3.5, over: 1 };

function apart(all: ShownWord[]): { words: ShownWord[]; across: ShownWord[] } {
	const heights = all.map((word) => word.height).sort((a, b) => a - b);
	const large = ACROSS.heights * (heights[Math.floor(heights.length / 2)] ?? Infinity);
	const across = all.filter((word) => {
		if (word.height < large) return false;
		const under = all.filter(
			(one) =>
				one !== word &&
				one.left < word.left + word.width &&
				one.left + one.width > word.left &&
				one.top < word.top + word.height &&
				one.top + one.height > word.top
		);
		return under.length >= ACROSS.over;
	});
	return across.length === 0 ? { words: all, across } : { words: all.filter((word) => !across.includes(word)), across };
}

/** Pieces on one line that touch are one: tables are often drawn a cell at a time. */
function joined(strokes: Stroke[]): Stroke[] {
	const sorted = [...strokes].sort((a, b) => a.at - b.at || a.from - b.from);
	const all: Stroke[] = [];
	for (const stroke of sorted) {
		const touching = all.find(
			(one) => Math.abs(one.at - stroke.at) < 0.8 && stroke.from <= one.to + 1.5 && stroke.to >= one.from - 1.5
		);
		if (touching) {
			touching.from = Math.min(touching.from, stroke.from);
			touching.to = Math.max(touching.to, stroke.to);
		} else all.push({ ...stroke });
	}
	return all;
}

function distinct(boxes: ShownRect[]): ShownRect[] {
	const kept: ShownRect[] = [];
	for (const box of boxes) {
		const same = (b: ShownRect) =>
			Math.abs(b.left - box.left) < 1.2 &&
			Math.abs(b.top - box.top) < 1.2 &&
			Math.abs(b.width - box.width) < 2 &&
			Math.abs(b.height - box.height) < 2;
		if (!kept.some(same)) kept.push(box);
	}
	return kept;
}

/** Letters that reach below the baseline, so that a word with one does not tell where it is. */
const BELOW = /[gjpqyçęąQ,;()[\]{}_|@$§ß]/;

/** Words on one line belong together; the baseline is where most words without descending letters stand. */
function rowsOf(words: ShownWord[]): TextRow[] {
	const rows: ShownWord[][] = [];
	for (const word of [...words].sort((a, b) => a.top + a.height / 2 - (b.top + b.height / 2))) {
		const middle = word.top + word.height / 2;
		const row = rows.findLast((r) => {
			const first = r[0]!;
			return (
				middle > first.top - 1 &&
				middle < first.top + first.height + 1 &&
				Math.abs(middle - first.top - first.height / 2) < 6
			);
		});
		if (row) row.push(word);
		else rows.push([word]);
	}
	return rows.map((row) => {
		const sorted = [...row].sort((a, b) => a.left - b.left);
		const left = sorted[0]!.left;
		const top = Math.min(...sorted.map((w) => w.top));
		const right = Math.max(...sorted.map((w) => w.left + w.width));
		const bottom = Math.max(...sorted.map((w) => w.top + w.height));
		const standing = sorted
			.filter((w) => !BELOW.test(w.text) && /[\p{L}\p{N}]/u.test(w.text))
			.map((w) => w.top + w.height);
		const base = standing.length > 0 ? middleOf(standing) : bottom - (bottom - top) * 0.22;
		return { words: sorted, left, top, width: right - left, height: bottom - top, base };
	});
}

function middleOf(numbers: number[]): number {
	const sorted = [...numbers].sort((a, b) => a - b);
	return sorted[Math.floor(sorted.length / 2)]!;
}
