import type { PrintedLine, PrintedWord } from '../../src/lib/core/page';

/** A saying on a page of A4: its text, where it begins from the left, its baseline from the top, its size. */
export type Said = [text: string, x: number, base: number, size?: number];

/** The words of some sayings as they are printed: half their size wide a letter. */
export function printedWords(sayings: Said[]): PrintedWord[] {
	return sayings.flatMap(([text, x, base, size = 10]) => {
		let at = x;
		return text.split(' ').map((word) => {
			const width = word.length * size * 0.5;
			const one = { text: word, x: at, y: 842 - base, width, height: size * 0.7 };
			at += width + size * 0.28;
			return one;
		});
	});
}

/** Lines given from the top left of a page of A4. */
export function printedLines(lines: [x1: number, y1: number, x2: number, y2: number][]): PrintedLine[] {
	return lines.map(([x1, y1, x2, y2]) => ({ x1, y1: 842 - y2, x2, y2: 842 - y1 }));
}
