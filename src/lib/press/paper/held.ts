import sharp from 'sharp';
import {
	comparePage,
	laidColour,
	laidGrey,
	LAID_SCALE,
	type PageCompared,
	type ReadWordAt,
	type SheetOut
} from '../../core/paper';
import { evenLight, greyOf, type Projection } from '../../core/picture';
import { openPdf } from '../pdfium';

/** A page that came back, held against the one that went out. */
export interface SheetHeld extends PageCompared {
	/** JPEG in colour: the page as it lies in its own frame, as it becomes part of the document */
	laid: Uint8Array;
}

export interface HeldJob {
	/** JPEG, as {@link flatSheet} gives it */
	picture: Uint8Array;
	/** the pages as they went out, and which of them, from 0 */
	content: Uint8Array;
	number: number;
	sheet: SheetOut;
	read: ReadWordAt[];
	/** from the page into the picture */
	way: Projection;
}

export async function heldSheet({ picture, content, number, sheet, read, way }: HeldJob): Promise<SheetHeld> {
	const { data, info } = await sharp(picture).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
	const pixels = { width: info.width, height: info.height, data: new Uint8Array(data) };
	const pdf = await openPdf(content);
	if (typeof pdf === 'string') throw new Error(`pages that went out are ${pdf} now`);
	try {
		const drawn = pdf.picture(number, Math.round(sheet.width * LAID_SCALE));
		const original = greyOf(drawn.rgba, drawn.width, drawn.height);
		const flat = laidGrey(evenLight(greyOf(pixels.data, pixels.width, pixels.height)), way, sheet);
		const high = Math.min(original.height, flat.height);
		const cut = <T extends { width: number; height: number; data: Uint8Array | Uint8ClampedArray }>(one: T) => ({
			...one,
			height: high,
			data: one.data.subarray(0, one.width * high)
		});
		const found = comparePage(sheet, cut(original), cut(flat), read, way);
		const colour = laidColour(pixels, way, sheet);
		const laid = await sharp(colour.data, { raw: { width: colour.width, height: colour.height, channels: 3 } })
			.withMetadata({ density: 150 })
			.jpeg({ quality: 62, mozjpeg: true })
			.toBuffer();
		return { ...found, laid: new Uint8Array(laid) };
	} finally {
		pdf.close();
	}
}
