import { groupOptions, kindOf, optionsOf, questionOf } from '../field';
import type { KnownQuestion } from '../identity/asked';
import { isMailed, isTexted, LOCALES, type Field, type Plan, type PlanPerson } from '../packet';
import { openAnswers, openRoles, roleName } from '../template';

/** Parts of a person that a sheet can bring. */
export type Part = 'name' | 'email' | 'phone' | 'note' | 'locale' | 'deliver';

/** What a column of a sheet may fill in: part of a person, an answer of the sender's, or something of the packet. */
export type Target = {
	id: string;
	name: string;
	needed: boolean;
	/** what its column may be called, the likeliest first */
	words: string[];
	/** what there is to choose from, where it is one of several */
	choices?: string[];
} & (
	| { what: 'title' }
	| { what: 'document' }
	| { what: 'days' }
	| { what: 'person'; person: string; part: Part }
	| { what: 'answer'; field: string }
	/** what the office knows of somebody, asked of them before anything is shown */
	| { what: 'known'; person: string; question: string; as: KnownQuestion['as'] }
);

const PARTS: Record<Part, { name: string; words: string[]; choices?: string[] }> = {
	name: { name: 'name', words: ['name', 'full name', 'who'] },
	email: { name: 'e-mail', words: ['email', 'e-mail', 'mail', 'email address', 'address'] },
	phone: { name: 'telephone', words: ['phone', 'telephone', 'mobile', 'phone number'] },
	note: { name: 'a private word', words: ['private word', 'private note', 'note', 'remark'] },
	locale: { name: 'language', words: ['language', 'locale'], choices: [...LOCALES] },
	deliver: { name: 'delivery', words: ['delivery', 'reached by'], choices: ['mail', 'text', 'mail and text', 'link'] }
};

const DOCUMENT: Target = {
	id: 'document',
	name: 'Document of its own',
	needed: false,
	words: ['document', 'document of its own', 'file', 'pdf'],
	what: 'document'
};

/**
 * All that a template leaves open and a row can bring, in the order in which it is asked; what a row may add comes last.
 * @param documents rows may have documents of their own
 */
export function targetsOf(plan: Plan, documents = false): Target[] {
	const roles = openRoles(plan);
	const part = (person: PlanPerson, what: Part, needed: boolean): Target => {
		const role = roleName(person);
		const { name, words, choices } = PARTS[what];
		return {
			id: `${person.id}.${what}`,
			name: `${role}: ${name}`,
			needed: needed && person.optional !== true,
			words: [
				...words.map((word) => `${role} ${word}`),
				...(what === 'name' ? [role] : []),
				// what may be anybody's is nobody's: it has to say whose it is
				...(what === 'note' && roles.length > 1 ? [] : words)
			],
			...(choices && { choices }),
			what: 'person',
			person: person.id,
			part: what
		};
	};
	const people = roles.flatMap((person) => [
		part(person, 'name', true),
		...(isMailed(person) ? [part(person, 'email', true)] : []),
		...(isTexted(person) ? [part(person, 'phone', true)] : [])
	]);
	const known = plan.people.flatMap((person) =>
		(person.identity?.questions?.asks ?? [])
			.filter((ask) => ask.hash === '')
			.map(({ id, ask, as }): Target => ({
				id: `${person.id}.known.${id}`,
				name: `${roleName(person)} is asked: ${ask}`,
				needed: person.optional !== true,
				words: [ask, `${roleName(person)} ${ask}`],
				what: 'known',
				person: person.id,
				question: id,
				as
			}))
	);
	const answers = openAnswers(plan).map((field): Target => {
		const choices = choicesOf(plan, field);
		return {
			id: `answer.${field.id}`,
			name: field.label || field.key,
			needed: field.required,
			words: [field.key, field.label].filter(Boolean),
			...(choices.length > 0 && { choices }),
			what: 'answer',
			field: field.id
		};
	});
	const more = roles.flatMap((person) => [
		...(isTexted(person) ? [] : [part(person, 'phone', false)]),
		part(person, 'note', false),
		part(person, 'locale', false),
		part(person, 'deliver', false)
	]);
	return [
		...people,
		...known,
		...answers,
		...(documents ? [DOCUMENT] : []),
		{ id: 'title', name: 'Title', needed: false, words: ['title'], what: 'title' },
		{ id: 'days', name: 'Days to complete', needed: false, words: ['days', 'days to complete'], what: 'days' },
		...more
	];
}

/** The texts that somebody chooses from in a field, empty where it is no choice. */
function choicesOf(plan: Plan, field: Field): string[] {
	const drawn = kindOf(field.kind).kind;
	if (drawn === 'choice') return optionsOf(field).map(({ text, value }) => text || value);
	if (drawn === 'pick-one') return groupOptions(questionOf(plan.fields, field)).map(({ text, value }) => text || value);
	return [];
}
