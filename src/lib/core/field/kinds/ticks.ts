import { Type } from '@sinclair/typebox';
import { refuse, refuseWith } from '../../refusal';
import { isTicks, TicksAnswer } from '../answer';
import { closed, defineKind } from '../kind';
import { groupOptions, groupSettings, textOfButton, tickedBefore, valueOf } from './group';

const Count = Type.Optional(Type.Integer({ minimum: 0, maximum: 500 }));

/** One box of a group with the same key; the group may want a least and a most. A lone box is yes or no. */
export const ticks = defineKind({
	kind: 'ticks',
	name: 'tick boxes',
	letter: 'B',
	size: { width: 12, height: 12 },
	settings: Type.Object({ ...groupSettings, least: Count, most: Count }, closed),
	answer: TicksAnswer,
	filledBy: 'person',
	grouped: true,
	is: isTicks,
	wrong: refuse('ticks-wrong', 'This place takes ticks.'),
	control: () => 'ticks',
	drawn: () => 'tick',
	ruleType: (question) => (groupOptions(question).length === 1 ? 'truth' : 'list'),
	value: (question, answer) => (groupOptions(question).length === 1 ? answer.ticks.length === 1 : answer.ticks),
	unanswered: (question) => (groupOptions(question).length === 1 ? false : []),
	prefill: (_field, _context, question) => {
		const before = tickedBefore(question);
		return before.length === 0 ? null : { ticks: before };
	},
	check: (field, answer, { question }) => {
		const options = groupOptions(question);
		const { least, most } = field.settings as { least?: number; most?: number };
		const count = answer.ticks.length;
		if (answer.ticks.some((value) => !options.some((o) => o.value === value)))
			return refuse('ticks-unknown', 'Tick only those that are there.');
		if (count === 0 && !field.required) return null;
		if (count === 0)
			return options.length === 1 ? refuse('tick-this', 'Tick this box.') : refuse('ticks-none', 'Tick at least one.');
		if (least !== undefined && count < least)
			return refuseWith('ticks-few', `Tick ${least} at least; ${count} now.`, { least, count });
		if (most !== undefined && count > most)
			return refuseWith('ticks-many', `Tick ${most} at most; ${count} now.`, { most, count });
		return null;
	},
	shown: (field, answer) =>
		answer.ticks.map((value) => (value === valueOf(field) ? textOfButton(field) : value)).join(', '),
	read: (_field, typed) => ({
		ticks: [
			...new Set(
				typed
					.split(',')
					.map((part) => part.trim())
					.filter(Boolean)
			)
		]
	}),
	data: (answer) => answer.ticks,
	sample: (field, _context, question) => ({
		ticks: groupOptions(question)
			.slice(0, Math.max(1, (field.settings['least'] as number | undefined) ?? 1))
			.map((o) => o.value)
	})
});
