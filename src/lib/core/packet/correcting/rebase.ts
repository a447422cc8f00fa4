import { sameJson as same } from '../../audit';
import type { Plan } from '../plan';

/**
 * A correction that was begun on one plan, taken over to the one that holds now: what it left alone is as it is now, what
 * it changed stays changed. People, stops and fields go one by one, and each of them by its parts.
 * @param base what it was begun on
 * @param mine the correction so far
 * @param now the plan that holds
 */
export function rebased(base: Plan, mine: Plan, now: Plan): Plan {
	return {
		...merged(base, mine, now),
		people: each(base.people, mine.people, now.people),
		stops: each(base.stops, mine.stops, now.stops),
		fields: each(base.fields, mine.fields, now.fields)
	};
}

/** Part by part: mine where I changed it, else what is there now. */
function merged<T extends object>(base: T, mine: T, now: T): T {
	const keys = [...new Set([...Object.keys(now), ...Object.keys(mine)])] as (keyof T)[];
	const parts = keys.map((key) => [key, same(mine[key], base[key]) ? now[key] : mine[key]] as const);
	return Object.fromEntries(parts.filter(([, value]) => value !== undefined)) as T;
}

/** In the order of `mine`; what came in meanwhile stands at the end, what has gone is gone unless I changed it. */
function each<T extends { id: string }>(base: T[], mine: T[], now: T[]): T[] {
	const [before, present] = [base, now].map((list) => new Map(list.map((one) => [one.id, one])));
	const kept = mine.flatMap((one) => {
		const [was, there] = [before!.get(one.id), present!.get(one.id)];
		if (was && there) return [merged(was, one, there)];
		return was && same(was, one) ? [] : [one];
	});
	const known = new Set([...base, ...mine].map((one) => one.id));
	return [...kept, ...now.filter((one) => !known.has(one.id))];
}
