import { projected, type Grey, type Pixels, type Projection } from '../picture';

/** A picture taken into the frame of a page: as if the page had been laid down flat under glass. */

/** Pixels a point at which pages are compared: 150 to the inch. */
export const LAID_SCALE = 150 / 72;

/** What lies outside the picture is paper. */
const OUTSIDE = 255;

/** @param way takes a place on the page (points) to one in the picture (pixels) */
export function laidGrey(
	picture: Grey,
	way: Projection,
	page: { width: number; height: number },
	scale = LAID_SCALE
): Grey {
	const width = Math.round(page.width * scale);
	const height = Math.round(page.height * scale);
	const data = new Uint8Array(width * height);
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) {
			const at = projected(way, { x: (x + 0.5) / scale, y: (y + 0.5) / scale });
			data[y * width + x] = between(picture.data, picture.width, picture.height, 1, 0, at.x - 0.5, at.y - 0.5);
		}
	return { width, height, data };
}

/** The same in colour, without its fourth channel: RGB, row by row. */
export function laidColour(
	picture: Pixels,
	way: Projection,
	page: { width: number; height: number },
	scale = LAID_SCALE
): { width: number; height: number; data: Uint8Array } {
	const width = Math.round(page.width * scale);
	const height = Math.round(page.height * scale);
	const data = new Uint8Array(width * height * 3);
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) {
			const at = projected(way, { x: (x + 0.5) / scale, y: (y + 0.5) / scale });
			for (let i = 0; i < 3; i++)
				data[3 * (y * width + x) + i] = between(
					picture.data,
					picture.width,
					picture.height,
					4,
					i,
					at.x - 0.5,
					at.y - 0.5
				);
		}
	return { width, height, data };
}

function between(
	data: Uint8Array | Uint8ClampedArray,
	width: number,
	height: number,
	step: number,
	channel: number,
	x: number,
	y: number
): number {
	const [left, top] = [Math.floor(x), Math.floor(y)];
	if (left < 0 || top < 0 || left + 1 >= width || top + 1 >= height) {
		const [u, v] = [Math.round(x), Math.round(y)];
		return u >= 0 && v >= 0 && u < width && v < height ? data[step * (v * width + u) + channel]! : OUTSIDE;
	}
	const [s, t] = [x - left, y - top];
	const from = step * (top * width + left) + channel;
	const below = from + step * width;
	return (
		(data[from]! * (1 - s) + data[from + step]! * s) * (1 - t) + (data[below]! * (1 - s) + data[below + step]! * s) * t
	);
}
