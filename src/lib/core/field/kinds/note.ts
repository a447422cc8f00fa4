import { Type } from '@sinclair/typebox';
import { refuse } from '../../refusal';
import { isText, TextAnswer } from '../answer';
import { closed, defineKind } from '../kind';

/** Words of the sender's on the page, for all to read. */
export const note = defineKind({
	kind: 'note',
	name: 'note',
	letter: 'W',
	size: { width: 180, height: 32 },
	settings: Type.Object({ text: Type.Optional(Type.String({ maxLength: 4000 })) }, closed),
	answer: TextAnswer,
	filledBy: 'nobody',
	is: isText,
	wrong: refuse('note-wrong', 'A note takes no answer.'),
	control: () => 'none',
	ruleType: () => null
});
