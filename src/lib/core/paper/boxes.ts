import type { ShownRect } from '../page';
import { LAID_SCALE } from './laid';

/** Boxes of a page, in points as shown. */

export const wider = ({ left, top, width, height }: ShownRect, across: number, down = across): ShownRect => ({
	left: left - across,
	top: top - down,
	width: width + 2 * across,
	height: height + 2 * down
});

/** What two boxes share; null where they share nothing. */
export function overlap(a: ShownRect, b: ShownRect): ShownRect | null {
	const left = Math.max(a.left, b.left);
	const top = Math.max(a.top, b.top);
	const width = Math.min(a.left + a.width, b.left + b.width) - left;
	const height = Math.min(a.top + a.height, b.top + b.height) - top;
	return width > 0 && height > 0 ? { left, top, width, height } : null;
}

/** Whether most of a box lies within another one. */
export const within = (inner: ShownRect, outer: ShownRect): boolean => {
	const both = overlap(inner, outer);
	return both !== null && both.width * both.height > 0.5 * inner.width * inner.height;
};

/** A box of points in whole pixels of the frame. */
export function pixels(box: ShownRect, width: number, height: number) {
	const within = (n: number, most: number) => Math.min(most, Math.max(0, Math.round(n)));
	return {
		left: within(box.left * LAID_SCALE, width),
		top: within(box.top * LAID_SCALE, height),
		right: within((box.left + box.width) * LAID_SCALE, width),
		bottom: within((box.top + box.height) * LAID_SCALE, height)
	};
}
