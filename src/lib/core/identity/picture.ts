import type { Grey } from '../picture';

/**
 * What can be said of a picture of a document before anybody looks at it: in the browser, before it is handed in, and again where it
 * is judged. Pure sums over its pixels.
 */

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
