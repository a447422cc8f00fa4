import { toShown } from '../page/geometry';
import type { Field, Paper } from '../packet/plan';

/** How far apart, in points, two fields may stand and still be on one line. */
const LINE = 8;

/**
 * Fields in the order in which a person is led through them: by their own turn where they have one, then as one reads:
 * document, page, from the top, from the left, as the page is shown.
 */
export function inTurn(papers: Paper[], fields: Field[]): Field[] {
	const place = (field: Field) => {
		const paper = papers.findIndex((p) => p.id === field.paper);
		const page = papers[paper]?.pages[field.page];
		const at = page ? toShown(page, field.rect) : { top: 0, left: 0 };
		return [field.tab ?? 10_000, paper, field.page, Math.round(at.top / LINE), at.left] as const;
	};
	return fields
		.map((field) => ({ field, at: place(field) }))
		.sort((a, b) => a.at.reduce<number>((order, n, i) => order || n - b.at[i]!, 0))
		.map(({ field }) => field);
}
