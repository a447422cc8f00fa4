import { execFileSync } from 'node:child_process';
import { toShown, type PageSize, type PrintedWord } from '../src/lib/core/page';

/** How many words two readings of a document have in common, and how many each has alone. */
export interface Agreement {
	theirs: number;
	ours: number;
	both: number;
}

interface Placed {
	text: string;
	x: number;
	y: number;
}

/** How far apart the middles of a word may be in two readings, in points; readers differ in how high letters are. */
const NEAR = { across: 6, up: 12 };

/** Words of `file` by `pdftotext -bbox`, page by page: their middles as shown, points from the top left. */
export function wordsByPoppler(file: string): Placed[][] {
	const html = execFileSync('pdftotext', ['-bbox', file, '-'], { maxBuffer: 1 << 30 }).toString();
	return html
		.split('<page ')
		.slice(1)
		.map((page) =>
			[...page.matchAll(/<word xMin="([-\d.]+)" yMin="([-\d.]+)" xMax="([-\d.]+)" yMax="([-\d.]+)">([^<]*)</g)].map(
				([, x1, y1, x2, y2, text]) => ({
					text: plain(unescaped(text!)),
					x: (Number(x1) + Number(x2)) / 2,
					y: (Number(y1) + Number(y2)) / 2
				})
			)
		);
}

/** Compares what we read of a document with what Poppler reads of it, word by word where it stands. */
export function agreement(file: string, words: PrintedWord[][], pages: PageSize[]): Agreement & { apart: string[] } {
	const theirs = wordsByPoppler(file);
	let both = 0;
	const apart: string[] = [];
	words.forEach((page, n) => {
		const left = [...(theirs[n] ?? [])];
		for (const word of page) {
			const box = toShown(pages[n]!, word);
			const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
			const text = plain(word.text);
			// Poppler writes right-to-left words as they stand, not as they are read
			const turned = [...text].reverse().join('');
			const at = left.findIndex(
				(one) =>
					(one.text === text || one.text === turned) &&
					Math.abs(one.x - x) < NEAR.across &&
					Math.abs(one.y - y) < NEAR.up
			);
			if (at >= 0) {
				left.splice(at, 1);
				both += 1;
			} else apart.push(`+${text}`);
		}
		apart.push(...left.map((one) => `-${one.text}`));
	});
	return { theirs: theirs.flat().length, ours: words.flat().length, both, apart };
}

/** What two readers may write otherwise without reading otherwise: ligatures, soft hyphens, marks of direction. */
function plain(text: string): string {
	return text.normalize('NFKC').replaceAll(/[\p{Cc}\u00ad\u200b-\u200f\u202a-\u202e\u2066-\u2069\ufeff]/gu, '');
}

function unescaped(text: string): string {
	return text
		.replaceAll('&lt;', '<')
		.replaceAll('&gt;', '>')
		.replaceAll('&quot;', '"')
		.replaceAll(/&#(\d+);/g, (_, code: string) => String.fromCodePoint(Number(code)))
		.replaceAll('&amp;', '&');
}
