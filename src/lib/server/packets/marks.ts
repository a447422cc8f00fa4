import { kindOf, type Answer, type Answers } from '../../core/field';
import type { Field, Plan } from '../../core/packet';
import { refuse, type Refusal } from '../../core/refusal';
import { unprintable, type Mark, type Stamp } from '../../press';
import { readBlob } from '../blobs';
import type { Db } from '../db';

/** What the press draws for the answers on one paper. */
export function stampsOf(db: Db, plan: Plan, answers: Answers, paper: string): Stamp[] {
	return plan.fields.flatMap((field): Stamp[] => {
		const answer = answers[field.id];
		return field.paper === paper && answer
			? [{ page: field.page, rect: field.rect, mark: markOf(db, field, answer) }]
			: [];
	});
}

function markOf(db: Db, field: Field, answer: Answer): Mark {
	if ('way' in answer) {
		switch (answer.way) {
			case 'typed':
				return { draw: 'hand', text: answer.text, hand: answer.hand };
			case 'drawn':
				return { draw: 'strokes', strokes: answer.strokes, ratio: answer.ratio };
			case 'picture':
				return { draw: 'picture', png: readBlob(db, answer.digest)!.bytes };
		}
	}
	return { draw: 'text', text: kindOf(field.kind).shown(field, answer), several: field.settings['several'] === true };
}

/** Refuses answers that couldn't be printed: letters no shipped font has, a picture that isn't here. */
export function checkPrintable(db: Db, answers: Answers): Refusal | null {
	for (const [id, answer] of Object.entries(answers)) {
		if ('way' in answer && answer.way === 'picture') {
			const blob = readBlob(db, answer.digest);
			if (blob?.media !== 'image/png')
				return refuse('picture-lost', 'The picture is not here any more. Add it again.', id);
		} else if ('text' in answer) {
			const no = checkLetters(answer.text, id);
			if (no) return no;
		}
	}
	return null;
}

/** Refuses text with letters that none of the shipped fonts has, naming them. */
export function checkLetters(text: string, at?: string): Refusal | null {
	const missing = unprintable(text);
	return missing.length === 0
		? null
		: refuse(
				'no-letters',
				`Pellum can't print ${missing.slice(0, 5).join(' ')} yet. Please write it in Latin, Greek or Cyrillic letters.`,
				at
			);
}
