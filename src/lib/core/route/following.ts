import { live, parsedRule, questionOfKey, ruleOfComputed, usesOf, type Answers, type Live } from '../field';
import type { Plan } from '../packet/plan';
import { holds, isFault } from '../rule';
import { actorsAt, acts, stopOf } from './route';

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

/**
 * The rule by which somebody who finishes may be spared naming a person, since that one's stop does not open: one over what is answered
 * by then. null where there is none, or it asks for what comes later: then the person is named, and left out if need be.
 */
export function ruleOfNaming(plan: Plan, by: string, person: string): string | null {
	const { when = '' } = plan.stops[stopOf(plan, person)] ?? {};
	return when !== '' && answeredBy(plan, stopOf(plan, by), usesOf(when), []) ? when : null;
}

/**
 * Whether a stop will open, where that is decided by what was answered up to the stop `done`; null where it still depends.
 * @param today ISO 8601 day in the packet's zone
 */
export function willOpen(plan: Plan, stop: number, done: number, answers: Answers, today: string): boolean | null {
	const when = plan.stops[stop]?.when;
	if (!when) return true;
	return answeredBy(plan, done, usesOf(when), []) ? opensBy(when, live(plan, answers, today)) : null;
}

/** Whether nobody after a stop has a say in these keys. */
function answeredBy(plan: Plan, stop: number, keys: string[], path: string[]): boolean {
	return keys.every((key) =>
		(questionOfKey(plan.fields, key) ?? []).every((field) =>
			field.kind === 'computed'
				? path.includes(key) || answeredBy(plan, stop, usesOf(ruleOfComputed(field)), [...path, key])
				: field.person === null || stopOf(plan, field.person) <= stop
		)
	);
}

/** Whether a stop's rule holds. One that can't be read opens its stop: nobody is left out by a mistake. */
export function opensBy(rule: string, now: Live): boolean {
	const node = parsedRule(rule);
	return isFault(node) || holds(node, now.world);
}
