import { far } from './edges';
import type { Pixels } from './grey';
import { projected, projection, type Corners, type Spot } from './perspective';

/** A document as if it had been seen from above. */

/** Room left around a document when the picture is cut to it, as a share of its width: what was found is never quite its edge. */
const MARGIN = 0.015;

/** The document alone, as if it had been seen from above: lying, as wide as its longer sides are. */
export function straightened(picture: Pixels, corners: Corners, most = 2000, margin = MARGIN): Pixels {
	const [a, b, c, d] = corners;
	const lying = far(a, b) + far(d, c) >= far(b, c) + far(a, d);
	const turned: Corners = lying ? corners : [d, a, b, c];
	return fromAbove(picture, turned, most, margin);
}

/** The same as it lies: its first corner at the top left. */
export function fromAbove(picture: Pixels, corners: Corners, most = 2000, margin = MARGIN): Pixels {
	const across = Math.max(far(corners[0], corners[1]), far(corners[3], corners[2]));
	const down = Math.max(far(corners[1], corners[2]), far(corners[0], corners[3]));
	const scale = Math.min(1, most / across);
	const [width, height] = [Math.max(1, Math.round(across * scale)), Math.max(1, Math.round(down * scale))];
	const m = margin * width;
	const way = projection(
		[
			{ x: m, y: m },
			{ x: width - m, y: m },
			{ x: width - m, y: height - m },
			{ x: m, y: height - m }
		],
		corners
	);
	const data = new Uint8ClampedArray(width * height * 4);
	if (!way) return { width, height, data };
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) sample(picture, projected(way, { x, y }), data, 4 * (y * width + x));
	return { width, height, data };
}

/** Between four pixels. */
function sample({ width, height, data }: Pixels, { x, y }: Spot, out: Uint8ClampedArray, at: number): void {
	const [u, v] = [Math.min(Math.max(x, 0), width - 1.001), Math.min(Math.max(y, 0), height - 1.001)];
	const [left, top] = [Math.floor(u), Math.floor(v)];
	const [s, t] = [u - left, v - top];
	const right = left + 1 < width ? 4 : 0;
	const down = top + 1 < height ? 4 * width : 0;
	const from = 4 * (top * width + left);
	for (let i = 0; i < 3; i++)
		out[at + i] =
			(data[from + i]! * (1 - s) + data[from + right + i]! * s) * (1 - t) +
			(data[from + down + i]! * (1 - s) + data[from + down + right + i]! * s) * t;
	out[at + 3] = 255;
}
