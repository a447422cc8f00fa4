import { PDFButton, PDFDocument, PDFName, PDFSignature } from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import { ok } from '../../../../e2e/kit/house';
import { MORE, onePage, stream, type RawPage } from '../../../../e2e/kit/raw-pdf';
import { compared } from './compare';
import { isLeftOut } from './flatten';
import { openPdf, type OpenPdf, type Picture } from '../pdfium';
import { takeIn, type TakenIn } from './take-in';

const RECT = '/Rect [20 100 120 120]';
const DA = '/DA (/Helv 10 Tf 0 g)';
const text = (more: string) =>
	`<< /Type /Annot /Subtype /Widget /FT /Tx /T (a) /V (Hello) ${RECT} /F 4 ${DA} ${more} >>`;
const look = (say: string, more = '/Subtype /Form /BBox [0 0 100 20]') =>
	stream(`/Type /XObject ${more} /Resources << /Font << /Helv 5 0 R >> >>`, `BT /Helv 10 Tf 0 g 2 5 Td (${say}) Tj ET`);
const patch = (colour: string) =>
	stream('/Type /XObject /Subtype /Form /BBox [0 0 10 10]', `${colour} rg 0 0 10 10 re f`);
const mark = (kind: string, more: string) => `<< /Type /Annot /Subtype /${kind} ${RECT} ${more} >>`;
const RED = '1 0 0';
const BLUE = '0 0 1';
const AP = `/AP << /N ${MORE} 0 R >>`;

const open = async (bytes: Uint8Array): Promise<OpenPdf> => {
	const pdf = await openPdf(bytes);
	if (typeof pdf === 'string') throw new Error(pdf);
	return pdf;
};

/** Takes a page in, draws it and what it was made from, and holds the two against each other. */
async function through(page: RawPage): Promise<{ taken: TakenIn; picture: Picture; differ: number[]; says: string }> {
	const original = onePage(page);
	const taken = ok(await takeIn(original));
	const [before, after] = [await open(original), await open(taken.bytes)];
	before.showForms(isLeftOut, taken.hidden);
	const { differ } = compared(before, after, [300]);
	return { taken, picture: after.picture(0, 300), differ, says: taken.words[0]!.map((w) => w.text).join(' ') };
}

/** The colour at a place of the page, points from the bottom left. */
function colourAt({ width, height, rgba }: Picture, x: number, y: number): string {
	const at = (Math.round(height - y) * width + Math.round(x)) * 4;
	const [r, g, b] = [rgba[at]!, rgba[at + 1]!, rgba[at + 2]!];
	return r > 200 && g > 200 && b > 200 ? 'white' : r > g + 80 ? 'red' : b > g + 80 ? 'blue' : 'dark';
}

describe('what a form shows stays on the page as a reader shows it', () => {
	it.each<[string, RawPage, string]>([
		['a value without an appearance', { annots: [text('')] }, 'Hello'],
		[
			'a value that wants its appearance made anew',
			{ form: '/NeedAppearances true', annots: [text(AP)], more: [look('stale')] },
			'Hello'
		],
		[
			'an appearance that does not say it is a form',
			{ annots: [text(AP)], more: [look('Shown', '/BBox [0 0 100 20]')] },
			'Shown'
		],
		[
			'a choice without an appearance',
			{
				annots: [
					`<< /Type /Annot /Subtype /Widget /FT /Ch /Ff 131072 /Opt [(one) (two)] /T (a) /V (two) ${RECT} /F 4 ${DA} >>`
				]
			},
			'two'
		],
		['a hidden field', { annots: [text(`${AP}`).replace('/F 4', '/F 2')], more: [look('Hidden')] }, ''],
		['a field that is not to be viewed', { annots: [text(AP).replace('/F 4', '/F 36')], more: [look('Unseen')] }, ''],
		[
			'a field on a layer that is switched off',
			{
				catalog: `/OCProperties << /OCGs [21 0 R] /D << /OFF [21 0 R] >> >>`,
				annots: [text(`${AP} /OC 21 0 R`)],
				more: [look('Off'), '<< /Type /OCG /Name (Draft) >>']
			},
			''
		],
		[
			'a push button',
			{
				annots: [`<< /Type /Annot /Subtype /Widget /FT /Btn /Ff 65536 /T (b) ${RECT} /F 4 ${AP} >>`],
				more: [look('Press')]
			},
			'Press'
		],
		['a note set on the page', { annots: [mark('FreeText', `/F 4 ${AP}`)], more: [look('Noted')] }, 'Noted'],
		['a comment that does not print', { annots: [mark('Text', `/F 0 ${AP}`)], more: [look('Comment')] }, ''],
		[
			'a form that is none',
			{ form: '/Fields 7', annots: [text(AP)], fields: '(none)', more: [look('Shown')] },
			'Shown'
		],
		[
			'a field of the page that the form does not list',
			{ annots: [text(AP)], fields: ' ', more: [look('Shown')] },
			'Shown'
		]
	])('%s', async (_, page, want) => {
		const { says, differ } = await through(page);
		expect([says, differ]).toEqual([want, []]);
	});
	it('an appearance that is turned and of another size than its place (§12.5.5)', async () => {
		const { picture, differ } = await through({
			annots: [text(AP).replace(RECT, '/Rect [20 20 60 180]')],
			// the left half of the appearance is red; turned by 90° it is the lower half of the place
			more: [
				stream(
					'/Subtype /Form /BBox [0 0 10 10] /Matrix [0 1 -1 0 0 0]',
					`${RED} rg 0 0 5 10 re f ${BLUE} rg 5 0 5 10 re f`
				)
			]
		});
		expect([colourAt(picture, 40, 60), colourAt(picture, 40, 140), differ]).toEqual(['red', 'blue', []]);
	});
	it('of several states the one that is set, whatever the value says', async () => {
		const { picture, differ } = await through({
			annots: [
				`<< /Type /Annot /Subtype /Widget /FT /Btn /T (a) /V /Yes /AS /Off ${RECT} /F 4 /AP << /N << /Yes 20 0 R /Off 21 0 R >> >> >>`
			],
			more: [patch(RED), patch(BLUE)]
		});
		expect([colourAt(picture, 70, 110), differ]).toEqual(['blue', []]);
	});
	it('what lies over what by the order of the page, not of the form', async () => {
		const widget = (n: number) =>
			`<< /Type /Annot /Subtype /Widget /FT /Tx /T (f${n}) ${RECT} /F 4 /AP << /N ${MORE + n} 0 R >> >>`;
		const { picture, differ } = await through({
			annots: [widget(0), widget(1)],
			fields: '7 0 R 6 0 R',
			more: [patch(RED), patch(BLUE)]
		});
		expect([colourAt(picture, 70, 110), differ]).toEqual(['blue', []]);
	});
	it('beside what a page draws that never closes what it opened', async () => {
		const { says, differ } = await through({
			content: 'q 0.1 0 0 0.1 500 500 cm BT /F1 12 Tf (never ended) Tj',
			annots: [text(AP)],
			more: [look('Shown')]
		});
		expect([says, differ]).toEqual(['Shown', []]);
	});
	it('and says what became of it', async () => {
		const { taken } = await through({
			annots: [text(AP), mark('FreeText', `/F 4 ${AP}`), mark('Text', '/F 0'), mark('Text', '/F 0')],
			more: [look('x')]
		});
		expect(taken.stripped).toEqual([
			'form fields (their contents stay on the page)',
			'notes and marks (they stay on the page as they print)',
			'2 comments that do not print'
		]);
	});
});

describe('comparing finds', () => {
	const PAGE: RawPage = { content: 'BT /F1 10 Tf 20 150 Td (The fee is 185 pounds) Tj ET' };
	it.each<[string, RawPage, RawPage]>([
		['a word that is gone', { annots: [text('')] }, {}],
		[
			'a tick that moved',
			{
				annots: [
					`<< /Type /Annot /Subtype /Widget /FT /Btn /T (a) /AS /A /Rect [20 20 30 30] /F 4 /AP << /N << /A 20 0 R >> >> >>`
				],
				more: [patch(BLUE)]
			},
			{
				annots: [
					`<< /Type /Annot /Subtype /Widget /FT /Btn /T (a) /AS /A /Rect [50 20 60 30] /F 4 /AP << /N << /A 20 0 R >> >> >>`
				],
				more: [patch(BLUE)]
			}
		],
		['one other figure', PAGE, { content: PAGE.content!.replace('185', '785') }],
		['what was hidden and shows', PAGE, { ...PAGE, annots: [text('')] }]
	])('%s', async (_, one, other) => {
		const [a, b] = [await open(onePage(one)), await open(onePage(other))];
		for (const pdf of [a, b]) pdf.showForms(isLeftOut);
		expect(compared(a, b, [300]).differ).toEqual([0]);
		expect(compared(a, a, [300]).differ).toEqual([]);
	});
});

describe('with the mending switched off, comparing finds the fault', () => {
	/** Forms as they were flattened before: by the library, in the order of the form, by values. */
	async function before(bytes: Uint8Array): Promise<Uint8Array> {
		const doc = await PDFDocument.load(bytes, { updateMetadata: false });
		const form = doc.getForm();
		for (const one of form.getFields())
			if (one instanceof PDFSignature || one instanceof PDFButton) form.removeField(one);
		form.flatten({ updateFieldAppearances: false });
		doc.catalog.delete(PDFName.of('AcroForm'));
		return doc.save({ useObjectStreams: false });
	}
	const two = (n: number) =>
		`<< /Type /Annot /Subtype /Widget /FT /Tx /T (f${n}) ${RECT} /F 4 /AP << /N ${MORE + n} 0 R >> >>`;
	const states = `/AP << /N << /Yes 20 0 R /Off 21 0 R >> >>`;
	it.each<[string, RawPage]>([
		['a value without an appearance', { annots: [text('')] }],
		['an appearance to be made anew', { form: '/NeedAppearances true', annots: [text(AP)], more: [look('stale')] }],
		['an appearance without its kind', { annots: [text(AP)], more: [look('Shown', '/BBox [0 0 100 20]')] }],
		[
			'a turned appearance',
			{
				annots: [text(AP).replace(RECT, '/Rect [20 20 60 180]')],
				more: [stream('/Subtype /Form /BBox [0 0 10 10] /Matrix [0 1 -1 0 0 0]', `${RED} rg 0 0 5 10 re f`)]
			}
		],
		[
			'another state than the value’s',
			{
				annots: [`<< /Type /Annot /Subtype /Widget /FT /Btn /T (a) /V /Yes /AS /Off ${RECT} /F 4 ${states} >>`],
				more: [patch(RED), patch(BLUE)]
			}
		],
		['the order of the page', { annots: [two(0), two(1)], fields: '7 0 R 6 0 R', more: [patch(RED), patch(BLUE)] }],
		['a hidden field', { annots: [text(AP).replace('/F 4', '/F 2')], more: [look('Hidden')] }],
		['a field not to be viewed', { annots: [text(AP).replace('/F 4', '/F 36')], more: [look('Unseen')] }],
		[
			'a push button',
			{
				annots: [`<< /Type /Annot /Subtype /Widget /FT /Btn /Ff 65536 /T (b) ${RECT} /F 4 ${AP} >>`],
				more: [look('Press')]
			}
		]
	])('%s', async (_, page) => {
		const original = await open(onePage(page));
		original.showForms(isLeftOut);
		expect(compared(original, await open(await before(onePage(page))), [300]).differ).toEqual([0]);
	});
});
