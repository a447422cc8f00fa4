import { Type } from '@sinclair/typebox';
import { refuse } from '../../refusal';
import { ChoiceAnswer, isChoice } from '../answer';
import { closed, defineKind } from '../kind';
import { groupOptions, groupSettings, textOfButton, tickedBefore, valueOf } from './group';

/** One button of a group with the same key: pressing one lets go of the others. */
export const pickOne = defineKind({
	kind: 'pick-one',
	name: 'pick one',
	letter: 'P',
	size: { width: 12, height: 12 },
	settings: Type.Object(groupSettings, closed),
	answer: ChoiceAnswer,
	filledBy: 'person',
	grouped: true,
	is: isChoice,
	wrong: refuse('pick-wrong', 'This place takes one of its group.'),
	control: () => 'pick',
	drawn: () => 'pick',
	value: (_question, answer) => answer.choice,
	prefill: (_field, _context, question) => {
		const first = tickedBefore(question)[0];
		return first === undefined ? null : { choice: first };
	},
	check: (_field, answer, { question }) =>
		answer.choice !== '' && !groupOptions(question).some((o) => o.value === answer.choice)
			? refuse('pick-unknown', 'Pick one of those that are there.')
			: null,
	shown: (field, answer) => (valueOf(field) === answer.choice ? textOfButton(field) : answer.choice),
	read: (field, typed) =>
		[valueOf(field), textOfButton(field)].includes(typed.trim())
			? { choice: valueOf(field) }
			: refuse('pick-unknown', `“${typed}” is none of the group.`),
	data: (answer) => answer.choice,
	sample: (_field, _context, question) => ({ choice: groupOptions(question)[0]!.value })
});
