import type { ShownRect } from '../geometry';
import type { ShownPage, ShownWord } from '../shown-page';

/** Words of one row that stand together: what one reads as one saying. */
export interface Segment extends ShownRect {
	text: string;
	words: ShownWord[];
	base: number;
}

/** A gap wider than this, or than so many letter heights, parts two sayings on one row. */
const GAP = { points: 13, heights: 1.6 };
const RUN = /^(_{2,}|[.…‥]{3,}|…+)$/u;
const isRun = ({ text }: ShownWord): boolean => {
	const first = text.charCodeAt(0);
	return (first === 0x5f || first === 0x2e || first === 0x2025 || first === 0x2026) && RUN.test(text);
};

/** The rows of a page cut where they leave a wide gap, from the top and from the left; runs that mark a blank are gaps. */
export function segmentsOf(page: ShownPage): Segment[] {
	return page.rows.flatMap((row) => {
		const parts: ShownWord[][] = [];
		let open: ShownWord[] = [];
		for (const word of row.words) {
			const last = open[open.length - 1];
			const wide = last && word.left - last.left - last.width > Math.max(GAP.points, GAP.heights * word.height);
			if (open.length > 0 && (wide || isRun(word))) {
				parts.push(open);
				open = [];
			}
			if (!isRun(word)) open.push(word);
		}
		if (open.length > 0) parts.push(open);
		return parts.map((words): Segment => {
			const left = words[0]!.left;
			const top = Math.min(...words.map((w) => w.top));
			const last = words[words.length - 1]!;
			return {
				words,
				text: words.map((w) => w.text).join(' '),
				left,
				top,
				width: last.left + last.width - left,
				height: Math.max(...words.map((w) => w.top + w.height)) - top,
				base: row.base
			};
		});
	});
}

/** Words as one reads them: those on one line from left to right, whatever faces they are set in, line after line. */
export function inReadingOrder(words: ShownWord[]): ShownWord[] {
	const lines: { bottom: number; words: ShownWord[] }[] = [];
	for (const word of [...words].sort((a, b) => a.top + a.height - b.top - b.height)) {
		const bottom = word.top + word.height;
		const line = lines.find((one) => Math.abs(one.bottom - bottom) < 0.6 * Math.max(word.height, 5));
		if (line) line.words.push(word);
		else lines.push({ bottom, words: [word] });
	}
	return lines.flatMap((line) => line.words.sort((a, b) => a.left - b.left));
}
