import type { TSchema } from '@sinclair/typebox';
import { Type } from '@sinclair/typebox';
import { refuse, refuseWith, type Refusal } from '../../refusal';
import type { Field, KindName } from '../../packet/plan';
import { isText, TextAnswer } from '../answer';
import { closed, defineKind, type FieldContext, type FieldKind } from '../kind';

const LONGEST = 200;

/** A kind that Pellum fills in from what it knows of the person, and that the person may put right. */
export function defineKnown(given: {
	kind: KindName;
	name: string;
	letter: string;
	width: number;
	settings?: TSchema;
	known(person: FieldContext['person'], field: Field): string;
	check?(text: string): Refusal | null;
	sample: string;
}): FieldKind {
	return defineKind({
		kind: given.kind,
		name: given.name,
		letter: given.letter,
		size: { width: given.width, height: 20 },
		settings: given.settings ?? Type.Object({}, closed),
		answer: TextAnswer,
		filledBy: 'person',
		is: isText,
		wrong: refuse(`${given.kind}-wrong`, `This place takes ${article(given.name)}.`),
		prefill: (field, { person }) => {
			const text = given.known(person, field);
			return text === '' ? null : { text };
		},
		check: (_field, { text }) => {
			if (text.trim() === '') return refuse('known-empty', `Write your ${given.name}.`);
			if (text.length > LONGEST)
				return refuseWith('known-long', `${LONGEST} letters at most; this has ${text.length}.`, {
					most: LONGEST,
					length: text.length
				});
			return given.check?.(text) ?? null;
		},
		shown: (_field, answer) => answer.text,
		read: (_field, typed) => ({ text: typed }),
		value: (_question, answer) => answer.text,
		data: (answer) => answer.text,
		sample: (field, { person }) => ({ text: given.known(person, field) || given.sample })
	});
}

function article(name: string): string {
	return `${/^[aeiou]/.test(name) ? 'an' : 'a'} ${name}`;
}
