import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromShown, keepOnPage, onPage, shownSize, toShown, uprightMatrix, type PageSize, type Turn } from './index';

const pages = fc.record({
	width: fc.integer({ min: 50, max: 2000 }),
	height: fc.integer({ min: 50, max: 2000 }),
	rotate: fc.constantFrom<Turn>(0, 90, 180, 270)
});
const share = fc.double({ min: 0.01, max: 0.49, noNaN: true });
const rectOn = (page: PageSize, [x, y, w, h]: number[]) => ({
	x: x! * page.width,
	y: y! * page.height,
	width: w! * page.width,
	height: h! * page.height
});

describe('page space and shown space', () => {
	it('round-trip on every turn, and what lies on the page is shown on it', () => {
		fc.assert(
			fc.property(pages, fc.tuple(share, share, share, share), (page, shares) => {
				const rect = rectOn(page, shares);
				const shown = toShown(page, rect);
				const size = shownSize(page);
				expect(shown.left).toBeGreaterThanOrEqual(0);
				expect(shown.top + shown.height).toBeLessThanOrEqual(size.height + 1e-6);
				const back = fromShown(page, shown);
				for (const key of ['x', 'y', 'width', 'height'] as const) expect(back[key]).toBeCloseTo(rect[key], 6);
			})
		);
	});
	it('agree with the matrix that stamping draws under', () => {
		fc.assert(
			fc.property(
				pages,
				fc.tuple(share, share, share, share),
				fc.integer({ min: -50, max: 50 }),
				(page, shares, shift) => {
					const rect = rectOn(page, shares);
					const shown = toShown(page, rect);
					const [a, b, c, d, e, f] = uprightMatrix(page, { x: shift, y: -shift });
					// the lower left corner as shown, upright, goes to one of the corners in user space
					const [x, y] = [shown.left, shownSize(page).height - shown.top - shown.height];
					const corner = { x: a * x + c * y + e - shift, y: b * x + d * y + f + shift };
					const corners = [rect.x, rect.x + rect.width].flatMap((cx) =>
						[rect.y, rect.y + rect.height].map((cy) => Math.hypot(cx - corner.x, cy - corner.y))
					);
					expect(Math.min(...corners)).toBeLessThan(1e-6);
					// and the drawing is neither mirrored nor scaled
					expect(a * d - b * c).toBe(1);
				}
			)
		);
	});
	it('shows the foot of a page turned by 90 at its left', () => {
		const page: PageSize = { width: 600, height: 800, rotate: 90 };
		expect(toShown(page, { x: 0, y: 0, width: 100, height: 20 })).toEqual({ left: 0, top: 0, width: 20, height: 100 });
	});
});

describe('staying on the page', () => {
	it('brings back whatever was dragged off it', () => {
		fc.assert(
			fc.property(
				pages,
				fc.tuple(
					...([0, 1, 2, 3].map(() => fc.integer({ min: -3000, max: 3000 })) as [
						fc.Arbitrary<number>,
						fc.Arbitrary<number>,
						fc.Arbitrary<number>,
						fc.Arbitrary<number>
					])
				),
				(page, [left, top, width, height]) => {
					const kept = keepOnPage(page, { left, top, width: Math.abs(width), height: Math.abs(height) });
					expect(onPage(page, fromShown(page, kept))).toBe(true);
				}
			)
		);
	});
	it('finds what reaches over the edge', () => {
		const page: PageSize = { width: 600, height: 800, rotate: 0 };
		expect(onPage(page, { x: 500, y: 10, width: 100, height: 20 })).toBe(true);
		expect(onPage(page, { x: 501, y: 10, width: 100, height: 20 })).toBe(false);
		expect(onPage(page, { x: 10, y: -1, width: 100, height: 20 })).toBe(false);
		expect(onPage(page, { x: 10, y: 10, width: 0, height: 20 })).toBe(false);
	});
});
