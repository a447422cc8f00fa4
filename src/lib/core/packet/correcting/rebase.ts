import { canonicalJson } from '../../audit';
import type { Plan } from '../plan';

const same = (a: unknown, b: unknown) => canonicalJson(a ?? null) === canonicalJson(b ?? null);

/**
 * A correction that was begun on one plan, taken over to the one that holds now: what it left alone is as it is now, what
 * it changed stays changed. People, stops and fields go one by one; all else as a whole.
 * @param base what it was begun on
 * @param mine the correction so far
 * @param now the plan that holds
 */
export function rebased(base: Plan, mine: Plan, now: Plan): Plan {
	const whole = Object.fromEntries(
		[...new Set([...Object.keys(mine), ...Object.keys(now)])].map((key) => {
			const part = key as keyof Plan;
			return [key, same(mine[part], base[part]) ? now[part] : mine[part]];
		})
	) as Plan;
	return {
		...whole,
		people: each(base.people, mine.people, now.people),
		stops: each(base.stops, mine.stops, now.stops),
		fields: each(base.fields, mine.fields, now.fields)
	};
}

/** In the order of `mine`; what came in meanwhile stands at the end. */
function each<T extends { id: string }>(base: T[], mine: T[], now: T[]): T[] {
	const [before, present] = [base, now].map((list) => new Map(list.map((one) => [one.id, one])));
	const kept = mine.flatMap((one) => {
		if (!same(one, before!.get(one.id))) return [one];
		const there = present!.get(one.id);
		return there ? [there] : [];
	});
	const known = new Set([...base, ...mine].map((one) => one.id));
	return [...kept, ...now.filter((one) => !known.has(one.id))];
}
