import { isoDay } from '../calendar';
import { EVERYBODY, SENDER, type Field, type Plan } from '../packet/plan';
import { isRefusal, refuse, type Refusal } from '../refusal';
import { isBlank, type Answer } from './answer';
import type { FieldContext } from './kind';
import { kindOf } from './kinds';
import { live, type Answers, type Live } from './live';
import { questionOf, questionOfKey } from './questions';
import { rulesOf, usesOf } from './rules';

export function fieldsOf(plan: Plan, person: string): Field[] {
	return plan.fields.filter((field) => field.person === person);
}

/** What a person could answer: theirs, asked of a person, shown now, not read-only, and not answered by a twin before. */
export function askedFields(plan: Pick<Plan, 'fields'>, person: string, now: Live, earlier: Answers): Field[] {
	return plan.fields.filter(
		(field) =>
			field.person === person &&
			kindOf(field.kind).filledBy === 'person' &&
			field.readOnly !== true &&
			earlier[field.id] === undefined &&
			now.shown(field)
	);
}

/** What is still to be done by the person: what is asked of them and lacks a good answer. One field for each question. */
export function openFields(plan: Pick<Plan, 'fields'>, person: string, now: Live, earlier: Answers = {}): Field[] {
	const seen = new Set<Field[]>();
	return askedFields(plan, person, now, earlier).filter((field) => {
		const question = questionOf(plan.fields, field);
		if (seen.has(question)) return false;
		seen.add(question);
		const answer = now.answer(field);
		return answer === undefined || isBlank(answer) ? now.required(field) : now.check(field, answer) !== null;
	});
}

/** An answer under every field of its question, so that all twins show it. */
export function spread(fields: Field[], answers: Answers): Answers {
	const all: Answers = {};
	for (const field of fields) {
		const answer = answers[field.id];
		if (answer === undefined) continue;
		for (const twin of questionOf(fields, field)) all[twin.id] ??= answer;
	}
	return all;
}

/** What a person finds filled in: what Pellum knows of them, defaults, values set beforehand. */
export function prefilled(plan: Plan, person: string, context: FieldContext): Answers {
	return Object.fromEntries(
		fieldsOf(plan, person).flatMap((field) => {
			const kind = kindOf(field.kind);
			if (kind.filledBy !== 'person') return [];
			const answer = kind.prefill(field, context, questionOf(plan.fields, field));
			return answer ? [[field.id, answer] as const] : [];
		})
	);
}

/**
 * The complete answers of a person who finishes: what they gave, checked, what Pellum fills in itself, and the
 * computed fields that nothing can change any more. An answer stands under every twin.
 * Refuses answers for fields that aren't theirs, and a required field without one; leaves out what is not shown, what is
 * read-only and what a twin has answered `earlier`.
 * @param finished the people who have finished already
 */
export function finishAnswers(
	plan: Plan,
	person: string,
	given: Answers,
	context: FieldContext,
	earlier: Answers = {},
	finished: string[] = []
): Answers | Refusal {
	const own = fieldsOf(plan, person);
	const ids = new Set(own.map((field) => field.id));
	for (const id of Object.keys(given)) {
		if (!ids.has(id)) return refuse('not-your-field', 'One of these answers belongs to somebody else.', id);
	}
	const mine: Answers = {};
	const beforehand = prefilled(plan, person, context);
	for (const field of own) {
		const kind = kindOf(field.kind);
		const answer =
			kind.filledBy === 'finishing'
				? kind.prefill(field, context, questionOf(plan.fields, field))
				: kind.filledBy !== 'person'
					? null
					: field.readOnly === true
						? beforehand[field.id]
						: Object.hasOwn(given, field.id)
							? given[field.id]
							: null;
		if (answer && earlier[field.id] === undefined && !isBlank(answer)) mine[field.id] = answer;
	}
	const today = isoDay(context.zone, context.now);
	const spreadOut = spread(plan.fields, mine);
	const now = live(plan, { ...earlier, ...spreadOut }, today);
	for (const field of own) {
		if (earlier[field.id] !== undefined) continue;
		const answer = spreadOut[field.id];
		if (!now.shown(field)) {
			if (!questionOf(plan.fields, field).some((twin) => now.shown(twin))) delete spreadOut[field.id];
			continue;
		}
		if (answer === undefined) {
			if (now.required(field) && kindOf(field.kind).filledBy === 'person' && field.readOnly !== true)
				return refuse('answer-missing', `“${field.label}” still needs an answer.`, field.id, { label: field.label });
			continue;
		}
		const no = now.check(field, answer);
		if (isRefusal(no)) return { ...no, at: field.id };
	}
	const all = { ...spreadOut, ...fixed(plan, { ...earlier, ...spreadOut }, [...finished, person], now) };
	for (const id of Object.keys(all)) if (earlier[id] !== undefined) delete all[id];
	return all;
}

/** The computed fields that hang on nobody any more who still has to finish, with their values. */
function fixed(plan: Plan, answers: Answers, finished: string[], now: Live): Answers {
	const done = new Set([...finished, SENDER, EVERYBODY]);
	const values: Answers = {};
	for (const field of plan.fields) {
		if (field.kind !== 'computed' || answers[field.id] !== undefined || !settled(plan, field, answers, done, []))
			continue;
		const value = now.shown(field) ? now.answer(field) : undefined;
		if (value) values[field.id] = value;
	}
	return values;
}

function settled(plan: Plan, field: Field, answers: Answers, done: Set<string>, path: string[]): boolean {
	return rulesOf(field)
		.flatMap((rule) => usesOf(rule.source))
		.every((key) => {
			const question = questionOfKey(plan.fields, key);
			if (!question || path.includes(key)) return true;
			return question.every(
				(one) =>
					answers[one.id] !== undefined ||
					((one.kind === 'computed' || (one.person !== null && done.has(one.person))) &&
						settled(plan, one, answers, done, [...path, key]))
			);
		});
}

/** The sender's own answers as they stand under all twins, with what is known or set beforehand where nothing was entered. */
export function senderAnswers(plan: Plan, context: FieldContext): Answers {
	const own: Answers = {};
	const beforehand = prefilled(plan, SENDER, context);
	for (const field of fieldsOf(plan, SENDER)) {
		const answer =
			kindOf(field.kind).filledBy === 'finishing'
				? kindOf(field.kind).prefill(field, context, [field])
				: (plan.answers?.[field.id] ?? beforehand[field.id]);
		if (answer && !isBlank(answer)) own[field.id] = answer;
	}
	return spread(plan.fields, own);
}

/** An answer in words, by its question: a group says the texts of what was chosen. */
export function inWords(plan: Pick<Plan, 'fields'>, field: Field, answer: Answer, locale: string): string {
	const kind = kindOf(field.kind);
	if (!kind.grouped) return kind.shown(field, answer, locale);
	const chosen = 'choice' in answer ? [answer.choice] : 'ticks' in answer ? answer.ticks : [];
	return chosen
		.map((value) => {
			const one = questionOf(plan.fields, field).find((f) => f.settings['value'] === value || f.id === value);
			return one ? kind.shown(one, 'choice' in answer ? { choice: value } : { ticks: [value] }, locale) : value;
		})
		.join(', ');
}
