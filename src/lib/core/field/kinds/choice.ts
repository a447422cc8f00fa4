import { Type } from '@sinclair/typebox';
import { Line } from '../../schema';
import { OptionSchema, type Field, type Option } from '../../packet/plan';
import { refuse } from '../../refusal';
import { ChoiceAnswer, isChoice } from '../answer';
import { closed, defineKind } from '../kind';

const Options = Type.Array(OptionSchema, { maxItems: 500 });

/** One out of a list. The list has a value for data and a text for people. */
export const choice = defineKind({
	kind: 'choice',
	name: 'choice list',
	letter: 'L',
	size: { width: 140, height: 20 },
	settings: Type.Object({ options: Type.Optional(Options), default: Type.Optional(Line(200)) }, closed),
	answer: ChoiceAnswer,
	filledBy: 'person',
	is: isChoice,
	wrong: refuse('choice-wrong', 'This place takes one out of its list.'),
	control: () => 'list',
	value: (_question, answer) => answer.choice,
	prefill: (field) => {
		const wanted = field.settings['default'];
		return typeof wanted === 'string' && optionsOf(field).some((o) => o.value === wanted) ? { choice: wanted } : null;
	},
	check: (field, answer) =>
		answer.choice !== '' && !optionsOf(field).some((o) => o.value === answer.choice)
			? refuse('choice-unknown', 'Choose one out of the list.')
			: null,
	shown: (field, answer) => textOf(optionsOf(field), answer.choice),
	read: (field, typed) => {
		const wanted = typed.trim().toLowerCase();
		const found = optionsOf(field).find(
			(o) => (o.text || o.value).toLowerCase() === wanted || o.value.toLowerCase() === wanted
		);
		return found ? { choice: found.value } : refuse('choice-unknown', `“${typed}” is not in the list.`);
	},
	data: (answer) => answer.choice,
	sample: (field) => (optionsOf(field)[0] ? { choice: optionsOf(field)[0]!.value } : null)
});

export function optionsOf(field: Field): Option[] {
	const options = field.settings['options'];
	return Array.isArray(options) ? options : [];
}

function textOf(options: Option[], value: string): string {
	const found = options.find((o) => o.value === value);
	return found ? found.text || found.value : value;
}
