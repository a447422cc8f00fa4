import { askedFault } from '../../identity/asked';
import { keyTypes, questionOfKey, rulesOf, usesOf } from '../../field';
import { acts, comesBefore, guestsOf, isCertain, mayHost, stopOf } from '../../route';
import { checkRule, isFault } from '../../rule';
import { SENDER, type Plan, type PlanPerson, type Stop } from '../plan';
import { isPhone } from '../phone';
import { isTexted } from '../reach';
import type { Finding } from './finding';
import { neverHolds } from './never';

/** What a person is called in a finding. */
export const whoIs = (person: PlanPerson): string =>
	person.name.trim() || person.role || person.email || 'Somebody on the route';

/** What is wrong with the route itself: stops by rule, groups, hosts and guests, who names whom, how people are reached. */
export function checkRoute(plan: Plan): Finding[] {
	return [
		...plan.stops.flatMap((stop) => stopFaults(plan, stop)),
		...plan.people.flatMap((person) => [
			...namingFaults(plan, person),
			...hostingFaults(plan, person),
			...reachFaults(person)
		])
	];
}

/** The first person of a stop stands for it, since that is where one looks. */
function placeOf(stop: Stop): Finding['place'] {
	return stop.people[0] === undefined ? { what: 'people' } : { what: 'person', id: stop.people[0] };
}

function stopFaults(plan: Plan, stop: Stop): Finding[] {
	const at = plan.stops.indexOf(stop);
	const place = placeOf(stop);
	const found: Finding[] = [];
	const fault = (code: string, say: string, mild?: true) =>
		found.push({ code, say: `Stop ${at + 1}: ${say}`, place, ...(mild && { mild }) });
	if (stop.anyOne) {
		const actors = stop.people.filter((id) => plan.people.some((p) => p.id === id && acts(p.duty)));
		if (actors.length < 2) fault('group-of-one', 'a group in which any one is enough needs two people or more.');
	}
	if (!stop.when) return found;
	const checked = checkRule(stop.when, keyTypes(plan), 'truth');
	if (isFault(checked)) {
		fault(checked.code, checked.say);
		return found;
	}
	const early = uncertain(plan, at, checked.uses);
	if (early)
		fault(
			'rule-too-early',
			`its rule asks for “${early}”, which is not certain to be answered before the stop is reached.`
		);
	else if (neverHolds(plan, stop.when)) fault('never-opens', 'it can never open: nothing fulfils its rule.', true);
	const open = checked.uses.find((key) =>
		questionOfKey(plan.fields, key)?.every((f) => !f.required && f.person !== SENDER)
	);
	if (!early && open)
		fault('rule-may-lack', `its rule asks for “${open}”, which may stay empty; the stop is then left out.`, true);
	return found;
}

/** Whether the answer of a key is certain to be there when a stop (its number, from 0) is reached, so that its rule may use it. */
export function isKnownBefore(plan: Plan, stop: number, key: string): boolean {
	return uncertain(plan, stop, [key]) === null;
}

/** A key whose answer may not be there when the stop is reached: of the same or a later stop, or of one that may fall away. */
function uncertain(plan: Plan, stop: number, uses: string[], path: string[] = []): string | null {
	for (const key of uses) {
		const question = questionOfKey(plan.fields, key);
		if (!question || path.includes(key)) continue;
		if (question[0]!.kind === 'computed') {
			const deeper = uncertain(
				plan,
				stop,
				question.flatMap((f) => rulesOf(f).flatMap((rule) => usesOf(rule.source))),
				[...path, key]
			);
			if (deeper) return deeper;
			continue;
		}
		const known = question.some((f) => {
			if (f.person === SENDER) return true;
			const theirs = f.person === null ? -1 : stopOf(plan, f.person);
			return theirs >= 0 && theirs < stop && isCertain(plan, f.person!);
		});
		if (
			!known &&
			!wholeGroupAnswers(
				plan,
				stop,
				question.flatMap((f) => f.person ?? [])
			)
		)
			return key;
	}
	return null;
}

/** Whether every one of an earlier group is asked: then one of them has answered, whoever it was. */
function wholeGroupAnswers(plan: Plan, stop: number, asked: string[]): boolean {
	return plan.stops
		.slice(0, stop)
		.some(
			(one) =>
				one.anyOne &&
				!one.when &&
				one.people.length > 0 &&
				one.people.every((id) => asked.includes(id) || plan.people.some((p) => p.id === id && !acts(p.duty)))
		);
}

function namingFaults(plan: Plan, person: PlanPerson): Finding[] {
	const { namedBy } = person;
	if (namedBy === undefined || person.name !== '' || person.email !== '') return [];
	const place = { what: 'person', id: person.id } as const;
	const circle = circleOf(plan, person);
	if (circle)
		return [
			{
				code: 'naming-circle',
				say: `These name one another in a circle: ${circle.map(whoIs).join(' → ')}.`,
				place
			}
		];
	if (!comesBefore(plan, namedBy, person.id))
		return [
			{
				code: 'named-too-late',
				say: `${whoIs(person)} is to be named by somebody who does not come before them.`,
				place
			}
		];
	const [mine, theirs] = [plan.stops[stopOf(plan, person.id)], plan.stops[stopOf(plan, namedBy)]];
	return isCertain(plan, namedBy) || (!theirs?.anyOne && mine?.when === theirs?.when)
		? []
		: [
				{
					code: 'namer-may-be-left-out',
					say: `${whoIs(person)} is to be named by somebody whom a rule or a group may leave out.`,
					place
				}
			];
}

/** The people who name one another, from this one round to itself; null where it ends somewhere. */
function circleOf(plan: Plan, from: PlanPerson): PlanPerson[] | null {
	const path = [from];
	for (;;) {
		const next = plan.people.find((p) => p.id === path[path.length - 1]!.namedBy);
		if (!next) return null;
		if (next === from) return [...path, from];
		if (path.includes(next)) return null;
		path.push(next);
	}
}

function hostingFaults(plan: Plan, person: PlanPerson): Finding[] {
	const place = { what: 'person', id: person.id } as const;
	const who = whoIs(person);
	if (person.duty === 'hosts' && guestsOf(plan, person.id).length === 0)
		return [{ code: 'nobody-to-host', say: `${who} hosts, but nobody does their part in front of them.`, place }];
	if (person.deliver !== 'in person') return [];
	const host = plan.people.find((p) => p.id === person.hostedBy);
	if (!host || !mayHost(host))
		return [{ code: 'no-host', say: `${who} is to do it in person: say who hosts them.`, place }];
	return stopOf(plan, host.id) === stopOf(plan, person.id)
		? []
		: [{ code: 'host-elsewhere', say: `${who} and ${whoIs(host)}, who hosts them, must stand side by side.`, place }];
}

function reachFaults(person: PlanPerson): Finding[] {
	const place = { what: 'person', id: person.id } as const;
	const who = whoIs(person);
	const found: Finding[] = [];
	const phone = (person.phone ?? '').trim();
	if (phone !== '' ? !isPhone(phone) : isTexted(person))
		found.push({
			code: 'bad-phone',
			say:
				phone === ''
					? `${who} gets a text message, but has no telephone number yet.`
					: `“${phone}” can’t be a telephone number with its country code.`,
			place
		});
	if (person.check?.by === 'code' && person.check.hash === '')
		found.push({ code: 'no-code', say: `${who} is asked for an access code, but has none yet.`, place });
	const wrong = person.identity && askedFault(person.identity);
	if (wrong) found.push({ code: wrong.code, say: `${who} is to show who they are. ${wrong.say}`, place });
	return found;
}
