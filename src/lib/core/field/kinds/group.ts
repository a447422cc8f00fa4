import { Type } from '@sinclair/typebox';
import { Line } from '../../schema';
import type { Field, Option } from '../../packet/plan';

/** Settings every button or box of a group has. `outline`: its edge is drawn too, where the page has none printed. */
export const groupSettings = {
	value: Type.Optional(Line(200, { minLength: 1 })),
	text: Type.Optional(Line(200)),
	outline: Type.Optional(Type.Boolean()),
	ticked: Type.Optional(Type.Boolean())
};

/** The value a button stands for; its id where it was given none. */
export function valueOf(field: Field): string {
	const value = field.settings['value'];
	return typeof value === 'string' && value !== '' ? value : field.id;
}

/** What a button is called beside it. */
export function textOfButton(field: Field): string {
	const text = field.settings['text'];
	return typeof text === 'string' && text !== '' ? text : valueOf(field);
}

/** What can be chosen in a group: each value once, in the order of the fields. */
export function groupOptions(question: Field[]): Option[] {
	const options: Option[] = [];
	for (const field of question) {
		const value = valueOf(field);
		if (!options.some((o) => o.value === value)) options.push({ value, text: textOfButton(field) });
	}
	return options;
}

/** Values that are set beforehand. */
export function tickedBefore(question: Field[]): string[] {
	return [...new Set(question.filter((f) => f.settings['ticked'] === true).map(valueOf))];
}
