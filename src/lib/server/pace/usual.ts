import { amongValue, ANY, courseOf } from '../../core/pace';
import type { Db } from '../db';
import type { House } from '../house';
import { waitsOf } from './curves';

/** How long what is usual is remembered, in ms: it changes slowly, and lists are asked for often. */
const FRESH = 600_000;
const remembered = new WeakMap<Db, Map<string, { hours: number | null; at: number }>>();

/**
 * After how many hours half of a template's packets were done, those that are still open counted as far as they go; null where too few
 * have ended to say it, or fewer than half are done.
 */
export function usually(house: House): (template: string) => number | null {
	const kept = remembered.get(house.db) ?? new Map<string, { hours: number | null; at: number }>();
	remembered.set(house.db, kept);
	return (template) => {
		const known = kept.get(template);
		const now = house.now().getTime();
		if (known && Math.abs(now - known.at) < FRESH) return known.hours;
		const { few, half } = courseOf(waitsOf(house, 'packet', 'among', amongValue({ ...ANY, template })));
		const hours = few || half.days === null ? null : half.days * 24;
		kept.set(template, { hours, at: now });
		return hours;
	};
}
