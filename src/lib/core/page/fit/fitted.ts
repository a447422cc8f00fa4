import type { PageSize, Rect, ShownRect } from '../geometry';
import type { PrintedPages } from '../printed';
import type { Pin } from './pin-schema';
import { streamOf, type Stream } from './stream';

/** A document to fit from or to: its text, and its pages' sizes. */
export interface Version {
	text: Stream;
	pages: readonly PageSize[];
}

/** A document made ready for fitting. */
export function versionOf(reading: PrintedPages, pages: readonly PageSize[]): Version {
	return { text: streamOf(reading, pages), pages };
}

/** A field to be fitted: page space of its page. */
export interface ToFit {
	id: string;
	page: number;
	rect: Rect;
	pin?: Pin | undefined;
}

/** Why a fitted field wants a look. */
export type Doubt =
	/** the words it belongs to are not there any more */
	| 'gone'
	/** its label now stands more often, or less often, than before */
	| 'count'
	/** its landmarks lead to different places */
	| 'landmarks'
	/** another head stands over its place: its column or its block is elsewhere, or gone */
	| 'head'
	/** the line or box it stood on has no like there */
	| 'no blank'
	/** two lines or boxes could be meant */
	| 'two blanks'
	/** the words round its place are others now */
	| 'context'
	/** nothing stands near it: placed by its distance from what is far away */
	| 'far'
	/** there are no words to go by: placed by the page's own measure */
	| 'no words'
	/** it is expected beyond the page's edge */
	| 'edge'
	/** it came to lie over another field */
	| 'over another'
	/** it comes on every page, and the number of pages has changed */
	| 'pages';

export interface Fitted {
	id: string;
	/** null: it has no place in the new version */
	place: { page: number; rect: Rect } | null;
	/** 0 to 1; below 1 there are doubts */
	sure: number;
	doubts: Doubt[];
	/** it is on another page than before */
	moved: boolean;
}

/** A plan's fields on another version of its document. */
export interface Fitting {
	fields: Fitted[];
	/** share of the old words that are still there, 0 to 1 */
	alike: number;
	/** words of the new version that the old one has not, as shown, by page */
	added: { page: number; rect: ShownRect }[];
	/** words of the old version that are gone, as shown, by page */
	gone: { page: number; rect: ShownRect }[];
}
