import type { Grey } from './grey';

/** Darker than this share of the paper's own brightness is ink. */
const INK = 0.72;

/** Which pixels are ink (1): darker than the paper round them, so that a shadow is none. */
export function inkOf({ width, height, data: grey }: Grey, share = INK): Uint8Array {
	const ink = new Uint8Array(width * height);
	const tile = 64;
	const across = Math.ceil(width / tile);
	const down = Math.ceil(height / tile);
	const paper = new Uint8Array(across * down);
	const counts = new Uint32Array(256);
	for (let ty = 0; ty < down; ty++)
		for (let tx = 0; tx < across; tx++) {
			counts.fill(0);
			let all = 0;
			for (let y = ty * tile; y < Math.min(height, (ty + 1) * tile); y++)
				for (let x = tx * tile; x < Math.min(width, (tx + 1) * tile); x++) {
					counts[grey[y * width + x]!]! += 1;
					all += 1;
				}
			// the paper is what four fifths of a tile are no brighter than
			let seen = 0;
			let value = 255;
			while (value > 0 && (seen += counts[value]!) < all * 0.2) value -= 1;
			paper[ty * across + tx] = value;
		}
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) {
			const own = paper[Math.floor(y / tile) * across + Math.floor(x / tile)]!;
			if (grey[y * width + x]! < Math.max(60, own * share)) ink[y * width + x] = 1;
		}
	return ink;
}
