import { folded } from '../../folded';
import type { PageSize } from '../geometry';
import type { PrintedPages } from '../printed';
import { shownPage, type ShownPage, type ShownWord, type TextRow } from '../shown-page';

/** A word of a document's text, in reading order, with where it stands. */
export interface Token {
	/** in small letters, without the marks around it */
	text: string;
	page: number;
	word: ShownWord;
	row: TextRow;
}

/** A document as one text. */
export interface Stream {
	pages: ShownPage[];
	/** words of the text itself */
	tokens: Token[];
	/** index in `tokens` of a page's first word; one entry more than there are pages */
	starts: number[];
	/** rows at the head and foot that come again on other pages, by page */
	furniture: TextRow[][];
}

/** Share of a page's height, at its head and its foot, in which repeated rows are furniture. */
const EDGE = 0.11;

/** Reads a document as one text, its repeated heads and feet set apart. */
export function streamOf(reading: PrintedPages, sizes: readonly PageSize[]): Stream {
	const pages = sizes.map((size, number) => shownPage(reading, number, size));
	const furniture = furnitureOf(pages);
	const tokens: Token[] = [];
	const starts: number[] = [];
	pages.forEach((page, number) => {
		starts.push(tokens.length);
		for (const row of page.rows) {
			if (furniture[number]!.includes(row)) continue;
			for (const word of row.words) {
				const text = bare(word.text);
				if (text !== '') tokens.push({ text, page: number, word, row });
			}
		}
	});
	starts.push(tokens.length);
	return { pages, tokens, starts, furniture };
}

/** A word for comparing: small letters, without marks, blanks to write on, or accents. '' where nothing is left. */
export function bare(word: string): string {
	const plain = folded(word);
	return /^[a-z0-9]+$/.test(plain) ? plain : plain.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '');
}

/**
 * Rows near the edge whose words stand at the same height on at least half of the pages; their numbers must be the same
 * everywhere, or count along with the pages: the rows of a long list look alike as well, but count on from page to page.
 */
function furnitureOf(pages: ShownPage[]): TextRow[][] {
	const near = pages.map((page) =>
		page.rows.filter((row) => row.base < page.height * EDGE || row.base > page.height * (1 - EDGE))
	);
	const seen = new Map<string, Map<number, number[]>>();
	const name = (row: TextRow) => `${Math.round(row.base / 6)} ${rowText(row)}`;
	for (const [page, rows] of near.entries())
		for (const row of rows) {
			const pagesOf = seen.get(name(row)) ?? new Map<number, number[]>();
			seen.set(name(row), pagesOf);
			if (!pagesOf.has(page)) pagesOf.set(page, numbersOf(row));
		}
	const running = new Set(
		[...seen].filter(([, there]) => there.size >= Math.max(2, pages.length / 2) && keepsStep(there)).map(([one]) => one)
	);
	return near.map((rows) => (pages.length < 2 ? [] : rows.filter((row) => running.has(name(row)))));
}

function numbersOf(row: TextRow): number[] {
	return row.words.flatMap((word) => [...word.text.matchAll(/\p{N}+/gu)].map(([digits]) => Number(digits)));
}

/** Whether each number of a row that comes again is the same on all pages, or goes up by one with each page. */
function keepsStep(there: Map<number, number[]>): boolean {
	const all = [...there];
	const [firstPage, first] = all[0]!;
	return all.every(([page, numbers]) =>
		numbers.every((number, i) => number === first[i] || Number.isNaN(number) || number - first[i]! === page - firstPage)
	);
}

/** A row's words, with every number as one sign, so that a page's number doesn't tell it apart. */
export function rowText(row: TextRow): string {
	return row.words.map((w) => bare(w.text).replace(/\p{N}+/gu, '#')).join(' ');
}
