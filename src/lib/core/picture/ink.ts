import type { Grey } from './grey';

/** Darker than this share of the paper's own brightness is ink. */
const INK = 0.72;

/** Which pixels are ink (1): darker than the paper round them, so that a shadow is none. */
export function inkOf({ width, height, data: grey }: Grey, share = INK): Uint8Array {
	const paper = paperOf({ width, height, data: grey });
	const ink = new Uint8Array(width * height);
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) {
			const own = paper.light[Math.floor(y / TILE) * paper.across + Math.floor(x / TILE)]!;
			if (grey[y * width + x]! < Math.max(60, own * share)) ink[y * width + x] = 1;
		}
	return ink;
}

/** A picture whose paper is equally white everywhere, whatever shadow lay on it. */
export function evenLight({ width, height, data }: Grey): Grey {
	const { light, across, down } = paperOf({ width, height, data });
	const out = new Uint8Array(data.length);
	for (let y = 0; y < height; y++) {
		const v = Math.min(down - 1, Math.max(0, y / TILE - 0.5));
		const [top, t] = [Math.floor(v), v - Math.floor(v)];
		const bottom = Math.min(down - 1, top + 1);
		for (let x = 0; x < width; x++) {
			const u = Math.min(across - 1, Math.max(0, x / TILE - 0.5));
			const [left, s] = [Math.floor(u), u - Math.floor(u)];
			const right = Math.min(across - 1, left + 1);
			const own =
				(light[top * across + left]! * (1 - s) + light[top * across + right]! * s) * (1 - t) +
				(light[bottom * across + left]! * (1 - s) + light[bottom * across + right]! * s) * t;
			out[y * width + x] = Math.min(255, (data[y * width + x]! / Math.max(40, own)) * 250);
		}
	}
	return { width, height, data: out };
}

const TILE = 64;

/** The paper's own light, tile by tile: what four fifths of a tile are no brighter than. */
function paperOf({ width, height, data: grey }: Grey): { light: Uint8Array; across: number; down: number } {
	const across = Math.ceil(width / TILE);
	const down = Math.ceil(height / TILE);
	const light = new Uint8Array(across * down);
	const counts = new Uint32Array(256);
	for (let ty = 0; ty < down; ty++)
		for (let tx = 0; tx < across; tx++) {
			counts.fill(0);
			let all = 0;
			for (let y = ty * TILE; y < Math.min(height, (ty + 1) * TILE); y++)
				for (let x = tx * TILE; x < Math.min(width, (tx + 1) * TILE); x++) {
					counts[grey[y * width + x]!]! += 1;
					all += 1;
				}
			let seen = 0;
			let value = 255;
			while (value > 0 && (seen += counts[value]!) < all * 0.2) value -= 1;
			light[ty * across + tx] = value;
		}
	return { light, across, down };
}
