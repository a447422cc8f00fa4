import type { Rect } from './geometry';

/** A word as it is printed: page space, points. */
export interface PrintedWord extends Rect {
	text: string;
	/** how sure a machine is of it that read it from a picture, 0 to 100; without it, it was printed */
	sure?: number;
}

/** A printed straight line, along one of the page's edges. Page space, points. */
export interface PrintedLine {
	x1: number;
	y1: number;
	x2: number;
	y2: number;
}

/** A form field that the PDF itself had; it is flattened out of the page and can be taken over. */
export interface PdfWidget extends Rect {
	page: number;
	name: string;
	label: string;
	kind: 'text' | 'number' | 'date' | 'ticks' | 'pick-one' | 'choice' | 'signature';
	required: boolean;
	/** settings of that kind */
	settings: Record<string, string | number | boolean | { value: string; text: string }[]>;
	/** it came with something filled in, which stays printed */
	filled: boolean;
}

/** What is drawn on one page. */
export interface PageDrawing {
	lines: PrintedLine[];
	boxes: Rect[];
	/** circles, by the square round them; absent in what was read before they were looked for */
	rings?: Rect[];
	/** which of the boxes are filled with a shade and have no edge of their own */
	shaded?: Rect[];
}

/** What is printed on a document's pages: words, lines and boxes, page by page. */
export type PrintedPages = Pick<PaperReading, 'words' | 'drawn'>;

/** All that Pellum knows of a document's pages besides their pictures. */
export interface PaperReading {
	words: PrintedWord[][];
	drawn: PageDrawing[];
	widgets: PdfWidget[];
	/** absent where no page is a picture */
	scans?: Scans;
}

/** Pages of a document that are pictures, and what a machine has read of them so far. */
export interface Scans {
	/** from 0 */
	pages: number[];
	/** how many of them are done, read or given up */
	done: number;
	/**
	 * Pages that were read: how sure of it on the whole (0 to 100), by how many degrees their rows rise to the right, and by
	 * how much they would have to be turned to stand upright.
	 */
	read: { page: number; sure: number; lean: number; turn: 0 | 90 | 180 | 270 }[];
}
