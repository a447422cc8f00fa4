import { folded } from './folded';

/** Where words that were searched for stand in a text: each of them by its beginning, in whatever case and accents. */

/** A piece of a text around the first word that was found, to be shown with that word marked. */
export interface FoundPiece {
	before: string;
	word: string;
	after: string;
}

/** So many words of a search count, and so many letters of it. */
const MOST = { words: 10, letters: 200 };
/** So many words are shown on either side. */
const AROUND = 6;

/** The words of a text, folded. */
const wordsIn = (text: string): string[] => folded(text).match(/[\p{L}\p{N}]+/gu) ?? [];

/** The words of a search, folded. */
export function searchedWords(search: string): string[] {
	return wordsIn(search.slice(0, MOST.letters)).slice(0, MOST.words);
}

/** Whether every one of the words (folded) begins some word of the text. */
export function hasAll(text: string, words: readonly string[]): boolean {
	const there = wordsIn(text);
	return words.length > 0 && words.every((word) => there.some((one) => one.startsWith(word)));
}

/** The piece around the first word of the text that one of those words (folded) begins; null where none does. */
export function pieceFound(text: string, words: readonly string[]): FoundPiece | null {
	const parts = text.split(/\s+/).filter(Boolean);
	const at = parts.findIndex((part) => wordsIn(part).some((one) => words.some((word) => one.startsWith(word))));
	if (at < 0) return null;
	const [from, to] = [Math.max(0, at - AROUND), at + 1 + AROUND];
	return {
		before: `${from > 0 ? '… ' : ''}${parts.slice(from, at).join(' ')}`,
		word: parts[at]!,
		after: `${parts.slice(at + 1, to).join(' ')}${to < parts.length ? ' …' : ''}`
	};
}
