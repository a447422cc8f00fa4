import { isRefusal, refuse, type Refusal } from '../refusal';
import type { Field, Plan } from '../packet/plan';
import type { Answer } from './answer';
import type { FieldContext, FieldKind } from './kind';
import { KINDS } from './kinds';

/** Answers by the id of their field. */
export type Answers = Record<string, Answer>;

const byName = new Map(KINDS.map((kind) => [kind.kind, kind]));

/** The kind of that name. A plan that crossed the border names only kinds that exist. */
export function kindOf(name: string): FieldKind {
	const kind = byName.get(name);
	if (!kind) throw new Error(`no kind of field is called ${name}`);
	return kind;
}

export function fieldsOf(plan: Plan, person: string): Field[] {
	return plan.fields.filter((field) => field.person === person);
}

/** What is still to be done by the person: their fields that are asked of them and lack a good answer. */
export function openFields(plan: Plan, person: string, given: Answers): Field[] {
	return fieldsOf(plan, person).filter((field) => {
		const kind = kindOf(field.kind);
		if (kind.filledBy !== 'person') return false;
		const answer = given[field.id];
		return answer === undefined ? field.required : kind.check(field, answer) !== null;
	});
}

/**
 * The complete answers of a person who finishes: what they gave, checked, and what Pellum fills in itself.
 * Answers for fields that aren't theirs are refused, and so is a required field without one.
 */
export function finishAnswers(plan: Plan, person: string, given: Answers, context: FieldContext): Answers | Refusal {
	const own = fieldsOf(plan, person);
	const ids = new Set(own.map((field) => field.id));
	for (const id of Object.keys(given)) {
		if (!ids.has(id)) return refuse('not-your-field', 'One of these answers belongs to somebody else.', id);
	}
	const all: Answers = {};
	for (const field of own) {
		const kind = kindOf(field.kind);
		const answer =
			kind.filledBy === 'finishing'
				? kind.prefill(field, context)
				: Object.hasOwn(given, field.id)
					? given[field.id]!
					: null;
		if (answer === null || isBlank(answer)) {
			if (field.required) return refuse('answer-missing', `“${field.label}” still needs an answer.`, field.id);
			continue;
		}
		const no = kind.check(field, answer);
		if (isRefusal(no)) return { ...no, at: field.id };
		all[field.id] = answer;
	}
	return all;
}

function isBlank(answer: Answer): boolean {
	return !('way' in answer) && answer.text.trim() === '';
}
