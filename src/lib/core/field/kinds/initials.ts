import { Type } from '@sinclair/typebox';
import { refuse } from '../../refusal';
import { isMark, MarkAnswer } from '../answer';
import { defineKind } from '../kind';
import { checkMark, markInWords } from '../mark';

export const initials = defineKind({
	kind: 'initials',
	name: 'initials',
	letter: 'I',
	size: { width: 60, height: 28 },
	settings: Type.Object({}, { additionalProperties: false }),
	answer: MarkAnswer,
	filledBy: 'person',
	signs: true,
	is: isMark,
	wrong: refuse('initials-wrong', 'This place takes initials.'),
	prefill: () => null,
	check: (_field, answer) => checkMark(answer, 'initials'),
	shown: (_field, answer) => markInWords(answer)
});
