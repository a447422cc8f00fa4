import { PDFDocument } from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import { pdf } from '../../../e2e/kit/pdfs';
import { onePage } from '../../../e2e/kit/raw-pdf';
import { ok } from '../../../e2e/kit/house';
import { FontSet } from './fonts';
import { unseenStamps } from './seen';
import { stampAll, type Mark, type Stamp } from './stamp';
import { takeIn } from './take-in';

const stamp = (mark: Mark): Stamp => ({ page: 0, rect: { x: 40, y: 40, width: 160, height: 24 }, mark });
const NAME = stamp({ draw: 'hand', text: 'Maren Lindqvist', hand: 'caveat' });

async function stamped(paper: Uint8Array, stamps: Stamp[]): Promise<Uint8Array> {
	const doc = await PDFDocument.load(paper, { updateMetadata: false });
	await stampAll(doc, new FontSet(doc), stamps);
	return doc.save({ useObjectStreams: false });
}

describe('stamps are looked for on the copy', () => {
	it.each([
		['moves everything off the page and never comes back', 'q 1 0 0 1 5000 5000 cm'],
		['scales everything to nothing', 'q q 0 0 0 0 0 0 cm'],
		['never ends a text', 'BT /F1 12 Tf 20 150 Td (text) Tj'],
		['clips all the rest away', '0 0 1 1 re W n'],
		['takes back more than it put down', 'Q Q Q BT /F1 12 Tf 20 150 Td (text) Tj ET'],
		['breaks off in the middle', 'BT /F1 12 Tf 20 150 Td (text']
	])('and are there on a page whose own content %s', async (_, content) => {
		const { bytes } = ok(await takeIn(onePage({ content })));
		expect(await unseenStamps({ paper: bytes, sealed: await stamped(bytes, [NAME]), stamps: [NAME] })).toEqual([]);
	});
	it('and one that is not there is named', async () => {
		const paper = await pdf(1);
		const tick = stamp({ draw: 'tick', on: true, outline: false });
		const sealed = await stamped(paper, []);
		expect(await unseenStamps({ paper, sealed, stamps: [NAME, tick] })).toEqual([NAME, tick]);
	});
	it('but none is missed that draws nothing', async () => {
		const paper = await pdf(1);
		const nothing: Mark[] = [
			{ draw: 'text', text: ' ' },
			{ draw: 'tick', on: false, outline: false },
			{ draw: 'cover' },
			{ draw: 'strokes', strokes: [], ratio: 0.3 }
		];
		expect(await unseenStamps({ paper, sealed: paper, stamps: nothing.map(stamp) })).toEqual([]);
	});
});
