import { PDFDocument, PDFName, PDFString, rgb, type PDFPage } from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import { livelyPdf, lockedPdf, pdf } from '../../../../e2e/kit/pdfs';
import { isRefusal } from '../../core/refusal';
import { glance, takeIn, type TakenIn } from './take-in';
import { openPdf } from '../pdfium';
import { makeIdentity } from '../seal/keys';
import { seal } from '../seal/seal';

const taken = async (bytes: Uint8Array): Promise<TakenIn> => {
	const result = await takeIn(bytes);
	if (isRefusal(result)) throw new Error(result.say);
	return result;
};
const code = async (bytes: Uint8Array, limits?: Parameters<typeof takeIn>[1]) => {
	const result = await takeIn(bytes, limits);
	return isRefusal(result) ? result.code : 'taken';
};

describe('taking in', () => {
	it('keeps pages, words and a picture of the first page, and gives the same bytes for the same file', async () => {
		const bytes = await pdf(3);
		const one = await taken(bytes);
		expect(one.pages).toEqual(Array(3).fill({ width: 595, height: 842, rotate: 0 }));
		expect(one.words[1]!.map((w) => w.text)).toEqual(['Hello', 'world', '2']);
		expect(one.words[0]![0]!.x).toBeCloseTo(101, 0);
		expect(Buffer.from(one.thumbnail).subarray(1, 4).toString()).toBe('PNG');
		expect((await taken(bytes)).digest).toBe(one.digest);
	});
	it('knows turned and cropped pages, and drops words outside the crop', async () => {
		const one = await taken(await pdf(1, { turn: 90, crop: true }));
		expect(one.pages).toEqual([{ width: 400, height: 500, rotate: 90 }]);
		// the words stand at y 700, above the crop box that ends at 560
		expect(one.words[0]).toEqual([]);
	});
	it('mends what is broken: junk before the header, a wrong cross reference', async () => {
		const whole = Buffer.from(await pdf(2));
		const junk = Buffer.concat([Buffer.from('junk\n'.repeat(20)), whole]);
		const torn = Buffer.from(whole.toString('latin1').replace(/startxref\s+\d+/, 'startxref\n7'), 'latin1');
		for (const bytes of [junk, torn]) expect((await taken(bytes)).pages.length).toBe(2);
	});
	it('strips what acts by itself, says so, and keeps what is seen', async () => {
		const one = await taken(await livelyPdf());
		for (const what of ['JavaScript', 'embedded files', 'launch actions', 'automatic actions', 'an action on opening'])
			expect(one.stripped).toContain(what);
		expect(one.stripped.join()).toContain('form fields');
		const text = Buffer.from(one.bytes).toString('latin1');
		for (const word of ['/JavaScript', '/JS', '/Launch', '/EmbeddedFile', '/AcroForm', '/AA', '/OpenAction'])
			expect(text).not.toContain(word);
		expect(one.words[0]!.map((w) => w.text).join(' ')).toBe('kept on the page');
		expect((await taken(one.bytes)).stripped).toEqual([]);
	});
});

describe('reading what is drawn', () => {
	const drawnOn = async (draw: (page: PDFPage) => void, more: Parameters<typeof pdf>[1] = {}) => {
		const doc = await PDFDocument.load(await pdf(1, { text: '', ...more }));
		draw(doc.getPage(0));
		return (await taken(await doc.save())).drawn[0]!;
	};
	it('finds strokes, thin filled rectangles and boxes; not curves, slants or white', async () => {
		const seen = await drawnOn((page) => {
			page.drawLine({ start: { x: 50, y: 500 }, end: { x: 250, y: 500 }, thickness: 1 });
			page.drawRectangle({ x: 50, y: 400, width: 200, height: 0.8, color: rgb(0, 0, 0) });
			page.drawRectangle({ x: 50, y: 300, width: 120, height: 30, borderWidth: 1, borderColor: rgb(0, 0, 0) });
			page.drawRectangle({ x: 300, y: 300, width: 120, height: 30, color: rgb(1, 1, 1) });
			page.drawLine({ start: { x: 50, y: 200 }, end: { x: 250, y: 290 }, thickness: 1 });
			page.drawCircle({ x: 400, y: 600, size: 30, borderWidth: 1, borderColor: rgb(0, 0, 0) });
		});
		expect(seen.lines.map((l) => [l.x1, Math.round(l.y1), l.x2])).toEqual([
			[50, 500, 250],
			[50, 400, 250]
		]);
		expect(seen.boxes).toEqual([{ x: 50, y: 300, width: 120, height: 30 }]);
	});
	it('where the crop box begins counts as nought, on turned pages too', async () => {
		const seen = await drawnOn(
			(page) => page.drawLine({ start: { x: 50, y: 100 }, end: { x: 250, y: 100 }, thickness: 1 }),
			{ crop: true, turn: 90 }
		);
		expect(seen.lines).toEqual([{ x1: 10, y1: 40, x2: 210, y2: 40 }]);
	});
	it('takes form fields over with their names, kinds, options and checks, and flattens them out', async () => {
		const doc = await PDFDocument.load(await pdf(1, { text: '' }));
		const page = doc.getPage(0);
		const form = doc.getForm();
		const at = (y: number) => ({ x: 100, y, width: 150, height: 18 });
		const sum = form.createTextField('claim.sum');
		sum.addToPage(page, at(700));
		sum.enableRequired();
		sum.acroField.dict.set(PDFName.of('TU'), PDFString.of('Sum claimed'));
		sum.acroField.dict.set(
			PDFName.of('AA'),
			doc.context.obj({
				F: { S: 'JavaScript', JS: PDFString.of('AFNumber_Format(2, 0, 0, 0, "", true);') },
				V: { S: 'JavaScript', JS: PDFString.of('AFRange_Validate(true, 1, true, 500);') }
			})
		);
		const code = form.createTextField('claim.code');
		code.setMaxLength(6);
		code.enableCombing();
		code.addToPage(page, at(660));
		const town = form.createDropdown('claim.town');
		town.addOptions(['Staunton', 'Brindlevale']);
		town.addToPage(page, at(620));
		const kept = form.createTextField('claim.kept');
		kept.setText('as it was');
		kept.addToPage(page, at(580));
		const one = await taken(await doc.save());
		expect(one.widgets.map(({ x: _x, y: _y, width: _w, height: _h, ...rest }) => rest)).toEqual([
			{
				page: 0,
				name: 'claim.sum',
				label: 'Sum claimed',
				kind: 'number',
				required: true,
				filled: false,
				settings: { decimals: 2, least: '1', most: '500' }
			},
			{
				page: 0,
				name: 'claim.code',
				label: 'code',
				kind: 'text',
				required: false,
				filled: false,
				settings: { boxes: 6 }
			},
			{
				page: 0,
				name: 'claim.town',
				label: 'town',
				kind: 'choice',
				required: false,
				filled: false,
				settings: {
					options: [
						{ value: 'Staunton', text: 'Staunton' },
						{ value: 'Brindlevale', text: 'Brindlevale' }
					]
				}
			},
			{ page: 0, name: 'claim.kept', label: 'kept', kind: 'text', required: false, filled: true, settings: {} }
		]);
		expect(Buffer.from(one.bytes).toString('latin1')).not.toMatch(/AcroForm|AFNumber/);
	});
});

describe('refusing', () => {
	it.each([
		['nothing', new Uint8Array(), 'file-empty'],
		['a text', Buffer.from('Dear all, please sign.'), 'not-a-pdf'],
		['a picture called .pdf', Buffer.from('\x89PNG\r\n\x1a\n' + 'x'.repeat(2000), 'latin1'), 'not-a-pdf'],
		['only a header', Buffer.from('%PDF-1.7\n'), 'pdf-damaged'],
		['a header and rubbish', Buffer.from('%PDF-1.7\n' + 'rubbish '.repeat(500)), 'pdf-damaged']
	])('%s', async (_, bytes, want) => expect(await code(bytes)).toBe(want));
	it('what wants a password', async () => expect(await code(await lockedPdf())).toBe('pdf-locked'));
	it('too many bytes, too many pages, with the numbers', async () => {
		const bytes = await pdf(3);
		expect(glance(bytes, { bytes: 500, pages: 9 })).toMatchObject({ code: 'file-too-large' });
		expect(await code(bytes, { bytes: 1e7, pages: 2 })).toBe('pdf-too-many-pages');
		expect(await takeIn(bytes, { bytes: 1e7, pages: 2 })).toMatchObject({ say: 'The PDF has 3 pages; 2 is the most.' });
	});
	it('no pages', async () => {
		const empty = Buffer.from(
			'%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Kids[]/Count 0>>endobj\ntrailer<</Root 1 0 R>>\n'
		);
		expect(await code(empty)).toBe('pdf-no-pages');
	});
	it('what has been signed already, which the server keeps as an attachment', async () => {
		const now = new Date();
		const keys = { seal: await makeIdentity('A', 'seal', now), stamp: await makeIdentity('B', 'stamp', now) };
		const doc = await PDFDocument.load(await pdf(1));
		expect(await code(await seal(doc, keys, { organisation: 'A', reason: 'r', record: null, now }))).toBe('pdf-signed');
	});
	it('a page tree that bites its tail, without hanging', async () => {
		const circle = Buffer.from(
			'%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Kids[2 0 R 2 0 R]/Count 2>>endobj\ntrailer<</Root 1 0 R>>\n'
		);
		expect(await code(circle)).toMatch(/^pdf-/);
	});
});

it('opens nothing that PDFium cannot', async () => {
	expect(await openPdf(Buffer.from('%PDF-1.7'))).toBe('damaged');
});
