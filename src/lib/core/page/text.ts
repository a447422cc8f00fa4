import { median } from '../median';
import type { ShownPage, TextRow } from './shown-page';

/** A page as text: headings and paragraphs in the order in which one reads, with places among them. */
export type TextBlock =
	| { is: 'heading'; level: 2 | 3; text: string }
	| { is: 'paragraph'; text: string }
	/** what is to be answered, or has been, where it stands on the page */
	| { is: 'place'; id: string };

/** A place on a page, as shown: points from the top left. */
export interface TextPlace {
	id: string;
	left: number;
	top: number;
	width: number;
	height: number;
}

/** A row that is set so much larger than the page's usual one is a heading. */
const LARGER = 1.18;
/** A gap of so many usual row heights between two rows ends a paragraph. */
const APART = 0.75;

/**
 * Reads a page as text. Two columns of running text are read one after the other; a table is read row by row. Runs of
 * underscores and dots, which only mark a place, are left out. Each place comes after the words beside or above it.
 */
export function textOf(page: ShownPage, places: TextPlace[]): TextBlock[] {
	const rows = page.rows.map(bare).filter((row) => row.words.length > 0);
	const usual = median(rows.map((row) => row.height)) || 10;
	const parts = columns(rows, page.width);
	const left = [...places].sort((a, b) => a.top + a.height / 2 - (b.top + b.height / 2) || a.left - b.left);
	const blocks: TextBlock[] = page.across.map(({ text }): TextBlock => ({ is: 'paragraph', text }));
	parts.forEach((part, i) => {
		const mine = takeFrom(left, part, parts.slice(i + 1));
		blocks.push(...blocksOf(part.rows, usual, mine));
	});
	return [...blocks, ...left.map(({ id }): TextBlock => ({ is: 'place', id }))];
}

/** A part of the page that is read from top to bottom before the next one. */
interface Part {
	rows: TextRow[];
	from: number;
	to: number;
}

/** A row without what is no word: runs that mark a blank. */
function bare(row: TextRow): TextRow {
	return { ...row, words: row.words.filter((word) => !/^[_.…·‐–—-]{3,}$|^_+$/.test(word.text)) };
}

/**
 * The page in parts: where five rows or more in a row leave the same gap in the middle, and have running text on both
 * sides of it, they are two columns.
 */
function columns(rows: TextRow[], width: number): Part[] {
	const parts: Part[] = [];
	const whole = (all: TextRow[]) => {
		if (all.length > 0) parts.push({ rows: all, from: 0, to: width });
	};
	let plain: TextRow[] = [];
	for (let i = 0; i < rows.length;) {
		const run = columnRun(rows, i, width);
		if (!run) {
			plain.push(rows[i]!);
			i += 1;
			continue;
		}
		whole(plain);
		plain = [];
		const side = (keep: (x: number) => boolean) =>
			rows
				.slice(i, run.end)
				.map((row) => ({ ...row, words: row.words.filter((word) => keep(word.left)) }))
				.filter((row) => row.words.length > 0);
		parts.push({ rows: side((x) => x < run.at), from: 0, to: run.at });
		parts.push({ rows: side((x) => x >= run.at), from: run.at, to: width });
		i = run.end;
	}
	whole(plain);
	return parts;
}

const LEAST_ROWS = 5;
const LEAST_WORDS = 3;

function columnRun(rows: TextRow[], start: number, width: number): { at: number; end: number } | null {
	let from = width * 0.3;
	let to = width * 0.7;
	let end = start;
	for (; end < rows.length; end++) {
		const gap = gapIn(rows[end]!, from, to);
		if (!gap) break;
		[from, to] = gap;
	}
	if (end - start < LEAST_ROWS) return null;
	const at = (from + to) / 2;
	const run = rows.slice(start, end);
	const words = (side: (x: number) => boolean) =>
		run.reduce((sum, row) => sum + row.words.filter((word) => side(word.left)).length, 0) / run.length;
	return words((x) => x < at) >= LEAST_WORDS && words((x) => x >= at) >= LEAST_WORDS ? { at, end } : null;
}

/** The widest stretch between `from` and `to` in which a row has nothing, if it is wide enough for a gutter. */
function gapIn(row: TextRow, from: number, to: number): [number, number] | null {
	let best: [number, number] | null = null;
	let at = from;
	const take = (start: number, end: number) => {
		if (end - start >= 10 && (!best || end - start > best[1] - best[0])) best = [start, end];
	};
	for (const word of row.words) {
		if (word.left + word.width <= from || word.left >= to) continue;
		take(at, word.left);
		at = Math.max(at, word.left + word.width);
	}
	take(at, to);
	return best;
}

/** Takes the places that belong to a part out of those that are left. */
function takeFrom(left: TextPlace[], part: Part, later: Part[]): TextPlace[] {
	const next = later[0]?.rows[0]?.top ?? Infinity;
	const beside = later[0] !== undefined && later[0].from >= part.to;
	const mine = left.filter((place) => {
		const x = place.left + place.width / 2;
		if (x < part.from || x >= part.to) return false;
		const bottom = beside ? (later[1]?.rows[0]?.top ?? Infinity) : next;
		return place.top + place.height / 2 < bottom;
	});
	for (const place of mine) left.splice(left.indexOf(place), 1);
	return mine;
}

function blocksOf(rows: TextRow[], usual: number, places: TextPlace[]): TextBlock[] {
	const blocks: TextBlock[] = [];
	let paragraph: TextRow[] = [];
	const end = () => {
		if (paragraph.length > 0) blocks.push(blockOf(paragraph, usual));
		paragraph = [];
	};
	rows.forEach((row, i) => {
		const before = paragraph[paragraph.length - 1];
		if (before && !goesOn(before, row, usual)) end();
		paragraph.push(row);
		const next = rows[i + 1];
		const here = places.filter((p) => !next || p.top + p.height / 2 < next.top);
		if (here.length === 0) return;
		end();
		for (const place of here) {
			blocks.push({ is: 'place', id: place.id });
			places.splice(places.indexOf(place), 1);
		}
	});
	end();
	return blocks;
}

/** Whether a row goes on with the paragraph of the one before. */
function goesOn(before: TextRow, row: TextRow, usual: number): boolean {
	const gap = row.top - (before.top + before.height);
	const sameSize = Math.abs(row.height - before.height) < usual * 0.15;
	const begins = /^(\d+[.)]|[a-z][.)]|\(\w+\)|[•–-])$/i.test(row.words[0]!.text);
	return gap < usual * APART && sameSize && !begins && !isHeading([before], usual) && !isHeading([row], usual);
}

function isHeading(rows: TextRow[], usual: number): boolean {
	const text = textOfRows(rows);
	if (rows.length > 2 || text.length > 120) return false;
	if (rows[0]!.height > usual * LARGER) return true;
	// "3. Travel", or a short line in capitals
	const words = text.split(' ');
	const numbered = /^\d+(\.\d+)*[.)]?$/.test(words[0]!) && words.length > 1 && words.length <= 7;
	const capitals = /\p{Lu}{3}/u.test(text) && text === text.toLocaleUpperCase() && words.length <= 8;
	return (numbered || capitals) && !/[.,;:]$/.test(text);
}

function blockOf(rows: TextRow[], usual: number): TextBlock {
	const text = textOfRows(rows);
	if (!isHeading(rows, usual)) return { is: 'paragraph', text };
	return { is: 'heading', level: rows[0]!.height > usual * 1.5 ? 2 : 3, text };
}

/** Rows as running text: a word parted at a line's end is put together again. */
function textOfRows(rows: TextRow[]): string {
	return rows
		.map((row) => row.words.map((word) => word.text).join(' '))
		.join('\n')
		.replaceAll(/(\p{Ll})-\n(\p{Ll})/gu, '$1$2')
		.replaceAll('\n', ' ')
		.trim();
}
