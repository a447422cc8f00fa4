import type { Field, Paper, Plan } from '../packet';
import type { Doubt, Fitted, Rect } from '../page';
import { withPaper } from '../template';

/** A field on its way to another version of its document. */
export interface Laid {
	field: Field;
	/** null: it has no place yet, or is to be left out */
	place: { page: number; rect: Rect } | null;
	doubts: Doubt[];
	sure: number;
	moved: boolean;
	/** a person has looked at it */
	seen: boolean;
}

const SAY: Record<Doubt, string> = {
	gone: 'its place is gone',
	count: 'its label now stands more often, or less often, than before',
	head: 'another heading stands over its place',
	landmarks: 'the words around it lead to different places',
	'no blank': 'the line or box it stood on is not there',
	'two blanks': 'two lines or boxes could be meant',
	context: 'the words around its place are others now',
	far: 'nothing stands near it',
	'no words': 'the document has no words to go by, so it stands where it stood on the page',
	edge: 'it would reach over the edge of the page',
	'over another': 'it came to lie over another field',
	pages: 'the number of pages has changed'
};

/** Why a field wants a look, in words; '' where it does not. */
export function doubtsSaid({ doubts, moved, field, place }: Laid): string {
	const page = moved && place ? [`it moved from page ${field.page + 1} to page ${place.page + 1}`] : [];
	return [...doubts.map((doubt) => SAY[doubt]), ...page].join('; ');
}

/** Fields as they came out of the fit, those that want a look first, each in the order of the new pages. */
export function laidOut(fields: Field[], fitted: Fitted[]): Laid[] {
	const all = fitted.map((one): Laid => {
		const field = fields.find((f) => f.id === one.id)!;
		const { place, doubts, sure, moved } = one;
		return { field, place, doubts, sure, moved, seen: doubts.length === 0 && !moved };
	});
	const order = (one: Laid) => (one.place ? one.place.page * 10_000 - one.place.rect.y : Infinity);
	return all.sort((a, b) => Number(a.seen) - Number(b.seen) || order(a) - order(b));
}

/** See {@link withPaper}. */
export function exchanged(plan: Plan, paper: string, next: Omit<Paper, 'id'>, laid: Laid[]): Plan {
	return withPaper(plan, { paper, next, places: Object.fromEntries(laid.map((one) => [one.field.id, one.place])) });
}

/** The plan of a template in the place of a plan that is only documents so far; those it had besides stay, behind. */
export function withTemplate(plan: Plan, template: Plan, paper: string): Plan {
	const others = plan.papers.filter((p) => p.id !== paper && !template.papers.some((q) => q.id === p.id));
	return {
		...template,
		papers: [...template.papers, ...others],
		attachments: [...template.attachments, ...plan.attachments]
	};
}
