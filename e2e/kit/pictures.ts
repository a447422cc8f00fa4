import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { openPdf } from '../../src/lib/press/pdfium';

/** A page that is a picture of these lines, as a scanner gives it: no words of its own. */
export async function pictureOfWords(lines: string[], angle = 0, height = 300): Promise<Uint8Array> {
	const source = await PDFDocument.create();
	const page = source.addPage([420, height]);
	lines.forEach((line, i) => page.drawText(line, { x: 40, y: height - 60 - i * 40, size: 16 }));
	return pictureOf(await source.save({ useObjectStreams: false }), angle);
}

/** The pages of a document as pictures, turned by so many degrees. */
export async function pictureOf(bytes: Uint8Array, angle = 0): Promise<Uint8Array> {
	const pdf = await openPdf(bytes);
	if (typeof pdf === 'string') throw new Error(pdf);
	const scan = await PDFDocument.create();
	for (let number = 0; number < pdf.pages; number++) {
		const { width, height, rgba } = pdf.picture(number, 1240);
		const { data, info } = await sharp(rgba, { raw: { width, height, channels: 4 } })
			.flatten({ background: '#ffffff' })
			.rotate(angle, { background: '#ffffff' })
			.jpeg({ quality: 75 })
			.toBuffer({ resolveWithObject: true });
		const sheet = scan.addPage([595, (595 * info.height) / info.width]);
		sheet.drawImage(await scan.embedJpg(data), { x: 0, y: 0, ...sheet.getSize() });
	}
	pdf.close();
	return scan.save({ useObjectStreams: false });
}
