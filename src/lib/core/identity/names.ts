import { distance } from 'fastest-levenshtein';
import { waysOfWriting } from './transliterated';
import type { Zone } from './zone';

/** A name that was typed against one that stands in a zone. */
export type NameFound =
	| { is: 'same' }
	/** so many letters off, on the whole */
	| { is: 'near'; letters: number }
	| { is: 'other' }
	/** it has a script that zones have no letters for */
	| { is: 'not comparable' };

/** Titles that people write before their names, and documents don't. */
const TITLES = new Set(['MR', 'MRS', 'MS', 'MISS', 'DR', 'PROF', 'SIR', 'DAME', 'HERR', 'FRAU', 'M', 'MME', 'MX']);

/**
 * Whether somebody's name is the one in the zone, whatever the order of its parts. More names in the zone than were typed are no
 * matter: documents have them all. A part that the zone's field cut off is the same as far as it goes.
 * @param most letters that may be off in one part of the name
 */
export function nameAgainst(name: string, zone: Pick<Zone, 'surname' | 'given' | 'cut'>, most = 1): NameFound {
	const typed = partsOf(name);
	const ways = typed.map((part) => waysOfWriting(part));
	if (typed.length === 0 || ways.some((one) => one.length === 0)) return { is: 'not comparable' };
	const written = [...zone.surname.split(' '), ...zone.given.split(' ')].filter((part) => part !== '');
	const last = written.length - 1;
	let off = 0;
	let surname = false;
	const free = new Set(written.keys());
	// the longest first, so that a short one doesn't take another's place
	for (const way of ways.toSorted((a, b) => b[0]!.length - a[0]!.length)) {
		const best = [...free]
			.map((at) => ({ at, off: Math.min(...way.map((one) => lettersOff(one, written[at]!, zone.cut && at === last))) }))
			.toSorted((a, b) => a.off - b.off || a.at - b.at)[0];
		if (!best || best.off > allowed(way[0]!, most)) return { is: 'other' };
		free.delete(best.at);
		off += best.off;
		if (zone.surname.split(' ').includes(written[best.at]!)) surname = true;
	}
	// a given name alone is no name
	if (!surname) return { is: 'other' };
	return off === 0 ? { is: 'same' } : { is: 'near', letters: off };
}

/** A short word with another letter is another word. */
const allowed = (part: string, most: number): number => (part.length <= 3 ? 0 : most);

function lettersOff(typed: string, written: string, cut: boolean): number {
	if (cut && written.length > 0 && typed.startsWith(written)) return 0;
	// an initial stands for its name
	if (typed.length === 1 && written.startsWith(typed)) return 0;
	return distance(typed, written);
}

function partsOf(name: string): string[] {
	const parts = name
		.normalize('NFC')
		// what joins two names parts them there (ICAO 9303-3 §4.6); what stands within one is left out
		.split(/[\s\-‐‑–—.,·]+/u)
		.map((part) => part.replaceAll(/['’ʼ`]/g, ''))
		.filter((part) => part !== '');
	const named = parts.filter((part) => !TITLES.has(part.toUpperCase()));
	return named.length > 0 ? named : parts;
}
