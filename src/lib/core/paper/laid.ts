import { projected, sampled, type Grey, type Pixels, type Projection } from '../picture';

/** A picture taken into the frame of a page: as if the page had been laid down flat under glass. */

/** Pixels a point at which pages are compared: 150 to the inch. */
export const LAID_SCALE = 150 / 72;

/** What lies outside the picture is paper. */
const OUTSIDE = 255;

interface Size {
	width: number;
	height: number;
}

/**
 * @param way takes a place on the page (points) to one in the picture (pixels)
 * @param scale pixels a point
 */
export const laidGrey = (picture: Grey, way: Projection, page: Size, scale = LAID_SCALE): Grey =>
	laid(picture, 1, 1, way, page, scale);

/** The same in colour: RGB, row by row. */
export const laidColour = (picture: Pixels, way: Projection, page: Size): Size & { data: Uint8Array } =>
	laid(picture, 4, 3, way, page, LAID_SCALE);

function laid(picture: Grey, channels: number, kept: number, way: Projection, page: Size, scale: number) {
	const width = Math.round(page.width * scale);
	const height = Math.round(page.height * scale);
	const data = new Uint8Array(width * height * kept);
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) {
			const there = projected(way, { x: (x + 0.5) / scale, y: (y + 0.5) / scale });
			const at = { x: there.x - 0.5, y: there.y - 0.5 };
			for (let i = 0; i < kept; i++) data[kept * (y * width + x) + i] = sampled(picture, at, channels, i, OUTSIDE);
		}
	return { width, height, data };
}
