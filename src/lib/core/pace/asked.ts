import { mondayOf, type CountedClock, type Facet } from './counting';

/** What Pace is asked about: everything, or what is alike in one way; in one folder or all; sent within so many weeks. */
export interface PaceAsked {
	of: (typeof ASKED_BY)[number];
	/** a template, a type, an account; '' of everything */
	value: string;
	/** null: in all of them that may be seen; '': in none */
	folder: string | null;
	weeks: (typeof PERIODS)[number];
	clock: CountedClock;
	/** what waits are set side by side by, where everything is asked about */
	by: SideBySide;
}

/** Ways of setting waits side by side. */
export const SIDE_BY_SIDE = [
	'template',
	'duty',
	'delivery',
	'language',
	'part of day',
	'hour'
] as const satisfies Facet[];
export type SideBySide = (typeof SIDE_BY_SIDE)[number];

const ASKED_BY = ['all', 'template', 'type', 'sender'] as const satisfies Facet[];
/** Whole weeks that are compared with as many before them. */
export const PERIODS = [4, 13, 52] as const;

export const EVERYTHING: PaceAsked = { of: 'all', value: '', folder: null, weeks: 13, clock: 'all', by: 'template' };

/** From the address of the page; whatever is not known is as for everything. */
export function paceAskedIn(query: URLSearchParams): PaceAsked {
	const of = ASKED_BY.find((one) => one !== 'all' && query.has(one)) ?? 'all';
	return {
		of,
		value: of === 'all' ? '' : query.get(of)!.slice(0, 200),
		folder: query.get('folder')?.slice(0, 80) ?? null,
		weeks: PERIODS.find((one) => String(one) === query.get('weeks')) ?? EVERYTHING.weeks,
		clock: query.get('days') === 'working' ? 'working' : 'all',
		by: SIDE_BY_SIDE.find((one) => one === query.get('by')) ?? EVERYTHING.by
	};
}

/** As it stands in the address. */
export function paceQuery({ of, value, folder, weeks, clock, by }: PaceAsked): string {
	const query = new URLSearchParams();
	if (of !== 'all') query.set(of, value);
	if (folder !== null) query.set('folder', folder);
	if (weeks !== EVERYTHING.weeks) query.set('weeks', String(weeks));
	if (clock === 'working') query.set('days', clock);
	if (of === 'all' && by !== EVERYTHING.by) query.set('by', by);
	return query.toString();
}

/** Mondays: from the first (its week is in it) to the second (its week is not). */
export interface Period {
	from: string;
	to: string;
}

/** So many whole weeks before this one, and as many before those: never a week that is not over, so that both are of one length. */
export function periodsOf(weeks: number, now: string): { now: Period; before: Period } {
	const to = mondayOf(now);
	const back = (monday: string, n: number) =>
		new Date(Date.parse(`${monday}T00:00:00Z`) - n * 7 * 86_400_000).toISOString().slice(0, 10);
	const from = back(to, weeks);
	return { now: { from, to }, before: { from: back(from, weeks), to: from } };
}
