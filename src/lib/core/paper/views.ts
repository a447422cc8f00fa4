import type { Doubt } from './judge';
import type { ShownRect } from '../page';

/** What is shown of a return: to whoever brings it, and to the office. */

/** A picture that lies there. */
export interface BroughtPicture {
	id: string;
	name: string;
	/** which page its code says, from 1; null where none can be read, or it is another one's */
	page: number | null;
	/** it is too dark, or not sharp enough, to be read well */
	faults: ('too dark' | 'blurred')[];
	pdf: boolean;
	handedIn: boolean;
}

/** As the person has it: where they are with their paper. */
export interface PaperToBring {
	/** null where they have not fetched it */
	is: 'fetched' | 'looking' | 'again' | 'refused' | null;
	pages: number;
	pictures: BroughtPicture[];
	/** pages of which nothing lies there yet by their codes, from 1 */
	missing: number[];
	/** pages that are wanted again, from 1 */
	again: number[];
	word: string;
	/** where it can be sent by post, line by line; '' where it can't */
	post: string;
}

/** As the office has it. */
export interface ReturnLook {
	packet: string;
	title: string;
	reference: string;
	zone: string;
	person: { id: string; name: string; email: string };
	is: 'fetched' | 'looking' | 'doubts' | 'sure' | 'again' | 'refused' | 'accepted' | null;
	since: string;
	/** how many of the pictures have been looked at by the machine */
	done: number;
	pages: {
		/** from 0 */
		number: number;
		width: number;
		height: number;
		/** the picture that is kept of it; null where there is none */
		picture: string | null;
		by: 'code' | 'words' | null;
		/** of a hundred of its words, how many stand where they should; null of a page without */
		share: number | null;
		dots: number;
		places: (ShownRect & { field: string; label: string; ink: boolean })[];
		doubts: Doubt[];
	}[];
	foreign: Doubt[];
	twice: { page: number; picture: string }[];
	pictures: BroughtPicture[];
	/** fields with writing that may be taken for data once somebody has read it; `needed`: the route hangs on it */
	toConfirm: {
		field: string;
		label: string;
		page: number;
		options: [string, string][];
		needed: boolean;
	}[];
	/** why this account may not judge; '' where they may */
	mayNot: string;
	word: string;
}
