import type { ShownRect } from '../geometry';
import type { Stream, Token } from './stream';

/** A word near a field, which tells where the field belongs. */
export interface Landmark {
	/** index in the stream */
	token: number;
	/** on the field's own line, or over or under it */
	at: 'line' | 'above' | 'below';
	/** how far away, in points; the further, the less it tells */
	far: number;
}

const MOST = 10;
/** A word on another line tells less than one on the field's own. */
const OTHER_LINE = 26;
const REACH = 170;

/** The words by which a field is pinned, the best first. Only words of the field's own page. */
export function landmarksOf(stream: Stream, page: number, rect: ShownRect): Landmark[] {
	const best: Landmark[] = [];
	for (let token = stream.starts[page]!; token < stream.starts[page + 1]!; token++) {
		const one = landmark(stream.tokens[token]!, rect);
		if (!one || (best.length === MOST && one.far >= best[MOST - 1]!.far)) continue;
		const place = best.findIndex((known) => known.far > one.far);
		best.splice(place < 0 ? best.length : place, 0, { token, ...one });
		if (best.length > MOST) best.pop();
	}
	return best;
}

function landmark({ word, row }: Token, rect: ShownRect): Omit<Landmark, 'token'> | null {
	const bottom = rect.top + rect.height;
	const right = rect.left + rect.width;
	const aside = Math.max(0, rect.left - word.left - word.width, word.left - right);
	if (onLine(row.base, rect)) {
		// what stands before a blank is its label more often than what stands after it
		// a field that touches two lines stands on the one whose foot is nearest its own
		const off = Math.max(0, Math.abs(row.base - bottom + 3) - 4) * 2;
		return { at: 'line', far: alongLine(word.left >= right - 2 ? aside + 8 : aside) + off };
	}
	const gap = row.base < rect.top + rect.height / 2 ? rect.top - row.base : row.top - bottom;
	if (gap > REACH) return null;
	return { at: row.base < rect.top + rect.height / 2 ? 'above' : 'below', far: OTHER_LINE + Math.max(0, gap) + aside };
}

/** Lines and the rows of tables move as one, so a word at the far end of one's own tells more than the next line's. */
function alongLine(aside: number): number {
	return aside < 60 ? aside * 0.3 : 18 + (aside - 60) * 0.02;
}

/** Whether a line of text with this baseline is the one a field stands on. */
export function onLine(base: number, rect: ShownRect): boolean {
	const bottom = rect.top + rect.height;
	return (base > rect.top + 3 && base <= bottom + 1) || Math.abs(base - bottom) <= 6;
}
