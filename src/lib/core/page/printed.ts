import type { Rect } from './geometry';

/** A word as it is printed: page space, points. */
export interface PrintedWord extends Rect {
	text: string;
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
}

/** What is printed on a document's pages: words, lines and boxes, page by page. */
export type PrintedPages = Pick<PaperReading, 'words' | 'drawn'>;

/** All that Pellum knows of a document's pages besides their pictures. */
export interface PaperReading {
	words: PrintedWord[][];
	drawn: PageDrawing[];
	widgets: PdfWidget[];
}
