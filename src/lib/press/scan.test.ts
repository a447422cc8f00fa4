import sharp from 'sharp';
import { afterAll, describe, expect, it } from 'vitest';
import { FORMS } from '../../../demo/forms';
import { ok } from '../../../e2e/kit/house';
import { findPlaces, type PageSize } from '../core/page';
import { endReader, languagesFor } from './ocr';
import { openPdf } from './pdfium';
import { readScan, SCAN_SCALE, type ScanReading } from './scan';
import { takeIn } from './take-in';

afterAll(endReader);

const hallHire = async () => (await FORMS.find((form) => form.name === 'Hall hire application')!.make()).bytes;

/** The first page as a scanner gives it: grey, a little soft, turned by so many degrees. */
async function scanned(bytes: Uint8Array, angle: number): Promise<{ png: Uint8Array; page: PageSize }> {
	const pdf = await openPdf(bytes);
	if (typeof pdf === 'string') throw new Error(pdf);
	const { width, height, rgba } = pdf.picture(0, Math.round(595 * SCAN_SCALE));
	pdf.close();
	const { data, info } = await sharp(rgba, { raw: { width, height, channels: 4 } })
		.flatten({ background: '#ffffff' })
		.rotate(angle, { background: '#ffffff' })
		.blur(0.6)
		.png()
		.toBuffer({ resolveWithObject: true });
	return {
		png: new Uint8Array(data),
		page: { width: info.width / SCAN_SCALE, height: info.height / SCAN_SCALE, rotate: 0 }
	};
}

const read = async (angle: number): Promise<ScanReading & { page: PageSize }> => {
	const { png, page } = await scanned(await hallHire(), angle);
	return { ...(await readScan(png, page, 'eng')), page };
};
const LABELS = ['organisation:', 'Postcode:', 'Telephone:', 'Purpose', 'Deposit', 'kitchen', 'piano', 'alcohol'];

describe('a page that is a picture', () => {
	it('is read where its words and lines stand, so that its blanks are found', async () => {
		const printed = ok(await takeIn(await hallHire()));
		const one = await read(0);
		const texts = one.words.map((word) => word.text);
		for (const label of LABELS) expect(texts).toContain(label);
		expect(one).toMatchObject({ lean: 0, turn: 0 });
		expect(one.sure).toBeGreaterThan(80);
		const deposit = one.words.find((word) => word.text === 'Deposit')!;
		const truth = printed.words[0]!.find((word) => word.text === 'Deposit')!;
		expect(Math.abs(deposit.x - truth.x) + Math.abs(deposit.y - truth.y)).toBeLessThan(4);
		expect(deposit.sure).toBeGreaterThan(60);
		const wanted = findPlaces(printed, printed.pages);
		const found = findPlaces({ words: [one.words], drawn: [one.drawn], widgets: [] }, [one.page]);
		const near = wanted.filter((place) =>
			found.some(({ rect }) => Math.abs(rect.left - place.rect.left) < 8 && Math.abs(rect.top - place.rect.top) < 10)
		);
		expect(near.length / wanted.length).toBeGreaterThanOrEqual(0.85);
		expect(found.filter((place) => place.kind === 'ticks').length).toBe(3);
	});
	it('that lies askew, on its side or on its head is read all the same, and how it lies is told', async () => {
		const askew = await read(3);
		expect(askew.lean).toBeCloseTo(-3, 0);
		const [side, other, head] = [await read(90), await read(270), await read(180)];
		expect([side.turn, other.turn, head.turn]).toEqual([270, 90, 180]);
		for (const one of [askew, side, other, head])
			expect(LABELS.filter((label) => one.words.some((word) => word.text === label)).length).toBeGreaterThanOrEqual(7);
	}, 120_000);
	it('is read in the packet’s language and English, of fifteen that ship', () => {
		expect([undefined, 'en-GB', 'de-CH', 'ar', 'zh-CN', 'fi-FI'].map(languagesFor)).toEqual([
			'eng',
			'eng',
			'deu+eng',
			'ara+eng',
			'chi_sim+eng',
			'eng'
		]);
	});
});
