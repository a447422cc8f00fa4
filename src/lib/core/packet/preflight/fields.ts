import { isoDay } from '../../calendar';
import {
	asksSomebody,
	dateSettingsFault,
	isBlank,
	kindOf,
	live,
	optionsOf,
	prefilled,
	questions,
	textSettingsFault,
	type FieldContext,
	type Live
} from '../../field';
import { fromShown, keepOnPage, onPage, textNeeds, toShown } from '../../page';
import { actorsOf, stopOf } from '../../route';
import { ASKED, localeOf, SENDER, type Field, type Plan } from '../plan';
import { at, called, cure, pageOf, withSay, type Fault, type Finding } from './finding';
import { overlapFault, overlaps } from './overlaps';
import { groupFault, twinsFault } from './questions';
import { ruleFaults } from './rules';

/** All that is wrong with a plan's fields, each with its place and, where there is one, its cure. */
export function checkFields(plan: Plan, sender: FieldContext['person']): Finding[] {
	const found: Finding[] = [];
	let looked: Live | undefined;
	const own = () => (looked ??= asSender(plan, sender));
	const add = (field: Field, faults: (Fault | null)[]) => {
		for (const fault of faults) if (fault) found.push({ ...fault, place: { what: 'field', id: field.id } });
	};
	for (const field of plan.fields)
		add(field, [
			placeFault(plan, field),
			ownerFault(plan, field),
			...ruleFaults(plan, field),
			settingsFault(field) ?? withSay(field, 'settings-wrong', field.kind === 'date' ? dateSettingsFault(field) : null),
			sizeFault(field),
			field.person === SENDER ? senderFault(field, own()) : null
		]);
	for (const question of questions(plan.fields)) add(question[0]!, [twinsFault(question), groupFault(question)]);
	for (const [field, under] of overlaps(plan)) add(field, [overlapFault(plan, field, under)]);
	return found;
}

function placeFault(plan: Plan, field: Field): Fault | null {
	if (field.paper === ASKED) return null;
	const page = pageOf(plan, field);
	if (!page)
		return {
			code: 'field-lost',
			say: `${called(field)} lies on a page that is gone.`,
			cure: { say: 'Remove it', plan: (p) => ({ ...p, fields: p.fields.filter((f) => f.id !== field.id) }) }
		};
	return onPage(page, field.rect)
		? null
		: {
				code: 'field-off-page',
				say: `${called(field)} reaches over the edge of page ${field.page + 1}.`,
				cure: cure('Bring it back', [field.id], (f) => ({
					...f,
					rect: fromShown(page, keepOnPage(page, toShown(page, f.rect)))
				}))
			};
}

function ownerFault(plan: Plan, field: Field): Fault | null {
	if (!asksSomebody(field)) return null;
	if (field.person === SENDER || (field.person !== null && stopOf(plan, field.person) >= 0)) return null;
	const actors = actorsOf(plan);
	const only = actors.length === 1 ? actors[0]! : null;
	return {
		code: 'field-without-person',
		say: `${at(field)} belongs to nobody.`,
		...(only && {
			cure: cure(`Give it to ${only.name || 'the only person'}`, [field.id], (f) => ({ ...f, person: only.id }))
		})
	};
}

function settingsFault(field: Field): Fault | null {
	switch (field.kind) {
		case 'choice':
			return withSay(
				field,
				'no-options',
				optionsOf(field).length === 0 ? 'the list has nothing to choose from.' : null
			);
		case 'text':
			return withSay(field, 'settings-wrong', textSettingsFault(field));
		case 'note':
			return withSay(
				field,
				'note-empty',
				String(field.settings['text'] ?? '').trim() === '' ? 'the note says nothing.' : null
			);
		case 'image':
			return withSay(field, 'image-empty', field.settings['picture'] ? null : 'no picture has been chosen.');
		case 'number': {
			const { least, most } = field.settings as { least?: string; most?: string };
			return withSay(
				field,
				'settings-wrong',
				least && most && Number(least) > Number(most) ? 'the least is more than the most.' : null
			);
		}
		default:
			return null;
	}
}

/** Whether the box has room for what is known to stand in it, or for its characters. */
function sizeFault(field: Field): Fault | null {
	if (field.paper === ASKED) return null;
	const { width, height } = field.rect;
	const boxes = field.settings['boxes'];
	const needs =
		field.kind === 'text' && typeof boxes === 'number'
			? { width: boxes * 7, height: 9 }
			: field.kind === 'note' && field.shrink === false
				? textNeeds(String(field.settings['text'] ?? ''), Math.max(width, 20), field.fontSize ?? 11)
				: kindOf(field.kind).drawn(field) === 'text'
					? { width: 12, height: field.shrink === false ? (field.fontSize ?? 11) * 1.15 : 7 }
					: kindOf(field.kind).drawn(field) === 'mark'
						? { width: 20, height: 10 }
						: { width: 0, height: 0 };
	// a page shown on its side swaps the two; whichever way it lies, it must have room one way
	const fits = (w: number, h: number) => w >= needs.width - 0.5 && h >= needs.height - 0.5;
	if (fits(width, height) || fits(height, width)) return null;
	return {
		code: 'box-too-small',
		mild: true,
		say: `${at(field)} is too small for ${field.kind === 'note' ? 'its text' : typeof boxes === 'number' ? `its ${boxes} characters` : 'what is to stand in it'}.`,
		cure: cure('Make it large enough', [field.id], (f) => ({
			...f,
			rect: {
				...f.rect,
				width: Math.max(f.rect.width, needs.width),
				height: Math.max(f.rect.height, needs.height),
				y: f.rect.y - Math.max(0, needs.height - f.rect.height)
			}
		}))
	};
}

/** The plan with nothing but what the sender has answered, and what is set beforehand for them. */
function asSender(plan: Plan, person: FieldContext['person']): Live {
	const context = {
		person,
		now: '2000-01-01T00:00:00Z',
		zone: 'UTC',
		locale: localeOf(plan)
	};
	return live(plan, { ...prefilled(plan, SENDER, context), ...plan.answers }, isoDay('UTC', context.now));
}

function senderFault(field: Field, now: Live): Fault | null {
	if (kindOf(field.kind).filledBy !== 'person' || !now.shown(field)) return null;
	const answer = now.answer(field);
	if (answer === undefined || isBlank(answer))
		return now.required(field)
			? { code: 'sender-answer-missing', say: `${at(field)} is yours to fill in before sending.` }
			: null;
	const no = now.check(field, answer);
	return no ? { code: 'sender-answer-wrong', say: `${at(field)}: ${no.say}` } : null;
}
