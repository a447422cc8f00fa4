import { meets } from '../arrange';
import type { ShownRect } from '../geometry';
import type { ShownPage, ShownWord } from '../shown-page';
import { cellsOf, innermost } from './cells';
import { meaningOf } from './meaning';
import { inReadingOrder, type Segment } from './segments';

/** Where there is room to write, and how that was told. */
export type Blank = ShownRect & {
	by: 'run' | 'rule' | 'cell' | 'letters' | 'square' | 'ring' | 'room';
	boxes?: number;
};

const SQUARE = /^[☐□❏❑▢]$/u;
const RING = /^[○◯⚪]$/u;

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

/** Squares up to this are to be ticked; larger ones too, where words stand right beside them. */
const SQUARE_MOST = { alone: 17, beside: 27 };

function squaresOf(page: ShownPage, meshes: ShownRect[]): Blank[] {
	const upTo = (b: ShownRect) => (isBesideWords(b, page) ? SQUARE_MOST.beside : SQUARE_MOST.alone);
	// some programs draw the four sides one by one
	const drawn = [...page.boxes, ...meshes.filter((m) => !page.boxes.some((b) => meets(shrunk(m), b)))]
		.filter((b) => b.width >= 5 && Math.abs(b.width - b.height) < Math.max(2.5, 0.12 * b.width))
		.filter((b) => b.width <= upTo(b) && wordsIn(b, page).length === 0)
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
	const rings = page.rings
		.filter((b) => b.width <= upTo(b) && wordsIn(b, page).length === 0)
		.map((b): Blank => ({ ...b, by: 'ring' }));
	const glyphs = page.words
		.filter((w) => SQUARE.test(w.text) || RING.test(w.text))
		.map((w): Blank => ({
			left: w.left,
			top: w.top,
			width: w.width,
			height: w.height,
			by: RING.test(w.text) ? 'ring' : 'square'
		}));
	return [...alone, ...rings, ...glyphs];
}

function isBesideWords(box: ShownRect, page: ShownPage): boolean {
	const middle = box.top + box.height / 2;
	return page.words.some((w) => {
		const gap = w.left - box.left - box.width;
		return gap > 0 && gap < 16 && w.top - 2 < middle && w.top + w.height + 2 > middle;
	});
}

/** A line with short teeth standing on it at even distances, open at the ends or above: a letter between each two. */
function combsOf(page: ShownPage): Blank[] {
	return page.level.flatMap((line): Blank[] => {
		const teeth = page.upright
			.filter((u) => {
				const long = u.to - u.from;
				return (
					Math.abs(u.to - line.at) < 2.5 && long >= 2.5 && long <= 18 && u.at > line.from - 2 && u.at < line.to + 2
				);
			})
			.sort((a, b) => a.at - b.at);
		if (teeth.length < 2) return [];
		const steps = teeth.slice(1).map((u, i) => u.at - teeth[i]!.at);
		const step = steps.reduce((sum, one) => sum + one, 0) / steps.length;
		if (step < 8 || step > 28 || steps.some((one) => Math.abs(one - step) > 0.18 * step)) return [];
		const [first, last] = [teeth[0]!.at, teeth[teeth.length - 1]!.at];
		const before = Math.abs(first - line.from - step) < 0.25 * step;
		const after = Math.abs(line.to - last - step) < 0.25 * step;
		const boxes = steps.length + Number(before) + Number(after);
		const closed = page.level.some(
			(l) => l !== line && l.at < line.at - 6 && l.at > line.at - 34 && l.from < first + 3 && l.to > last - 3
		);
		if (boxes < 3 || closed) return [];
		const [left, right] = [before ? line.from : first, after ? line.to : last];
		const tall = Math.max(14, ...teeth.map((u) => u.to - u.from));
		const comb: Blank = { left, top: line.at - tall, width: right - left, height: tall, by: 'letters', boxes };
		return wordsIn(comb, page).length === 0 ? [comb] : [];
	});
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

/** So many labels with bare room behind them make a form of a page; before that, only those we understand count. */
const FORM_LABELS = 3;
/** The least bare room that is meant to be written in, and how much of it a field takes. */
const ROOM = { least: 90, most: 240 };

/** Bare room after a label that ends with a colon, up to the next words or the margin. */
function roomsOf(page: ShownPage, segments: Segment[], taken: Blank[], cells: ShownRect[]): Blank[] {
	if (segments.length === 0) return [];
	const margin = Math.min(page.width - 36, Math.max(page.width * 0.72, ...segments.map((s) => s.left + s.width)));
	const labels = segments.flatMap((segment) => {
		if (!/\p{L}.*:$/u.test(segment.text) || segment.words.length > 5) return [];
		const from = segment.left + segment.width + 5;
		const next = segments
			.filter(
				(s) => s !== segment && s.left >= from - 6 && s.top < segment.base + 1 && s.top + s.height > segment.top - 1
			)
			.map((s) => s.left);
		const right = Math.min(margin, ...next.map((x) => x - 8));
		const room: Blank = {
			left: from,
			top: segment.base - 13,
			width: Math.min(ROOM.most, right - from),
			height: 16,
			by: 'room'
		};
		// a paragraph or a list that the label leads to begins right below it
		const below = segments.find((s) => s.top > segment.base && s.top < segment.base + 1.6 * segment.height + 4);
		const leads =
			below !== undefined &&
			(below.words.length >= 5 || /^(\d+[.)]|[a-z][.)]|[•–-])/i.test(below.text)) &&
			!below.text.endsWith(':') &&
			Math.abs(below.left - segment.left) < 30;
		if (room.width < ROOM.least || leads) return [];
		if (
			[...taken, ...cells].some(
				(one) =>
					meets(room, one) ||
					(one.top > room.top && one.top < segment.base + 26 && meets({ ...room, top: room.top + 14 }, one))
			)
		)
			return [];
		return [
			{
				room,
				known: meaningOf(segment.text).kind !== 'text' || meaningOf(segment.text).settings['pattern'] !== undefined
			}
		];
	});
	return labels.filter((one) => one.known || labels.length >= FORM_LABELS).map((one) => one.room);
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
