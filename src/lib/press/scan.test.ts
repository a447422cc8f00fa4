import sharp from 'sharp';
import { afterAll, describe, expect, it } from 'vitest';
import { FORMS } from '../../../demo/forms';
import { ok } from '../../../e2e/kit/house';
import { DOCUMENTS } from '../../../demo/fits/documents';
import { read as readMade } from '../../../demo/fits/judge';
import { set, textOf } from '../../../demo/fits/set';
import { findPlaces, fit, Recogniser, verdictOf, versionOf, type PageSize } from '../core/page';
import { endReader, languagesFor } from './ocr';
import { openPdf } from './pdfium';
import { readScan, SCAN_SCALE, type ScanReading } from './scan';
import { takeIn } from './take-in';

afterAll(endReader);

const hallHire = async () => (await FORMS.find((form) => form.name === 'Hall hire application')!.make()).bytes;

/** The first page as a scanner gives it: grey, a little soft, turned by so many degrees. */
async function scanned(bytes: Uint8Array, angle: number, number = 0): Promise<{ png: Uint8Array; page: PageSize }> {
	const pdf = await openPdf(bytes);
	if (typeof pdf === 'string') throw new Error(pdf);
	const { width, height, rgba } = pdf.picture(number, Math.round(595 * SCAN_SCALE));
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
	});
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

describe('a scanned copy of a known document', () => {
	it('is recognised by the words a machine has read, and fields are fitted on it, each wrong one shown for a look', async () => {
		const made = DOCUMENTS.find((one) => one.made.name === 'Hall hire')!.made;
		const { bytes } = await set(made);
		const old = await readMade(made);
		const sizes = ok(await takeIn(bytes)).pages;
		const readings: ScanReading[] = [];
		const pages: PageSize[] = [];
		for (let number = 0; number < sizes.length; number++) {
			const { png, page } = await scanned(bytes, 0.7, number);
			readings.push(await readScan(png, page, 'eng'));
			pages.push(page);
		}
		const words = readings.map((one) => one.words);
		const recogniser = new Recogniser();
		for (const { made: other } of DOCUMENTS) recogniser.add(other.name, textOf(other));
		const answers = recogniser.ask(words.flat().map((word) => word.text));
		expect([verdictOf(answers), answers[0]!.id]).toEqual(['sure', 'Hall hire']);
		const next = versionOf({ words, drawn: readings.map((one) => one.drawn) }, pages);
		const fields = [...old.places].map(([id, place]) => ({ id, ...place }));
		// the scan is a little larger than the page, since it was turned
		const off = (page: number) => ({
			x: (pages[page]!.width - sizes[page]!.width) / 2,
			y: (pages[page]!.height - sizes[page]!.height) / 2
		});
		const out = fit(old, next, fields).fields.map(({ id, place, doubts }) => {
			const truth = old.places.get(id)!;
			const right =
				place !== null &&
				place.page === truth.page &&
				Math.abs(place.rect.x - truth.rect.x - off(truth.page).x) < 9 &&
				Math.abs(place.rect.y - truth.rect.y - off(truth.page).y) < 9;
			return right ? 'right' : doubts.length > 0 ? 'shown' : 'wrong';
		});
		expect(out.filter((one) => one === 'wrong')).toEqual([]);
		expect(out.filter((one) => one === 'right').length / out.length).toBeGreaterThanOrEqual(0.8);
	});
});
