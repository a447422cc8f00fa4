import { askedIn, askedOf, type Filter } from '../packet';
import { mondayOf, type CountedClock } from './counting';
import type { Among, Facet } from './facets';

/** What Pace is asked about: what fits the filter, sent within so many weeks. */
export interface PaceAsked {
	filter: PaceFilter;
	weeks: (typeof PERIODS)[number];
	clock: CountedClock;
	/** what waits are set side by side by, where nothing but a folder is asked about */
	by: SideBySide;
}

const FILTERED_BY = ['template', 'type', 'sender', 'folder'] as const satisfies (keyof Filter)[];
/** As in Records, all at once. */
export type PaceFilter = Pick<Filter, (typeof FILTERED_BY)[number]>;

/** Ways of setting waits side by side. */
export const SIDE_BY_SIDE = ['template', 'duty', 'delivery', 'language', 'part of day', 'hour'] as const satisfies (
	Facet | 'template'
)[];
export type SideBySide = (typeof SIDE_BY_SIDE)[number];

/** Whole weeks that are compared with as many before them. */
export const PERIODS = [4, 13, 52] as const;

export const EVERYTHING: PaceAsked = { filter: {}, weeks: 13, clock: 'all', by: 'template' };

/** Of a filter, what counts are kept by. */
export const amongOf = ({ template = '', type = '', sender = '' }: PaceFilter): Among => ({ template, type, sender });

/** Only a folder, or nothing, is asked for. */
export const isBroad = ({ filter: { template, type, sender } }: PaceAsked): boolean => !template && !type && !sender;

/** From the address of the page; whatever is not known is as for everything. */
export function paceAskedIn(query: URLSearchParams): PaceAsked {
	const { filter = {} } = askedIn('ended', query);
	return {
		filter: Object.fromEntries(
			FILTERED_BY.flatMap((name) => (filter[name] === undefined ? [] : [[name, filter[name]]]))
		),
		weeks: PERIODS.find((one) => String(one) === query.get('weeks')) ?? EVERYTHING.weeks,
		clock: query.get('days') === 'working' ? 'working' : 'all',
		by: SIDE_BY_SIDE.find((one) => one === query.get('by')) ?? EVERYTHING.by
	};
}

/** As it stands in the address. */
export function paceQuery({ filter, weeks, clock, by }: PaceAsked): string {
	const query = askedOf({ list: 'ended', filter });
	if (weeks !== EVERYTHING.weeks) query.set('weeks', String(weeks));
	if (clock === 'working') query.set('days', clock);
	if (by !== EVERYTHING.by) query.set('by', by);
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
