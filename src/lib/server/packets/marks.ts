import { inWords, isFile, kindOf, live, valueOf, type Answer, type Answers, type Live } from '../../core/field';
import { localeOf, type Field, type Plan } from '../../core/packet';
import { refuse, type Refusal } from '../../core/refusal';
import { unprintable, type Mark, type Stamp } from '../../press';
import { blobMeta, readBlob } from '../blobs';
import type { Db } from '../db';

/**
 * What the press draws on one paper: the answers, and what the sender put there for all. What no rule shows is left out.
 * @param today ISO 8601 day on which the packet was completed
 */
export function stampsOf(db: Db, plan: Plan, answers: Answers, paper: string, today: string): Stamp[] {
	const now = live(plan, answers, today);
	const here = plan.fields.filter((field) => field.paper === paper);
	// markers are gone from the sealed copy, also where a rule keeps their field away
	const covers = here.flatMap((field): Stamp[] =>
		field.cover ? [{ page: field.page, rect: field.cover, mark: { draw: 'cover' } }] : []
	);
	const marks = here.flatMap((field): Stamp[] => {
		const mark = now.shown(field) ? markOf(db, plan, field, now) : null;
		return mark ? [{ page: field.page, rect: field.rect, mark }] : [];
	});
	return [...covers, ...marks];
}

function markOf(db: Db, plan: Plan, field: Field, now: Live): Mark | null {
	const answer = now.answer(field);
	const outline = field.settings['outline'] === true;
	switch (kindOf(field.kind).drawn(field)) {
		case 'mark':
			return answer && 'way' in answer ? handMark(db, answer) : null;
		case 'letters':
			return answer && 'text' in answer
				? { draw: 'letters', text: answer.text, boxes: Number(field.settings['boxes']), ...styleOf(field) }
				: null;
		case 'pick':
			return {
				draw: 'pick',
				on: answer !== undefined && 'choice' in answer && answer.choice === valueOf(field),
				outline
			};
		case 'tick':
			return {
				draw: 'tick',
				on: answer !== undefined && 'ticks' in answer && answer.ticks.includes(valueOf(field)),
				outline
			};
		case 'image': {
			const blob = typeof field.settings['picture'] === 'string' ? readBlob(db, field.settings['picture']) : undefined;
			return blob ? { draw: 'picture', png: blob.bytes } : null;
		}
		case 'strike':
			return { draw: 'strike' };
		case 'text': {
			const text =
				field.kind === 'note'
					? String(field.settings['text'] ?? '')
					: answer
						? inWords(plan, field, answer, localeOf(plan))
						: '';
			const several = field.kind === 'note' || field.settings['several'] === true;
			return text === '' ? null : { draw: 'text', text, several, ...styleOf(field) };
		}
	}
}

/** How a field's text stands: its size, whether it may shrink, and on which side. */
function styleOf(field: Field) {
	return {
		...(field.fontSize !== undefined && { size: field.fontSize }),
		...(field.shrink === false && { fixed: true }),
		...(field.align !== undefined && { align: field.align })
	};
}

/** The signature or initials of somebody, as it is drawn. */
export function handMark(db: Db, answer: Extract<Answer, { way: string }>): Mark | null {
	switch (answer.way) {
		case 'typed':
			return { draw: 'hand', text: answer.text, hand: answer.hand };
		case 'drawn':
			return { draw: 'strokes', strokes: answer.strokes, ratio: answer.ratio };
		case 'picture': {
			const blob = readBlob(db, answer.digest);
			return blob ? { draw: 'picture', png: blob.bytes } : null;
		}
	}
}

/** Refuses answers that couldn't be printed or kept: letters no shipped font has, a picture or file that isn't here. */
export function checkPrintable(db: Db, plan: Plan, answers: Answers): Refusal | null {
	for (const [id, answer] of Object.entries(answers)) {
		if ('way' in answer && answer.way === 'picture') {
			if (blobMeta(db, answer.digest)?.media !== 'image/png')
				return refuse('picture-lost', 'The picture is not here any more. Add it again.', id);
		} else if (isFile(answer)) {
			const blob = blobMeta(db, answer.file);
			if (!blob || blob.media !== answer.media || blob.bytes !== answer.bytes)
				return refuse('file-lost', 'The file is not here any more. Add it again.', id);
		} else if ('text' in answer) {
			const no = checkLetters(answer.text, id);
			if (no) return no;
		}
		const field = plan.fields.find((f) => f.id === id);
		const no = field && isFile(answer) ? checkLetters(answer.name, id) : null;
		if (no) return no;
	}
	return null;
}

/** Refuses text with letters that none of the shipped fonts has, naming them. */
export function checkLetters(text: string, at?: string): Refusal | null {
	const missing = unprintable(text.replace(/\s/g, ' '));
	return missing.length === 0
		? null
		: refuse(
				'no-letters',
				`Pellum can't print ${missing.slice(0, 5).join(' ')} yet. Please write it in other letters.`,
				at,
				{ letters: missing.slice(0, 5).join(' ') }
			);
}
