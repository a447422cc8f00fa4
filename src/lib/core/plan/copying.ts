import { followKeys, freeKey, keysOfPlan, kindOf } from '../field';
import { EVERYBODY, SENDER, type Field, type Plan, type PlanPerson } from '../packet';
import { pagesFrom, type ShownRect } from '../page';
import { freshId } from './edits';
import { ownerFor, putAt, shownAt, withGroups } from './field-edits';

/** Fields on their way from one place to another: as they were shown, with the people they belong to. */
export interface Block {
	fields: { field: Field; shown: ShownRect }[];
	people: Pick<PlanPerson, 'id' | 'name' | 'email'>[];
}

/** The chosen fields as a block, groups as a whole. */
export function blockOf(plan: Plan, ids: string[]): Block {
	const all = withGroups(plan, ids);
	const fields = plan.fields.filter((f) => all.includes(f.id));
	return {
		fields: fields.map((field) => ({ field, shown: shownAt(plan, field) })),
		people: plan.people
			.filter((p) => fields.some((f) => f.person === p.id))
			.map(({ id, name, email }) => ({ id, name, email }))
	};
}

/** A block as it was put away; null where that is no block of ours. */
export function readBlock(text: string | null): Block | null {
	try {
		const block = JSON.parse(text ?? '') as Block;
		return Array.isArray(block.fields) && Array.isArray(block.people) && block.fields.every((f) => kindOf(f.field.kind))
			? block
			: null;
	} catch {
		return null;
	}
}

/** Who of a block's people is who here: by id, else by address. Those it can't tell are asked about. */
export function peopleHere(plan: Plan, block: Block): { known: Record<string, string>; unknown: Block['people'] } {
	const known: Record<string, string> = {};
	const unknown: Block['people'] = [];
	for (const person of block.people) {
		const here =
			plan.people.find((p) => p.id === person.id) ??
			plan.people.find((p) => p.email !== '' && p.email.toLowerCase() === person.email.toLowerCase());
		if (here) known[person.id] = here.id;
		else unknown.push(person);
	}
	return { known, unknown };
}

/**
 * Puts a block on a page (null: on the pages its fields come from). Keys that are taken get a number, and rules inside
 * the block follow them; `twins` keeps the keys, so that the copies are answered with the originals.
 * @param by points by which everything is shifted, as shown
 */
export function pasteBlock(
	plan: Plan,
	block: Block,
	to: { paper: string; page: number } | null,
	who: Record<string, string | null>,
	{ by = 0, twins = false }: { by?: number; twins?: boolean } = {}
): { plan: Plan; fields: string[] } {
	const taken = new Set(keysOfPlan(plan));
	const keys = new Map<string, string>();
	for (const { field } of block.fields) {
		if (field.key === '' || keys.has(field.key)) continue;
		const key = twins ? field.key : freeKey(field.key, taken);
		keys.set(field.key, key);
		taken.add(key);
	}
	const owner = (field: Field): string | null =>
		field.person === null || field.person === SENDER || field.person === EVERYBODY
			? field.person
			: (who[field.person] ?? null);
	const added = block.fields.map(({ field, shown }) => {
		const copy = followKeys({ ...field, id: freshId('f'), ...(to ?? {}), key: keys.get(field.key) ?? '' }, keys);
		const mine = { ...copy, person: ownerFor(copy.kind, owner(field)) };
		return putAt(plan, mine, { ...shown, left: shown.left + by, top: shown.top + by });
	});
	return { plan: { ...plan, fields: [...plan.fields, ...added] }, fields: added.map((f) => f.id) };
}

/** Copies of fields a little to the right and below. */
export function copyFields(plan: Plan, ids: string[]): { plan: Plan; fields: string[] } {
	return pasteBlock(plan, blockOf(plan, ids), null, itself(plan), { by: 12 });
}

/** A block of fields once more for another person, right below it, or beside it where the page ends. */
export function copyFor(plan: Plan, ids: string[], person: string): { plan: Plan; fields: string[] } {
	const block = blockOf(plan, ids);
	const top = Math.min(...block.fields.map((f) => f.shown.top));
	const height = Math.max(...block.fields.map((f) => f.shown.top + f.shown.height)) - top;
	const first = block.fields[0]!.field;
	const page = plan.papers.find((p) => p.id === first.paper)?.pages[first.page];
	const room = page ? (page.rotate % 180 === 0 ? page.height : page.width) - top - height : 0;
	const moved: Block = {
		...block,
		fields: block.fields.map(({ field, shown }) => ({
			field,
			shown: room > height + 10 ? { ...shown, top: shown.top + height + 10 } : { ...shown, left: shown.left + 200 }
		}))
	};
	return pasteBlock(plan, moved, null, Object.fromEntries(block.people.map((p) => [p.id, person])));
}

/**
 * Repeats fields on pages of their own document, at the same places: `pages` as people write them. Gives a sentence
 * where that can't be understood. Pages on which a field stands already are passed over.
 */
export function repeatOn(
	plan: Plan,
	ids: string[],
	pages: string,
	twins: boolean
): { plan: Plan; fields: string[] } | string {
	const block = blockOf(plan, ids);
	const paper = plan.papers.find((p) => p.id === block.fields[0]?.field.paper);
	if (!paper) return 'Choose the fields to repeat first.';
	if (block.fields.some((f) => f.field.paper !== paper.id)) return 'Choose fields of one document.';
	const wanted = pagesFrom(pages, paper.pages.length);
	if (!wanted) return `Write the pages as “all”, “odd”, “even” or “3-7, 9”; this document has ${paper.pages.length}.`;
	const own = new Set(block.fields.map((f) => f.field.page));
	let now = plan;
	const added: string[] = [];
	for (const number of wanted) {
		if (own.has(number - 1)) continue;
		const done = pasteBlock(now, block, { paper: paper.id, page: number - 1 }, itself(plan), { twins });
		now = done.plan;
		added.push(...done.fields);
	}
	return added.length === 0 ? 'These fields stand on those pages already.' : { plan: now, fields: added };
}

function itself(plan: Plan): Record<string, string> {
	return Object.fromEntries(plan.people.map((p) => [p.id, p.id]));
}
