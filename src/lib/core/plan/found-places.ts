import { freeKey, keysOfPlan, kindOf } from '../field';
import type { Field, KindName, Plan, PlanPerson } from '../packet';
import { folded } from '../folded';
import { meets, OF_A_BLOCK, ownerAmong, type FoundPlace, type ShownRect } from '../page';
import { acts } from '../route';
import { newField, shownAt } from './field-edits';

/** Who a place is likely to be for: whom its label or its block's heading names. Null where they name nobody here. */
export function likelyOwner(place: FoundPlace, people: PlanPerson[]): string | null {
	return ownerAmong(
		place.whose,
		people
			.filter((person) => acts(person.duty))
			.map(({ id, role = '', name, organisation = '', jobTitle = '', duty }) => ({
				id,
				role,
				names: [name, organisation, jobTitle, duty === 'approves' ? 'approved approver genehmigt approuvé' : '']
			}))
	);
}

/** Parties that found places name and nobody here is, as a document calls them; each once, in its order. */
export function namedElsewhere(places: FoundPlace[], people: PlanPerson[]): string[] {
	const found = new Map<string, string>();
	for (const place of places) {
		const { named } = place.whose;
		if (named === '' || !OF_A_BLOCK.includes(place.kind) || likelyOwner(place, people) !== null) continue;
		if (!found.has(folded(named))) found.set(folded(named), named);
	}
	return [...found.values()].slice(0, 8);
}

/** A found place that nobody has taken, with who it is likely to be for. */
export interface FreePlace extends FoundPlace {
	owner: string | null;
}

/** The found places of a document that no field stands on yet. */
export function stillFree(plan: Plan, paper: string, places: FoundPlace[]): FreePlace[] {
	const taken = new Map<number, ShownRect[]>();
	for (const field of plan.fields.filter((f) => f.paper === paper))
		taken.set(field.page, [...(taken.get(field.page) ?? []), inner(shownAt(plan, field))]);
	return places
		.filter((place) => !taken.get(place.page)?.some((at) => meets(at, inner(place.rect))))
		.map((place) => ({ ...place, owner: likelyOwner(place, plan.people) }));
}

/** A little less than the rectangle, so that neighbours that touch don't count as covering each other. */
function inner(r: ShownRect): ShownRect {
	return { left: r.left + 2, top: r.top + 2, width: Math.max(1, r.width - 4), height: Math.max(1, r.height - 4) };
}

/**
 * Takes found places as fields, each for whom the page names, else for `person`. Squares of a group keep one key; all
 * others get keys of their own.
 */
export function takePlaces(
	plan: Plan,
	paper: string,
	places: FoundPlace[],
	all: FoundPlace[],
	person: string | null,
	whose: 'as it says' | 'the chosen' = 'as it says'
): { plan: Plan; fields: string[] } {
	const taken = new Set(keysOfPlan(plan));
	const groups = new Map<string, string>();
	// a group of which a part was taken before goes on under its key
	for (const field of plan.fields.filter((f) => f.paper === paper && kindOf(f.kind).grouped)) {
		const place = all.find((p) => p.page === field.page && meets(inner(p.rect), inner(shownAt(plan, field))));
		if (place) groups.set(groupName(place), field.key);
	}
	const added = places.map((place): Field => {
		const grouped = kindOf(place.kind).grouped;
		let key = grouped ? (groups.get(groupName(place)) ?? '') : '';
		if (key === '' && place.key !== '') {
			key = freeKey(place.key, taken);
			taken.add(key);
			if (grouped) groups.set(groupName(place), key);
		}
		return newField(
			plan,
			place.kind,
			(whose === 'as it says' ? likelyOwner(place, plan.people) : null) ?? person,
			{ paper, page: place.page },
			place.rect,
			{
				label: place.label,
				required: place.required,
				settings: place.settings,
				...(key !== '' && { key })
			}
		);
	});
	return { plan: { ...plan, fields: [...plan.fields, ...added] }, fields: added.map((f) => f.id) };
}

const groupName = (place: FoundPlace): string => `${place.page} ${place.kind} ${place.key}`;

/** Where a field goes with regard to a text that was found. */
export const BESIDE = ['right of it', 'below it', 'on it'] as const;
export type Beside = (typeof BESIDE)[number];

/** A field of a kind at each of some texts, in the kind's usual size. */
export function placeAtHits(
	plan: Plan,
	hits: { paper: string; page: number; rect: ShownRect }[],
	kind: KindName,
	person: string | null,
	beside: Beside
): { plan: Plan; fields: string[] } {
	const { size } = kindOf(kind);
	const fields: string[] = [];
	let now = plan;
	for (const { paper, page, rect } of hits) {
		const middle = rect.top + rect.height / 2 - size.height / 2;
		const shown: ShownRect =
			beside === 'on it'
				? rect
				: beside === 'below it'
					? { ...size, left: rect.left, top: rect.top + rect.height + 3 }
					: { ...size, left: rect.left + rect.width + 4, top: middle };
		const field = newField(now, kind, person, { paper, page }, shown);
		now = { ...now, fields: [...now.fields, field] };
		fields.push(field.id);
	}
	return { plan: now, fields };
}
