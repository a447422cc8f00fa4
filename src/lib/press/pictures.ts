import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { refuse, type Refusal } from '../core/refusal';

/** Pixels a picture may have: 40 million is a sheet of A3 at 400 dots to the inch. */
const MOST_PIXELS = 40_000_000;
/** The longer side is brought down to this, 300 dots to the inch of A4. */
const LONGEST = 3508;
const SHORT_SIDE = 595.28;
const LONG_SIDE = 841.89;

/**
 * Pictures (PNG, JPEG) as the pages of one PDF, in their order, upright by their own mark of turning, on A4. Refuses
 * `picture-too-large` and `not-a-picture`, saying which of them it is.
 */
export async function picturesToPdf({ pictures }: { pictures: Uint8Array[] }): Promise<Uint8Array | Refusal> {
	const doc = await PDFDocument.create({ updateMetadata: false });
	for (const [i, bytes] of pictures.entries()) {
		const which = pictures.length > 1 ? `Picture ${i + 1}` : 'The picture';
		try {
			const { width = 0, height = 0 } = await sharp(bytes, { limitInputPixels: false }).metadata();
			if (width * height > MOST_PIXELS)
				return refuse(
					'picture-too-large',
					`${which} has ${width} x ${height} pixels; 40 million in all are the most. Save it smaller and add that.`
				);
			const { data, info } = await sharp(bytes, { limitInputPixels: MOST_PIXELS })
				.rotate()
				.resize(LONGEST, LONGEST, { fit: 'inside', withoutEnlargement: true })
				.flatten({ background: '#ffffff' })
				.jpeg({ quality: 88 })
				.toBuffer({ resolveWithObject: true });
			const image = await doc.embedJpg(data);
			const upright = info.height >= info.width;
			const [across, down] = upright ? [SHORT_SIDE, LONG_SIDE] : [LONG_SIDE, SHORT_SIDE];
			const page = doc.addPage([across, down]);
			const scale = Math.min(across / info.width, down / info.height);
			page.drawImage(image, {
				x: (across - info.width * scale) / 2,
				y: (down - info.height * scale) / 2,
				width: info.width * scale,
				height: info.height * scale
			});
		} catch {
			return refuse('not-a-picture', `${which} can’t be read. Use a PNG or JPEG.`);
		}
	}
	return new Uint8Array(await doc.save({ useObjectStreams: false }));
}
