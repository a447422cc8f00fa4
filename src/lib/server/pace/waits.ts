import type { CountedClock, End, Facet, Phase, Wait } from '../../core/pace';
import type { Db } from '../db';

/** Which waits: of what, by what they are counted, begun from one Monday (ISO 8601) until another, in which folders. */
export interface WaitsAsked {
	of: Phase;
	facet: Facet;
	value: string;
	clock: CountedClock;
	from: string;
	to: string;
	/** null: in all; '': in none */
	folder: string | null;
	/** folders that are left out, as a list in JSON */
	hidden: string;
}

/** The folders of a count, of `@folder` and without `@hidden`. */
export const IN_FOLDERS =
	'(@folder IS NULL OR folder = @folder) AND folder NOT IN (SELECT value FROM json_each(@hidden))';

/**
 * Those waits, from the counts: a stretch of a key, however many packets there are.
 * @param since how long, in days, something is open that began then
 */
export function waitsIn(db: Db, asked: WaitsAsked, since: (began: string) => number): Wait[] {
	const over = db
		.prepare<[WaitsAsked], { days: number; how: End | 'left open'; n: number }>(
			`SELECT days, how, sum(n) AS n FROM wait_counts
			 WHERE of = @of AND facet = @facet AND value = @value AND clock = @clock AND week >= @from AND week < @to AND ${IN_FOLDERS}
			 GROUP BY days, how`
		)
		.all(asked)
		.map(({ days, how, n }): Wait => ({ days, n, end: how === 'left open' ? null : how }));
	const open = db
		.prepare<[WaitsAsked], { began: string; n: number }>(
			`SELECT began, sum(n) AS n FROM wait_open
			 WHERE of = @of AND facet = @facet AND value = @value AND began >= @from AND began < @to AND ${IN_FOLDERS} GROUP BY began`
		)
		.all(asked)
		.map(({ began, n }): Wait => ({ days: since(`${began}:00:00.000Z`), n, end: null }));
	return [...over, ...open];
}

/** Whether there are any. */
export const anyIn = (db: Db, asked: WaitsAsked): boolean =>
	db
		.prepare<[WaitsAsked], 0 | 1>(
			`SELECT EXISTS (SELECT 1 FROM wait_counts
			 WHERE of = @of AND facet = @facet AND value = @value AND clock = @clock AND week >= @from AND week < @to AND ${IN_FOLDERS})
			 OR EXISTS (SELECT 1 FROM wait_open
			 WHERE of = @of AND facet = @facet AND value = @value AND began >= @from AND began < @to AND ${IN_FOLDERS})`
		)
		.pluck()
		.get(asked) === 1;
