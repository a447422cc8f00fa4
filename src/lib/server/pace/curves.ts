import {
	amongValue,
	ANY,
	curveOf,
	daysFrom,
	mondayOf,
	stopValue,
	type Curve,
	type Curves,
	type Facet,
	type Known,
	type Phase,
	type Wait
} from '../../core/pace';
import type { Db } from '../db';
import type { House } from '../house';
import { officeDays } from './office-days';
import { waitsIn } from './waits';

/** How waits of a kind end, from the counts: for forecasts, so over all folders, and of the last two years. */

const YEARS = 2 * 365 * 86_400_000;
/** So long a curve is kept, in ms: forecasts of many packets ask for the same ones. */
const FRESH = 600_000;
const MOST_KEPT = 2000;
const kept = new WeakMap<Db, Map<string, { curve: Curve; at: number }>>();

/** Waits of one kind that are over, and those that are still open. */
export function waitsOf(house: House, of: Phase, facet: Facet, value: string): Wait[] {
	const now = house.now().toISOString();
	const from = mondayOf(new Date(Date.parse(now) - YEARS).toISOString());
	const asked = { of, facet, value, clock: 'all', from, to: '9999', folder: null, hidden: '[]' } as const;
	return waitsIn(house.db, asked, (began) => daysFrom(began, now));
}

/** What a forecast rests on here. */
export const knownTo = (house: House): Known => ({
	curves: curvesOf(house),
	days: officeDays(house),
	opens: opensOf(house)
});

const curvesOf =
	(house: House): Curves =>
	(of, facet, value) => {
		const all = kept.get(house.db) ?? new Map<string, { curve: Curve; at: number }>();
		kept.set(house.db, all);
		const key = `${of} ${facet} ${value}`;
		const known = all.get(key);
		const now = house.now().getTime();
		if (known && Math.abs(now - known.at) < FRESH) return known.curve;
		const curve = curveOf(waitsOf(house, of, facet, value));
		if (all.size >= MOST_KEPT) all.clear();
		all.set(key, { curve, at: now });
		return curve;
	};

/** Parts of that place among the packets of the template that are done: how often its stop opened. Never quite never, nor always. */
function opensOf(house: House): (template: string, person: string) => number {
	const done = (of: Phase, facet: Facet, value: string): number =>
		house.db
			.prepare<[Phase, Facet, string], number>(
				`SELECT coalesce(sum(n), 0) FROM wait_counts WHERE of = ? AND facet = ? AND value = ? AND clock = 'all' AND how = 'done'`
			)
			.pluck()
			.get(of, facet, value)!;
	return (template, person) => {
		const among = { ...ANY, template };
		const packets = done('packet', 'among', amongValue(among));
		return (Math.min(packets, done('part', 'stop', stopValue(person, among))) + 1) / (packets + 2);
	};
}
