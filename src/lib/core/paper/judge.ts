import type { ShownRect } from '../page';
import type { PageCode } from './code';
import type { PageCompared } from './compared';
import type { Place, SheetOut } from './sheet';

/** A return on the whole: which pages are there, and what somebody has to look at before it is taken for what went out. */

/** A picture that is of none of the pages: whose, as far as can be told. */
export type Foreign = 'of another packet' | 'of somebody else' | 'of an older version' | 'blank' | 'not known';

/** One picture, as far as it was told. */
export interface SheetSeen {
	/** of the picture */
	id: string;
	/** which page, from 0 through all that went out; null where it is none of them */
	number: number | null;
	by: 'code' | 'words' | null;
	/** of the page's words, how many stand where they should, 0 to 1 */
	share: number | null;
	foreign: Foreign | null;
	/** pixels to the inch */
	dots: number;
	/** variance of the Laplacian: of two pictures of a page the sharper is kept */
	sharp: number;
	found: PageCompared | null;
	/** its page was wanted again since: one that came after it counts, however it is */
	old?: true;
}

export type DoubtName =
	'page missing' | 'place empty' | 'words changed' | 'writing' | 'too coarse' | 'hardly the same' | 'foreign page';

/** Something to be looked at. `page`: from 0, through all that went out; null of a picture that is of none. */
export interface Doubt {
	what: DoubtName;
	page: number | null;
	/** the picture it is about */
	picture: string | null;
	/** what was printed, the place's label, or whose page it is */
	text: string;
	/** what stands there now, as far as a machine reads it */
	reads: string;
	at: ShownRect | null;
}

export interface Judged {
	/** of each page that went out, the picture that is kept of it; null where there is none */
	pages: (string | null)[];
	/** pictures of a page of which a better one is there */
	twice: { page: number; picture: string }[];
	doubts: Doubt[];
}

/** Fewer pixels to the inch than this are too few to keep. */
const COARSE = 90;
/** Of a page's words, so many must stand where they should, whatever its code says. */
const SAME = 0.25;

/** Which page a code says, or whose else it is. */
export function toldByCode(
	codes: readonly PageCode[],
	out: { reference: string; person: string; digest: string; pages: number }
): number | Foreign | null {
	const [code] = codes;
	if (!code) return null;
	if (code.reference !== out.reference) return 'of another packet';
	if (code.person !== out.person.slice(0, 8)) return 'of somebody else';
	if (code.digest !== out.digest.slice(0, 16)) return 'of an older version';
	return code.page >= 1 && code.page <= out.pages ? code.page - 1 : 'not known';
}

export function judgeReturn(sheets: readonly SheetOut[], seen: readonly SheetSeen[]): Judged {
	const twice: Judged['twice'] = [];
	const kept = sheets.map((_, page) => {
		const all = seen.filter((one) => one.number === page);
		const best = all.reduce<SheetSeen | null>((a, b) => (a && worth(a) >= worth(b) ? a : b), null);
		twice.push(...all.filter((one) => one !== best).map((one) => ({ page, picture: one.id })));
		return best;
	});
	const doubts = [
		...kept.flatMap((one, page) => (one ? doubtsOf(sheets[page]!, page, one) : [missing(page)])),
		...seen.filter((one) => one.number === null).map(foreign)
	];
	return { pages: kept.map((one) => one?.id ?? null), twice, doubts };
}

/** Of two pictures of a page, what came after it was wanted again, then the one with more of its places written on, then the sharper. */
const worth = ({ found, sharp, dots, old }: SheetSeen): number =>
	(old ? 0 : 1e6) +
	1000 * (found?.places.filter((place) => place.ink).length ?? 0) +
	Math.sqrt(Math.max(0, sharp)) +
	dots / 10;

const missing = (page: number): Doubt => ({
	what: 'page missing',
	page,
	picture: null,
	text: '',
	reads: '',
	at: null
});

const foreign = ({ id, foreign: whose }: SheetSeen): Doubt => ({
	what: 'foreign page',
	page: null,
	picture: id,
	text: whose ?? 'not known',
	reads: '',
	at: null
});

function doubtsOf(sheet: SheetOut, page: number, { id, found, dots, share, by }: SheetSeen): Doubt[] {
	const about = { page, picture: id, text: '', reads: '', at: null };
	const filled = (place: Place) => found?.places.some((one) => one.field === place.field && one.ink) === true;
	const empty = sheet.places.filter(
		(place, i) =>
			place.required &&
			!filled(place) &&
			(place.oneOf === '' ||
				// said once of them all, where none of them is chosen
				(sheet.places.findIndex((one) => one.oneOf === place.oneOf) === i &&
					!sheet.places.some((one) => one.oneOf === place.oneOf && filled(one))))
	);
	return [
		...(share !== null && share < SAME && by === 'code' ? [{ ...about, what: 'hardly the same' as const }] : []),
		...(dots > 0 && dots < COARSE ? [{ ...about, what: 'too coarse' as const, text: String(dots) }] : []),
		...(found?.changed ?? []).map(({ text, reads, ...at }): Doubt => ({
			...about,
			what: 'words changed',
			text,
			reads,
			at
		})),
		...(found?.writing ?? []).map((at): Doubt => ({ ...about, what: 'writing', at })),
		...empty.map(({ label, left, top, width, height }): Doubt => ({
			...about,
			what: 'place empty',
			text: label,
			at: { left, top, width, height }
		}))
	];
}
