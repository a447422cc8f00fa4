import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { describe, expect, it } from 'vitest';
import { forecast, type StopAhead } from './forecast';
import { curveOf, expected } from './likeness';
import type { Wait } from './waits';

const done = (...days: number[]): Wait[] => days.map((one) => ({ days: one, end: 'done' }));
const stop = (own: Wait[], office: Wait[] = [], waited = 0): StopAhead => ({
	parts: [
		[
			{ curve: curveOf(own), waited, own: true },
			{ curve: curveOf(office), waited }
		]
	],
	opens: 1
});
const ten = done(1, 2, 3, 4, 5, 6, 7, 8, 9, 10);

describe('a forecast', () => {
	it('rests on how many there are, and says when they are too few', () => {
		expect(forecast([stop(ten)], null)).toMatchObject({ restsOn: 10, tooFew: false, late: null, endsBadly: 0 });
		expect(forecast([stop(done(1, 2), ten)], null)).toMatchObject({ restsOn: 2, tooFew: false });
		expect(forecast([stop(done(1, 2), done(4))], null)).toMatchObject({ restsOn: 2, tooFew: true });
		expect(forecast([stop([])], 3)).toMatchObject({ tooFew: true, whole: { early: null, late: null }, late: 1 });
	});
	it('is never surer than its records: ten can’t show what comes once in twenty', () => {
		const { middle, late } = forecast([stop(ten)], null).whole;
		expect(middle).toBeGreaterThan(5);
		expect(middle).toBeLessThan(6);
		expect(late).toBeNull();
		expect(forecast([stop(done(...Array.from({ length: 60 }, (_, i) => i + 1)))], null).whole.late).toBeCloseTo(58, -1);
	});
	it('knows that it has waited already', () => {
		const { whole } = forecast([stop(ten, [], 6)], null);
		expect(whole.early).toBeGreaterThan(0);
		expect(whole.early).toBeLessThan(1);
		expect(whole.middle).toBeGreaterThanOrEqual(2);
		// longer than any: nobody can say
		expect(forecast([stop(ten, [], 40)], 5)).toMatchObject({ whole: { early: null }, late: 1 });
	});
	it('asks wider kinds where nothing of its own was ever open so long, and still calls it unusual', () => {
		const own = { curve: curveOf(done(...Array.from({ length: 20 }, () => 1))), waited: 3 };
		const office = { curve: curveOf(done(...Array.from({ length: 40 }, (_, i) => i / 4))), waited: 3 };
		const { whole, late } = forecast([{ parts: [[own, office]], opens: 1 }], 30);
		expect(whole.middle).toBeGreaterThan(3);
		expect(whole.middle).toBeLessThan(4);
		expect(late).toBeLessThan(0.1);
		expect(expected([own, office]).overBy).toBeGreaterThan(0.75);
		expect(expected([own, { ...office, waited: 30 }]).draw(0.5, 0.5).days).toBe(Infinity);
	});
	it('leans towards the office where there are few of its own', () => {
		const slow = done(...Array.from({ length: 40 }, () => 20));
		expect(forecast([stop(done(1, 1), slow)], null).whole.middle).toBeGreaterThan(19);
		expect(forecast([stop(done(...Array.from({ length: 40 }, () => 1)), slow)], null).whole.middle).toBeCloseTo(1, 1);
	});
	it('takes one of a group as soon as it comes, all where all are needed, and a stop only as often as it opens', () => {
		const part = [{ curve: curveOf(ten), waited: 0 }];
		const parts = [part, part];
		const all = forecast([{ parts, opens: 1 }], null).whole.middle!;
		const one = forecast([{ parts, opens: 1, anyOne: true }], null).whole.middle!;
		expect(one).toBeLessThan(5);
		expect(all).toBeGreaterThan(6);
		const { stops, whole } = forecast([{ parts, opens: 0.25 }], null);
		expect(stops).toEqual([null]);
		expect(whole.middle).toBe(0);
	});
	it('counts who declines as not done by the last day', () => {
		const waits: Wait[] = [...ten, ...ten.map((wait): Wait => ({ ...wait, end: 'declined' }))];
		const { endsBadly, late } = forecast([stop(waits)], 30);
		expect(endsBadly).toBeGreaterThan(0.42);
		expect(endsBadly).toBeLessThan(0.55);
		expect(late).toBeGreaterThanOrEqual(endsBadly);
	});
	it('is the same from the same records', () => {
		expect(forecast([stop(ten), stop(ten)], 9)).toEqual(forecast([stop(ten), stop(ten)], 9));
	});

	// histories by known laws, three stops one after the other, half of the packets still out
	it.each([
		['quick with a long tail', (u: number) => Math.exp(0.5 + 0.9 * logistic(u))],
		['at one rate', (u: number) => -3 * Math.log(1 - u)],
		['two sorts of people', (u: number) => (u < 0.6 ? 0.2 + u : 5 + 10 * u)]
	])('holds what it says nine times in ten: %s', (_, law) => {
		const random = xoroshiro128plus(7);
		const even = () => (random.next() >>> 0) / 2 ** 32;
		let held = 0;
		let half = 0;
		const rounds = 1000;
		for (let round = 0; round < rounds; round++) {
			const history = Array.from({ length: 80 }, (): Wait => {
				const days = law(even());
				const seen = 25 * even();
				return days <= seen ? { days, end: 'done' } : { days: seen, end: null };
			});
			const waited = 2 * even();
			let first = law(even());
			while (first <= waited) first = law(even());
			const truth = first - waited + law(even()) + law(even());
			const { whole } = forecast([stop(history, [], waited), stop(history), stop(history)], null);
			if (truth >= (whole.early ?? Infinity) && truth <= (whole.late ?? Infinity)) held += 1;
			if (truth >= (whole.quarter ?? Infinity) && truth <= (whole.threeQuarters ?? Infinity)) half += 1;
		}
		expect(held / rounds).toBeGreaterThan(0.85);
		expect(held / rounds).toBeLessThan(0.95);
		expect(half / rounds).toBeGreaterThan(0.42);
		expect(half / rounds).toBeLessThan(0.58);
	});
});

/** The logistic law's quantile, at about the spread of the normal one. */
const logistic = (u: number): number => Math.log(u / (1 - u)) / 1.702;
