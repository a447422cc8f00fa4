import { Type } from '@sinclair/typebox';
import { refuse } from '../../refusal';
import { DateAnswer, isDate } from '../answer';
import { defineKind } from '../kind';

const FORMATS = ['long', 'medium', 'iso'] as const;

/** The day on which the person finishes, in the organisation's zone. Nobody types it. */
export const signingDate = defineKind({
	kind: 'signing-date',
	name: 'signed on',
	letter: 'D',
	size: { width: 110, height: 20 },
	settings: Type.Object(
		{ format: Type.Optional(Type.Union(FORMATS.map((format) => Type.Literal(format)))) },
		{ additionalProperties: false }
	),
	answer: DateAnswer,
	filledBy: 'finishing',
	signs: false,
	is: isDate,
	wrong: refuse('date-wrong', 'The signing date is filled in by Pellum.'),
	prefill: (field, { now, zone, locale }) => {
		const format = field.settings['format'] ?? 'long';
		const day =
			format === 'iso'
				? new Intl.DateTimeFormat('sv-SE', { timeZone: zone }).format(new Date(now))
				: new Intl.DateTimeFormat(locale, { dateStyle: format as 'long', timeZone: zone }).format(new Date(now));
		return { at: now, text: day };
	},
	check: () => null,
	shown: (_field, answer) => answer.text
});
