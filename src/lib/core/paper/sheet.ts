import type { ShownRect } from '../page';

/** A word as it stands on a page: points of the page as shown, from its top left. */
export interface SheetWord extends ShownRect {
	text: string;
}

/** Where somebody writes by hand. */
export interface Place extends ShownRect {
	field: string;
	label: string;
	/** a signature or initials, which run out of their place */
	signed: boolean;
	required: boolean;
	/** of these, which one is the question: ink in one of them is enough; '' where it stands alone */
	oneOf: string;
}

/** One page that went out to be signed in ink. All in points of the page as shown, from its top left. */
export interface SheetOut {
	paper: string;
	/** within its document, from 0 */
	page: number;
	width: number;
	height: number;
	words: SheetWord[];
	places: Place[];
	/** where its code stands; it may lie outside the page, where the sheet is larger */
	code: ShownRect | null;
}

/** A word as a machine read it in a picture: pixels from its top left, and how sure it is of it (0 to 100). */
export interface ReadWordAt extends ShownRect {
	text: string;
	sure: number;
}
