import { localeOf, type Field, type Plan } from '../packet/plan';
import { evaluate, holds, isFault, type RuleValue, type RuleWorld } from '../rule';
import { isBlank, type Answer } from './answer';
import type { CheckContext } from './kind';
import { kindOf } from './kinds';
import { computedAnswer, ruleOfComputed } from './kinds/computed';
import { parsedRule } from './rules';
import { questionOf, questionOfKey } from './questions';

/** Answers by the id of their field. */
export type Answers = Record<string, Answer>;

/** A plan with answers, as it is at this moment: what is shown, what is needed, what is computed. */
export interface Live {
	/** whether the field is there at all, by its rule */
	shown(field: Field): boolean;
	/** whether it must be answered now, by itself or by its rule */
	required(field: Field): boolean;
	/** the answer that counts: given under the field or a twin, or computed; undefined where there is none */
	answer(field: Field): Answer | undefined;
	/** the value under a key, as rules see it */
	value(key: string): RuleValue;
	/** the sentence that says why an answer won't do; null where it will */
	check(field: Field, answer: Answer): ReturnType<ReturnType<typeof kindOf>['check']>;
	context(field: Field): CheckContext;
	/** the same, for a rule that belongs to no field */
	world: RuleWorld;
}

/**
 * Looks at a plan with answers. Lazy: what nobody asks for is not reckoned. The same in the browser and on the server;
 * a circle of rules gives no value. A field that is not shown has no value for anybody's rule.
 * @param today ISO 8601 day, in the organisation's zone
 */
export function live(plan: Pick<Plan, 'fields' | 'locale'>, answers: Answers, today: string): Live {
	const { fields } = plan;
	const locale = localeOf(plan as Plan);
	const shown = new Map<string, boolean>();
	const values = new Map<string, RuleValue>();
	const busy = new Set<string>();
	const world: RuleWorld = { today, value: (key) => valueOf(key) };

	function once<T>(name: string, otherwise: T, make: () => T): T {
		if (busy.has(name)) return otherwise;
		busy.add(name);
		try {
			return make();
		} finally {
			busy.delete(name);
		}
	}

	function isShown(field: Field): boolean {
		if (!field.showWhen) return true;
		let is = shown.get(field.id);
		if (is === undefined) {
			const node = parsedRule(field.showWhen);
			is = once(`show ${field.id}`, false, () => !isFault(node) && holds(node, world));
			shown.set(field.id, is);
		}
		return is;
	}

	function given(field: Field): Answer | undefined {
		for (const twin of [field, ...questionOf(fields, field)]) {
			const answer = answers[twin.id];
			if (answer !== undefined) return answer;
		}
		return undefined;
	}

	function answerOf(field: Field): Answer | undefined {
		const there = given(field);
		if (there !== undefined || field.kind !== 'computed') return there;
		const node = parsedRule(ruleOfComputed(field));
		if (isFault(node)) return undefined;
		return (
			computedAnswer(
				field,
				once(`rule ${field.id}`, null, () => evaluate(node, world))
			) ?? undefined
		);
	}

	function valueOf(key: string): RuleValue {
		const have = values.get(key);
		if (have !== undefined) return have;
		const question = questionOfKey(fields, key);
		const value = question
			? once<RuleValue>(`value ${key}`, null, () => {
					const there = question.find(isShown);
					const answer = there && answerOf(there);
					if (!there) return null;
					const kind = kindOf(there.kind);
					return answer && !isBlank(answer) ? kind.value(question, answer) : kind.unanswered(question);
				})
			: null;
		if (!busy.has(`value ${key}`)) values.set(key, value);
		return value;
	}

	const context = (field: Field): CheckContext => ({ question: questionOf(fields, field), locale, world });
	return {
		shown: isShown,
		required(field) {
			if (!isShown(field)) return false;
			if (field.required) return true;
			if (!field.requireWhen) return false;
			const node = parsedRule(field.requireWhen);
			return !isFault(node) && holds(node, world);
		},
		answer: answerOf,
		value: valueOf,
		check: (field, answer) => kindOf(field.kind).check(field, answer, context(field)),
		context,
		world
	};
}
