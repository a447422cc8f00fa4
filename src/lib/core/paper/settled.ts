import { median } from '../median';
import type { Grey } from '../picture';

/**
 * Paper is never quite flat, and no lens quite straight: after a page has been laid down as a whole, each part of it is moved by the
 * few pixels by which its print lies beside where it should be.
 */

/** Sides of the parts, in pixels; how far each may be moved; and how much print one must hold to say anything. */
const CELL = 96;
const REACH = 7;
const LEAST_INK = 90;
/** Of a part's print, what must lie where it should once moved, for the move to be believed. */
const BELIEVED = 0.45;

interface Shift {
	x: number;
	y: number;
}

/** @param ink of the page as it went out, and of the picture of it: 1 where there is ink */
export function settle(laid: Grey, ink: { original: Uint8Array; laid: Uint8Array }): Grey {
	const { width, height } = laid;
	const across = Math.max(1, Math.ceil(width / CELL));
	const down = Math.max(1, Math.ceil(height / CELL));
	const found: (Shift | null)[] = [];
	for (let y = 0; y < down; y++)
		for (let x = 0; x < across; x++) found.push(shiftOf(ink, width, height, x * CELL, y * CELL));
	const shifts = found.map((_, i) => middling(found, i % across, Math.floor(i / across), across, down));
	const data = new Uint8Array(width * height);
	for (let y = 0; y < height; y++) {
		const v = Math.min(down - 1, Math.max(0, y / CELL - 0.5));
		const [top, t] = [Math.floor(v), v - Math.floor(v)];
		const bottom = Math.min(down - 1, top + 1);
		for (let x = 0; x < width; x++) {
			const u = Math.min(across - 1, Math.max(0, x / CELL - 0.5));
			const [left, s] = [Math.floor(u), u - Math.floor(u)];
			const right = Math.min(across - 1, left + 1);
			const [a, b] = [shifts[top * across + left]!, shifts[top * across + right]!];
			const [c, d] = [shifts[bottom * across + left]!, shifts[bottom * across + right]!];
			const dx = (a.x * (1 - s) + b.x * s) * (1 - t) + (c.x * (1 - s) + d.x * s) * t;
			const dy = (a.y * (1 - s) + b.y * s) * (1 - t) + (c.y * (1 - s) + d.y * s) * t;
			const [px, py] = [Math.round(x + dx), Math.round(y + dy)];
			data[y * width + x] = px >= 0 && py >= 0 && px < width && py < height ? laid.data[py * width + px]! : 255;
		}
	}
	return { width, height, data };
}

/** Where one part's print lies best, as the shift from where it should; null where it holds too little to tell. */
function shiftOf(
	{ original, laid }: { original: Uint8Array; laid: Uint8Array },
	width: number,
	height: number,
	left: number,
	top: number
): Shift | null {
	const spots: number[] = [];
	for (let y = top; y < Math.min(height, top + CELL); y++)
		for (let x = left; x < Math.min(width, left + CELL); x++) if (original[y * width + x] === 1) spots.push(x, y);
	if (spots.length < 2 * LEAST_INK) return null;
	// a large part of print says it with every third of its pixels
	const step = 2 * Math.max(1, Math.floor(spots.length / 2400));
	let best: (Shift & { hits: number; of: number }) | null = null;
	for (let dy = -REACH; dy <= REACH; dy++)
		for (let dx = -REACH; dx <= REACH; dx++) {
			let [hits, of] = [0, 0];
			for (let i = 0; i < spots.length; i += step) {
				const [x, y] = [spots[i]! + dx, spots[i + 1]! + dy];
				of += 1;
				if (x >= 0 && y >= 0 && x < width && y < height) hits += laid[y * width + x]!;
			}
			const nearer = best !== null && hits === best.hits && dx * dx + dy * dy < best.x * best.x + best.y * best.y;
			if (!best || hits > best.hits || nearer) best = { x: dx, y: dy, hits, of };
		}
	return best && best.hits >= BELIEVED * best.of ? { x: best.x, y: best.y } : null;
}

/** The middle one of a part's own shift and its neighbours', so that one that went wrong moves nothing. */
function middling(found: (Shift | null)[], x: number, y: number, across: number, down: number): Shift {
	for (const reach of [1, 3, Math.max(across, down)]) {
		const near: Shift[] = [];
		for (let v = Math.max(0, y - reach); v <= Math.min(down - 1, y + reach); v++)
			for (let u = Math.max(0, x - reach); u <= Math.min(across - 1, x + reach); u++) {
				const one = found[v * across + u];
				if (one) near.push(one);
			}
		if (near.length > 0) return { x: median(near.map((one) => one.x)), y: median(near.map((one) => one.y)) };
	}
	return { x: 0, y: 0 };
}
