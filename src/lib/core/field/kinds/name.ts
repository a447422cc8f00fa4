import { Type } from '@sinclair/typebox';
import { refuse } from '../../refusal';
import { isText, TextAnswer } from '../answer';
import { defineKind } from '../kind';

const PARTS = ['full', 'given', 'family'] as const;
type Part = (typeof PARTS)[number];

/** The person's name. Known from the packet, and may be corrected by the person as they want it written. */
export const name = defineKind({
	kind: 'name',
	name: 'name',
	letter: 'N',
	size: { width: 160, height: 20 },
	settings: Type.Object(
		{ part: Type.Optional(Type.Union(PARTS.map((part) => Type.Literal(part)))) },
		{ additionalProperties: false }
	),
	answer: TextAnswer,
	filledBy: 'person',
	signs: false,
	is: isText,
	wrong: refuse('name-wrong', 'This place takes a name.'),
	prefill: (field, { person }) => {
		const text = partOf(person.name, (field.settings['part'] as Part | undefined) ?? 'full');
		return text === '' ? null : { text };
	},
	check: (_field, answer) => {
		if (answer.text.trim() === '') return refuse('name-empty', 'Write your name.');
		if (answer.text.length > 200) return refuse('name-long', 'A name may have 200 letters at most.');
		return null;
	},
	shown: (_field, answer) => answer.text
});

/** The last word counts as the family name: a first guess, which the person can put right on the page. */
function partOf(full: string, part: Part): string {
	const words = full.trim().split(/\s+/).filter(Boolean);
	if (part === 'full' || words.length < 2) return words.join(' ');
	return part === 'family' ? words[words.length - 1]! : words.slice(0, -1).join(' ');
}
