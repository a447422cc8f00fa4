import { inWords, keysOfPlan, questionOfKey, type Answers } from '../field';
import { folded } from '../folded';
import { localeOf, type Plan, type PlanPerson } from '../packet/plan';
import { roleName } from './use';

/** What a letter's values are taken from. */
export interface ValueFacts {
	plan: Plan;
	/** what has been answered so far */
	answers: Answers;
	sender: { name: string; email: string; organisation: string };
	/** the day it ends, in words; null where it has no end */
	until: string | null;
	/** how numbers and dates are written to whom it goes */
	locale?: string;
}

const VALUE = /\{\s*([^{}]{1,80}?)\s*\}/g;

/** What may stand after a person's role: the part of them that is meant. */
export const PERSON_PARTS = ['name', 'given name', 'family name', 'email', 'organisation', 'job title'] as const;

/** A value that can't be told yet. */
const OPEN = '…';

/** A text with its values filled in. What is not known yet stands as “…”, what is no value stays as it is. */
export function filledIn(text: string, facts: ValueFacts): string {
	return text.replace(VALUE, (whole, name: string) => valueOf(name, facts) ?? whole);
}

/** The values a text names that a plan has not. */
export function strangeValues(text: string, plan: Plan): string[] {
	const facts = { plan, answers: {}, sender: { name: '', email: '', organisation: '' }, until: null };
	return [...text.matchAll(VALUE)].map((found) => found[1]!).filter((name) => valueOf(name, facts) === null);
}

/** All values that a text may name in this plan, as they are written. */
export function valuesOf(plan: Plan): string[] {
	const people = plan.people.flatMap((person) =>
		roleName(person) === 'Somebody' ? [] : PERSON_PARTS.map((part) => `{${roleName(person).toLowerCase()}.${part}}`)
	);
	return ['{title}', '{deadline}', '{sender.name}', ...people, ...keysOfPlan(plan).map((key) => `{${key}}`)];
}

function valueOf(name: string, facts: ValueFacts): string | null {
	const { plan, sender } = facts;
	if (name === 'title') return plan.title || OPEN;
	if (name === 'deadline') return facts.until ?? OPEN;
	const field = questionOfKey(plan.fields, name)?.[0];
	if (field) {
		const answer = facts.answers[field.id] ?? plan.answers?.[field.id];
		return (answer && inWords(plan, field, answer, facts.locale ?? localeOf(plan))) || OPEN;
	}
	const [who, part = 'name'] = name.split('.').map((one) => folded(one.trim()));
	if (who === 'sender') return ofPerson({ ...sender }, part);
	const person = plan.people.find((p) => folded(roleName(p)) === who || (p.name !== '' && folded(p.name) === who));
	return person ? ofPerson(person, part) : null;
}

function ofPerson(person: Partial<PlanPerson>, part: string): string | null {
	const words = (person.name ?? '').trim().split(/\s+/);
	const value: Record<(typeof PERSON_PARTS)[number], string | undefined> = {
		name: person.name,
		'given name': words.length > 1 ? words.slice(0, -1).join(' ') : words[0],
		'family name': words.at(-1),
		email: person.email,
		organisation: person.organisation,
		'job title': person.jobTitle
	};
	return part in value ? value[part as keyof typeof value] || OPEN : null;
}
