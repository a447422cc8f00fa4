import type { ShownRect } from '../page';
import { inkOf, projected, type Grey, type Projection } from '../picture';
import { besideOf, inkOn, leastAlike } from './alike';
import { gathered, grown, inkIn, PEN, penOf, piecesOf, wider, type Piece } from './ink';
import { LAID_SCALE } from './laid';
import { bare } from './matching';
import { median, settle } from './settled';
import type { Place, ReadWordAt, SheetOut, SheetWord } from './sheet';

/** One page that came back, held against the page that went out. Boxes in points of the page as shown. */
export interface PageCompared {
	/** words that are not what they were: struck, written over, or printed otherwise; `reads`: what a machine reads there */
	changed: (ShownRect & { text: string; reads: string })[];
	/** writing that is at no place and on no word */
	writing: ShownRect[];
	/** each place, whether there is ink in it */
	places: { field: string; ink: boolean }[];
	/** the picture as it lies on the page, and the ink on it that did not go out */
	laid: Grey;
}

/** People sign over lines and out of boxes: so far round a place ink is that place's, in points. */
const ROUND = { sign: 14, small: 4, code: 12 };
/** How much ink makes a place filled, in pixels at {@link LAID_SCALE}: a tick is small, a full stop is none. */
const FILLED = { least: 16, share: 0.0045 };
/** Dust, and the least that is writing, in pixels; pieces so near are one, in pixels. */
const DUST = 5;
const WRITING = { ink: 34, long: 13, gap: 14 };
/** At the very edge there are shadows and staples: points. */
const EDGE = 11;
/**
 * Ink on a word where none was printed, in pixels; of letters higher than so many points, more. `least` counts where the word is unlike
 * the others too, `little` on a clean copy where it is much so, `much` in any case.
 */
const ON_WORD = { little: 6, least: 14, much: 40, doubt: 5, height: 9, clean: 0.5 };

/** Whether there is ink on a word that changes it. `below`: by how many median deviations it is less alike than the others. */
const isInked = (ink: number, below: number, noise: number): boolean =>
	ink >= ON_WORD.much ||
	(ink >= ON_WORD.least && below >= 2) ||
	(ink >= ON_WORD.little && below >= 4 && noise <= ON_WORD.clean);

/** How much less alike than most words a word is (in median deviations), and in all, to be another one; and how little is left of one that is gone. */
const ALIKE = { doubt: 3, doubtBelow: 0.62, sure: 7, sureBelow: 0.3, gone: 0.3 };
/** A machine this sure of another word is worth listening to. */
const READS = 60;
/** A point or a dash can't be told from dust. */
const LEAST_PRINT = 40;

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
	const pen = penOf(laid, printed);
	clearEdge(pen, width, height);
	if (sheet.code) clear(pen, width, height, wider(sheet.code, ROUND.code));
	const places = sheet.places.map((place) => ({
		field: place.field,
		ink: isFilled(pen, width, height, place, sheet.places)
	}));
	for (const place of sheet.places) clear(pen, width, height, wider(place, roundOf(place)));
	// a line to write on is no word
	const words = sheet.words.filter((word) => bare(word.text) !== '');
	const soft = softer(original);
	const ink = { original: printed, laid: inkOf(laid) };
	const beside = words.map((word) => besideOf(ink, laid, word));
	const scores = words.map((word, i) => leastAlike(soft, laid, word, beside[i]!));
	const seen = inkOf(laid, PEN);
	const onWords = { near: grown(printed, width, height, 1), pen: seen };
	const prints = words.map((word) => inkIn(printed, width, height, word));
	const spilt = words.map((word, i) => inkOn(onWords, laid, word, beside[i]!));
	// a poor copy makes all letters fatter
	const fatter = median(spilt.map((ink, i) => ink / Math.max(1, prints[i]!)));
	const added = spilt.map((ink, i) => ink - 2 * fatter * prints[i]!);
	// what nine of ten words have on them is how the copy is, not what somebody wrote
	const noise = added.toSorted((a, b) => a - b)[Math.floor(0.9 * added.length)] ?? 0;
	const usual = median(scores);
	const spread = Math.max(0.02, median(scores.map((one) => Math.abs(one - usual))));
	const pieces = piecesOf(pen, width, height, DUST);
	const onWord = new Set<Piece>();
	const changed = words.flatMap((word, i) => {
		const mine = sheet.places.some((place) => within(word, wider(place, 1)));
		const touching = pieces.filter((piece) => touches(piece, word));
		const reads = readAt(word, read, way);
		const other = reads.text !== '' && bare(reads.text) !== bare(word.text) && reads.sure >= READS;
		const [score, ink, print] = [scores[i]!, added[i]!, prints[i]!];
		const below = (usual - score) / spread;
		const unlike = below > ALIKE.sure && score < ALIKE.sureBelow && print >= LEAST_PRINT;
		const changed =
			isInked(ink / Math.max(0.7, word.height / ON_WORD.height), below, noise) ||
			(below > ALIKE.doubt && score < ALIKE.doubtBelow && other && ink >= ON_WORD.doubt) ||
			(unlike && (ink >= ON_WORD.doubt || inkIn(seen, width, height, word) < ALIKE.gone * print));
		if (!changed || mine) return [];
		for (const piece of touching) onWord.add(piece);
		return [{ text: word.text, reads: reads.text, ...boxOf(word) }];
	});
	const writing = gathered(
		pieces.filter((piece) => !onWord.has(piece)),
		WRITING.gap
	)
		.filter((one) => one.ink >= WRITING.ink && Math.max(one.right - one.left, one.bottom - one.top) >= WRITING.long)
		.map((one) => ({
			left: one.left / LAID_SCALE,
			top: one.top / LAID_SCALE,
			width: (one.right - one.left) / LAID_SCALE,
			height: (one.bottom - one.top) / LAID_SCALE
		}));
	return { changed, writing, places, laid };
}

const boxOf = ({ left, top, width, height }: ShownRect): ShownRect => ({ left, top, width, height });

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

function overlap(a: ShownRect, b: ShownRect): ShownRect | null {
	const left = Math.max(a.left, b.left);
	const top = Math.max(a.top, b.top);
	const width = Math.min(a.left + a.width, b.left + b.width) - left;
	const height = Math.min(a.top + a.height, b.top + b.height) - top;
	return width > 0 && height > 0 ? { left, top, width, height } : null;
}

const within = (inner: ShownRect, outer: ShownRect): boolean => {
	const both = overlap(inner, outer);
	return both !== null && both.width * both.height > 0.5 * inner.width * inner.height;
};

function touches(piece: Piece, word: SheetWord): boolean {
	const box = wider(word, 1);
	return (
		piece.left < (box.left + box.width) * LAID_SCALE &&
		piece.right > box.left * LAID_SCALE &&
		piece.top < (box.top + box.height) * LAID_SCALE &&
		piece.bottom > box.top * LAID_SCALE
	);
}

function clear(map: Uint8Array, width: number, height: number, box: ShownRect): void {
	const left = Math.max(0, Math.round(box.left * LAID_SCALE));
	const right = Math.min(width, Math.round((box.left + box.width) * LAID_SCALE));
	const bottom = Math.min(height, Math.round((box.top + box.height) * LAID_SCALE));
	for (let y = Math.max(0, Math.round(box.top * LAID_SCALE)); y < bottom; y++)
		if (right > left) map.fill(0, y * width + left, y * width + right);
}

function clearEdge(map: Uint8Array, width: number, height: number): void {
	const deep = Math.round(EDGE * LAID_SCALE);
	for (let y = 0; y < height; y++) {
		if (y < deep || y >= height - deep) map.fill(0, y * width, (y + 1) * width);
		else {
			map.fill(0, y * width, y * width + deep);
			map.fill(0, (y + 1) * width - deep, (y + 1) * width);
		}
	}
}

/** A page as drawn is sharper than any picture of it. */
function softer({ width, height, data }: Grey): Grey {
	const out = new Uint8Array(data);
	for (let y = 1; y < height - 1; y++)
		for (let x = 1; x < width - 1; x++) {
			const at = y * width + x;
			let sum = 4 * data[at]!;
			sum += 2 * (data[at - 1]! + data[at + 1]! + data[at - width]! + data[at + width]!);
			sum += data[at - width - 1]! + data[at - width + 1]! + data[at + width - 1]! + data[at + width + 1]!;
			out[at] = sum / 16;
		}
	return { width, height, data: out };
}

/** What a machine has read where a word stands. */
function readAt(word: SheetWord, read: readonly ReadWordAt[], way: Projection): { text: string; sure: number } {
	const a = projected(way, { x: word.left, y: word.top });
	const b = projected(way, { x: word.left + word.width, y: word.top + word.height });
	const [left, right] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
	const [top, bottom] = [Math.min(a.y, b.y), Math.max(a.y, b.y)];
	const here = read.filter((one) => {
		const [x, y] = [one.left + one.width / 2, one.top + one.height / 2];
		return x > left && x < right && y > top - 2 && y < bottom + 2;
	});
	return {
		text: here.map((one) => one.text).join(' '),
		sure: Math.min(100, ...here.map((one) => one.sure))
	};
}
