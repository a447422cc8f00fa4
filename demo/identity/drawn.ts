import fontkit from '@cantoo/fontkit';
import { PDFDocument, rgb, StandardFonts, type PDFFont, type PDFPage } from '@cantoo/pdf-lib';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { openPdf } from '../../src/lib/press/pdfium';
import type { Pixels } from '../../src/lib/core/picture';
import { zoneOf, type Specimen } from './specimens';

/** Documents drawn by Pellum itself, each side as pixels. Nobody's real one: Utopia's, and marked so. */

const MONO = createRequire(import.meta.url).resolve(
	'@expo-google-fonts/noto-sans-mono/500Medium/NotoSansMono_500Medium.ttf'
);
const POINTS_A_MM = 72 / 25.4;
/** ID-1 and ID-3 (ISO/IEC 7810), in mm. */
const SIZE = { 'identity card': [85.6, 53.98], passport: [125, 88] } as const;
/** 25.4 mm hold ten letters of a zone (ICAO 9303-3 §4.3). */
const PITCH = 2.54;

export interface Made {
	front: Pixels;
	/** a passport's page has all on one side */
	back: Pixels | null;
}

/** @param mono the letters of the zone: what ships, or what a reader of PDFs has by itself */
export async function drawnDocument(
	specimen: Specimen,
	width = 1400,
	mono: 'noto' | 'courier' = 'noto'
): Promise<Made> {
	const doc = await PDFDocument.create();
	doc.registerFontkit(fontkit as unknown as Parameters<PDFDocument['registerFontkit']>[0]);
	const fonts = {
		text: await doc.embedFont(StandardFonts.Helvetica),
		bold: await doc.embedFont(StandardFonts.HelveticaBold),
		mono:
			mono === 'noto'
				? await doc.embedFont(readFileSync(MONO), { subset: true })
				: await doc.embedFont(StandardFonts.CourierBold)
	};
	const [w, h] = SIZE[specimen.kind].map((mm) => mm * POINTS_A_MM) as [number, number];
	const front = doc.addPage([w, h]);
	ground(front, w, h);
	open(front, specimen, fonts, w, h);
	if (specimen.kind === 'passport') zone(front, specimen, fonts.mono, w);
	else {
		const back = doc.addPage([w, h]);
		ground(back, w, h);
		back.drawText(specimen.number, { x: 12, y: h - 24, size: 10, font: fonts.bold });
		back.drawText('Office of Utopia, not a real document', { x: 12, y: h - 40, size: 7, font: fonts.text });
		zone(back, specimen, fonts.mono, w);
	}
	const pdf = await openPdf(await doc.save());
	if (typeof pdf === 'string') throw new Error(pdf);
	const side = (page: number): Pixels => {
		const { width: across, height, rgba } = pdf.picture(page, width);
		return { width: across, height, data: new Uint8ClampedArray(rgba) };
	};
	const made = { front: side(0), back: specimen.kind === 'passport' ? null : side(1) };
	pdf.close();
	return made;
}

interface Fonts {
	text: PDFFont;
	bold: PDFFont;
	mono: PDFFont;
}

function ground(page: PDFPage, w: number, h: number): void {
	page.drawRectangle({ x: 0, y: 0, width: w, height: h, color: rgb(0.93, 0.94, 0.9) });
	for (let i = -h; i < w; i += 5)
		page.drawLine({ start: { x: i, y: 0 }, end: { x: i + h, y: h }, thickness: 0.25, color: rgb(0.82, 0.86, 0.8) });
}

function open(page: PDFPage, one: Specimen, { text, bold }: Fonts, w: number, h: number): void {
	page.drawText(one.kind === 'passport' ? 'UTOPIA   PASSPORT' : 'UTOPIA   IDENTITY CARD', {
		x: 12,
		y: h - 18,
		size: 9,
		font: bold
	});
	// where a portrait would be: a head and shoulders of two shapes
	page.drawRectangle({ x: 12, y: h - 108, width: 64, height: 80, color: rgb(0.8, 0.81, 0.79) });
	page.drawEllipse({ x: 44, y: h - 62, xScale: 15, yScale: 19, color: rgb(0.45, 0.42, 0.4) });
	page.drawEllipse({ x: 44, y: h - 106, xScale: 27, yScale: 20, color: rgb(0.3, 0.34, 0.38) });
	const rows = [
		['Surname', one.surname],
		['Given names', one.given],
		['Number', one.number],
		['Born', one.born],
		['Expires', one.expires]
	] as const;
	rows.forEach(([label, value], i) => {
		page.drawText(label, { x: 86, y: h - 32 - i * 17, size: 4.5, font: text, color: rgb(0.3, 0.3, 0.3) });
		page.drawText(one.printed && label === 'Surname' ? one.printed : value, {
			x: 86,
			y: h - 41 - i * 17,
			size: 8,
			font: bold
		});
	});
	page.drawText('SPECIMEN', { x: w - 62, y: h - 18, size: 8, font: bold, color: rgb(0.6, 0.2, 0.2) });
}

function zone(page: PDFPage, one: Specimen, mono: PDFFont, w: number): void {
	const lines = zoneOf(one);
	const pitch = PITCH * POINTS_A_MM;
	const size = pitch / mono.widthOfTextAtSize('0', 1);
	const x = (w - lines[0]!.length * pitch) / 2;
	page.drawRectangle({ x: 0, y: 0, width: w, height: lines.length * 14 + 8, color: rgb(0.99, 0.99, 0.97) });
	lines.forEach((line, i) => page.drawText(line, { x, y: 8 + (lines.length - 1 - i) * 14, size, font: mono }));
}
