import { matchWords, numbered } from '../page/fit/word-match';

/** Words that are others now: what was struck, what is new, and what stands around it. */
export interface Difference {
	/** pages from 0; null where nothing was, or is, there */
	pageBefore: number | null;
	pageAfter: number | null;
	/** '' where words only came, or only went */
	struck: string;
	fresh: string;
	lead: string;
	tail: string;
}

/** How many words of what is the same are shown around a change. */
const AROUND = 6;

/**
 * What differs between two texts, in the order of the later one. Words as they are written, so that a figure, a capital or a full stop counts.
 * @param before words by page
 */
export function differences(before: readonly string[][], after: readonly string[][]): Difference[] {
	const [a, b] = [flat(before), flat(after)];
	const to = matchWords(numbered(a.words, b.words));
	const found: Difference[] = [];
	let [i, j] = [0, 0];
	while (i < a.words.length || j < b.words.length) {
		if (i < a.words.length && to[i] === j) {
			i += 1;
			j += 1;
			continue;
		}
		let end = i;
		while (end < a.words.length && to[end] === -1) end += 1;
		const there = end < a.words.length ? to[end]! : b.words.length;
		found.push({
			pageBefore: end > i ? a.pages[i]! : null,
			pageAfter: there > j ? b.pages[j]! : null,
			struck: a.words.slice(i, end).join(' '),
			fresh: b.words.slice(j, there).join(' '),
			lead: b.words.slice(Math.max(0, j - AROUND), j).join(' '),
			tail: b.words.slice(there, there + AROUND).join(' ')
		});
		[i, j] = [end, there];
	}
	return found;
}

function flat(pages: readonly string[][]): { words: string[]; pages: number[] } {
	return { words: pages.flat(), pages: pages.flatMap((words, page) => words.map(() => page)) };
}
