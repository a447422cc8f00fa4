import type { ShownRect } from '../page';
import { inkOf, type Grey, type Projection } from '../picture';
import { overlap, wider, within } from './boxes';
import { changedWords, type ChangedWord } from './changed';
import { clear, clearEdge, gathered, inkIn, penOf, piecesOf, type Piece } from './ink';
import { LAID_SCALE } from './laid';
import { settle } from './settled';
import type { Place, ReadWordAt, SheetOut } from './sheet';

/** One page that came back, held against the page that went out. Boxes in points of the page as shown. */
export interface PageCompared {
	changed: ChangedWord[];
	/** writing that is at no place and on no word */
	writing: ShownRect[];
	/** each place, whether there is ink in it */
	places: { field: string; ink: boolean }[];
}

/** A pen is darker than this share of the paper's light; a stain is not. */
const PEN = 0.64;

/** People sign over lines and out of boxes: so far round a place ink is that place's, in points. */
const ROUND = { sign: 14, small: 4, code: 12 };
/** How much ink makes a place filled, in pixels at {@link LAID_SCALE}: a tick is small, a full stop is none. */
const FILLED = { least: 16, share: 0.0045 };
/** Dust, and the least that is writing, in pixels; pieces so near are one, in pixels. */
const DUST = 5;
const WRITING = { ink: 34, long: 13, gap: 14 };
/**
 * @param original the page as it went out, at {@link LAID_SCALE}
 * @param flat the picture taken into the page's frame, at the same
 * @param way from the page into the picture that `read` is of
 */
export function comparePage(
	sheet: SheetOut,
	original: Grey,
	flat: Grey,
	read: readonly ReadWordAt[],
	way: Projection
): PageCompared {
	const printed = inkOf(original);
	const laid = settle(flat, { original: printed, laid: inkOf(flat) });
	const { width, height } = laid;
	const ink = { printed, laid: inkOf(laid), pen: inkOf(laid, PEN) };
	const pen = penOf(ink.pen, printed, width, height);
	clearEdge(pen, width, height);
	if (sheet.code) clear(pen, width, height, wider(sheet.code, ROUND.code));
	const places = sheet.places.map((place) => ({
		field: place.field,
		ink: isFilled(pen, width, height, place, sheet.places)
	}));
	for (const place of sheet.places) clear(pen, width, height, wider(place, roundOf(place)));
	const inPlace = (word: ShownRect) => sheet.places.some((place) => within(word, wider(place, 1)));
	const changed = changedWords(sheet.words, { original, laid, ink }, read, way).filter((word) => !inPlace(word));
	const pieces = piecesOf(pen, width, height, DUST).filter((piece) => !changed.some((word) => touches(piece, word)));
	const writing = gathered(pieces, WRITING.gap)
		.filter((one) => one.ink >= WRITING.ink && Math.max(one.right - one.left, one.bottom - one.top) >= WRITING.long)
		.map((one) => ({
			left: one.left / LAID_SCALE,
			top: one.top / LAID_SCALE,
			width: (one.right - one.left) / LAID_SCALE,
			height: (one.bottom - one.top) / LAID_SCALE
		}));
	return { changed, writing, places };
}

const roundOf = (place: Place): number => (place.signed ? ROUND.sign : ROUND.small);

/** Ink in a place, or hanging out of it, as long as it lies in no other place. */
function isFilled(pen: Uint8Array, width: number, height: number, place: Place, all: readonly Place[]): boolean {
	const round = wider(place, Math.min(roundOf(place), place.height / 2));
	let ink = inkIn(pen, width, height, round);
	for (const other of all) {
		if (other.field === place.field) continue;
		const both = overlap(round, other);
		if (both) ink -= inkIn(pen, width, height, both);
	}
	const area = place.width * place.height * LAID_SCALE ** 2;
	return ink >= Math.max(FILLED.least, Math.min(160, FILLED.share * area));
}

function touches(piece: Piece, word: ShownRect): boolean {
	const box = wider(word, 1);
	return (
		piece.left < (box.left + box.width) * LAID_SCALE &&
		piece.right > box.left * LAID_SCALE &&
		piece.top < (box.top + box.height) * LAID_SCALE &&
		piece.bottom > box.top * LAID_SCALE
	);
}
