import type { Field, Plan } from '../packet/plan';
import { kindOf } from './kinds';

/** The fields that ask one question: those with the same key, or a field without one by itself. */
export type Question = Field[];

const known = new WeakMap<Field[], Map<string, Question>>();

/** Every question of some fields, by the id of each field in it. Kept as long as the list itself is. */
function byField(fields: Field[]): Map<string, Question> {
	let made = known.get(fields);
	if (made) return made;
	made = new Map();
	const byKey = new Map<string, Question>();
	for (const field of fields) {
		const question = field.key === '' ? [] : (byKey.get(field.key) ?? []);
		if (field.key !== '') byKey.set(field.key, question);
		question.push(field);
		made.set(field.id, question);
	}
	known.set(fields, made);
	return made;
}

/** The question a field belongs to, itself included. */
export function questionOf(fields: Field[], field: Field): Question {
	return byField(fields).get(field.id) ?? [field];
}

/** All questions, each once, in the order of their first field. */
export function questions(fields: Field[]): Question[] {
	return [...new Set(byField(fields).values())];
}

/** The question of a key; undefined where no field has it. */
export function questionOfKey(fields: Field[], key: string): Question | undefined {
	return key === '' ? undefined : questions(fields).find((question) => question[0]!.key === key);
}

/** Fields whose answer can be named in rules and data: those with a key and something to say. */
export function keysOfPlan(plan: Plan): string[] {
	return questions(plan.fields).flatMap(([first]) =>
		first!.key !== '' && kindOf(first!.kind).filledBy !== 'nobody' ? [first!.key] : []
	);
}
