import { Type } from '@sinclair/typebox';
import type { Place } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { border } from '../border';

const place = border(
	Type.Object({ at: Type.String({ maxLength: 300 }), n: Type.Integer() }, { additionalProperties: false })
);

/** Where a page ended, as a word that only we read. */
export const cursorOf = (next: Place | null): string | null =>
	next && Buffer.from(JSON.stringify({ at: next.at, n: next.n })).toString('base64url');

/** Where to go on; undefined from the beginning. Refuses `bad-cursor`. */
export function placeOf(after: string | undefined): Place | undefined | Refusal {
	if (after === undefined) return undefined;
	try {
		const read = place(JSON.parse(Buffer.from(after, 'base64url').toString('utf8')));
		if (!isRefusal(read)) return read;
	} catch {
		// told like any other that can't be read
	}
	return refuse('bad-cursor', '“after” is not the “next” of a page. Begin without it.', 'after');
}
