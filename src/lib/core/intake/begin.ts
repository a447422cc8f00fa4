import { sameJson } from '../audit';
import { isBlank, type Answers } from '../field';
import { isAddress } from '../packet/address';
import { isPhone } from '../packet/phone';
import { isMailed, isTexted } from '../packet/reach';
import { localeOfLanguage, personIn, type Plan, type PlanPerson } from '../packet/plan';
import { refuse, type Refusal } from '../refusal';
import { comesBefore, stopOf } from '../route';
import { roleName, withoutPerson } from '../template/use';
import { fieldsOfItem } from './asked';
import type { Intake, Named } from './schema';
import { stopOpens, walked, type Way } from './walk';

/** Somebody by name and address. */
export interface Somebody {
	name: string;
	email: string;
	phone?: string;
	/** the language of their page and letters */
	locale?: string;
}

/** Who starts a case, and for whom. */
export interface Starting {
	visitor: Somebody;
	/** whom it is about, where the visitor prepares it for them; null where they start it for themselves */
	prepares: Somebody | null;
	/** whom they name */
	named: Named;
}

/**
 * The plan of a case, and the answers that its first person finds filled in. Refuses what is still to be answered
 * (`answer-missing`), a closed way (`way-closed`), a name or address that can't be one, and anybody who would stand in two places
 * (`named-twice`), unless the template permits it.
 * @param plan the plan that the intake asks about (`askedPlan`)
 * @param prepared somebody else answers as far as they may: what they leave out, the first person answers and names on the document
 */
export function casePlan(
	plan: Plan,
	intake: Intake,
	way: Way,
	starting: Starting,
	prepared = starting.prepares !== null
): { plan: Plan; answers: Answers } | Refusal {
	const no = wayFault(plan, intake, way, prepared) ?? startingFault(intake, starting);
	if (no) return no;
	const asked = new Set(way.pages.flatMap(({ roles }) => Object.values(roles).flat()));
	const given: Record<string, Somebody & { note?: string }> = {
		...Object.fromEntries(Object.entries(starting.named).filter(([role]) => asked.has(role))),
		[intake.starter]: starting.prepares ?? starting.visitor
	};
	for (const role of asked) {
		const person = personIn(plan, role)!;
		const one = given[role];
		if (!one || `${one.name}${one.email}`.trim() === '') {
			if (person.optional || (prepared && comesBefore(plan, intake.starter, role))) delete given[role];
			else return refuse('name-missing', `Say who is to be ${roleName(person)}.`, role, { role: roleName(person) });
			continue;
		}
		const wrong = somebodyFault(person, one);
		if (wrong) return wrong;
	}
	const twice = standsTwice(plan, given, starting);
	if (twice) return twice;
	const people = plan.people.map((person) => {
		const one = given[person.id];
		if (!one) return namedLater(plan, intake, way, person, prepared);
		const locale = localeOfLanguage(one.locale);
		return {
			...person,
			name: one.name.trim(),
			email: one.email.trim(),
			...(one.phone?.trim() && { phone: one.phone.trim() }),
			...(locale && { locale }),
			...(one.note?.trim() && { note: one.note.trim() })
		};
	});
	const whole: Plan = { ...plan, people };
	const left = people.filter((person) => person.optional && person.namedBy === undefined && isEmpty(person));
	const known = new Set(plan.fields.filter((field) => field.person === intake.starter).map((field) => field.id));
	return {
		plan: left.reduce((rest, person) => withoutPerson(rest, person.id), whole),
		answers: Object.fromEntries(Object.entries(way.answers).filter(([id, answer]) => known.has(id) && !isBlank(answer)))
	};
}

const isEmpty = (person: PlanPerson): boolean => `${person.name}${person.email}${person.phone ?? ''}`.trim() === '';

/** A role that nobody has been named for, though it may still come to it, is named by the first person when they finish. */
function namedLater(plan: Plan, intake: Intake, way: Way, person: PlanPerson, prepared: boolean): PlanPerson {
	const open = isEmpty(person) && person.namedBy === undefined;
	if (!open || !comesBefore(plan, intake.starter, person.id)) return person;
	if (person.optional && stopOpens(plan, person.id, way.now) === true) return person;
	const { optional: _optional, ...rest } = person;
	return prepared || plan.stops[stopOf(plan, person.id)]?.when ? { ...rest, namedBy: intake.starter } : person;
}

/**
 * What hinders somebody at the end of their way: it is closed, turns in a circle, or something is still to be answered.
 * @param prepared whoever prepares it for somebody else may leave answers out
 */
export function wayFault(plan: Plan, intake: Intake, way: Way, prepared = false): Refusal | null {
	if (way.closed) return refuse('way-closed', way.closed.say, way.closed.id);
	if (way.circle !== null) return refuse('way-circle', 'These questions lead back to themselves. Ask the office.');
	for (const { items } of way.pages)
		for (const item of items) {
			const field = fieldsOfItem(plan, intake, item).find((one) => way.now.shown(one));
			if (!field || field.kind === 'computed' || field.readOnly) continue;
			const answer = way.now.answer(field);
			const wrong = answer && !isBlank(answer) ? way.now.check(field, answer) : null;
			if (wrong) return { ...wrong, at: field.id };
			if (!prepared && (!answer || isBlank(answer)) && way.now.required(field))
				return refuse('answer-missing', `“${field.label}” still needs an answer.`, field.id, { label: field.label });
		}
	return null;
}

function startingFault(intake: Intake, { visitor, prepares }: Starting): Refusal | null {
	if (prepares && intake.representative === 'no')
		return refuse('no-representative', 'Here everybody starts for themselves.');
	if (!prepares && intake.representative === 'must')
		return refuse('only-representative', 'Here a case is prepared for somebody else. Say for whom.');
	for (const one of [visitor, ...(prepares ? [prepares] : [])]) {
		if (one.name.trim() === '') return refuse('own-name-missing', 'Write your name in full.', 'name');
		if (!isAddress(one.email.trim()))
			return refuse('bad-address', `“${one.email}” can't be an e-mail address.`, 'email', { email: one.email });
	}
	return prepares && same(visitor.email, prepares.email)
		? refuse('prepares-oneself', 'You prepare this for somebody else: write their address, not yours.', 'email')
		: null;
}

function somebodyFault(person: PlanPerson, one: Somebody): Refusal | null {
	const role = roleName(person);
	if (one.name.trim() === '') return refuse('name-missing', `Say who is to be ${role}.`, person.id, { role });
	if (isMailed(person) && !isAddress(one.email.trim()))
		return refuse('bad-address', `${role}: “${one.email}” can't be an e-mail address.`, person.id, {
			email: one.email
		});
	if (isTexted(person) || one.phone?.trim())
		if (!isPhone(one.phone ?? ''))
			return refuse('bad-phone', `“${one.phone ?? ''}” can’t be a telephone number with its country code.`, person.id, {
				phone: one.phone ?? ''
			});
	return null;
}

const same = (one: string, other: string): boolean =>
	one.trim() !== '' && one.trim().toLowerCase() === other.trim().toLowerCase();

/** Nobody stands in two places: neither of those who were named, nor of the office's own, nor a representative among them. */
function standsTwice(plan: Plan, given: Record<string, Somebody>, { visitor, prepares }: Starting): Refusal | null {
	if (plan.sending?.selfNaming) return null;
	const places = plan.people
		.filter((person) => person.duty !== 'gets a copy')
		.map((person) => ({ person, email: given[person.id]?.email ?? person.email }));
	for (const [i, { person, email }] of places.entries()) {
		const other = places.slice(0, i).find((one) => same(one.email, email));
		if (!other && !(prepares && same(visitor.email, email))) continue;
		const named = given[person.id] ? person : (other?.person ?? person);
		return refuse(
			'named-twice',
			`${email.trim()} has a place here already and can't be ${roleName(named)} as well.`,
			named.id,
			{ email: email.trim(), role: roleName(named) }
		);
	}
	return null;
}

/**
 * What an intake's rules have against answers given after it, on the document: a way that is closed, or an answer that a rule forces and
 * is another now. What was answered before the document may be changed on it; the rules hold all the same.
 * @param today as an ISO day
 */
export function laterFault(plan: Plan, intake: Intake, given: Answers, today: string): Refusal | null {
	const way = walked(plan, intake, given, today);
	if (way.closed || way.circle !== null) return wayFault(plan, intake, way);
	for (const [key, say] of Object.entries(way.forced))
		for (const field of plan.fields) {
			if (field.key !== key || given[field.id] === undefined) continue;
			if (!sameJson(given[field.id], way.answers[field.id])) return refuse('forced', say.say, field.id);
		}
	return null;
}
