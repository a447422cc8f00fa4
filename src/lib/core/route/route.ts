import type { Duty, Plan, PlanPerson } from '../packet/plan';

/** Whether a duty holds up its stop. Somebody who gets a copy never does. */
export function acts(duty: Duty): boolean {
	return duty !== 'gets a copy';
}

/** Everybody who has something to do, in the order of the plan. */
export function actorsOf(plan: Plan): PlanPerson[] {
	return plan.people.filter((person) => acts(person.duty));
}

/** The people of a stop who have something to do there. */
export function actorsAt(plan: Plan, stop: number): PlanPerson[] {
	const ids = plan.stops[stop]?.people ?? [];
	return actorsOf(plan).filter((person) => ids.includes(person.id));
}

/** Whether it is certain that a person will do their part: no rule and nobody of a group can leave them out. */
export function isCertain(plan: Plan, person: string): boolean {
	const stop = plan.stops[stopOf(plan, person)];
	return stop !== undefined && !stop.when && !(stop.anyOne && stop.people.length > 1);
}

/** The people whom somebody hosts: they act in front of them, at the same stop. */
export function guestsOf(plan: Plan, host: string): PlanPerson[] {
	return plan.people.filter((one) => one.hostedBy === host && one.deliver === 'in person');
}

/** The notary of a plan; there is one at most. */
export function notaryIn(plan: Plan): PlanPerson | undefined {
	return plan.people.find((one) => one.duty === 'notarises');
}

/** Those who come before the notary: all who have something to do at the notary's stop. */
export function beforeNotary(plan: Plan): PlanPerson[] {
	const notary = notaryIn(plan);
	return notary ? actorsAt(plan, stopOf(plan, notary.id)).filter((one) => one.id !== notary.id) : [];
}

/** Whether others may do their part on this person's device: a host's, or the notary's own. */
export const mayHost = (person: PlanPerson): boolean => person.duty === 'hosts' || person.duty === 'notarises';

/** The stop at which a person stands; -1 where the route does not name them. */
export function stopOf(plan: Plan, person: string): number {
	return plan.stops.findIndex((stop) => stop.people.includes(person));
}

/** The people whom a person still has to name on finishing. */
export function toBeNamedBy(plan: Plan, person: string): PlanPerson[] {
	return plan.people.filter((one) => one.namedBy === person && (one.name === '' || one.email === ''));
}

/** Whether one person stands at an earlier stop than another, and has something to do there. */
export function comesBefore(plan: Plan, one: string, other: string): boolean {
	const [first, second] = [stopOf(plan, one), stopOf(plan, other)];
	return first >= 0 && first < second && actorsOf(plan).some((person) => person.id === one);
}

/** A plan without a person on its route: a stop where they stood alone is gone, and nobody is named by them any more. */
export function offRoute(plan: Plan, id: string): Plan {
	return {
		...plan,
		people: plan.people.flatMap((person) => {
			if (person.id === id) return [];
			const { namedBy, ...rest } = person;
			return namedBy === id ? [rest] : [person];
		}),
		stops: plan.stops
			.map((stop) => ({ ...stop, people: stop.people.filter((one) => one !== id) }))
			.filter((stop) => stop.people.length > 0)
	};
}

/** The route with a person at another place: beside those at stop `to`, or at a new stop of their own before it. */
export function moved(plan: Plan, person: string, to: number, how: 'beside' | 'before'): Plan {
	const target = plan.stops[to];
	const without = plan.stops.map((stop) => ({ ...stop, people: stop.people.filter((id) => id !== person) }));
	let stops = without;
	if (how === 'beside' && target) {
		stops = without.map((stop) => (stop.id === target.id ? { ...stop, people: [...stop.people, person] } : stop));
	} else {
		const fresh = { id: freeStopId(plan), people: [person] };
		stops = [...without.slice(0, to), fresh, ...without.slice(to)];
	}
	return { ...plan, stops: stops.filter((stop) => stop.people.length > 0) };
}

/** An id that no stop of the plan has; told from the plan alone, since core knows no chance. */
function freeStopId(plan: Plan): string {
	let n = plan.stops.length;
	while (plan.stops.some((stop) => stop.id === `s${n}`)) n += 1;
	return `s${n}`;
}

/** The duty in the past: what the person has done when they have finished. */
export function doneWord(duty: Duty): string {
	return {
		signs: 'signed',
		approves: 'approved',
		'fills in': 'filled in',
		hosts: 'hosted',
		notarises: 'notarised',
		'gets a copy': 'copied'
	}[duty];
}

/** What the person is asked to do, as a verb. */
export function dutyVerb(duty: Duty): string {
	return {
		signs: 'sign',
		approves: 'approve',
		'fills in': 'fill in',
		hosts: 'host',
		notarises: 'notarise',
		'gets a copy': 'read'
	}[duty];
}
