import { Type } from '@sinclair/typebox';
import { refuse } from '../../refusal';
import { isMark, MarkAnswer } from '../answer';
import { closed, defineKind } from '../kind';

/** A picture of the sender's, such as a stamp. `picture` is the SHA-256 it is kept under. */
export const image = defineKind({
	kind: 'image',
	name: 'image',
	letter: 'G',
	size: { width: 90, height: 60 },
	settings: Type.Object({ picture: Type.Optional(Type.String({ pattern: '^[0-9a-f]{64}$' })) }, closed),
	answer: MarkAnswer,
	filledBy: 'nobody',
	is: isMark,
	wrong: refuse('image-wrong', 'An image takes no answer.'),
	control: () => 'none',
	drawn: () => 'image',
	ruleType: () => null
});
