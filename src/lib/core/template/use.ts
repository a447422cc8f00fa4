import { asksSomebody, kindOf, questionOf, type Answers } from '../field';
import { isAddress } from '../packet/address';
import { SENDER, type Field, type Plan, type PlanPerson } from '../packet/plan';

/** What is given when a template is used. Whatever is left out stays as the template has it. */
export interface Given {
	title?: string;
	/** by the id of the role; null: this optional role stays empty */
	people?: Record<string, Pick<PlanPerson, 'name' | 'email'> | null>;
	/** the sender's answers, by field */
	answers?: Answers;
}

/** What people call a place in a plan: its role, or whoever stands there. */
export function roleName(person: PlanPerson): string {
	return person.role || person.name || 'Somebody';
}

/** Roles that nobody has taken yet: without a name or an address to reach them at. */
export function openRoles(plan: Plan): PlanPerson[] {
	return plan.people.filter(
		(person) => person.namedBy === undefined && (person.name.trim() === '' || !isAddress(person.email.trim()))
	);
}

/** What the sender must answer before this can go, one field for each question. */
export function openAnswers(plan: Plan): Field[] {
	const seen = new Set<Field[]>();
	return plan.fields.filter((field) => {
		if (field.person !== SENDER || !asksSomebody(field) || kindOf(field.kind).filledBy !== 'person') return false;
		const question = questionOf(plan.fields, field);
		if (seen.has(question) || question.some((twin) => plan.answers?.[twin.id] !== undefined)) return false;
		seen.add(question);
		return field.readOnly !== true;
	});
}

/** A plan without a person: their stop, where they stood alone, and their fields are gone with them. */
export function withoutPerson(plan: Plan, id: string): Plan {
	return {
		...plan,
		people: plan.people.flatMap((person) => (person.id === id ? [] : [notNamedBy(person, id)])),
		stops: plan.stops
			.map((stop) => ({ ...stop, people: stop.people.filter((one) => one !== id) }))
			.filter((stop) => stop.people.length > 0),
		fields: plan.fields.filter((field) => field.person !== id)
	};
}

/** A person without one who was to name them. */
function notNamedBy(person: PlanPerson, id: string): PlanPerson {
	const { namedBy, ...rest } = person;
	return namedBy === undefined || namedBy === id ? rest : person;
}

/** The plan of a template with what was given for it. Optional roles that nobody took fall away. */
export function used(plan: Plan, given: Given): Plan {
	const people = plan.people.map((person) => ({ ...person, ...(given.people?.[person.id] ?? {}) }));
	const filled = {
		...plan,
		title: given.title ?? plan.title,
		people,
		...(given.answers && { answers: { ...plan.answers, ...given.answers } })
	};
	return people
		.filter(
			(person) =>
				person.optional &&
				person.namedBy === undefined &&
				(given.people?.[person.id] === null || person.email.trim() === '')
		)
		.reduce((left, person) => withoutPerson(left, person.id), filled);
}
