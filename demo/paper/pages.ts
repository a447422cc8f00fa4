import { PDFDocument } from '@cantoo/pdf-lib';
import { readFileSync } from 'node:fs';
import type { SheetOut } from '../../src/lib/core/paper';
import { paperOut, type PaperOut } from '../../src/lib/press/paper/out';
import { openPdf } from '../../src/lib/press/pdfium';

/** What goes out to be signed, for trying what comes back. */
export interface Gone extends PaperOut {
	sheets: SheetOut[];
	/** each page with its code, as printed at 200 to the inch (PNG) */
	printed: Uint8Array[];
}

/** Sends pages of a PDF out to be signed in ink; places to sign are where the caller says. */
export async function goesOut(
	bytes: Uint8Array,
	places: {
		page: number;
		label: string;
		signed: boolean;
		left: number;
		top: number;
		width: number;
		height: number;
	}[] = []
): Promise<Gone> {
	const out = await paperOut({
		papers: [{ bytes, stamps: [] }],
		reference: 'P-7K3QM',
		person: 'ab12cd34',
		says: {
			title: 'Sign on paper',
			under: 'Brindlevale Touring Orchestra',
			lines: ['Print all pages.', 'Sign where it says.'],
			placesTitle: 'Where to sign',
			places: [],
			back: null
		}
	});
	const firstSheets = (await PDFDocument.load(out.file)).getPageCount() - out.pages.length;
	const pdf = await openPdf(out.file);
	if (typeof pdf === 'string') throw new Error(pdf);
	const { default: sharp } = await import('sharp');
	const printed = await Promise.all(
		out.pages.map(({ width }, i) => {
			const { rgba, ...size } = pdf.picture(firstSheets + i, Math.round((width / 72) * 200));
			return sharp(Buffer.from(rgba), { raw: { ...size, channels: 4 } })
				.png()
				.toBuffer();
		})
	);
	pdf.close();
	const sheets = out.pages.map((page, i): SheetOut => ({
		paper: 'a',
		page: i,
		...page,
		places: places
			.filter((place) => place.page === i)
			.map(({ page: _page, ...place }, k) => ({ ...place, field: `f${i}-${k}`, required: true, oneOf: '' }))
	}));
	return { ...out, sheets, printed: printed.map((one) => new Uint8Array(one)) };
}

export const fileBytes = (name: string): Uint8Array => new Uint8Array(readFileSync(name));
