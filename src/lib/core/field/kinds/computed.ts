import { Type } from '@sinclair/typebox';
import type { Field } from '../../packet/plan';
import { refuse } from '../../refusal';
import { asText, dayOf, decimal, isDay, isNumber, type RuleValue } from '../../rule';
import {
	AnswerSchema,
	isChoice,
	isDayAnswer,
	isNumberAnswer,
	isText,
	type Answer,
	type ChoiceAnswer,
	type DayAnswer,
	type NumberAnswer,
	type TextAnswer
} from '../answer';
import { dateSettings, dayShown } from '../formats/date';
import { numberSettings, numberShown } from '../formats/number';
import { closed, defineKind } from '../kind';
import { formatOfDate } from './date';
import { formatOf } from './number';

type Computed = NumberAnswer | TextAnswer | DayAnswer | ChoiceAnswer;

/** A value that a rule gives. Everybody sees it, nobody edits it. */
export const computed = defineKind({
	kind: 'computed',
	name: 'computed',
	letter: 'C',
	size: { width: 100, height: 20 },
	settings: Type.Object(
		{
			rule: Type.Optional(Type.String({ maxLength: 2000 })),
			...numberSettings,
			...dateSettings
		},
		closed
	),
	answer: AnswerSchema,
	filledBy: 'rule',
	is: (a: Answer): a is Computed => isNumberAnswer(a) || isText(a) || isDayAnswer(a) || isChoice(a),
	wrong: refuse('computed-wrong', 'This place is reckoned by its rule.'),
	control: () => 'none',
	// its type is its rule's; whoever lists the types of all keys puts it in
	ruleType: () => null,
	value: (_question, answer) => {
		if (isNumberAnswer(answer)) return decimal(answer.number);
		if (isDayAnswer(answer)) return dayOf(answer.day);
		return isChoice(answer) ? answer.choice === 'yes' : answer.text;
	},
	shown: (field, answer, locale) => {
		if (isNumberAnswer(answer)) return numberShown(answer.number, formatOf(field), locale);
		if (isDayAnswer(answer)) return dayShown(answer.day, formatOfDate(field), locale);
		return isChoice(answer) ? answer.choice : answer.text;
	},
	data: (answer) =>
		'number' in answer ? answer.number : 'day' in answer ? answer.day : 'choice' in answer ? answer.choice : answer.text
});

/** A rule's value as the answer a computed field keeps; null for no value. A number keeps the field's decimals. */
export function computedAnswer(field: Field, value: RuleValue): Computed | null {
	if (value === null) return null;
	if (isNumber(value)) {
		const { decimals = 10 } = formatOf(field);
		return { number: value.toDecimalPlaces(decimals, 4).toFixed() };
	}
	if (isDay(value)) return { day: value.day };
	if (typeof value === 'boolean') return { choice: asText(value) };
	return { text: asText(value) };
}

export function ruleOfComputed(field: Field): string {
	const rule = field.settings['rule'];
	return typeof rule === 'string' ? rule : '';
}
