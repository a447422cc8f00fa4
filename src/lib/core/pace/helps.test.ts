import { describe, expect, it } from 'vitest';
import { cameAfter, type Touched } from './helps';
import { workingDaysIn } from './working';

const part = (days: number, touched: number | null, end: Touched['end'] = 'done'): Touched => ({ days, touched, end });

describe('what came after', () => {
	it('sets a reminder beside like parts that had waited as long', () => {
		// reminded on day 3: one done a day later, one two days later, one still open after ten. Never reminded and open on day 3: four,
		// of which one is done within three days. Done before day 3: nobody's like
		const parts = [
			part(4, 3),
			part(5, 3),
			part(13, 3, null),
			...[5, 8, 9, 11].map((days) => part(days, null)),
			part(1, null),
			part(2, null)
		];
		const came = cameAfter(parts, 3)!;
		expect(came).toMatchObject({ touched: 3, like: 4, within: 3 });
		expect(came.after.share).toBeCloseTo(2 / 3, 10);
		expect(came.without.share).toBeCloseTo(1 / 4, 10);
		expect(came.difference.share).toBeCloseTo(2 / 3 - 1 / 4, 10);
		// three against four say nothing for sure
		expect(came.difference.low).toBeLessThan(0);
		expect(came.difference.high).toBeGreaterThan(0);
	});
	it('counts a like part until it is touched itself', () => {
		const came = cameAfter([part(4, 2), part(9, 3), part(6, null)], 3)!;
		// day 2: beside the second (open a day, then touched) and the third (done four days later), half each; day 3: beside the third
		// alone, done three days later. Within three days: one of the one and a half that are left by then
		expect(came).toMatchObject({ touched: 2, like: 2 });
		expect(came.after.share).toBeCloseTo(1 / 2, 10);
		expect(came.without.share).toBeCloseTo(2 / 3, 10);
	});
	it('is surer where there are many', () => {
		const many = Array.from({ length: 100 }, (_, i) => [part(3 + (i % 4), 2), part(4 + (i % 20), null)]).flat();
		const { difference } = cameAfter(many, 4)!;
		expect(difference.low).toBeGreaterThan(0);
	});
	it('says nothing of nothing, of all alike touched at once, and bounds what was never done', () => {
		expect(cameAfter([], 3)).toBeNull();
		expect(cameAfter([part(4, null)], 3)).toBeNull();
		expect(cameAfter([part(4, 2)], 3)).toBeNull();
		expect(cameAfter([part(9, 2, null), part(9, null, null)], 3)).toMatchObject({
			after: { share: 0, low: 0, high: 1 },
			difference: { share: 0 }
		});
	});
});

describe('working time', () => {
	const none = new Set<string>();
	it.each([
		['Friday noon to Monday noon', '2026-11-27T12:00:00Z', '2026-11-30T12:00:00Z', 'UTC', none, 1],
		['within a weekend', '2026-11-28T09:00:00Z', '2026-11-29T09:00:00Z', 'UTC', none, 0],
		['over a holiday', '2026-12-24T00:00:00Z', '2026-12-26T00:00:00Z', 'UTC', new Set(['2026-12-25']), 1],
		['by the zone’s own midnight', '2026-11-27T23:30:00Z', '2026-11-30T00:00:00Z', 'Asia/Tokyo', none, 0.375],
		['the night in which clocks go back', '2026-10-23T23:00:00Z', '2026-10-26T12:00:00Z', 'Europe/London', none, 0.5],
		['a clock that was set back', '2026-11-27T12:00:00Z', '2026-11-26T12:00:00Z', 'UTC', none, 0]
	])('%s', (_, from, to, zone, holidays, days) => {
		expect(workingDaysIn(from, to, { zone, holidays })).toBeCloseTo(days, 10);
	});
	it('of three years counts each day once', () => {
		expect(workingDaysIn('2024-01-01T00:00:00Z', '2027-01-01T00:00:00Z', { zone: 'UTC', holidays: none })).toBe(784);
	});
});
