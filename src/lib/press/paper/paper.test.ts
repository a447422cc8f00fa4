import { PDFDocument } from '@cantoo/pdf-lib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { hallHire } from '../../../../demo/documents';
import { goesOut, type Gone } from '../../../../demo/paper/pages';
import { scanned, tornOff, type Pen, type Scan } from '../../../../demo/paper/scanned';
import { isRefusal } from '../../core/refusal';
import { endReader } from '../ocr';
import { openPdf } from '../pdfium';
import { flatSheet } from './flat';
import { heldSheet, type SheetHeld } from './held';
import { inkedPaper } from './inked';
import { tellSheet } from './read';

let gone: Gone;
beforeAll(async () => {
	const { bytes } = await hallHire('Hall 2', '£185', false);
	const place = { page: 0, label: 'Signature', signed: true, left: 90, top: 700, width: 160, height: 30 };
	gone = await goesOut(bytes, [place]);
});
afterAll(() => endReader());

const SIGNED: Pen = { does: 'signs', left: 95, top: 698, width: 140, height: 30 };

/** What is told of a picture of page 1. */
async function told(picture: Uint8Array): Promise<{ number: number | null; by?: string | null } & Partial<SheetHeld>> {
	const flat = await flatSheet({ bytes: picture });
	if (isRefusal(flat)) throw new Error(flat.say);
	const [code] = flat.codes;
	const sheet = await tellSheet(
		flat,
		gone.sheets,
		code ? { number: code.page - 1, corners: code.corners } : null,
		'eng'
	);
	if (sheet.number === null || !sheet.way) return { number: null };
	const { number, by, picture: upright, read, way } = sheet;
	const job = { picture: upright, content: gone.content, number, sheet: gone.sheets[number]!, read, way };
	const { laid, ...found } = await heldSheet(job);
	return { number, by, laid, ...found };
}
const copied = (pens: Pen[], scan: Partial<Scan>, page = gone.printed[0]!) =>
	scanned(page, gone.sheets[0]!, pens, { dpi: 150, ...scan });

describe('a page that came back', () => {
	it.each<[string, Partial<Scan>]>([
		['turned by 30° on a table', { by: 'phone', turn: 30, dpi: 200 }],
		['from aside', { by: 'phone', turn: -3, aside: 0.2, dpi: 190 }],
		['upside down', { turn: 180 }],
		['half in the shadow', { shadow: 0.55, by: 'phone', dpi: 180 }],
		['with a ring of coffee', { ring: true }],
		['by fax', { by: 'fax', dpi: 100 }]
	])('%s is told, unchanged and signed', async (_, scan) =>
		expect(await told(await copied([SIGNED], scan))).toMatchObject({
			number: 0,
			by: 'code',
			changed: [],
			writing: [],
			places: [{ ink: true }]
		})
	);

	it('without its code is told by its words, and its empty place is seen', async () => {
		const torn = await tornOff(gone.printed[0]!, gone.sheets[0]!.code!);
		expect(await told(await copied([], { turn: 180 }, torn))).toMatchObject({
			number: 0,
			by: 'words',
			places: [{ ink: false }]
		});
	});

	it('on which £185 was made £785 says so', async () => {
		const rent = gone.sheets[0]!.words.find((word) => word.text === '£185')!;
		const one = { ...rent, left: rent.left + 0.25 * rent.width, width: 0.25 * rent.width };
		const { changed = [] } = await told(await copied([SIGNED, { does: 'seven', ...one }], {}));
		expect(changed.map((word) => word.text)).toEqual(['£185']);
	});

	it('that is no page of it is told for none', async () => {
		const { bytes } = await (await import('../../../../demo/documents')).rotaSwap();
		const other = await goesOut(bytes);
		const torn = await tornOff(other.printed[0]!, other.sheets[0]!.code!);
		expect(await told(await copied([], {}, torn))).toEqual({ number: null });
	});
});

it('a page without a free corner is drawn smaller, so that its code hides nothing', async () => {
	const full = await PDFDocument.create();
	const page = full.addPage([595, 842]);
	page.drawText('Every word of this page counts', { x: 80, y: 500, size: 14 });
	page.drawRectangle({ x: 0, y: 0, width: 595, height: 842, borderWidth: 60, opacity: 0 });
	for (const [x, y] of [
		[0, 0],
		[535, 0],
		[0, 782],
		[535, 782]
	] as const)
		page.drawRectangle({ x, y, width: 60, height: 60 });
	const out = await goesOut(await full.save());
	expect(out.sheets[0]!.code!.left).toBeGreaterThan(560);
	const flat = await flatSheet({ bytes: await scanned(out.printed[0]!, out.sheets[0]!, [], { dpi: 150 }) });
	expect(flat).toMatchObject({ codes: [{ page: 1, pages: 1 }] });
});

it('scanned pages keep size and turn, and their words are found in them unseen', async () => {
	const turned = await PDFDocument.create();
	turned.addPage([842, 595]).setRotation({ type: 'degrees', angle: 90 } as never);
	turned.addPage([300, 300]).drawText('as it was', { x: 30, y: 100, size: 12 });
	const { laid } = await told(await copied([], {}));
	const words = [{ text: 'Staunton', left: 100, top: 200, width: 80, height: 12 }];
	const made = await inkedPaper({ paper: await turned.save(), pages: [{ page: 0, jpeg: laid!, words }] });
	const pdf = await openPdf(made);
	if (typeof pdf === 'string') throw new Error(pdf);
	expect(pdf.words(0).map((word) => word.text)).toEqual(['Staunton']);
	expect(pdf.words(1).map((word) => word.text)).toEqual(['as', 'it', 'was']);
	pdf.close();
	// twenty such pages, searchable, are far from what a mail system refuses
	const twenty = await PDFDocument.create();
	for (let i = 0; i < 20; i++) twenty.addPage([595, 842]);
	const pages = Array.from({ length: 20 }, (_, page) => ({ page, jpeg: laid!, words: gone.sheets[0]!.words }));
	expect((await inkedPaper({ paper: await twenty.save(), pages })).length).toBeLessThan(6_000_000);
	const [first] = (await PDFDocument.load(made)).getPages();
	expect([first!.getSize(), first!.getRotation().angle]).toEqual([{ width: 842, height: 595 }, 90]);
});
