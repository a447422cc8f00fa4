import type { OpenPdf, Picture } from '../pdfium';

/** How finely pages are drawn to be compared: pixels a point, and the bounds of a picture's width. */
const SCALE = 0.6;
const WIDTH = { least: 120, most: 700 };
/** How much lighter or darker (of 255) a spot must be to count; the same renderer draws the same thing the same way. */
const NOTABLE = 40;
/** So many such spots are no rounding any more. */
const SPOTS = 4;

/** How wide a page is drawn for comparing, in pixels, by its width as shown in points. */
export function comparingWidth(points: number): number {
	return Math.round(Math.min(WIDTH.most, Math.max(WIDTH.least, points * SCALE)));
}

/** What comparing a document with what it was made from has shown; pages from 0. */
export interface Compared {
	/** pages that look different */
	differ: number[];
	/** pages on which nothing shows */
	blank: number[];
}

/**
 * Draws each page of two documents small, by the same renderer, and tells which look different by more than rounding.
 * `widths`: of the pages as shown, in points, from the page `from` on. Their numbers of pages must be alike.
 */
export function compared(
	original: OpenPdf,
	taken: OpenPdf,
	widths: number[],
	told: (page: number) => void = () => {},
	from = 0
): Compared {
	const found: Compared = { differ: [], blank: [] };
	widths.forEach((points, i) => {
		const page = from + i;
		const width = comparingWidth(points);
		const [before, after] = [pictureOf(original, page, width), pictureOf(taken, page, width)];
		if (!before || !after || looksDifferent(before, after)) found.differ.push(page);
		if (after && isBlank(after)) found.blank.push(page);
		told(i + 1);
	});
	return found;
}

function pictureOf(pdf: OpenPdf, page: number, width: number): Picture | null {
	try {
		return pdf.picture(page, width);
	} catch {
		return null;
	}
}

/** Whether two pictures of a page differ by more than the softness of an edge. */
export function looksDifferent(one: Picture, other: Picture): boolean {
	if (one.width !== other.width || one.height !== other.height) return true;
	const [a, b] = [new Uint32Array(one.rgba.buffer), new Uint32Array(other.rgba.buffer)];
	let spots = 0;
	for (let i = 0; i < a.length; i++) {
		if (a[i] === b[i]) continue;
		const at = 4 * i;
		for (let colour = at; colour < at + 3; colour++)
			if (Math.abs(one.rgba[colour]! - other.rgba[colour]!) > NOTABLE) {
				spots += 1;
				break;
			}
		if (spots >= SPOTS) return true;
	}
	return false;
}

function isBlank({ rgba }: Picture): boolean {
	return new Uint32Array(rgba.buffer).every((pixel) => pixel === 0xffffffff);
}
