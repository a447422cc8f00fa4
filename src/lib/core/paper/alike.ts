import type { Grey } from '../picture';
import { pixels } from './boxes';
import type { SheetWord } from './sheet';

/**
 * How alike a printed word and its picture are, letter by letter, whatever the light: a machine that misreads a blurred word is
 * wrong about letters that look as they should, and a changed word has one that does not.
 */

/** As far as a letter may lie off where its word has been laid, in pixels. */
const OFF = 1;
/** Grey values' variance below which there is nothing to compare. */
const FLAT = 60;

/** By how many pixels a word's picture lies beside where the word was printed. */
export interface Beside {
	dx: number;
	dy: number;
}

/** As far as a word may lie off once its page has been laid flat; and how much print it must hold to say so. */
const WORD_OFF = 5;
const TELLS = 50;

/** Where a word's print lies best on the ink of the picture. */
export function besideOf(
	ink: { original: Uint8Array; laid: Uint8Array },
	{ width, height }: Pick<Grey, 'width' | 'height'>,
	word: SheetWord
): Beside {
	const box = pixels(word, width, height);
	const spots: number[] = [];
	for (let y = box.top; y < box.bottom; y++)
		for (let x = box.left; x < box.right; x++) if (ink.original[y * width + x] === 1) spots.push(x, y);
	if (spots.length < 2 * TELLS) return { dx: 0, dy: 0 };
	let best = { dx: 0, dy: 0, worth: -Infinity };
	for (let dy = -WORD_OFF; dy <= WORD_OFF; dy++)
		for (let dx = -WORD_OFF; dx <= WORD_OFF; dx++) {
			let hits = 0;
			for (let i = 0; i < spots.length; i += 2) {
				const [x, y] = [spots[i]! + dx, spots[i + 1]! + dy];
				if (x >= 0 && y >= 0 && x < width && y < height) hits += ink.laid[y * width + x]!;
			}
			// of two that are as good, the nearer
			const worth = hits - 0.004 * spots.length * Math.hypot(dx, dy);
			if (worth > best.worth) best = { dx, dy, worth };
		}
	return { dx: best.dx, dy: best.dy };
}

/** How many pixels of ink lie on a word where none was printed, but for one pixel round its print. */
export function inkOn(
	ink: { near: Uint8Array; pen: Uint8Array },
	{ width, height }: Pick<Grey, 'width' | 'height'>,
	word: SheetWord,
	{ dx, dy }: Beside
): number {
	const box = pixels(word, width, height);
	let sum = 0;
	for (let y = Math.max(0, box.top - 2); y < Math.min(height, box.bottom + 2); y++)
		for (let x = Math.max(0, box.left - 1); x < Math.min(width, box.right + 1); x++) {
			const [u, v] = [x + dx, y + dy];
			if (ink.near[y * width + x] === 0 && u >= 0 && v >= 0 && u < width && v < height) sum += ink.pen[v * width + u]!;
		}
	return sum;
}

/** The least alike of a word's letters: 1 the same, 0 nothing in common; 1 where there is nothing to compare. */
export function leastAlike(original: Grey, laid: Grey, word: SheetWord, beside: Beside): number {
	const { width, height } = original;
	const box = pixels(word, width, height);
	const tall = box.bottom - box.top;
	const wide = Math.max(8, Math.round(0.75 * tall));
	let least = 1;
	const last = Math.max(box.left, box.right - wide);
	for (let x = box.left; ; x = Math.min(last, x + Math.ceil(wide / 2))) {
		least = Math.min(least, alike(original, laid, x, box.top - 1, wide, tall + 2, beside));
		if (x >= last) break;
	}
	return least;
}

/** The best normalised correlation of a window, moved by a little. */
function alike(
	original: Grey,
	laid: Grey,
	left: number,
	top: number,
	wide: number,
	high: number,
	beside: Beside
): number {
	const { width, height } = original;
	const reach = WORD_OFF + OFF;
	const x0 = Math.max(reach, left);
	const y0 = Math.max(reach, top);
	const x1 = Math.min(width - reach, left + wide);
	const y1 = Math.min(height - reach, top + high);
	const n = (x1 - x0) * (y1 - y0);
	if (x1 <= x0 || y1 <= y0) return 1;
	let [sum, squares] = [0, 0];
	for (let y = y0; y < y1; y++)
		for (let x = x0; x < x1; x++) {
			const value = original.data[y * width + x]!;
			sum += value;
			squares += value * value;
		}
	const own = squares / n - (sum / n) ** 2;
	let best = -1;
	for (let dy = beside.dy - OFF; dy <= beside.dy + OFF; dy++)
		for (let dx = beside.dx - OFF; dx <= beside.dx + OFF; dx++) {
			let [others, othersSquares, both] = [0, 0, 0];
			for (let y = y0; y < y1; y++)
				for (let x = x0; x < x1; x++) {
					const value = laid.data[(y + dy) * width + x + dx]!;
					others += value;
					othersSquares += value * value;
					both += value * original.data[y * width + x]!;
				}
			const other = othersSquares / n - (others / n) ** 2;
			if (own < FLAT) {
				if (other < 12 * FLAT) return 1;
				best = Math.max(best, 0);
				continue;
			}
			best = Math.max(best, (both / n - (sum / n) * (others / n)) / Math.sqrt(own * Math.max(other, FLAT / 4)));
		}
	return best;
}
