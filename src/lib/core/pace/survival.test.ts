import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { endsOf, shareEnded } from './ends';
import { quantile, quantileBounds, shareLeft, survival } from './survival';
import { inOrder, type End, type Wait } from './waits';

const done = (...days: number[]): Wait[] => days.map((one) => ({ days: one, end: 'done' }));
const open = (...days: number[]): Wait[] => days.map((one) => ({ days: one, end: null }));
const ended = (end: End, ...days: number[]): Wait[] => days.map((one) => ({ days: one, end }));

/** Remission under 6-mercaptopurine, weeks (Freireich and others 1963), as Collett and Kleinbaum work it out. */
const REMISSION = [...done(6, 6, 6, 7, 10, 13, 16, 22, 23), ...open(6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35)];
/** 38 bone marrow transplants for ALL, days (Klein and Moeschberger, table 1.3): relapse as 'declined', death as 'done'. */
const TRANSPLANTS = [
	...ended('declined', 55, 74, 104, 109, 110, 122, 129, 192, 230, 332, 383, 609, 662),
	...done(1, 86, 107, 122, 172, 194, 276, 418, 466, 487, 526),
	...open(226, 530, 996, 1111, 1167, 1182, 1199, 1330, 1377, 1433, 1462, 1496, 1602, 2081)
];

describe('the share of waits that are not over', () => {
	// six stops of one template, worked out by hand
	const SIX = [...done(1, 2, 2, 5), ...open(3, 8)];
	it.each([
		[0.5, 1],
		[1, 5 / 6],
		[2, 3 / 6],
		[4, 3 / 6],
		[5, 1 / 4],
		[900, 1 / 4]
	])('after %d days is %d', (days, share) => {
		expect(shareLeft(survival(SIX), days)).toBeCloseTo(share, 12);
	});
	it('has a median that the mean of the done would miss, and quantiles that it does not reach', () => {
		const steps = survival(SIX);
		expect(quantile(steps, 0.5)).toBe(2);
		expect(quantile(steps, 0.75)).toBe(5);
		expect(quantile(steps, 0.8)).toBeNull();
		expect(quantileBounds(steps, 0.5)).toEqual({ low: 1, high: null });
	});
	it.each([
		[6, 21, 0.8571, 0.0764],
		[7, 17, 0.8067, 0.0869],
		[10, 15, 0.7529, 0.0963],
		[13, 12, 0.6902, 0.1068],
		[16, 11, 0.6275, 0.1141],
		[22, 7, 0.5378, 0.1282],
		[23, 6, 0.4482, 0.1346]
	])('agrees with the textbook on remission: week %d', (week, atRisk, share, error) => {
		const step = survival(REMISSION).find((one) => one.days === week)!;
		expect(step.atRisk).toBe(atRisk);
		expect(step.share).toBeCloseTo(share, 4);
		expect(Math.sqrt(step.variance)).toBeCloseTo(error, 4);
	});
	it.each([
		[1, 0.9737],
		[55, 0.9474],
		[122, 0.7368],
		[194, 0.6316],
		[230, 0.6041],
		[383, 0.5217],
		[526, 0.4119],
		[609, 0.3825],
		[662, 0.3531]
	])('agrees with the textbook on transplants: day %d', (day, share) => {
		expect(shareLeft(survival(TRANSPLANTS), day)).toBeCloseTo(share, 4);
	});
	it('has bounds within 0 and 1 that hold the share, however few they are', () => {
		for (const { share, low, high } of survival(REMISSION)) {
			expect(low).toBeGreaterThan(0);
			expect(low).toBeLessThan(share);
			expect(high).toBeGreaterThan(share);
			expect(high).toBeLessThan(1);
		}
		expect(survival(done(3))).toMatchObject([{ days: 3, share: 0, low: 0, high: 0 }]);
	});
	it('is nothing of nothing, and of what never ended', () => {
		expect(survival([])).toEqual([]);
		expect(quantile(survival(open(1, 1100)), 0.5)).toBeNull();
		expect(shareLeft([], 5)).toBe(1);
	});
	it('takes a clock that was set back for no time at all', () => {
		expect(inOrder([...done(-2, 1), { days: NaN, end: 'done' }]).map((one) => one.days)).toEqual([0, 1]);
	});
});

describe('how waits end', () => {
	it('counts what was declined as over, not as still to come', () => {
		const waits = [...done(1, 2, 5), ...ended('declined', 2), ...open(3, 8)];
		const { done: steps, declined } = endsOf(waits);
		// 1/6, then 5/6 of a fifth, then a half of a half: not 1 − S
		expect(shareEnded(steps, 5)).toBeCloseTo(1 / 6 + 1 / 6 + 1 / 4, 12);
		expect(shareEnded(declined, 5)).toBeCloseTo(1 / 6, 12);
		expect(shareEnded(steps, 5)).toBeLessThan(
			1 - shareLeft(survival(waits.filter((one) => one.end !== 'declined')), 5)
		);
	});
	it.each([
		[1, 0, 0.0263],
		[122, 0.1579, 0.1053],
		[192, 0.2105, 0.1316],
		[230, 0.238, 0.1579],
		[383, 0.2929, 0.1854],
		[526, 0.2929, 0.2952],
		[662, 0.3517, 0.2952]
	])('agrees on transplants, relapse and death by day %d', (day, relapse, death) => {
		const ends = endsOf(TRANSPLANTS);
		expect(shareEnded(ends.declined, day)).toBeCloseTo(relapse, 4);
		expect(shareEnded(ends.done, day)).toBeCloseTo(death, 4);
	});
	it('is, where there is one way only, what is not left, with the same bounds', () => {
		const steps = survival(REMISSION);
		endsOf(REMISSION).done.forEach((one, i) => {
			expect(one.share).toBeCloseTo(1 - steps[i]!.share, 12);
		});
	});
	const anyWait = fc.record<Wait>({
		days: fc.integer({ min: 0, max: 40 }),
		end: fc.constantFrom('done', 'declined', 'expired', 'withdrawn', null),
		n: fc.integer({ min: 1, max: 3 })
	});
	it('adds up with what is left to all of them, whatever happened; alike ones counted or one by one', () => {
		fc.assert(
			fc.property(fc.array(anyWait, { maxLength: 60 }), fc.integer({ min: 0, max: 40 }), (waits, day) => {
				const ends = endsOf(waits);
				const all = Object.values(ends).reduce((sum, steps) => sum + shareEnded(steps, day), 0);
				expect(all + shareLeft(survival(waits), day)).toBeCloseTo(1, 9);
				const singly = waits.flatMap(({ n = 1, ...wait }) => Array.from({ length: n }, () => wait));
				expect(survival(singly)).toEqual(survival(waits));
				for (const { share, low, high } of Object.values(ends).flat()) {
					expect(low).toBeLessThanOrEqual(share + 1e-9);
					expect(high).toBeGreaterThanOrEqual(share - 1e-9);
				}
			})
		);
	});
});
