import { PDFDocument } from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import { pdf } from '../../../e2e/kit/pdfs';
import { shownSize, toShown, type Turn } from '../core/page';
import { pageBox } from './box';
import { FontSet, isRightToLeft, runsOf, spelled, unprintable } from './fonts';
import { openPdf } from './pdfium';
import { stampAll, type Mark, type Stamp } from './stamp';

const SCALE = 2;

async function painted(original: Uint8Array, stamps: Stamp[]) {
	const doc = await PDFDocument.load(original);
	await stampAll(doc, new FontSet(doc), stamps);
	const opened = await openPdf(await doc.save());
	if (typeof opened === 'string') throw new Error(opened);
	const box = pageBox(doc.getPage(0));
	const picture = opened.picture(0, Math.round(shownSize(box).width * SCALE));
	const words = opened.words(0).map((w) => w.text);
	opened.close();
	const dark = (left: number, top: number, width: number, height: number) => {
		let count = 0;
		for (let y = Math.max(0, Math.round(top * SCALE)); y < Math.min(picture.height, (top + height) * SCALE); y++)
			for (let x = Math.max(0, Math.round(left * SCALE)); x < Math.min(picture.width, (left + width) * SCALE); x++)
				if (picture.rgba[4 * (y * picture.width + x)]! < 140) count += 1;
		return count;
	};
	return { dark, box, words, whole: dark(0, 0, 5000, 5000) };
}
/** The text of pdf() stands at 100, 700 in letters of 14. */
const MARKER = { x: 95, y: 690, width: 160, height: 26 };

const text = (t: string): Mark => ({ draw: 'text', text: t });

describe('a marker', () => {
	it('is painted over, and what is stamped there stands on top of it', async () => {
		const original = await pdf(1, { text: '::maren.text::' });
		expect((await painted(original, [])).whole).toBeGreaterThan(100);
		const cover: Stamp = { page: 0, rect: MARKER, mark: { draw: 'cover' } };
		expect((await painted(original, [cover])).whole).toBe(0);
		expect((await painted(original, [cover, { page: 0, rect: MARKER, mark: text('Maren') }])).whole).toBeGreaterThan(
			60
		);
	});
});

describe('where stamps are painted', () => {
	it.each<[Turn, boolean]>([
		[0, false],
		[90, false],
		[180, true],
		[270, true],
		[0, true],
		[90, true]
	])('turn %i, cropped %s: inside the field as shown, and nowhere else', async (turn, crop) => {
		const original = await pdf(1, { turn, crop, text: '' });
		const blank = await painted(original, []);
		const rect =
			turn % 180 === 0 ? { x: 60, y: 200, width: 160, height: 24 } : { x: 200, y: 60, width: 24, height: 160 };
		for (const mark of [
			text('Maren Lindqvist'),
			{ draw: 'hand', text: 'Maren', hand: 'caveat' },
			{ draw: 'strokes', strokes: [[0, 0, 1000, 150, 0, 150]], ratio: 0.15 },
			{ draw: 'letters', text: 'GB29NWBK', boxes: 8 },
			{ draw: 'tick', on: true, outline: true },
			{ draw: 'pick', on: true, outline: true },
			{ draw: 'strike' }
		] as Mark[]) {
			const done = await painted(original, [{ page: 0, rect, mark }]);
			const at = toShown(done.box, rect);
			const inside =
				done.dark(at.left - 2, at.top - 4, at.width + 4, at.height + 8) -
				blank.dark(at.left - 2, at.top - 4, at.width + 4, at.height + 8);
			expect(inside).toBeGreaterThan(60);
			expect(done.whole - blank.whole).toBe(inside);
			// upright: the shown field is broad, so is the ink
			expect(at.width).toBeGreaterThan(at.height);
		}
	});
});

describe('letters', () => {
	it.each([
		'Łukasz Žižka',
		'Ελένη Παππά',
		'Юлія Ґудзь',
		'Þórdís Æðey',
		'Ğüneş İşık',
		'Șerban Țuțea',
		'Արամ',
		'ნინო',
		'Ĉiuĵaŭde',
		'ħŻġ',
		'ẞß',
		'山田太郎',
		'李明',
		'김민준'
	])('paints every letter of %s', async (name) => {
		expect(unprintable(name)).toEqual([]);
		const original = await pdf(1, { text: '' });
		const rect = { x: 60, y: 300, width: 300, height: 24 };
		const blank = (await painted(original, [])).whole;
		const whole = (await painted(original, [{ page: 0, rect, mark: text(name) }])).whole - blank;
		// each letter by itself leaves ink too: none is dropped silently, none is an empty box for all
		let sum = 0;
		for (const letter of name.replaceAll(' ', '')) {
			const ink = (await painted(original, [{ page: 0, rect, mark: text(letter) }])).whole - blank;
			expect(ink, letter).toBeGreaterThan(3);
			sum += ink;
		}
		expect(Math.abs(whole - sum) / sum).toBeLessThan(0.2);
	});
	it('never puts another letter for one it lacks', async () => {
		expect(unprintable('Maren 𓀀')).toEqual(['𓀀']);
		const doc = await PDFDocument.load(await pdf(1));
		await expect(
			stampAll(doc, new FontSet(doc), [{ page: 0, rect: { x: 0, y: 0, width: 99, height: 20 }, mark: text('𓀀') }])
		).rejects.toThrow('𓀀');
		expect(spelled('Maren 𓀀', 'plain')).toBe('Maren [U+13000]');
	});
	it.each([
		// in order of sight, from the left: what is read last stands first
		['مارين (2026) Tamsin', ['Tamsin ', ') ', '2026']],
		['מארן (12)', ['(', '12', ')']]
	])('sets %s from right to left, its numbers and Latin words from left to right', (text, inOrder) => {
		const { runs, missing } = runsOf(text, 'sans');
		expect(missing).toEqual([]);
		const line = runs.map((r) => r.text).join('|');
		expect(line.indexOf(inOrder.at(-1)!)).toBeLessThan(line.search(/[\p{Script=Arabic}\p{Script=Hebrew}]/u));
		expect(isRightToLeft(text)).toBe(true);
		// brackets embrace the number as they are seen
		expect(line.replaceAll('|', '')).toMatch(/\((2026|12)\)/);
	});
	it('joins Arabic letters, and puts dots where the face wants them', async () => {
		const original = await pdf(1, { text: '' });
		const blank = await painted(original, []);
		const paint = (t: string) =>
			painted(original, [{ page: 0, rect: { x: 60, y: 300, width: 300, height: 40 }, mark: text(t) }]);
		// the same letters apart, kept from joining, are wider than the word: a word of joined letters is not a row of them
		const [word, apart] = [await paint('مارين'), await paint('م\u200cا\u200cر\u200cي\u200cن')];
		expect(word.whole - blank.whole).toBeGreaterThan(150);
		expect(word.whole).not.toBe(apart.whole);
		// marks that a face places are inside the field, not beside it
		const at = toShown(word.box, { x: 60, y: 300, width: 300, height: 40 });
		expect(word.dark(at.left, at.top, at.width, at.height) - blank.dark(at.left, at.top, at.width, at.height)).toBe(
			word.whole - blank.whole
		);
	});
	it('stands at the right where one reads from the right, unless told otherwise', async () => {
		const original = await pdf(1, { text: '' });
		const rect = { x: 60, y: 300, width: 300, height: 24 };
		const half = async (mark: Mark) => {
			const done = await painted(original, [{ page: 0, rect, mark }]);
			const at = toShown(done.box, rect);
			return done.dark(at.left + 150, at.top, 150, at.height);
		};
		expect(await half(text('مارين'))).toBeGreaterThan(80);
		expect(await half({ draw: 'text', text: 'مارين', align: 'left' })).toBe(0);
		expect(await half(text('Maren'))).toBe(0);
	});
	it('keeps a word in one face as long as that face can', () => {
		expect(runsOf('Ελένη, Ana', 'caveat').runs.map((r) => r.face)).toEqual(['sans', 'caveat']);
		expect(runsOf('Maren', 'marck').runs).toEqual([{ face: 'marck', text: 'Maren' }]);
	});
	it('wraps several lines and shrinks one line to its width', async () => {
		const original = await pdf(1, { text: '' });
		const long = 'A very long remark about the journey, the lodging and the weather on the way '.repeat(3);
		const several = await painted(original, [
			{ page: 0, rect: { x: 60, y: 300, width: 200, height: 80 }, mark: { draw: 'text', text: long, several: true } }
		]);
		// the page's own number is a word as well
		expect(several.words.length).toBe(long.trim().split(' ').length + 1);
		expect(several.dark(262, 0, 340, 842)).toBe(0);
		const one = await painted(original, [
			{ page: 0, rect: { x: 60, y: 300, width: 300, height: 20 }, mark: text('Forty letters that are wider than this') }
		]);
		expect(one.dark(364, 0, 300, 842)).toBe(0);
	});
});

describe('how a text stands', () => {
	const rect = { x: 100, y: 300, width: 300, height: 24 };
	const inks = async (mark: Mark) => {
		const done = await painted(await pdf(1, { text: '' }), [{ page: 0, rect, mark }]);
		const at = toShown(done.box, rect);
		return [0, 1, 2].map((third) => done.dark(at.left + third * 100, at.top, 100, 24) > 20);
	};
	it('left, in the middle, right', async () => {
		expect(await inks({ draw: 'text', text: 'fee' })).toEqual([true, false, false]);
		expect(await inks({ draw: 'text', text: 'fee', align: 'middle' })).toEqual([false, true, false]);
		expect(await inks({ draw: 'text', text: 'fee', align: 'right' })).toEqual([false, false, true]);
	});
	it('in its own size, which it keeps or gives up to fit', async () => {
		const ink = async (more: object) =>
			(
				await painted(await pdf(1, { text: '' }), [
					{ page: 0, rect, mark: { draw: 'text', text: 'Brindlevale', ...more } as Mark }
				])
			).whole;
		expect(await ink({ size: 18 })).toBeGreaterThan((await ink({})) * 1.5);
		const long = { text: 'A sentence that is far too long for its box, whatever is done about it, by far', size: 14 };
		const fixed = await painted(await pdf(1, { text: '' }), [
			{ page: 0, rect, mark: { draw: 'text', ...long, fixed: true } }
		]);
		const shrunk = await painted(await pdf(1, { text: '' }), [{ page: 0, rect, mark: { draw: 'text', ...long } }]);
		expect([fixed.dark(402, 0, 190, 842) > 0, shrunk.dark(402, 0, 190, 842)]).toEqual([true, 0]);
	});
	it('a tick that is off leaves nothing, its outline only if wished', async () => {
		const blank = (await painted(await pdf(1, { text: '' }), [])).whole;
		const ink = async (mark: Mark) =>
			(await painted(await pdf(1, { text: '' }), [{ page: 0, rect, mark }])).whole - blank;
		expect(await ink({ draw: 'tick', on: false, outline: false })).toBe(0);
		expect(await ink({ draw: 'pick', on: false, outline: true })).toBeGreaterThan(20);
		expect(await ink({ draw: 'tick', on: true, outline: true })).toBeGreaterThan(
			await ink({ draw: 'tick', on: false, outline: true })
		);
	});
});
