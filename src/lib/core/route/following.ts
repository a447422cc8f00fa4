import { live, parsedRule, type Answers } from '../field';
import type { Plan } from '../packet/plan';
import { holds, isFault } from '../rule';
import { actorsAt, acts } from './route';

/** What comes after a stop: the stops that a rule leaves out, and the one that opens; null where nothing is left to do. */
export interface Following {
	skipped: { stop: number; people: string[] }[];
	opens: { stop: number; people: string[]; copies: string[] } | null;
}

/**
 * Decides the stops after `stop` for good, by the answers there are now. A stop without anybody who acts never holds
 * anything up; those who get a copy there get it when the route passes them.
 * @param stop the stop that is done; -1 at sending
 * @param today ISO 8601 day in the packet's zone
 */
export function following(plan: Plan, stop: number, answers: Answers, today: string): Following {
	const now = live(plan, answers, today);
	const skipped: Following['skipped'] = [];
	const copies: string[] = [];
	for (let next = stop + 1; next < plan.stops.length; next++) {
		const { when, people } = plan.stops[next]!;
		if (when && !opensBy(when, now)) {
			skipped.push({ stop: next, people });
			continue;
		}
		copies.push(...people.filter((id) => plan.people.some((p) => p.id === id && !acts(p.duty))));
		const actors = actorsAt(plan, next).map((person) => person.id);
		if (actors.length > 0) return { skipped, opens: { stop: next, people: actors, copies } };
	}
	return { skipped, opens: null };
}

/** Whether a stop's rule holds. One that can't be read opens its stop: nobody is left out by a mistake. */
function opensBy(rule: string, now: ReturnType<typeof live>): boolean {
	const node = parsedRule(rule);
	return isFault(node) || holds(node, now.world);
}
