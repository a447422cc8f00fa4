import { Type } from '@sinclair/typebox';
import { refuse } from '../../refusal';
import { isText, TextAnswer } from '../answer';
import { defineKind } from '../kind';

const LONGEST = 2000;

/** Free text, on one line or several. */
export const text = defineKind({
	kind: 'text',
	name: 'text',
	letter: 'T',
	size: { width: 180, height: 20 },
	settings: Type.Object(
		{
			several: Type.Optional(Type.Boolean()),
			most: Type.Optional(Type.Integer({ minimum: 1, maximum: LONGEST }))
		},
		{ additionalProperties: false }
	),
	answer: TextAnswer,
	filledBy: 'person',
	signs: false,
	is: isText,
	wrong: refuse('text-wrong', 'This place takes text.'),
	prefill: () => null,
	check: (field, answer) => {
		const most = (field.settings['most'] as number | undefined) ?? LONGEST;
		const length = [...answer.text].length;
		if (field.required && answer.text.trim() === '') return refuse('text-empty', 'Write something here.');
		if (length > most) return refuse('text-long', `${most} characters at most; this has ${length}.`);
		if (field.settings['several'] !== true && /[\r\n]/.test(answer.text))
			return refuse('text-lines', 'This place has one line only.');
		return null;
	},
	shown: (_field, answer) => answer.text
});
