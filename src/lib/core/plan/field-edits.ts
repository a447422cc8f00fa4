import { asksSomebody, freeKey, keysOfPlan, kindOf, questionOf, questionOfKey, type Answer } from '../field';
import { EVERYBODY, SENDER, type Field, type KindName, type Plan } from '../packet';
import {
	align,
	distribute,
	fromShown,
	keepOnPage,
	sameSize,
	toShown,
	type Alignment,
	type PageSize,
	type ShownRect
} from '../page';
import { freshId } from './edits';

/** Edits of fields, each a function from plan to plan. */

export function pageOf(plan: Plan, field: Pick<Field, 'paper' | 'page'>): PageSize | undefined {
	return plan.papers.find((p) => p.id === field.paper)?.pages[field.page];
}

/** Where a field is on its page as shown. */
export function shownAt(plan: Plan, field: Field): ShownRect {
	const page = pageOf(plan, field);
	return page ? toShown(page, field.rect) : { left: 0, top: 0, width: field.rect.width, height: field.rect.height };
}

/** A field at a place of its page as shown, kept on the page and rounded to the hundredth of a point. */
export function putAt(plan: Plan, field: Field, shown: ShownRect): Field {
	const page = pageOf(plan, field);
	return page ? { ...field, rect: rounded(fromShown(page, keepOnPage(page, shown))) } : field;
}

/** Whose a new field of a kind is: what the sender puts there is everybody's, all else the person's in hand. */
export function ownerFor(kind: KindName, person: string | null): string | null {
	return asksSomebody({ kind }) ? person : EVERYBODY;
}

/** A new field of a kind, at that place of the page as shown. Groups and computed fields get a key, since they need one. */
export function newField(
	plan: Plan,
	kind: KindName,
	person: string | null,
	at: { paper: string; page: number },
	shown: ShownRect,
	more: Partial<Field> = {}
): Field {
	const { name, grouped, filledBy } = kindOf(kind);
	const field: Field = {
		id: freshId('f'),
		kind,
		person: ownerFor(kind, person),
		...at,
		rect: { x: 0, y: 0, width: 0, height: 0 },
		label: name[0]!.toUpperCase() + name.slice(1),
		key: grouped || filledBy === 'rule' ? freeKey(kind.replace(/-/g, '_'), keysOfPlan(plan)) : '',
		required: kind !== 'ticks' && asksSomebody({ kind }),
		settings: grouped ? { value: 'option_1', outline: true } : {},
		...more
	};
	return putAt(plan, field, shown);
}

/**
 * Places a kind with its middle at that place of the page as shown, in points. A button or box placed while one of the
 * same group is chosen joins that group with a value of its own.
 */
export function placeField(
	plan: Plan,
	kind: KindName,
	person: string | null,
	paper: string,
	page: number,
	middle: { x: number; y: number },
	chosen?: Field
): { plan: Plan; field: string } {
	const { size } = kindOf(kind);
	const shown = { left: middle.x - size.width / 2, top: middle.y - size.height / 2, ...size };
	const joins = chosen?.kind === kind && kindOf(kind).grouped ? chosen : undefined;
	const field = joins
		? putAt(plan, { ...joins, id: freshId('f'), paper, page, settings: grownSettings(plan, joins) }, shown)
		: newField(plan, kind, person, { paper, page }, shown);
	return { plan: { ...plan, fields: [...plan.fields, field] }, field: field.id };
}

/** Settings of one more button in a group: the same checks, the next free value, nothing set beforehand. */
function grownSettings(plan: Plan, field: Field): Field['settings'] {
	const taken = questionOf(plan.fields, field).map((f) => String(f.settings['value'] ?? ''));
	const { ticked: _ticked, text: _text, ...rest } = field.settings;
	return { ...rest, value: freeKey('option_1', taken) };
}

export function changeFields(plan: Plan, ids: string[], change: (field: Field) => Field): Plan {
	return { ...plan, fields: plan.fields.map((f) => (ids.includes(f.id) ? change(f) : f)) };
}

/** What belongs to the question and not to the single field: changed for one, it changes for all its twins. */
export function changeQuestion(plan: Plan, ids: string[], change: (field: Field) => Field): Plan {
	const all = new Set(
		plan.fields.filter((f) => ids.includes(f.id)).flatMap((f) => questionOf(plan.fields, f).map((t) => t.id))
	);
	return changeFields(plan, [...all], change);
}

/** The fields with all others of their groups: a group is chosen, moved and copied as one. */
export function withGroups(plan: Plan, ids: string[]): string[] {
	const all = plan.fields
		.filter((f) => ids.includes(f.id))
		.flatMap((f) => (kindOf(f.kind).grouped ? questionOf(plan.fields, f).map((t) => t.id) : [f.id]));
	return [...new Set(all)];
}

/**
 * Gives a field a key. One that another question has makes it a twin: it takes over that question's checks.
 * Gives a sentence instead where the two are of different kinds.
 */
export function setKey(plan: Plan, id: string, key: string): Plan | string {
	const field = plan.fields.find((f) => f.id === id)!;
	const there = questionOfKey(plan.fields, key)?.find((f) => f.id !== id);
	if (!there) return changeFields(plan, [id], (f) => ({ ...f, key }));
	if (there.kind !== field.kind)
		return `“${key}” is ${kindOf(there.kind).name} already; fields with one key must be of one kind.`;
	const own = kindOf(field.kind).grouped ? grownSettings(plan, there) : there.settings;
	return changeFields(plan, [id], (f) => ({ ...f, key, required: there.required, settings: own }));
}

/** Moves and sizes fields by so many points as shown; none leaves its page. */
export function shiftFields(
	plan: Plan,
	ids: string[],
	by: { left?: number; top?: number; width?: number; height?: number }
): Plan {
	return changeFields(plan, ids, (field) => {
		const at = shownAt(plan, field);
		return putAt(plan, field, {
			left: at.left + (by.left ?? 0),
			top: at.top + (by.top ?? 0),
			width: Math.max(8, at.width + (by.width ?? 0)),
			height: Math.max(8, at.height + (by.height ?? 0))
		});
	});
}

/** Moves fields to another page, shifted by so many points as shown. */
export function shiftToPage(
	plan: Plan,
	ids: string[],
	to: { paper: string; page: number },
	by: { left: number; top: number }
): Plan {
	return changeFields(plan, ids, (field) => {
		const at = shownAt(plan, field);
		return putAt(plan, { ...field, ...to }, { ...at, left: at.left + by.left, top: at.top + by.top });
	});
}

/** Every chosen field at the place that `arrange` gives it. */
function arranged(plan: Plan, ids: string[], arrange: (rects: ShownRect[]) => ShownRect[]): Plan {
	const fields = ids.map((id) => plan.fields.find((f) => f.id === id)!);
	const placed = arrange(fields.map((f) => shownAt(plan, f)));
	return changeFields(plan, ids, (field) => putAt(plan, field, placed[ids.indexOf(field.id)]!));
}

export const alignFields = (plan: Plan, ids: string[], how: Alignment): Plan =>
	arranged(plan, ids, (rects) => align(rects, how));
export const distributeFields = (plan: Plan, ids: string[], way: 'across' | 'down'): Plan =>
	arranged(plan, ids, (rects) => distribute(rects, way));
export const sizeAlike = (plan: Plan, ids: string[], size: 'width' | 'height'): Plan =>
	arranged(plan, ids, (rects) => sameSize(rects, size));

/** Puts the sender's own answer in, or takes it out. */
export function answerField(plan: Plan, id: string, given: Answer | null): Plan {
	const { [id]: _old, ...rest } = plan.answers ?? {};
	// a signing date is never given, so what is given is what a plan may hold
	return { ...plan, answers: given === null ? rest : { ...rest, [id]: given as NonNullable<Plan['answers']>[string] } };
}

/** Takes fields away, with what the sender had answered in them. */
export function removeFields(plan: Plan, ids: string[]): Plan {
	const fields = plan.fields.filter((f) => !ids.includes(f.id));
	if (!plan.answers) return { ...plan, fields };
	return {
		...plan,
		fields,
		answers: Object.fromEntries(Object.entries(plan.answers).filter(([id]) => !ids.includes(id)))
	};
}

/** Gives fields to somebody in one step, groups as a whole; the sender's own answers to them go. */
export function giveTo(plan: Plan, ids: string[], person: string | null): Plan {
	const all = withGroups(plan, ids).filter((id) => asksSomebody(plan.fields.find((f) => f.id === id)!));
	const given = changeFields(plan, all, (f) => ({ ...f, person }));
	return person === SENDER || !given.answers
		? given
		: { ...given, answers: Object.fromEntries(Object.entries(given.answers).filter(([id]) => !all.includes(id))) };
}

function rounded(rect: Field['rect']): Field['rect'] {
	const round = (n: number) => Math.round(n * 100) / 100;
	return { x: round(rect.x), y: round(rect.y), width: round(rect.width), height: round(rect.height) };
}
