import { Type } from '@sinclair/typebox';
import type { Field } from '../../packet/plan';
import { refuse, refuseWith, type Refusal } from '../../refusal';
import { Dec, decimal } from '../../rule';
import { isNumberAnswer, NumberAnswer } from '../answer';
import { numberRead, numberSettings, numberShown, type NumberFormat } from '../formats/number';
import { closed, defineKind } from '../kind';

const Bound = Type.Optional(Type.String({ pattern: '^-?\\d{1,30}(\\.\\d{1,30})?$' }));

export const number = defineKind({
	kind: 'number',
	name: 'number',
	letter: 'U',
	size: { width: 90, height: 20 },
	settings: Type.Object(
		{
			...numberSettings,
			least: Bound,
			most: Bound,
			default: Bound
		},
		closed
	),
	answer: NumberAnswer,
	filledBy: 'person',
	is: isNumberAnswer,
	wrong: refuse('number-wrong', 'This place takes a number.'),
	control: () => 'number',
	ruleType: () => 'number',
	value: (_question, answer) => decimal(answer.number),
	prefill: (field) => (typeof field.settings['default'] === 'string' ? { number: field.settings['default'] } : null),
	check: (field, answer, { locale }) => {
		const value = decimal(answer.number);
		if (value === null) return notANumber(locale);
		const { decimals, least, most } = field.settings as { decimals?: number; least?: string; most?: string };
		if (decimals !== undefined && value.decimalPlaces() > decimals)
			return decimals === 0
				? refuse('number-whole', 'Whole numbers only.')
				: refuseWith('number-decimals', `At most ${decimals} decimals.`, { most: decimals });
		const say = (bound: string) => numberShown(bound, formatOf(field), locale);
		if (least !== undefined && value.lt(new Dec(least)))
			return refuseWith('number-small', `At least ${say(least)}.`, { least: say(least) });
		if (most !== undefined && value.gt(new Dec(most)))
			return refuseWith('number-large', `At most ${say(most)}.`, { most: say(most) });
		return null;
	},
	shown: (field, answer, locale) => numberShown(answer.number, formatOf(field), locale),
	read: (_field, typed, locale) => {
		const read = numberRead(typed, locale);
		return read === null ? notANumber(locale) : { number: read };
	},
	data: (answer) => answer.number,
	sample: (field) => {
		const { least, most } = field.settings as { least?: string; most?: string };
		const wish = new Dec(240);
		if (least !== undefined && wish.lt(least)) return { number: least };
		if (most !== undefined && wish.gt(most)) return { number: most };
		return { number: '240' };
	}
});

function notANumber(locale: string): Refusal {
	const example = numberShown('1234.5', {}, locale);
	return refuseWith('number-bad', `That is not a number. Write it like ${example}.`, { example });
}

/** The way a number field's or a computed field's number is written. */
export function formatOf(field: Field): NumberFormat {
	const { decimals, currency, money } = field.settings as NumberFormat;
	return {
		...(currency !== undefined && { currency, decimals: 2 }),
		...(decimals !== undefined && { decimals }),
		...(money !== undefined && { money })
	};
}
