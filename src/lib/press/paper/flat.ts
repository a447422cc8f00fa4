import sharp from 'sharp';
import {
	findDocument,
	fromAbove,
	greyOf,
	mean,
	cornersThrough,
	projection,
	sharpness,
	smaller,
	whole,
	type Corners,
	type FoundDocument,
	type Pixels,
	type Spot
} from '../../core/picture';
import type { Refusal } from '../../core/refusal';
import { NO_PICTURE } from '../no-picture';
import { codesIn, type FoundCode } from './codes';

/** A picture of a sheet that came back, made ready to be read. */
export interface FlatSheet {
	/** JPEG in colour: the sheet alone where its edges were found, upright as far as its code says */
	picture: Uint8Array;
	width: number;
	height: number;
	/** what its codes say, and where they stand in `picture`; more than one where several pages lie in one */
	codes: FoundCode[];
	/** mean light (0 to 255), and the variance of the Laplacian at 640 pixels' width */
	light: number;
	sharp: number;
	/** whether the sheet was found by its edges, all of them in the picture */
	edges: boolean;
}

/** No picture is kept wider or higher than this, in pixels: 220 to the inch of A4. */
const MOST = 2600;
/** Wider than this, a picture is fine enough for the codes on it. */
const FINE = 1400;
/** A sheet that takes less of a picture is a pattern of the table. */
const LEAST_SHARE = 0.3;

/** Refuses `not-a-picture`. */
export async function flatSheet({ bytes }: { bytes: Uint8Array }): Promise<FlatSheet | Refusal> {
	const picture = await pixelsOf(bytes);
	if (!picture) return NO_PICTURE;
	const grey = greyOf(picture.data, picture.width, picture.height);
	const small = smaller(grey, 640);
	const measured = { light: Math.round(mean(small)), sharp: Math.round(sharpness(small)) };
	const sheet = findDocument(grey);
	const found = sheet && sheet.share >= LEAST_SHARE && sheet.cut === 0 ? sheet : null;
	const codes = await codesOf(picture);
	const turn = codes[0]?.corners ? turnOf(codes[0].corners) : null;
	const corners = found ? turned(found.corners, turn) : null;
	const flat = corners ? fromAbove(picture, corners, MOST, 0) : picture;
	const quarters = corners || turn === null ? 0 : (4 - turn) % 4;
	const { data, info } = await sharp(Buffer.from(flat.data), {
		raw: { width: flat.width, height: flat.height, channels: 4 }
	})
		.removeAlpha()
		.rotate(90 * quarters)
		.jpeg({ quality: 90 })
		.toBuffer({ resolveWithObject: true });
	return {
		picture: new Uint8Array(data),
		width: info.width,
		height: info.height,
		codes: codes.map((code) => ({ ...code, corners: movedWith(code.corners, picture, flat, corners, quarters) })),
		edges: found !== null,
		...measured
	};
}

/** A coarse picture has hardly two pixels for a part of a code: made larger, it is read all the same. */
async function codesOf(picture: Pixels): Promise<FoundCode[]> {
	const codes = await codesIn(picture);
	if (codes.length > 0 || picture.width > FINE) return codes;
	const { data, info } = await sharp(Buffer.from(picture.data), {
		raw: { width: picture.width, height: picture.height, channels: 4 }
	})
		.resize({ width: 2 * picture.width, kernel: 'cubic' })
		.raw()
		.toBuffer({ resolveWithObject: true });
	const half = ({ x, y }: Spot): Spot => ({ x: x / 2, y: y / 2 });
	return (await codesIn({ width: info.width, height: info.height, data: new Uint8Array(data) })).map((code) => {
		if (!code.corners) return code;
		const [a, b, c, d] = code.corners;
		return { ...code, corners: [half(a), half(b), half(c), half(d)] as const };
	});
}

/** Where a code stands once the sheet has been laid flat, or turned by so many quarters clockwise. */
function movedWith(
	code: Corners | null,
	picture: Pixels,
	flat: Pixels,
	sheet: Corners | null,
	quarters: number
): Corners | null {
	if (!code) return null;
	const way = sheet && projection(sheet, whole(flat));
	if (way) return cornersThrough(way, code);
	const { width: w, height: h } = picture;
	const move = (spot: Spot): Spot => {
		if (quarters === 1) return { x: h - spot.y, y: spot.x };
		if (quarters === 2) return { x: w - spot.x, y: h - spot.y };
		return quarters === 3 ? { x: spot.y, y: w - spot.x } : spot;
	};
	return [move(code[0]), move(code[1]), move(code[2]), move(code[3])];
}

async function pixelsOf(bytes: Uint8Array): Promise<Pixels | null> {
	try {
		const image = sharp(bytes, { limitInputPixels: 120_000_000, pages: 1 });
		const { format, width = 0, height = 0 } = await image.metadata();
		if (!['jpeg', 'png', 'webp', 'heif', 'avif', 'tiff'].includes(format ?? '') || width * height === 0) return null;
		const { data, info } = await image
			.rotate()
			.flatten({ background: '#fff' })
			.resize({ width: MOST, height: MOST, fit: 'inside', withoutEnlargement: true })
			.toColourspace('srgb')
			.ensureAlpha()
			.raw()
			.toBuffer({ resolveWithObject: true });
		return { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
	} catch {
		return null;
	}
}

/** By how many quarters, clockwise, a code is turned. */
function turnOf([topLeft, topRight]: readonly [Spot, Spot, Spot, Spot]): number {
	const quarters = Math.round(Math.atan2(topRight.y - topLeft.y, topRight.x - topLeft.x) / (Math.PI / 2));
	return (quarters + 4) % 4;
}

/** The corners of a sheet from its own top left. */
function turned(corners: FoundDocument['corners'], quarters: number | null): Corners {
	const by = quarters ?? 0;
	const at = (i: number) => corners[(i + by) % 4]!;
	return [at(0), at(1), at(2), at(3)];
}
