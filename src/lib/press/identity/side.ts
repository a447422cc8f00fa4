import sharp from 'sharp';
import { seePicture, type PictureSeen, type Side } from '../../core/identity';
import { straightened, type Pixels } from '../../core/picture';
import type { Refusal } from '../../core/refusal';
import { NO_PICTURE } from '../no-picture';

/** One picture that somebody handed in: made small enough to be kept, looked at, and cut to the document. */
export interface SideSeen extends Pick<PictureSeen, 'measures' | 'faults'> {
	/** as it is kept: JPEG, upright, without what a camera notes of place and time (EXIF) */
	kept: Uint8Array;
	/** the document alone in greys, lying, as PNG; of the holder, nothing */
	document: Uint8Array | null;
}

/** No picture is kept wider or higher than this, in pixels. */
const MOST = 2400;
/** A document's width when it is read: a letter of a passport's zone is then 26 pixels wide. */
const READ_AT = 1500;

/** Refuses `not-a-picture`: a film, a PDF, a bomb, or nothing at all. */
export async function seeSide({ bytes, side }: { bytes: Uint8Array; side: Side }): Promise<SideSeen | Refusal> {
	let picture: Pixels;
	let kept: Uint8Array;
	try {
		const image = sharp(bytes, { limitInputPixels: 60_000_000, pages: 1 });
		const { format, width = 0, height = 0 } = await image.metadata();
		if (!['jpeg', 'png', 'webp', 'heif', 'avif'].includes(format ?? '')) return NO_PICTURE;
		const upright = image.rotate().resize({ width: MOST, height: MOST, fit: 'inside', withoutEnlargement: true });
		const { data, info } = await upright
			.clone()
			.removeAlpha()
			.ensureAlpha()
			.raw()
			.toBuffer({ resolveWithObject: true });
		picture = { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
		kept = new Uint8Array(await upright.flatten({ background: '#fff' }).jpeg({ quality: 84 }).toBuffer());
		if (width * height === 0) return NO_PICTURE;
	} catch {
		return NO_PICTURE;
	}
	const { measures, faults, document } = seePicture(picture, side === 'holder' ? 'holder' : 'document');
	return { measures, faults, kept, document: side === 'holder' ? null : await alone(picture, document) };
}

/** Where no document stands out, the picture may be nothing but it. */
async function alone(picture: Pixels, document: PictureSeen['document']): Promise<Uint8Array> {
	const flat = document ? straightened(picture, document.corners) : picture;
	const image = sharp(flat.data, { raw: { width: flat.width, height: flat.height, channels: 4 } })
		.rotate(flat.width < flat.height ? 90 : 0)
		.greyscale()
		.resize({ width: READ_AT });
	return new Uint8Array(await image.normalise().withMetadata({ density: 300 }).png({ compressionLevel: 2 }).toBuffer());
}
