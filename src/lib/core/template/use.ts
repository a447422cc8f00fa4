import { asksSomebody, kindOf, questionOf, type Answers } from '../field';
import { isAddress } from '../packet/address';
import { isPhone } from '../packet/phone';
import { isMailed, isTexted } from '../packet/reach';
import { offRoute } from '../route';
import { SENDER, type Field, type Plan, type PlanPerson } from '../packet/plan';
import { withPaper, type OtherPaper } from './paper';

/** What is given when a template is used. Whatever is left out stays as the template has it. */
export interface Given {
	title?: string;
	/** by the id of the role; null: this optional role stays empty */
	people?: Record<
		string,
		Pick<PlanPerson, 'name' | 'email' | 'phone' | 'check' | 'note' | 'locale' | 'deliver'> | null
	>;
	/** what the office knows of somebody, folded: by person and question; who sends it makes hashes of it */
	known?: Record<string, Record<string, string>>;
	/** days to complete */
	days?: number;
	/** everybody's letter */
	subject?: string;
	message?: string;
	/** the sender's answers, by field */
	answers?: Answers;
	/** another version of one of its documents */
	document?: OtherPaper;
}

/** What people call a place in a plan: its role, or whoever stands there. */
export function roleName(person: PlanPerson): string {
	return person.role || person.name || 'Somebody';
}

/** Roles that nobody has taken yet: without a name, what is needed to reach them, or the code they are to enter. */
export function openRoles(plan: Plan): PlanPerson[] {
	return plan.people.filter(
		(person) =>
			person.namedBy === undefined &&
			(person.name.trim() === '' ||
				(isMailed(person) && !isAddress(person.email.trim())) ||
				(isTexted(person) && !isPhone(person.phone ?? '')) ||
				(person.check?.by === 'code' && person.check.hash === ''))
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
	return { ...offRoute(plan, id), fields: plan.fields.filter((field) => field.person !== id) };
}

/**
 * A plan as a template: its people become roles, those of the office stay who they are. What was answered for one packet,
 * and where it came from, is left out.
 * @param office addresses of the office's own people, in small letters
 */
export function asRoles(plan: Plan, office: ReadonlySet<string>): Plan {
	const { answers: _answers, from: _from, locked: _locked, amends: _amends, ...rest } = plan;
	return {
		...rest,
		people: plan.people.map((person, i) => {
			const role = person.role || person.jobTitle || person.name || `Person ${i + 1}`;
			const stays = isAddress(person.email) && office.has(person.email.toLowerCase());
			if (stays) return { ...person, role };
			// a telephone number and an access code are one person's, as their name is
			const { phone: _phone, check, ...kept } = person;
			const proof = check?.by === 'code' ? { by: check.by, hash: '' } : check;
			return { ...kept, role, name: '', email: '', ...(proof && { check: proof }) };
		})
	};
}

/** The plan of a template with what was given for it. Optional roles that nobody took fall away. */
export function used(template: Plan, given: Given): Plan {
	const plan = given.document ? withPaper(template, given.document) : template;
	const people = plan.people.map((person) =>
		withKnown({ ...person, ...(given.people?.[person.id] ?? {}) }, given.known?.[person.id] ?? {}, () => GIVEN)
	);
	const filled = {
		...plan,
		title: given.title ?? plan.title,
		days: given.days ?? plan.days,
		message: given.message ?? plan.message,
		...(given.subject !== undefined && { subject: given.subject }),
		people,
		...(given.answers && { answers: { ...plan.answers, ...given.answers } })
	};
	return people
		.filter(
			(person) =>
				person.optional &&
				person.namedBy === undefined &&
				(given.people?.[person.id] === null || `${person.name}${person.email}${person.phone ?? ''}`.trim() === '')
		)
		.reduce((left, person) => withoutPerson(left, person.id), filled);
}

/** Stands where a hash comes to stand: what was given is none yet, and fits no answer. */
const GIVEN = 'given';

/** Somebody with what is known of them, each as its hash. */
export function withKnown(
	person: PlanPerson,
	known: Readonly<Record<string, string>>,
	hash: (folded: string) => string
): PlanPerson {
	const questions = person.identity?.questions;
	if (!questions || Object.keys(known).length === 0) return person;
	const asks = questions.asks.map((ask) => (known[ask.id] ? { ...ask, hash: hash(known[ask.id]!) } : ask));
	return { ...person, identity: { ...person.identity!, questions: { ...questions, asks } } };
}
