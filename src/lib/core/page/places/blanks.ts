import { meets } from '../arrange';
import type { ShownRect } from '../geometry';
import type { ShownPage, ShownWord } from '../shown-page';
import { cellsOf, innermost } from './cells';

/** Where there is room to write, and how that was told. */
export type Blank = ShownRect & { by: 'run' | 'rule' | 'cell' | 'letters' | 'square' | 'ring'; boxes?: number };

const SQUARE = /^[☐□❏❑▢]$/u;
const RING = /^[○◯⚪]$/u;

/** Where there is room to write: runs of underscores and dots, free rules, empty cells, boxes for single letters, squares. */
export function blanksOf(page: ShownPage): Blank[] {
	const squares = squaresOf(page);
	const cells = innermost(cellsOf(page)).filter((c) => !squares.some((s) => meets(shrunk(c), s) && c.width < 17));
	const letters = letterBoxes(cells, page);
	const rest = cells.filter((c) => !letters.some((l) => meets(shrunk(c), l)));
	const empty = rest.flatMap((c): Blank[] => emptyPart(c, page));
	const runs = runsOf(page);
	const rules = rulesOf(page, cells).filter(
		(r) => !runs.some((one) => meets(one, r)) && !empty.some((one) => meets(shrunk(one), r))
	);
	return [...squares, ...letters, ...empty, ...runs, ...rules];
}

function shrunk(r: ShownRect): ShownRect {
	return {
		left: r.left + 1.5,
		top: r.top + 1.5,
		width: Math.max(0.1, r.width - 3),
		height: Math.max(0.1, r.height - 3)
	};
}

function wordsIn(rect: ShownRect, page: ShownPage): ShownWord[] {
	return page.words.filter((w) => meets(shrunk(rect), { ...w, left: w.left + w.width * 0.1, width: w.width * 0.8 }));
}

function squaresOf(page: ShownPage): Blank[] {
	const drawn = page.boxes
		.filter((b) => b.width >= 5 && b.width <= 17 && Math.abs(b.width - b.height) < 2.5 && wordsIn(b, page).length === 0)
		.map((b): Blank => ({ ...b, by: 'square' }));
	// a row of squares that touch are boxes for letters, not for ticks
	const alone = drawn.filter(
		(b) =>
			!drawn.some(
				(o) =>
					o !== b &&
					Math.abs(o.top - b.top) < 2 &&
					(Math.abs(o.left - b.left - b.width) < 1.5 || Math.abs(b.left - o.left - o.width) < 1.5)
			)
	);
	const glyphs = page.words
		.filter((w) => SQUARE.test(w.text) || RING.test(w.text))
		.map((w): Blank => ({
			left: w.left,
			top: w.top,
			width: w.width,
			height: w.height,
			by: RING.test(w.text) ? 'ring' : 'square'
		}));
	return [...alone, ...glyphs];
}

/** Three or more small cells side by side: one text, a character in each. */
function letterBoxes(cells: ShownRect[], page: ShownPage): Blank[] {
	const small = cells
		.filter((c) => c.width >= 8 && c.width <= 26 && c.height >= 9 && c.height <= 32 && wordsIn(c, page).length === 0)
		.sort((a, b) => a.top - b.top || a.left - b.left);
	const runs: ShownRect[][] = [];
	for (const cell of small) {
		const run = runs.find((r) => {
			const last = r[r.length - 1]!;
			return (
				Math.abs(last.top - cell.top) < 2 &&
				Math.abs(last.left + last.width - cell.left) < 3 &&
				Math.abs(last.width - cell.width) < 2.5
			);
		});
		if (run) run.push(cell);
		else runs.push([cell]);
	}
	return runs
		.filter((run) => run.length >= 3)
		.map((run): Blank => {
			const [first, last] = [run[0]!, run[run.length - 1]!];
			return {
				left: first.left,
				top: first.top,
				width: last.left + last.width - first.left,
				height: first.height,
				by: 'letters',
				boxes: run.length
			};
		});
}

/** A cell without words, or the part of it below a label that stands at its top. */
function emptyPart(cell: ShownRect, page: ShownPage): Blank[] {
	if (cell.width < 24 || cell.height < 11 || cell.height > 220 || cell.width > page.width * 0.95) return [];
	const inside = wordsIn(cell, page);
	if (inside.length === 0)
		return [{ left: cell.left + 2, top: cell.top + 1, width: cell.width - 4, height: cell.height - 2, by: 'cell' }];
	const bottom = Math.max(...inside.map((w) => w.top + w.height));
	const room = cell.top + cell.height - bottom;
	const label =
		inside.every((w) => w.top + w.height / 2 < cell.top + Math.min(14, cell.height / 2)) && inside.length <= 8;
	return label && room >= 12
		? [{ left: cell.left + 2, top: bottom + 1, width: cell.width - 4, height: room - 2, by: 'cell' }]
		: [];
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
				w.top + w.height > line.at - 11
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
		/^[\d*†¹²³⁴]+\)?$/u.test(below.words[0]!.text) &&
		Math.abs(below.left - line.from) < 8 &&
		below.words.length > 3
	);
}
