import { Type } from '@sinclair/typebox';
import { refuse } from '../../refusal';
import { isMark, MarkAnswer } from '../answer';
import { closed, defineKind } from '../kind';

/** A line through printed text. */
export const strike = defineKind({
	kind: 'strike',
	name: 'strike',
	letter: 'X',
	size: { width: 140, height: 14 },
	settings: Type.Object({}, closed),
	answer: MarkAnswer,
	filledBy: 'nobody',
	is: isMark,
	wrong: refuse('strike-wrong', 'A line through text takes no answer.'),
	control: () => 'none',
	drawn: () => 'strike',
	ruleType: () => null
});
