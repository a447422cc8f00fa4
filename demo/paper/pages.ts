import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
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
		places: [],
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
	const printed = await printedPages(out.file, out.pages.length);
	const sheets = out.pages.map((page, i): SheetOut => ({
		paper: 'a',
		page: i,
		...page,
		places: places
			.filter((place) => place.page === i)
			.map(({ page: _page, ...place }, k) => ({ ...place, field: `f${i}-${k}`, required: true, oneOf: '' }))
	}));
	return { ...out, sheets, printed };
}

/** The pages of what was handed out, without its first sheets, as a printer has them: PNG at 200 dots to the inch. */
export async function printedPages(file: Uint8Array, count: number): Promise<Uint8Array[]> {
	const sizes = (await PDFDocument.load(file)).getPages().map((page) => page.getWidth());
	const pdf = await openPdf(file);
	if (typeof pdf === 'string') throw new Error(pdf);
	const pages: Uint8Array[] = [];
	for (let i = sizes.length - count; i < sizes.length; i++) {
		const { rgba, ...size } = pdf.picture(i, Math.round((sizes[i]! / 72) * 200));
		const png = sharp(Buffer.from(rgba), { raw: { ...size, channels: 4 } }).png();
		pages.push(new Uint8Array(await png.toBuffer()));
	}
	pdf.close();
	return pages;
}
