import type { Paper, Plan } from '../packet';
import type { Rect } from '../page';

/** Another version of one of a plan's documents, and where its fields stand on it; null: they have no place there. */
export interface OtherPaper {
	/** the document's id in the plan */
	paper: string;
	next: Omit<Paper, 'id'>;
	/** by field */
	places: Record<string, { page: number; rect: Rect } | null>;
}

/**
 * The plan with another version of one of its documents, its fields where they were laid; those without a place are gone.
 * The paper keeps its id, so that people, route and rules stay as they are.
 */
export function withPaper(plan: Plan, { paper, next, places }: OtherPaper): Plan {
	return {
		...plan,
		papers: plan.papers.map((p) => (p.id === paper ? { id: p.id, ...next } : p)),
		fields: plan.fields.flatMap((field) => {
			const place = places[field.id];
			if (place === undefined) return [field];
			if (place === null) return [];
			const { cover: _cover, ...rest } = field;
			return [{ ...rest, ...place }];
		})
	};
}
