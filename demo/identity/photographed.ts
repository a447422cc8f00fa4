import sharp from 'sharp';
import { projected, projection, type Corners, type Pixels } from '../../src/lib/core/picture';

/** A document as somebody's camera has it: on a table, seen from aside, in this light. */
export interface Shot {
	/** pixels */
	width: number;
	height: number;
	/** degrees, clockwise */
	turn: number;
	/** how much of the picture's width it takes */
	size: number;
	/** how far one side is farther away, 0 to 0.3 */
	aside: number;
	/** factor on all light */
	light: number;
	/** sigma in pixels */
	blur: number;
	/** spread of the noise of a sensor, in grey values */
	noise: number;
	/** a lamp's reflection: its radius as a share of the width; 0 for none */
	glare: number;
	/** how far its middle lies off the picture's, as a share of the width */
	off: number;
	/** grey value of the table, and how strong its grain is */
	table: number;
	grain: number;
	seed: number;
}

export const GOOD: Shot = {
	width: 1600,
	height: 1200,
	turn: 2,
	size: 0.78,
	aside: 0.03,
	light: 1,
	blur: 0.7,
	noise: 4,
	glare: 0,
	off: 0,
	table: 92,
	grain: 6,
	seed: 1
};

/** Numbers by chance that are the same each time (mulberry32). */
export function chance(seed: number): () => number {
	let a = seed >>> 0;
	return () => {
		a = (a + 0x6d2b79f5) >>> 0;
		let t = a;
		t = Math.imul(t ^ (t >>> 15), t | 1);
		t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
		return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
	};
}

/** The picture as JPEG. */
export async function photographed(document: Pixels, change: Partial<Shot> = {}): Promise<Uint8Array> {
	const shot = { ...GOOD, ...change };
	const { width, height } = shot;
	const data = new Uint8ClampedArray(width * height * 3);
	const corners = cornersOf(document, shot);
	const way = projection(corners, [
		{ x: 0, y: 0 },
		{ x: document.width - 1, y: 0 },
		{ x: document.width - 1, y: document.height - 1 },
		{ x: 0, y: document.height - 1 }
	])!;
	const next = chance(shot.seed);
	for (let y = 0; y < height; y++) {
		const grain = shot.grain * Math.sin(y / 7 + 2 * Math.sin(y / 31));
		for (let x = 0; x < width; x++) {
			const at = projected(way, { x, y });
			const [u, v] = [Math.round(at.x), Math.round(at.y)];
			const on = u >= 0 && v >= 0 && u < document.width && v < document.height;
			const from = 4 * (v * document.width + u);
			const noise = shot.noise * (next() + next() - 1);
			const lamp =
				shot.glare > 0 ? Math.max(0, 1.4 - Math.hypot(x - width * 0.55, y - height * 0.5) / (shot.glare * width)) : 0;
			for (let i = 0; i < 3; i++) {
				const ground = on ? document.data[from + i]! : shot.table * [1.05, 1, 0.88][i]! + grain;
				data[3 * (y * width + x) + i] = ground * shot.light + (on ? 255 * lamp : 0) + noise;
			}
		}
	}
	let image = sharp(data, { raw: { width, height, channels: 3 } });
	if (shot.blur > 0.3) image = image.blur(shot.blur);
	return new Uint8Array(await image.jpeg({ quality: 86 }).toBuffer());
}

function cornersOf(document: Pixels, shot: Shot): Corners {
	const across = shot.size * shot.width;
	const down = (across * document.height) / document.width;
	const angle = (shot.turn * Math.PI) / 180;
	const place = (x: number, y: number) => {
		const far = 1 - shot.aside * ((x + 0.5) * 0.7 + (y + 0.5) * 0.3);
		const [u, v] = [x * across * far, y * down * far];
		return {
			x: shot.width / 2 + shot.off * shot.width + u * Math.cos(angle) - v * Math.sin(angle),
			y: shot.height / 2 + u * Math.sin(angle) + v * Math.cos(angle)
		};
	};
	return [place(-0.5, -0.5), place(0.5, -0.5), place(0.5, 0.5), place(-0.5, 0.5)];
}
