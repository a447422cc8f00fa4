import { Type } from '@sinclair/typebox';
import { refuse } from '../../refusal';
import { isMark, MarkAnswer } from '../answer';
import { defineKind } from '../kind';
import { checkMark, markInWords } from '../mark';

export const signature = defineKind({
	kind: 'signature',
	name: 'signature',
	letter: 'S',
	size: { width: 180, height: 40 },
	settings: Type.Object({}, { additionalProperties: false }),
	answer: MarkAnswer,
	filledBy: 'person',
	signs: true,
	is: isMark,
	wrong: refuse('signature-wrong', 'This place takes a signature.'),
	prefill: () => null,
	check: (_field, answer) => checkMark(answer, 'signature'),
	shown: (_field, answer) => markInWords(answer)
});
