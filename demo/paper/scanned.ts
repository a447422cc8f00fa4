import sharp from 'sharp';
import { projected, projection, type Corners } from '../../src/lib/core/picture';
import { chance } from '../identity/photographed';

/** A sheet of paper as it comes back: written on with a pen, then copied by a scanner, a fax or somebody's telephone. */

export interface Scan {
	by: 'scanner' | 'fax' | 'phone';
	/** dots to the inch; of a telephone, what the sheet's width comes to */
	dpi: number;
	/** degrees, clockwise; 180: upside down */
	turn: number;
	/** of a telephone: how far the far side is farther away, 0 to 0.35 */
	aside: number;
	/** one half lies in the shadow: factor on its light, 1 for none */
	shadow: number;
	blur: number;
	/** spread of a sensor's noise, in grey values */
	noise: number;
	/** a cup has stood on it */
	ring: boolean;
	seed: number;
}

export const CLEAN: Scan = {
	by: 'scanner',
	dpi: 200,
	turn: 0.6,
	aside: 0,
	shadow: 1,
	blur: 0.5,
	noise: 3,
	ring: false,
	seed: 1
};

/** What a pen does, in points of the sheet as shown. */
export type Pen =
	| { does: 'signs' | 'initials'; left: number; top: number; width: number; height: number }
	| { does: 'strikes' | 'scribbles' | 'ticks'; left: number; top: number; width: number; height: number }
	/** a one made a seven */
	| { does: 'seven'; left: number; top: number; width: number; height: number };

const BALLPOINT = ['#1d2f7a', '#16181d', '#23408f', '#2b2b33'];

/** SVG paths of what a pen does; the same for the same seed. */
function strokes(pens: readonly Pen[], seed: number): string {
	const next = chance(seed);
	const between = (a: number, b: number) => a + (b - a) * next();
	const ink = BALLPOINT[Math.floor(next() * BALLPOINT.length)]!;
	return pens
		.map(({ does, left, top, width, height }) => {
			const at = (u: number, v: number) => `${(left + u * width).toFixed(1)} ${(top + v * height).toFixed(1)}`;
			let d = '';
			if (does === 'strikes') d = `M ${at(-0.02, between(0.4, 0.6))} L ${at(1.02, between(0.4, 0.6))}`;
			else if (does === 'ticks') d = `M ${at(0.1, 0.5)} L ${at(0.4, 0.95)} L ${at(1.15, -0.2)}`;
			else if (does === 'seven') d = `M ${at(-0.35, 0.12)} L ${at(0.95, 0.06)} L ${at(0.25, 1)}`;
			else {
				const loops = does === 'signs' ? 9 : does === 'initials' ? 4 : 12;
				d = `M ${at(0.04, 0.6)}`;
				for (let i = 1; i <= loops; i++) {
					const u = 0.04 + (0.9 * i) / loops;
					const high = does === 'scribbles' ? between(0.1, 0.4) : between(-0.15, 0.35);
					d += ` C ${at(u - 0.06, high)} ${at(u + between(-0.02, 0.05), high)} ${at(u, between(0.5, 0.95))}`;
				}
			}
			return `<path d="${d}" fill="none" stroke="${ink}" stroke-width="${between(0.9, 1.5).toFixed(2)}" stroke-linecap="round" stroke-linejoin="round"/>`;
		})
		.join('');
}

const RING = (x: number, y: number) =>
	`<circle cx="${x}" cy="${y}" r="62" fill="#8a5a2b" fill-opacity="0.10"/><circle cx="${x}" cy="${y}" r="62" fill="none" stroke="#7a4a20" stroke-opacity="0.28" stroke-width="5"/>`;

/**
 * @param sheet the sheet as printed, PNG
 * @param size of it, in points
 * @returns JPEG; PNG of a fax
 */
export async function scanned(
	sheet: Uint8Array,
	size: { width: number; height: number },
	pens: readonly Pen[],
	change: Partial<Scan> = {}
): Promise<Uint8Array> {
	const scan = { ...CLEAN, ...change };
	const next = chance(scan.seed);
	const { width: across = 0, height: down = 0 } = await sharp(sheet).metadata();
	const ring = scan.ring ? RING(size.width * (0.3 + 0.4 * next()), size.height * (0.3 + 0.4 * next())) : '';
	const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${across}" height="${down}" viewBox="0 0 ${size.width} ${size.height}">${ring}${strokes(pens, scan.seed)}</svg>`;
	const paper = await sharp(sheet)
		.composite([{ input: Buffer.from(svg) }])
		.removeAlpha()
		.raw()
		.toBuffer();
	const wide = Math.round((size.width / 72) * scan.dpi);
	const high = Math.round((size.height / 72) * scan.dpi);
	// whoever holds it askew steps back, so that all of it is in the picture
	const askew = Math.abs(Math.sin((2 * scan.turn * Math.PI) / 180));
	const room = scan.by === 'phone' ? 1.16 + (scan.turn > 10 ? 0.5 * askew : 0) : 1;
	const [width, height] = [Math.round(wide * room), Math.round(high * room)];
	const corners = lie(scan, wide, high, width, height);
	const way = projection(corners, [
		{ x: 0, y: 0 },
		{ x: across, y: 0 },
		{ x: across, y: down },
		{ x: 0, y: down }
	])!;
	const data = new Uint8ClampedArray(width * height * 3);
	const edge = width * (0.35 + 0.3 * next());
	const table = [96, 78, 60];
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) {
			const at = projected(way, { x: x + 0.5, y: y + 0.5 });
			const on = at.x >= 0 && at.y >= 0 && at.x < across - 1 && at.y < down - 1;
			const [u, v] = [Math.floor(at.x), Math.floor(at.y)];
			const [s, t] = [at.x - u, at.y - v];
			const from = 3 * (v * across + u);
			const light =
				scan.shadow === 1 ? 1 : 1 - (1 - scan.shadow) / (1 + Math.exp((edge - x - 0.2 * y) / (0.02 * width)));
			const noise = scan.noise * (next() + next() - 1);
			for (let i = 0; i < 3; i++) {
				const paperHere = on
					? ((paper[from + i]! * (1 - s) + paper[from + 3 + i]! * s) * (1 - t) +
							(paper[from + 3 * across + i]! * (1 - s) + paper[from + 3 * across + 3 + i]! * s) * t) *
						0.96
					: scan.by === 'phone'
						? table[i]! + 6 * Math.sin(y / 9 + 2 * Math.sin(x / 40))
						: 246;
				data[3 * (y * width + x) + i] = paperHere * light + noise;
			}
		}
	let image = sharp(data, { raw: { width, height, channels: 3 } }).withMetadata({ density: scan.dpi });
	if (scan.blur > 0.3) image = image.blur(scan.blur);
	if (scan.by === 'fax') return new Uint8Array(await image.greyscale().threshold(150).png().toBuffer());
	return new Uint8Array(await image.jpeg({ quality: scan.by === 'phone' ? 82 : 74 }).toBuffer());
}

function lie(scan: Scan, wide: number, high: number, width: number, height: number): Corners {
	const angle = (scan.turn * Math.PI) / 180;
	const place = (x: number, y: number) => {
		const far = 1 / (1 + scan.aside * (0.5 - y) + scan.aside * 0.3 * (x + 0.5));
		const [u, v] = [x * wide * far, y * high * far * (1 - 0.4 * scan.aside)];
		return {
			x: width / 2 + u * Math.cos(angle) - v * Math.sin(angle),
			y: height / 2 + u * Math.sin(angle) + v * Math.cos(angle)
		};
	};
	return [place(-0.5, -0.5), place(0.5, -0.5), place(0.5, 0.5), place(-0.5, 0.5)];
}

/** Pixels a point of a printed sheet. */
export const SCALE = 200 / 72;

/** The corner with the code is gone. */
export async function tornOff(printed: Uint8Array, code: { left: number; top: number; width: number; height: number }) {
	const wide = Math.round((code.width + 26) * SCALE);
	const high = Math.round((code.height + 26) * SCALE);
	const { width = 0, height = 0 } = await sharp(printed).metadata();
	const left = Math.min(width - wide, Math.max(0, Math.round((code.left - 13) * SCALE)));
	const top = Math.min(height - high, Math.max(0, Math.round((code.top - 13) * SCALE)));
	const input = await sharp({ create: { width: wide, height: high, channels: 3, background: '#fff' } })
		.png()
		.toBuffer();
	return new Uint8Array(await sharp(printed).composite([{ input, left, top }]).png().toBuffer());
}
