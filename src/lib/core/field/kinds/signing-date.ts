import { isoDay } from '../../calendar';
import { Type } from '@sinclair/typebox';
import { refuse } from '../../refusal';
import { DateAnswer, isDate } from '../answer';
import { dateSettings, dayShown, type DateFormat } from '../formats/date';
import { closed, defineKind } from '../kind';

/** The day on which the person finishes, in the organisation's zone. Nobody types it. */
export const signingDate = defineKind({
	kind: 'signing-date',
	name: 'signed on',
	letter: 'D',
	size: { width: 110, height: 20 },
	settings: Type.Object(dateSettings, closed),
	answer: DateAnswer,
	filledBy: 'finishing',
	is: isDate,
	wrong: refuse('date-wrong', 'The signing date is filled in by Pellum.'),
	control: () => 'none',
	ruleType: () => 'date',
	value: (_question, answer) => ({ day: answer.day ?? answer.at.slice(0, 10) }),
	prefill: (field, { now, zone, locale }) => {
		const day = isoDay(zone, now);
		return {
			at: now,
			day,
			text: dayShown(day, (field.settings['format'] as DateFormat | undefined) ?? 'long', locale)
		};
	},
	shown: (_field, answer) => answer.text,
	data: (answer) => answer.day ?? answer.at.slice(0, 10)
});
