import { cutText } from './clean-text';

/** Text as it is compared and searched: without case, accents and ligatures, in every script. */
export function folded(text: string): string {
	// most words are plain, and need none of it
	if (/^[\x20-\x7e]*$/.test(text)) return text.toLowerCase();
	return text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
}

/** Sorts behind every text. */
export const NOTHING = '\u{10fffd}';

/** Text as lists are put in order by it. Cut, since nobody looks for an order behind the hundredth letter; none comes last. */
export const ordered = (text: string): string => cutText(folded(text), 100) || NOTHING;
