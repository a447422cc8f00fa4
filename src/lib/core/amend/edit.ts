import type { Paper, Plan } from '../packet/plan';
import { toShown } from '../page/geometry';
import type { ShownPage } from '../page/shown-page';
import type { Change } from './asked';
import type { Found } from './find';
import { placeChange } from './place';

/** Edits of an amendment, each a function from plan to plan. */

export interface Struck {
	paper: string;
	page: number;
	found: Found;
}

/**
 * Strikes words where they were found, with what stands instead ('' for nothing) and a place for the initials of each party who signs.
 * @param shown what is printed on a page
 * @param fresh a new id
 */
export function withStruck(
	plan: Plan,
	where: readonly Struck[],
	instead: string,
	shown: (paper: Paper, page: number) => ShownPage | null,
	fresh: () => string
): Plan {
	return where.reduce((now, { paper, page, found }) => {
		const on = now.papers.find((one) => one.id === paper);
		const size = on?.pages[page];
		const printed = on && shown(on, page);
		if (!now.amends || !size || !printed) return now;
		const change: Omit<Change, 'how'> = { id: fresh(), paper, page, words: found.words.slice(0, 400), instead };
		const acting = new Set(now.stops.flatMap((stop) => stop.people));
		const { how, fields } = placeChange({
			page: printed,
			size,
			rows: found.rows,
			taken: now.fields
				.filter((field) => field.paper === paper && field.page === page)
				.map((field) => toShown(size, field.rect)),
			change,
			number: now.amends.changes.length + 1,
			parties: now.amends.parties.map(({ id }) => id).filter((id) => acting.has(id)),
			fresh
		});
		return {
			...now,
			fields: [...now.fields, ...fields],
			amends: { ...now.amends, changes: [...now.amends.changes, { ...change, how }] }
		};
	}, plan);
}

/** Takes a change back, with all that was placed for it. Numbered notes keep pointing to their change. */
export function withoutChange(plan: Plan, id: string): Plan {
	if (!plan.amends) return plan;
	const changes = plan.amends.changes.filter((change) => change.id !== id);
	const number = new Map(changes.map((change, i) => [change.id, i + 1]));
	return {
		...plan,
		fields: plan.fields
			.filter((field) => field.change !== id)
			.map((field) =>
				field.kind === 'note' && field.change && /^\(\d+\)$/.test(String(field.settings['text']))
					? { ...field, settings: { ...field.settings, text: `(${number.get(field.change) ?? '?'})` } }
					: field
			),
		amends: { ...plan.amends, changes }
	};
}

/** Puts the page of changes before the other documents, or in the place of the one before. */
export function withSummary(plan: Plan, paper: Paper): Plan {
	if (!plan.amends) return plan;
	const others = plan.papers.filter((one) => one.id !== plan.amends!.summary);
	const fields = plan.fields.filter((field) => field.paper !== plan.amends!.summary || field.page < paper.pages.length);
	return { ...plan, papers: [paper, ...others], fields, amends: { ...plan.amends, summary: paper.id } };
}

/** What the page of changes was made of: another one has to be made where this is another. */
export const saidBy = ({ amends, papers }: Plan): string =>
	JSON.stringify([
		amends && { ...amends, summary: undefined },
		papers.filter((paper) => paper.id !== amends?.summary).map(({ name, digest }) => [name, digest])
	]);

/** A signature for each party who has none yet, on the page of changes, one below the other. @param at where the first one stands, shown */
export function unsigned(plan: Plan): string[] {
	const acting = new Set(plan.stops.flatMap((stop) => stop.people));
	return (plan.amends?.parties ?? [])
		.map(({ id }) => id)
		.filter((id) => acting.has(id) && !plan.fields.some((field) => field.kind === 'signature' && field.person === id));
}
