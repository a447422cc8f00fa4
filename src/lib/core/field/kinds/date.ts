import { isoDay } from '../../calendar';
import { Type } from '@sinclair/typebox';
import type { Field } from '../../packet/plan';
import { refuse, refuseWith } from '../../refusal';
import { dayOf, evaluate, isDay, isFault, parseRule, type RuleWorld } from '../../rule';
import { DayAnswer, isDayAnswer } from '../answer';
import { dateSettings, dayRead, dayShown, type DateFormat } from '../formats/date';
import { closed, defineKind } from '../kind';

const Bound = Type.Optional(Type.String({ maxLength: 300 }));

/** A day that the person gives. `least` and `most` are days, or rules that give one: `add_days(start, 1)`, `today`. */
export const date = defineKind({
	kind: 'date',
	name: 'date',
	letter: 'Y',
	size: { width: 110, height: 20 },
	settings: Type.Object(
		{
			...dateSettings,
			least: Bound,
			most: Bound,
			default: Type.Optional(Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' }))
		},
		closed
	),
	answer: DayAnswer,
	filledBy: 'person',
	is: isDayAnswer,
	wrong: refuse('day-wrong', 'This place takes a date.'),
	control: () => 'date',
	ruleType: () => 'date',
	value: (_question, answer) => dayOf(answer.day),
	prefill: (field) => (typeof field.settings['default'] === 'string' ? { day: field.settings['default'] } : null),
	check: (field, answer, { locale, world }) => {
		if (!dayOf(answer.day)) return refuse('day-bad', 'The calendar has no such day.');
		const least = boundOf(field, 'least', world);
		const most = boundOf(field, 'most', world);
		const say = (day: string) => dayShown(day, formatOfDate(field), locale);
		if (least && answer.day < least) return refuseWith('day-early', `Earliest day: ${say(least)}.`, { day: least });
		if (most && answer.day > most) return refuseWith('day-late', `Latest day: ${say(most)}.`, { day: most });
		return null;
	},
	shown: (field, answer, locale) => dayShown(answer.day, formatOfDate(field), locale),
	read: (_field, typed, locale) => {
		const day = dayRead(typed, locale);
		return day
			? { day }
			: refuse('day-bad', `That is not a date. Write it like ${dayShown('2026-12-31', 'short', locale)}.`);
	},
	data: (answer) => answer.day,
	sample: (field, { now, zone }) => {
		const today = isoDay(zone, now);
		const world: RuleWorld = { today, value: () => null };
		const least = boundOf(field, 'least', world);
		const most = boundOf(field, 'most', world);
		if (least && today < least) return { day: least };
		return { day: most && today > most ? most : today };
	}
});

export function formatOfDate(field: Field): DateFormat {
	return (field.settings['format'] as DateFormat | undefined) ?? 'long';
}

function boundOf(field: Field, which: 'least' | 'most', world: RuleWorld): string | null {
	const source = field.settings[which];
	if (typeof source !== 'string' || source === '') return null;
	if (dayOf(source)) return source;
	const node = parseRule(source);
	const value = isFault(node) ? null : evaluate(node, world);
	return isDay(value) ? value.day : null;
}

/** The rules among a date's bounds, to be checked and counted as what it depends on. */
export function dateRules(field: Field): string[] {
	return (['least', 'most'] as const).flatMap((which) => {
		const source = field.settings[which];
		return typeof source === 'string' && source !== '' && !dayOf(source) ? [source] : [];
	});
}

/** What is wrong with two fixed bounds, in a sentence; null where nothing is. Bounds by rule are checked as rules. */
export function dateSettingsFault(field: Field): string | null {
	const { least, most } = field.settings as { least?: string; most?: string };
	return least && most && dayOf(least) && dayOf(most) && least > most
		? 'The first day permitted is after the last.'
		: null;
}
