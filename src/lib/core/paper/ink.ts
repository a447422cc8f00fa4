import type { ShownRect } from '../page';
import { pixels } from './boxes';
import { LAID_SCALE } from './laid';

/** Ink that did not go out with the page: what a pen has left on it. */

/** Print spreads when it is copied: so many pixels round it are its own. */
const SPREAD = 3;

/** 1 where there is ink on the picture and none printed near; both in the page's frame. */
export function penOf(ink: Uint8Array, printed: Uint8Array, width: number, height: number): Uint8Array {
	const near = grown(printed, width, height, SPREAD);
	return ink.map((one, at) => (near[at] === 1 ? 0 : one));
}

/** Everything within so many pixels (across and down) of what is there. */
export function grown(map: Uint8Array, width: number, height: number, by: number): Uint8Array {
	const across = new Uint8Array(map.length);
	for (let y = 0; y < height; y++) {
		let reach = -1;
		for (let x = 0; x < width + by; x++) {
			if (x < width && map[y * width + x] === 1) reach = x + by;
			const at = x - by;
			if (at >= 0 && reach >= at) across[y * width + at] = 1;
		}
	}
	const out = new Uint8Array(map.length);
	for (let x = 0; x < width; x++) {
		let reach = -1;
		for (let y = 0; y < height + by; y++) {
			if (y < height && across[y * width + x] === 1) reach = y + by;
			const at = y - by;
			if (at >= 0 && reach >= at) out[at * width + x] = 1;
		}
	}
	return out;
}

/** A piece of ink: its box in pixels, and how many pixels of it there are. */
export interface Piece {
	left: number;
	top: number;
	right: number;
	bottom: number;
	ink: number;
}

/** Pieces of ink that hang together; those of less than `least` pixels are dust. */
export function piecesOf(map: Uint8Array, width: number, height: number, least: number): Piece[] {
	const seen = new Uint8Array(map.length);
	const stack: number[] = [];
	const pieces: Piece[] = [];
	for (let start = 0; start < map.length; start++) {
		if (map[start] === 0 || seen[start] === 1) continue;
		const piece: Piece = { left: width, top: height, right: 0, bottom: 0, ink: 0 };
		stack.push(start);
		seen[start] = 1;
		while (stack.length > 0) {
			const at = stack.pop()!;
			const [x, y] = [at % width, Math.floor(at / width)];
			piece.left = Math.min(piece.left, x);
			piece.right = Math.max(piece.right, x + 1);
			piece.top = Math.min(piece.top, y);
			piece.bottom = Math.max(piece.bottom, y + 1);
			piece.ink += 1;
			// a stroke that print has cut in two is one stroke
			for (let v = Math.max(0, y - 2); v <= Math.min(height - 1, y + 2); v++)
				for (let u = Math.max(0, x - 2); u <= Math.min(width - 1, x + 2); u++) {
					const next = v * width + u;
					if (map[next] === 1 && seen[next] === 0) {
						seen[next] = 1;
						stack.push(next);
					}
				}
		}
		if (piece.ink >= least) pieces.push(piece);
	}
	return pieces;
}

/** Pieces within so many pixels of each other, as one. */
export function gathered(pieces: Piece[], gap: number): Piece[] {
	const out: Piece[] = [];
	for (const piece of pieces.toSorted((a, b) => a.top - b.top)) {
		let one = { ...piece };
		for (let i = out.length - 1; i >= 0; i--) {
			const other = out[i]!;
			const apart =
				other.left > one.right + gap ||
				one.left > other.right + gap ||
				other.top > one.bottom + gap ||
				one.top > other.bottom + gap;
			if (apart) continue;
			one = {
				left: Math.min(one.left, other.left),
				top: Math.min(one.top, other.top),
				right: Math.max(one.right, other.right),
				bottom: Math.max(one.bottom, other.bottom),
				ink: one.ink + other.ink
			};
			out.splice(i, 1);
			i = out.length;
		}
		out.push(one);
	}
	return out;
}

/** How much ink lies within a box (points), in pixels. */
export function inkIn(map: Uint8Array, width: number, height: number, box: ShownRect): number {
	const { left, top, right, bottom } = pixels(box, width, height);
	let sum = 0;
	for (let y = top; y < bottom; y++) for (let x = left; x < right; x++) sum += map[y * width + x]!;
	return sum;
}

/** No ink within a box any more. */
export function clear(map: Uint8Array, width: number, height: number, box: ShownRect): void {
	const { left, top, right, bottom } = pixels(box, width, height);
	for (let y = top; y < bottom; y++) if (right > left) map.fill(0, y * width + left, y * width + right);
}

/** At the very edge there are shadows and staples: points. */
const EDGE = 11;
export function clearEdge(map: Uint8Array, width: number, height: number): void {
	const deep = Math.round(EDGE * LAID_SCALE);
	for (let y = 0; y < height; y++) {
		if (y < deep || y >= height - deep) map.fill(0, y * width, (y + 1) * width);
		else {
			map.fill(0, y * width, y * width + deep);
			map.fill(0, (y + 1) * width - deep, (y + 1) * width);
		}
	}
}
