import { Type } from '@sinclair/typebox';
import { refuse, type Refusal } from '../refusal';
import type { KindName } from '../packet/plan';
import { isMark, MarkAnswer } from './answer';
import { closed, defineKind, type FieldKind } from './kind';

/** Shortest length, in thousandths of the width, that counts as a drawn mark: a single dot does not. */
const LEAST_INK = 60;

/** What signature and initials have in common: a mark that is typed, drawn or a picture. */
export function defineMark(
	given: Pick<FieldKind, 'letter' | 'size'> & { kind: KindName; name: string; wrong: Refusal },
	sample: (name: string) => string
): FieldKind {
	return defineKind({
		...given,
		settings: Type.Object({}, closed),
		answer: MarkAnswer,
		filledBy: 'person',
		signs: true,
		is: isMark,
		control: () => 'mark',
		drawn: () => 'mark',
		ruleType: () => 'truth',
		value: () => true,
		check: (_field, answer) => checkMark(answer, given.name),
		shown: (_field, answer) => markInWords(answer),
		data: (answer) => markInWords(answer),
		sample: (_field, { person }) => ({ way: 'typed', text: sample(person.name) || 'X', hand: 'caveat' })
	});
}

function checkMark(answer: MarkAnswer, what: string): Refusal | null {
	switch (answer.way) {
		case 'typed':
			return answer.text.trim() === '' ? refuse('mark-empty', `Type your ${what}.`) : null;
		case 'drawn':
			return inkLength(answer.strokes) < LEAST_INK
				? refuse('mark-too-small', `That is only a dot. Draw your ${what} again, or type it.`)
				: null;
		case 'picture':
			return null;
	}
}

function markInWords(answer: MarkAnswer): string {
	return answer.way === 'typed' ? answer.text : answer.way === 'drawn' ? 'drawn by hand' : 'from a picture';
}

function inkLength(strokes: number[][]): number {
	let length = 0;
	for (const stroke of strokes) {
		for (let i = 2; i + 1 < stroke.length; i += 2) {
			length += Math.hypot(stroke[i]! - stroke[i - 2]!, stroke[i + 1]! - stroke[i - 1]!);
		}
	}
	return length;
}
