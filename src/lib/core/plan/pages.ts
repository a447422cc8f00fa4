import type { Paper, Plan } from '../packet';
import { fromShown, keepOnPage, toShown, type Scans, type Turn } from '../page';

/** A page of the new order: which it was, from 0, and how it is turned now. */
export interface PagePlace {
	from: number;
	turn: Turn;
	/** by how many degrees what is on it rises to the right, which is put straight */
	lean?: number;
}

/** The pages of a document as they are. */
export function pagesAsTheyAre(paper: Paper): PagePlace[] {
	return paper.pages.map((page, from) => ({ from, turn: page.rotate }));
}

/** One page turned by a quarter, clockwise. */
export function turned(pages: PagePlace[], at: number): PagePlace[] {
	return pages.map((page, i) => (i === at ? { ...page, turn: ((page.turn + 90) % 360) as Turn } : page));
}

/** Pages put straight that a machine found lying on their side, on their head, or askew. */
export function straightened(pages: PagePlace[], read: Scans['read']): PagePlace[] {
	return pages.map((page, i) => {
		const found = read.find((one) => one.page === i);
		if (!found) return page;
		return {
			...page,
			turn: ((page.turn + found.turn) % 360) as Turn,
			...(found.lean !== 0 && Math.abs(found.lean) <= 8 && { lean: found.lean })
		};
	});
}

/** One page moved to another place. */
export function movedPage(pages: PagePlace[], at: number, to: number): PagePlace[] {
	const rest = pages.filter((_, i) => i !== at);
	return [...rest.slice(0, to), pages[at]!, ...rest.slice(to)];
}

/**
 * The plan with a document whose pages were brought into another order. Fields go with their page; those of a page that
 * is left out are gone with it. On a turned page a field keeps its upper left corner and its size, as it is shown.
 */
export function reordered(plan: Plan, paper: string, next: Pick<Paper, 'digest' | 'pages'>, pages: PagePlace[]): Plan {
	const old = plan.papers.find((p) => p.id === paper);
	if (!old) return plan;
	const fields = plan.fields.flatMap((field) => {
		if (field.paper !== paper) return [field];
		const page = pages.findIndex((one) => one.from === field.page);
		const [before, after] = [old.pages[field.page], next.pages[page]];
		if (!before || !after) return [];
		const rect =
			before.rotate === after.rotate ? field.rect : fromShown(after, keepOnPage(after, toShown(before, field.rect)));
		return [{ ...field, page, rect }];
	});
	return {
		...plan,
		papers: plan.papers.map((p) => (p.id === paper ? { ...p, digest: next.digest, pages: next.pages } : p)),
		fields
	};
}
