import { far } from './edges';
import type { Pixels } from './grey';
import { cornersOf, projected, projection, type Corners } from './perspective';
import { sampled } from './sampled';

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
	const way = projection(cornersOf({ left: m, top: m, width: width - 2 * m, height: height - 2 * m }), corners);
	const data = new Uint8ClampedArray(width * height * 4);
	if (!way) return { width, height, data };
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) {
			const at = projected(way, { x, y });
			const to = 4 * (y * width + x);
			for (let i = 0; i < 3; i++) data[to + i] = sampled(picture, at, 4, i);
			data[to + 3] = 255;
		}
	return { width, height, data };
}
