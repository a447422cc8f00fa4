import type { Field, Plan } from '../packet/plan';
import { kindOf } from './kinds';

/** The fields that ask one question: those with the same key, or a field without one by itself. */
export type Question = Field[];

interface Sorted {
	byField: Map<string, Question>;
	byKey: Map<string, Question>;
	all: Question[];
}

const known = new WeakMap<Field[], Sorted>();

/** Every question of some fields. Kept as long as the list itself is, since lists are never changed in place. */
function sorted(fields: Field[]): Sorted {
	const there = known.get(fields);
	if (there) return there;
	const made = new Map<string, Question>();
	const byKey = new Map<string, Question>();
	for (const field of fields) {
		const question = field.key === '' ? [] : (byKey.get(field.key) ?? []);
		if (field.key !== '') byKey.set(field.key, question);
		question.push(field);
		made.set(field.id, question);
	}
	const all = { byField: made, byKey, all: [...new Set(made.values())] };
	known.set(fields, all);
	return all;
}

/** The question a field belongs to, itself included. */
export function questionOf(fields: Field[], field: Field): Question {
	return sorted(fields).byField.get(field.id) ?? [field];
}

/** All questions, each once, in the order of their first field. */
export function questions(fields: Field[]): Question[] {
	return sorted(fields).all;
}

/** The question of a key; undefined where no field has it. */
export function questionOfKey(fields: Field[], key: string): Question | undefined {
	return sorted(fields).byKey.get(key);
}

/** Fields whose answer can be named in rules and data: those with a key and something to say. */
export function keysOfPlan(plan: Plan): string[] {
	return questions(plan.fields).flatMap(([first]) =>
		first!.key !== '' && kindOf(first!.kind).filledBy !== 'nobody' ? [first!.key] : []
	);
}
