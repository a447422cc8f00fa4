import { meets } from '../arrange';
import type { ShownRect } from '../geometry';
import type { ShownPage, ShownWord } from '../shown-page';
import { shrunk, wordsIn, type Blank } from './blank';
import { cellsOf, innermost } from './cells';
import { meaningOf } from './meaning';
import { roomsOf } from './rooms';
import { inReadingOrder, type Segment } from './segments';
import { combsOf, letterBoxes, squaresOf } from './small-boxes';

export type { Blank };

/** The blanks of a page, and the cells they were looked for in. */
export interface Blanks {
	blanks: Blank[];
	cells: ShownRect[];
}

/**
 * Where there is room to write: runs of underscores and dots, free rules, empty cells, boxes and combs for single letters,
 * squares and circles to tick, and bare room after a label.
 */
export function blanksOf(page: ShownPage, segments: Segment[]): Blanks {
	const meshes = innermost(cellsOf(page));
	const squares = squaresOf(page, meshes);
	const cells = meshes.filter((c) => !squares.some((s) => meets(shrunk(c), s) && c.width < 28));
	const combs = combsOf(page);
	const letters = [...letterBoxes(cells, page), ...combs];
	const rest = cells.filter((c) => !letters.some((l) => meets(shrunk(c), l)));
	const empty = rest.filter((c) => !isShaded(c, page, cells)).flatMap((c): Blank[] => emptyPart(c, page, cells));
	const runs = runsOf(page);
	const rules = rulesOf(page, cells).filter(
		(r) =>
			!runs.some((one) => meets(one, r)) &&
			!empty.some((one) => meets(shrunk(one), r)) &&
			!combs.some((one) => meets(one, r))
	);
	const drawn = [...squares, ...letters, ...empty, ...runs, ...rules];
	const all = [...drawn, ...roomsOf(page, segments, drawn, cells)];
	return { blanks: all.filter((blank) => isOnPage(blank, page)), cells };
}

function isOnPage({ left, top, width, height }: ShownRect, page: ShownPage): boolean {
	const [x, y] = [left + width / 2, top + height / 2];
	return x > 0 && y > 0 && x < page.width && y < page.height && left > -4 && left + width < page.width + 4;
}

/** A cell of a table that is filled with a shade: not to be written in. A shaded box that stands alone may well be. */
function isShaded(cell: ShownRect, page: ShownPage, cells: ShownRect[]): boolean {
	const shade = page.shaded.find(
		(one) =>
			one.left < cell.left + 2 &&
			one.top < cell.top + 2 &&
			one.left + one.width > cell.left + cell.width - 2 &&
			one.top + one.height > cell.top + cell.height - 2
	);
	if (!shade) return false;
	return (
		shade.width > cell.width + 8 || cells.some((one) => one !== cell && (isBeside(one, cell) || isStacked(one, cell)))
	);
}

function isStacked(one: ShownRect, cell: ShownRect): boolean {
	return (
		Math.abs(one.left - cell.left) < 3 &&
		(Math.abs(one.top + one.height - cell.top) < 3 || Math.abs(cell.top + cell.height - one.top) < 3)
	);
}

/** A cell without words, or the part of it below a small label that stands at its top. */
function emptyPart(cell: ShownRect, page: ShownPage, cells: ShownRect[]): Blank[] {
	const narrow = cell.width < 24;
	if (cell.width < 10 || cell.height < 11 || cell.height > 220 || cell.width > page.width * 0.95) return [];
	// a narrow one counts beside another of its row, such as the cents beside the pounds
	if (narrow && !cells.some((one) => one !== cell && isBeside(one, cell) && one.width >= 24)) return [];
	const inside = wordsIn(cell, page);
	if (inside.length === 0)
		return [{ left: cell.left + 2, top: cell.top + 1, width: cell.width - 4, height: cell.height - 2, by: 'cell' }];
	if (narrow) return [];
	const bottom = Math.max(...inside.map((w) => w.top + w.height));
	const room = cell.top + cell.height - bottom;
	const label =
		inside.every((w) => w.top + w.height / 2 < cell.top + Math.min(14, cell.height / 2)) && inside.length <= 8;
	return label && room >= 12 && isLabel(inside, cell, page, cells)
		? [{ left: cell.left + 2, top: bottom + 1, width: cell.width - 4, height: room - 2, by: 'cell' }]
		: [];
}

/** Whether words at the top of a cell ask for something, rather than being what the cell holds. */
function isLabel(words: ShownWord[], cell: ShownRect, page: ShownPage, cells: ShownRect[]): boolean {
	const text = sayingOf(words);
	const alone = !cells.some((one) => one !== cell && (isBeside(one, cell) || isStacked(one, cell)));
	if (alone || /[:?]$/.test(text)) return true;
	if (sizeOf(words) < 0.85 * sizeOf(page.words)) return true;
	// in a table whose cells hold words row after row it is one of them; in a row of labelled boxes one label tells of all
	const filled = (one: ShownRect) => wordsIn(one, page).length > 0;
	const column = cells.filter(
		(one) => one !== cell && Math.abs(one.left - cell.left) < 3 && Math.abs(one.width - cell.width) < 5 && filled(one)
	);
	const asks = (said: string) => {
		const { kind, settings } = meaningOf(said);
		return kind !== 'text' || settings['pattern'] !== undefined;
	};
	const row = cells.filter((one) => Math.abs(one.top - cell.top) < 2 && Math.abs(one.height - cell.height) < 3);
	const rowAsks = row.some((one) => asks(sayingOf(wordsIn(one, page))));
	return column.length === 0 && (asks(text) || rowAsks);
}

function sayingOf(words: ShownWord[]): string {
	return inReadingOrder(words)
		.map((word) => word.text)
		.join(' ');
}

function isBeside(one: ShownRect, cell: ShownRect): boolean {
	return (
		Math.abs(one.top - cell.top) < 2 &&
		Math.abs(one.height - cell.height) < 3 &&
		(Math.abs(one.left + one.width - cell.left) < 3 || Math.abs(cell.left + cell.width - one.left) < 3)
	);
}

/** How high capitals are, by words that have tall letters and none that hang below. */
function sizeOf(words: ShownWord[]): number {
	const telling = words.filter((w) => /[\p{Lu}bdfhklt\d]/u.test(w.text) && !/[gjpqy,;()_]/.test(w.text));
	return middle((telling.length > 0 ? telling : words).map((w) => w.height));
}

function middle(numbers: number[]): number {
	return [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)] ?? 0;
}

/** Runs of underscores or dots; a run of dots that leads to a page number is a table of contents. */
function runsOf(page: ShownPage): Blank[] {
	const runs: Blank[] = [];
	for (const row of page.rows) {
		let open: { left: number; right: number; dots: boolean } | null = null;
		const close = (next?: ShownWord) => {
			if (
				open &&
				open.right - open.left >= 18 &&
				!(open.dots && next && /^\d{1,3}$/.test(next.text) && row.words.at(-1) === next)
			)
				runs.push({ left: open.left, top: row.base - 13, width: open.right - open.left, height: 15, by: 'run' });
			open = null;
		};
		for (const word of row.words) {
			for (const part of partsOf(word)) {
				if (!part.blank) close(word);
				else if (open && part.left - open.right < 8) open.right = part.right;
				else {
					close();
					open = { left: part.left, right: part.right, dots: /[.…‥]/.test(word.text) };
				}
			}
		}
		close();
	}
	return runs;
}

/** A word cut into its letters and its blanks; widths by the share of characters, underscores counted as a letter. */
function partsOf(word: ShownWord): { blank: boolean; left: number; right: number }[] {
	// dots often come one by one
	if (/^[._…‥]+$/u.test(word.text)) return [{ blank: true, left: word.left, right: word.left + word.width }];
	const pieces = word.text.match(/_{2,}|[.…‥]{4,}|…+|(?:(?!_{2,}|[.…‥]{4,}).)+/gsu) ?? [];
	const each = word.width / Math.max(1, [...word.text].length);
	let at = word.left;
	return pieces.map((piece) => {
		const left = at;
		at += each * [...piece].length;
		return { blank: /^(_{2,}|[.…‥]{4,}|…{2,})$/u.test(piece), left, right: at };
	});
}

/** Level lines to write on: not under or through words, not part of a table, not from margin to margin. */
function rulesOf(page: ShownPage, cells: ShownRect[]): Blank[] {
	const text =
		page.rows.length > 0
			? Math.max(...page.rows.map((r) => r.left + r.width)) - Math.min(...page.rows.map((r) => r.left))
			: page.width;
	return page.level.flatMap((line): Blank[] => {
		const width = line.to - line.from;
		if (width < 28 || width > Math.max(text, page.width * 0.6) * 0.93) return [];
		const crossed = page.upright.filter(
			(u) => u.at > line.from - 2 && u.at < line.to + 2 && u.from < line.at + 2 && u.to > line.at - 2
		).length;
		if (crossed >= 2) return [];
		if (cells.some((c) => line.from < c.left + c.width - 2 && line.to > c.left + 2 && Math.abs(line.at - c.top) < 2))
			return [];
		if (
			cells.some(
				(c) => line.from < c.left + c.width - 2 && line.to > c.left + 2 && Math.abs(line.at - c.top - c.height) < 2
			)
		)
			return [];
		const over = page.words.filter(
			(w) =>
				w.left < line.to - 2 &&
				w.left + w.width > line.from + 2 &&
				w.top < line.at - 1 &&
				w.top + w.height > line.at - 9
		);
		const covered = over.reduce((sum, w) => sum + Math.min(w.left + w.width, line.to) - Math.max(w.left, line.from), 0);
		if (covered > width * 0.12) return [];
		if (isFootnote(line, page)) return [];
		return [{ left: line.from, top: line.at - 17, width, height: 17, by: 'rule' }];
	});
}

/** The short rule above footnotes: at the margin, low on the page, small print with a number right below. */
function isFootnote(line: { at: number; from: number; to: number }, page: ShownPage): boolean {
	if (line.at < page.height * 0.6) return false;
	const below = page.rows.filter((r) => r.top > line.at - 1 && r.top < line.at + 16).sort((a, b) => a.top - b.top)[0];
	return (
		below !== undefined &&
		/^[\d*†‡¹²³⁴]+\)?(\p{Lu}\p{L}*)?$/u.test(below.words[0]!.text) &&
		Math.abs(below.left - line.from) < 22 &&
		below.words.length > 3
	);
}
