import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	align,
	ALIGNMENTS,
	ALL_SIDES,
	distribute,
	findText,
	fromShown,
	pagesFrom,
	sameSize,
	shownPage,
	shownSize,
	snap,
	snapTargets,
	toShown,
	type PageSize,
	type PaperReading,
	type Turn
} from './index';

const pages: fc.Arbitrary<PageSize> = fc.record({
	width: fc.integer({ min: 100, max: 900 }),
	height: fc.integer({ min: 100, max: 900 }),
	rotate: fc.constantFrom<Turn>(0, 90, 180, 270)
});
const A4: PageSize = { width: 595, height: 842, rotate: 0 };
const reading = (more: Partial<PaperReading>): PaperReading => ({
	words: [[]],
	drawn: [{ lines: [], boxes: [] }],
	widgets: [],
	...more
});
const word = (text: string, x: number, y: number, width = text.length * 5, height = 8) => ({
	text,
	x,
	y,
	width,
	height
});
const rect = fc.record({
	left: fc.integer({ min: 0, max: 500 }),
	top: fc.integer({ min: 0, max: 700 }),
	width: fc.integer({ min: 8, max: 90 }),
	height: fc.integer({ min: 8, max: 60 })
});

describe('what is printed', () => {
	it('is seen where it is, however the page is turned', () => {
		fc.assert(
			fc.property(pages, fc.nat(80), fc.nat(80), (page, x, y) => {
				const box = { x, y, width: 15, height: 7 };
				const line = { x1: x, y1: y, x2: x + 15, y2: y };
				const seen = shownPage(
					reading({ drawn: [{ lines: [line], boxes: [box] }], words: [[word('Hall', x, y, 15, 7)]] }),
					0,
					page
				);
				const at = toShown(page, box);
				expect(seen.boxes).toEqual([at]);
				expect(fromShown(page, seen.boxes[0]!)).toEqual(box);
				expect(seen.words[0]).toMatchObject(at);
				// level in the file, upright on a page that lies on its side
				expect([seen.level.length, seen.upright.length]).toEqual(page.rotate % 180 === 0 ? [1, 0] : [0, 1]);
				expect({ width: seen.width, height: seen.height }).toEqual(shownSize(page));
			})
		);
	});
	it('joins the pieces of one line, and parts of words to rows with a baseline', () => {
		const seen = shownPage(
			reading({
				drawn: [
					{
						lines: [
							{ x1: 10, y1: 50, x2: 60, y2: 50 },
							{ x1: 60.5, y1: 50.2, x2: 90, y2: 50.2 },
							{ x1: 10, y1: 80, x2: 60, y2: 80 }
						],
						boxes: []
					}
				],
				words: [[word('page', 10, 698, 30, 10), word('Hall', 45, 700), word('Next', 10, 660)]]
			}),
			0,
			A4
		);
		expect(seen.level.map((l) => [l.from, l.to])).toEqual([
			[10, 60],
			[10, 90]
		]);
		// the g of "page" reaches below: the line stands where "Hall" does
		expect(seen.rows.map((r) => [r.words.map((w) => w.text).join(' '), r.base])).toEqual([
			['page Hall', 142],
			['Next', 182]
		]);
	});
});

describe('snapping', () => {
	const page = shownPage(
		reading({
			drawn: [{ lines: [{ x1: 100, y1: 342, x2: 300, y2: 342 }], boxes: [{ x: 400, y: 300, width: 90, height: 30 }] }]
		}),
		0,
		A4
	);
	const targets = snapTargets(page, [{ left: 50, top: 100, width: 80, height: 20 }]);

	it.each([
		['a line to write on', { left: 103, top: 478, width: 150, height: 20 }, { left: 100, top: 480 }, ['x', 'y']],
		['a printed box', { left: 397, top: 300, width: 60, height: 20 }, { left: 400, top: 300 }, ['x']],
		['another field’s edge', { left: 52, top: 260, width: 80, height: 20 }, { left: 50, top: 260 }, ['x']],
		['another field’s height', { left: 200, top: 98, width: 80, height: 20 }, { left: 200, top: 100 }, ['y']],
		['nothing that is far', { left: 200, top: 300, width: 80, height: 20 }, { left: 200, top: 300 }, []]
	])('draws a field to %s', (_, at, want, guides) => {
		const snapped = snap(at, targets, 4);
		expect(snapped.rect).toMatchObject(want);
		expect(snapped.guides.map((g) => g.axis)).toEqual(guides);
	});
	it('puts a field’s own text on the baseline of the row beside it', () => {
		const rows = snapTargets(shownPage(reading({ words: [[word('Name:', 50, 542)]] }), 0, A4), []);
		const { rect: at } = snap({ left: 120, top: 287, width: 90, height: 20 }, rows, 4);
		// 20 points high: 11 point text stands 6.92 above the bottom
		expect(at.top + at.height - 6.92).toBeCloseTo(300, 5);
	});
	it('never moves further than its reach, never a side that stands, and is at rest when done again', () => {
		fc.assert(
			fc.property(
				rect,
				fc.array(rect, { maxLength: 6 }),
				fc.integer({ min: 1, max: 9 }),
				fc.boolean(),
				(at, others, reach, all) => {
					const sides = all ? ALL_SIDES : { right: true, bottom: true };
					const near = snapTargets(page, others);
					const { rect: once } = snap(at, near, reach, sides);
					expect(Math.abs(once.left - at.left)).toBeLessThanOrEqual(reach + 1e-9);
					expect(Math.abs(once.left + once.width - at.left - at.width)).toBeLessThanOrEqual(reach + 1e-9);
					expect(Math.abs(once.top + once.height - at.top - at.height)).toBeLessThanOrEqual(reach + 1e-9);
					if (all) expect([once.width, once.height]).toEqual([at.width, at.height]);
					else expect([once.left, once.top]).toEqual([at.left, at.top]);
					const { rect: twice } = snap(once, near, 1e-6, sides);
					expect([twice.left, twice.top]).toEqual([once.left, once.top]);
				}
			)
		);
	});
});

describe('arranging', () => {
	const some = fc.array(rect, { minLength: 1, maxLength: 8 });
	it('lines up what it says, and changes nothing else', () => {
		fc.assert(
			fc.property(some, fc.constantFrom(...ALIGNMENTS), (rects, how) => {
				const edge = {
					left: (r: (typeof rects)[0]) => r.left,
					centre: (r: (typeof rects)[0]) => r.left + r.width / 2,
					right: (r: (typeof rects)[0]) => r.left + r.width,
					top: (r: (typeof rects)[0]) => r.top,
					middle: (r: (typeof rects)[0]) => r.top + r.height / 2,
					bottom: (r: (typeof rects)[0]) => r.top + r.height
				}[how];
				const done = align(rects, how);
				for (const r of done) expect(edge(r)).toBeCloseTo(edge(done[0]!), 6);
				expect(done.map((r) => [r.width, r.height])).toEqual(rects.map((r) => [r.width, r.height]));
				const across = ['left', 'centre', 'right'].includes(how);
				expect(done.map((r) => (across ? r.top : r.left))).toEqual(rects.map((r) => (across ? r.top : r.left)));
			})
		);
	});
	it('leaves equal gaps, with the outermost where they were', () => {
		const done = distribute(
			[
				{ left: 0, top: 0, width: 10, height: 5 },
				{ left: 90, top: 0, width: 10, height: 5 },
				{ left: 12, top: 0, width: 30, height: 5 }
			],
			'across'
		);
		expect(done.map((r) => r.left)).toEqual([0, 90, 35]);
		expect(distribute(done.slice(0, 2), 'down')).toEqual(done.slice(0, 2));
	});
	it('makes all as wide or as high as the first', () => {
		const two = [
			{ left: 0, top: 0, width: 10, height: 5 },
			{ left: 1, top: 1, width: 20, height: 9 }
		];
		expect(sameSize(two, 'width').map((r) => [r.width, r.height])).toEqual([
			[10, 5],
			[10, 9]
		]);
	});
	it.each([
		['all', [1, 2, 3, 4, 5]],
		['Odd', [1, 3, 5]],
		['even', [2, 4]],
		['3-4, 1', [1, 3, 4]],
		['2–3', [2, 3]],
		['0', null],
		['4-6', null],
		['3-2', null],
		['first', null],
		['', null]
	])('reads “%s” as pages', (text, want) => expect(pagesFrom(text, 5)).toEqual(want));
});

describe('finding text', () => {
	const page = shownPage(
		reading({
			words: [
				[word('The', 50, 700), word('Lender', 70, 700, 40), word('lénds.', 115, 700, 30), word('Lender', 50, 600, 40)]
			]
		}),
		0,
		A4
	);
	it.each([
		['lender', [70, 50]],
		['LEND', [70, 115, 50]],
		['lender lends', [70]],
		['', []],
		['borrower', []]
	])('finds “%s”', (text, lefts) => expect(findText(page, text).map((h) => Math.round(h.rect.left))).toEqual(lefts));
});
