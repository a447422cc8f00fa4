import { folded } from '../folded';
import type { Plan } from '../packet';
import { isMailed, isTexted } from '../packet';
import { openAnswers, openRoles, roleName } from '../template';

/** What a column of a sheet may fill in: part of a person, an answer of the sender's, or the title. */
export type Target = { id: string; name: string; needed: boolean; words: string[] } & (
	| { what: 'title' }
	| { what: 'person'; person: string; part: 'name' | 'email' | 'phone' }
	| { what: 'answer'; field: string }
);

/** Which column fills which target, by the target's id; a target that is not there stays as the template has it. */
export type Mapping = Record<string, number>;

/** All that a template leaves open and a row can bring, in the order in which it is asked. */
export function targetsOf(plan: Plan): Target[] {
	const roles = openRoles(plan);
	const people = roles.flatMap((person): Target[] => {
		const role = roleName(person);
		const one = (part: 'name' | 'email' | 'phone', name: string, words: string[]): Target => ({
			id: `${person.id}.${part}`,
			name: `${role}: ${name}`,
			needed: person.optional !== true,
			words: [...words.map((word) => `${role} ${word}`), ...(part === 'name' ? [role] : []), ...words],
			what: 'person',
			person: person.id,
			part
		});
		return [
			one('name', 'name', ['name', 'full name', 'who']),
			...(isMailed(person) ? [one('email', 'e-mail', ['email', 'e-mail', 'mail', 'email address', 'address'])] : []),
			...(isTexted(person) ? [one('phone', 'telephone', ['phone', 'telephone', 'mobile', 'phone number'])] : [])
		];
	});
	const answers = openAnswers(plan).map((field): Target => ({
		id: `answer.${field.id}`,
		name: field.label || field.key,
		needed: field.required,
		words: [field.key, field.label].filter(Boolean),
		what: 'answer',
		field: field.id
	}));
	return [...people, ...answers, { id: 'title', name: 'Title', needed: false, words: ['title'], what: 'title' }];
}

const plain = (text: string) => folded(text).replace(/[^\p{L}\p{N}]/gu, '');

/**
 * Which columns are likely meant for which targets, by their headings: the same words first, then one within the other.
 * A column fills one target only.
 */
export function matched(columns: readonly string[], targets: readonly Target[]): Mapping {
	const mapping: Mapping = {};
	const headings = columns.map(plain);
	const taken = new Set<number>();
	const take = (fits: (heading: string, word: string) => boolean) => {
		for (const target of targets) {
			if (mapping[target.id] !== undefined) continue;
			const words = target.words.map(plain);
			for (const word of words) {
				const at = headings.findIndex((heading, i) => heading !== '' && !taken.has(i) && fits(heading, word));
				if (at < 0) continue;
				mapping[target.id] = at;
				taken.add(at);
				break;
			}
		}
	};
	take((heading, word) => heading === word);
	take(
		(heading, word) => word.length > 3 && (heading.includes(word) || (heading.length > 3 && word.includes(heading)))
	);
	return mapping;
}
