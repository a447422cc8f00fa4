import { kindOf } from '../../core/field';
import { type Field, type Paper, type Plan, type PlanPerson } from '../../core/packet';
import { fromShown, keepOnPage, toShown, type ShownRect } from '../../core/page';

/** Every edit of a plan, as a function from plan to plan: the Bench's history keeps what they return. */

/** A short random id, new in this plan. */
export function freshId(prefix: string): string {
	const bytes = crypto.getRandomValues(new Uint8Array(9));
	return (
		prefix +
		btoa(String.fromCharCode(...bytes))
			.replaceAll('+', '-')
			.replaceAll('/', '_')
	);
}

export function addPerson(plan: Plan): { plan: Plan; person: string } {
	const id = freshId('p');
	const person: PlanPerson = { id, name: '', email: '', duty: 'signs' };
	return {
		plan: { ...plan, people: [...plan.people, person], stops: [...plan.stops, { id: freshId('s'), people: [id] }] },
		person: id
	};
}

export function changePerson(plan: Plan, id: string, change: Partial<PlanPerson>): Plan {
	return { ...plan, people: plan.people.map((p) => (p.id === id ? { ...p, ...change } : p)) };
}

/** Takes a person off the route; their fields stay and belong to nobody, which preflight says. */
export function removePerson(plan: Plan, id: string): Plan {
	return {
		...plan,
		people: plan.people.filter((p) => p.id !== id),
		stops: plan.stops
			.map((s) => ({ ...s, people: s.people.filter((p) => p !== id) }))
			.filter((s) => s.people.length > 0),
		fields: plan.fields.map((f) => (f.person === id ? { ...f, person: null } : f))
	};
}

export function addPapers(plan: Plan, papers: Omit<Paper, 'id'>[]): Plan {
	const added = papers.map((paper) => ({ ...paper, id: freshId('d') }));
	return { ...plan, title: plan.title || (added[0]?.name ?? ''), papers: [...plan.papers, ...added] };
}

/** A file that goes along unchanged. */
export function attach(plan: Plan, file: { name: string; digest: string }): Plan {
	const known = plan.attachments.some((a) => a.digest === file.digest);
	return known ? plan : { ...plan, attachments: [...plan.attachments, { ...file, id: freshId('a') }] };
}

export function detach(plan: Plan, id: string): Plan {
	return { ...plan, attachments: plan.attachments.filter((a) => a.id !== id) };
}

export function movePaper(plan: Plan, id: string, step: -1 | 1): Plan {
	const from = plan.papers.findIndex((p) => p.id === id);
	const to = from + step;
	if (from < 0 || to < 0 || to >= plan.papers.length) return plan;
	const papers = [...plan.papers];
	[papers[from], papers[to]] = [papers[to]!, papers[from]!];
	return { ...plan, papers };
}

export function removePaper(plan: Plan, id: string): Plan {
	return { ...plan, papers: plan.papers.filter((p) => p.id !== id), fields: plan.fields.filter((f) => f.paper !== id) };
}

/** A new field of a kind with its middle at that place of the page as shown, in points; kept on the page. */
export function placeField(
	plan: Plan,
	kind: string,
	person: string | null,
	paper: string,
	page: number,
	middle: { x: number; y: number }
): { plan: Plan; field: string } {
	const { size, name } = kindOf(kind);
	const sheet = plan.papers.find((p) => p.id === paper)!.pages[page]!;
	const shown = keepOnPage(sheet, { left: middle.x - size.width / 2, top: middle.y - size.height / 2, ...size });
	const field: Field = {
		id: freshId('f'),
		kind,
		person,
		paper,
		page,
		rect: rounded(fromShown(sheet, shown)),
		label: name[0]!.toUpperCase() + name.slice(1),
		key: '',
		required: true,
		settings: {}
	} as Field;
	return { plan: { ...plan, fields: [...plan.fields, field] }, field: field.id };
}

export function changeFields(plan: Plan, ids: string[], change: (field: Field) => Field): Plan {
	return { ...plan, fields: plan.fields.map((f) => (ids.includes(f.id) ? change(f) : f)) };
}

/** Moves and sizes fields by so many points as shown; none leaves its page. */
export function shiftFields(
	plan: Plan,
	ids: string[],
	by: { left?: number; top?: number; width?: number; height?: number }
): Plan {
	return changeFields(plan, ids, (field) => {
		const page = pageOf(plan, field);
		if (!page) return field;
		const at = toShown(page, field.rect);
		const shown: ShownRect = {
			left: at.left + (by.left ?? 0),
			top: at.top + (by.top ?? 0),
			width: Math.max(8, at.width + (by.width ?? 0)),
			height: Math.max(8, at.height + (by.height ?? 0))
		};
		return { ...field, rect: rounded(fromShown(page, keepOnPage(page, shown))) };
	});
}

export function removeFields(plan: Plan, ids: string[]): Plan {
	return { ...plan, fields: plan.fields.filter((f) => !ids.includes(f.id)) };
}

/** Copies of fields, a little to the right and below, with new ids. */
export function copyFields(plan: Plan, ids: string[]): { plan: Plan; fields: string[] } {
	const copies = plan.fields.filter((f) => ids.includes(f.id)).map((f) => ({ ...f, id: freshId('f') }));
	const fields = copies.map((f) => f.id);
	return { plan: shiftFields({ ...plan, fields: [...plan.fields, ...copies] }, fields, { left: 12, top: 12 }), fields };
}

export function pageOf(plan: Plan, field: Field) {
	return plan.papers.find((p) => p.id === field.paper)?.pages[field.page];
}

function rounded(rect: Field['rect']): Field['rect'] {
	const round = (n: number) => Math.round(n * 100) / 100;
	return { x: round(rect.x), y: round(rect.y), width: round(rect.width), height: round(rect.height) };
}
