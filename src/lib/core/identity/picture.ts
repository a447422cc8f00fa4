/**
 * What can be said of a picture of a document before anybody looks at it: in the browser, before it is handed in, and again where it
 * is judged. Pure sums over its pixels.
 */

/** Grey values from 0 to 255, row by row from the top left. */
export interface Grey {
	width: number;
	height: number;
	data: Uint8Array | Uint8ClampedArray;
}

/** What is measured: mean light (0 to 255), sharpness, the share of pixels that are burnt out, and of those that are dark. */
export interface Measures {
	width: number;
	height: number;
	light: number;
	/** variance of the Laplacian at {@link MEASURED} pixels' width */
	sharp: number;
	/** of a hundred pixels, how many are in a burnt patch */
	glare: number;
	/** how many corners of the document lie at the picture's edge */
	cut: number;
	/** of a hundred pixels, how many belong to the document; 0 where none was found */
	document: number;
}

export const PICTURE_FAULTS = [
	'too dark',
	'too light',
	'blurred',
	'glare',
	'cut off',
	'too small',
	'not a document'
] as const;
export type PictureFault = (typeof PICTURE_FAULTS)[number];

/** Pictures are measured at this width, so that a camera's size is no matter. */
export const MEASURED = 640;

/** From where on a picture is bad. Found on the made pictures of `demo/identity`; see docs/identity.md. */
export const BOUNDS = { dark: 60, light: 236, sharp: 60, glare: 2.5, short: 600, document: 12 } as const;

/** `0.299 R + 0.587 G + 0.114 B` (ITU-R BT.601), of pixels in RGBA. */
export function greyOf(rgba: Uint8Array | Uint8ClampedArray, width: number, height: number): Grey {
	const data = new Uint8Array(width * height);
	for (let i = 0; i < data.length; i++)
		data[i] = Math.round(0.299 * rgba[4 * i]! + 0.587 * rgba[4 * i + 1]! + 0.114 * rgba[4 * i + 2]!);
	return { width, height, data };
}

/** Made smaller by whole averages, to a width at most. */
export function smaller(grey: Grey, width: number): Grey {
	if (grey.width <= width) return grey;
	const scale = grey.width / width;
	const height = Math.max(1, Math.round(grey.height / scale));
	const data = new Uint8Array(width * height);
	for (let y = 0; y < height; y++) {
		const [top, bottom] = [
			Math.floor(y * scale),
			Math.min(grey.height, Math.max(Math.floor((y + 1) * scale), Math.floor(y * scale) + 1))
		];
		for (let x = 0; x < width; x++) {
			const [left, right] = [Math.floor(x * scale), Math.min(grey.width, Math.floor((x + 1) * scale))];
			let sum = 0;
			for (let v = top; v < bottom; v++) for (let u = left; u < right; u++) sum += grey.data[v * grey.width + u]!;
			data[y * width + x] = Math.round(sum / ((bottom - top) * (right - left)));
		}
	}
	return { width, height, data };
}

export const mean = ({ data }: Grey): number => {
	let sum = 0;
	for (const value of data) sum += value;
	return data.length === 0 ? 0 : sum / data.length;
};

/** The variance of the Laplacian (4-neighbourhood): low where nothing has an edge. */
export function sharpness({ width, height, data }: Grey): number {
	let [sum, squares, n] = [0, 0, 0];
	for (let y = 1; y < height - 1; y++)
		for (let x = 1; x < width - 1; x++) {
			const at = y * width + x;
			const value = data[at - 1]! + data[at + 1]! + data[at - width]! + data[at + width]! - 4 * data[at]!;
			sum += value;
			squares += value * value;
			n++;
		}
	return n === 0 ? 0 : squares / n - (sum / n) ** 2;
}

/** Of a hundred pixels, how many are burnt out, in patches of at least {@link PATCH} to a side: white paper is not. */
export function glareOf({ width, height, data }: Grey): number {
	let burnt = 0;
	for (let y = 0; y + PATCH <= height; y += PATCH)
		for (let x = 0; x + PATCH <= width; x += PATCH) {
			let all = true;
			for (let v = y; all && v < y + PATCH; v++)
				for (let u = x; u < x + PATCH; u++)
					if (data[v * width + u]! < 253) {
						all = false;
						break;
					}
			if (all) burnt += PATCH * PATCH;
		}
	return (100 * burnt) / Math.max(1, width * height);
}
const PATCH = 8;

/** What is wrong with a picture; a picture of the holder need be no document. */
export function faultsOf(m: Measures, side: 'document' | 'holder' = 'document'): PictureFault[] {
	const document = side === 'document';
	return [
		...(Math.min(m.width, m.height) < BOUNDS.short ? (['too small'] as const) : []),
		...(m.light < BOUNDS.dark ? (['too dark'] as const) : []),
		...(m.light > BOUNDS.light ? (['too light'] as const) : []),
		...(m.sharp < BOUNDS.sharp ? (['blurred'] as const) : []),
		...(document && m.glare > BOUNDS.glare ? (['glare'] as const) : []),
		...(document && m.document < BOUNDS.document ? (['not a document'] as const) : []),
		...(document && m.cut > 0 ? (['cut off'] as const) : [])
	];
}
