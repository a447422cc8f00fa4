import {
	amongOf,
	amongValue,
	courseOf,
	daysFrom,
	eachDay,
	isBroad,
	periodsOf,
	stopValue,
	UNUSUAL,
	workingUntil,
	type Among,
	type CameAfter,
	type ComingDay,
	type Course,
	type Facet,
	type PaceAsked,
	type Period,
	type Phase,
	type SideBySide,
	type Wait
} from '../../core/pace';
import { isoDay } from '../../core/calendar';
import { DELIVERIES, DUTIES, LOCALES } from '../../core/packet';
import { isRefusal } from '../../core/refusal';
import { acts } from '../../core/route';
import { roleName } from '../../core/template';
import type { Account } from '../accounts';
import { closedTo, looker, MAY_SEE_PACKET } from '../folders';
import type { House } from '../house';
import { readTemplate, templateNames } from '../templates';
import { helpedOf, type Touch } from './helping';
import { officeDays } from './office-days';
import { anyIn, IN_FOLDERS, waitsIn, type WaitsAsked } from './waits';

/** What Pace answers, from the counts: each statement reads one stretch of a key, however many packets there are. */

/** One sort of waits beside the others: what it is called, and how it went. */
export interface Sort {
	value: string;
	/** as people call it; a template by its title */
	name: string;
	course: Course;
}

/** A packet that is out, with what is unusual about it. */
export interface Unusual {
	packet: string;
	title: string;
	reference: string;
	since: string;
	/** of those who have it now */
	names: string;
	deadline: string | null;
	unusual: number;
	restsOn: number;
}

export interface PaceSeen {
	periods: { now: Period; before: Period };
	packets: { now: Course; before: Course };
	/** `more`: there are others, which were used longer ago */
	where: { by: SideBySide | 'role'; sorts: Sort[]; more: boolean };
	/** of one template: what came after a reminder, a warning of the last day, a text message; null where nothing can be said */
	helped: Record<Touch, CameAfter | null> | null;
	unusual: Unusual[];
	/** so many that are the longest against what is like them were looked at for those, and not all there are; null: all were */
	lookedAt: number | null;
	/** how many will likely be done on each day to come, in packets */
	coming: ComingDay[];
	/** out now, of what is asked about */
	out: number;
	/** events that are still to be counted */
	behind: boolean;
}

const MOST_SORTS = 12;
/** So many templates, the last used first, are looked at for those that fit. */
const MOST_TEMPLATES = 200;
const MOST_UNUSUAL = 12;
/** So many that are unusual are looked at for those that fit. */
const LOOKED_AT = 500;

/** Who asks, of what, which folders they may see into. */
interface Asking {
	house: House;
	asked: PaceAsked;
	among: Among;
	hidden: string;
	since: (began: string) => number;
}

export function paceSeen(house: House, account: Account, asked: PaceAsked): PaceSeen {
	const now = house.now().toISOString();
	const working = workingUntil(now, officeDays(house));
	const asking: Asking = {
		house,
		asked,
		among: amongOf(asked.filter),
		hidden: JSON.stringify(closedTo(house.db, account, 'sees')),
		since: asked.clock === 'working' ? working : (began) => daysFrom(began, now)
	};
	const periods = periodsOf(asked.weeks, now);
	const { template } = asking.among;
	const packets = (period: Period) => courseOf(waitsOf(asking, 'packet', 'among', amongValue(asking.among), period));
	return {
		periods,
		packets: { now: packets(periods.now), before: packets(periods.before) },
		where: whereOf(asking, account, periods.now),
		helped: template && whoSees(house, account, template) ? helpedOf(house, template) : null,
		...unusualOf(house, account, asked),
		coming: comingOf(asking, now),
		out: openOf(asking),
		behind: house.db.prepare('SELECT 1 FROM pace_behind LIMIT 1').get() !== undefined
	};
}

/** Waits of one sort that began within a period. */
const waitsOf = (asking: Asking, of: Phase, facet: Facet, value: string, period: Period): Wait[] =>
	waitsIn(asking.house.db, waitsAsked(asking, of, facet, value, period), asking.since);

const waitsAsked = (
	{ asked: { clock, filter }, hidden }: Asking,
	of: Phase,
	facet: Facet,
	value: string,
	{ from, to }: Period
): WaitsAsked => ({ of, facet, value, clock, from, to, hidden, folder: filter.folder ?? null });

/** How long half of them took; -1 where that can't be said. */
const said = ({ few, half }: Course): number => (few ? -1 : (half.days ?? -1));

/**
 * Of one template: its roles. Of everything: what is asked to be set side by side; of a type or a sender: their templates. Those that wait
 * longest first, and last those of which nothing can be said.
 */
function whereOf(asking: Asking, account: Account, period: Period): PaceSeen['where'] {
	const by = asking.among.template ? 'role' : isBroad(asking.asked) ? asking.asked.by : 'template';
	const { sorts, more } =
		by === 'role'
			? roles(asking, account, period)
			: by === 'template'
				? templates(asking, account, period)
				: { sorts: VALUES[by].map((one) => sortOf(asking, by, one, period)), more: false };
	return {
		by,
		more,
		sorts: sorts
			.filter(({ course }) => course.n > 0)
			.sort((a, b) => said(b.course) - said(a.course) || b.course.n - a.course.n)
	};
}

type Sorts = Pick<PaceSeen['where'], 'sorts' | 'more'>;
const NONE: Sorts = { sorts: [], more: false };

const sortOf = (
	asking: Asking,
	by: Exclude<SideBySide, 'template'>,
	[value, name]: [string, string],
	period: Period
) => ({
	value,
	name,
	course: courseOf(waitsOf(asking, by === 'hour' ? 'packet' : 'part', by, value, period))
});

function languageName(locale: string): string {
	return new Intl.DisplayNames(['en-GB'], { type: 'language' }).of(locale) ?? locale;
}

/** All that a part can be, with what people call it. */
const VALUES: Record<Exclude<SideBySide, 'template'>, [value: string, name: string][]> = {
	duty: DUTIES.filter(acts).map((duty) => [duty, duty]),
	delivery: DELIVERIES.map((way) => [way, way]),
	language: [
		['', 'whatever their browser asks for'],
		...LOCALES.map((locale): [string, string] => [locale, languageName(locale)])
	],
	'part of day': [
		['morning', 'came in the morning'],
		['afternoon', 'came in the afternoon'],
		['off hours', 'came outside working hours']
	],
	hour: Array.from({ length: 24 }, (_, hour): [string, string] => [
		String(hour).padStart(2, '0'),
		`sent from ${hour}:00 to ${hour + 1}:00`
	])
};

/** Whether this account sees the template itself. */
const whoSees = (house: House, account: Account, template: string): boolean =>
	!isRefusal(readTemplate(house, account, template));

function roles(asking: Asking, account: Account, period: Period): Sorts {
	const read = readTemplate(asking.house, account, asking.among.template);
	const people = (isRefusal(read) ? [] : (read.plan?.people ?? [])).filter(({ duty }) => acts(duty));
	return {
		more: people.length > MOST_SORTS,
		sorts: people.slice(0, MOST_SORTS).map((person) => ({
			value: person.id,
			name: roleName(person),
			course: courseOf(waitsOf(asking, 'part', 'stop', stopValue(person.id, asking.among), period))
		}))
	};
}

function templates(asking: Asking, account: Account, period: Period): Sorts {
	if (account.level === 'viewer') return NONE;
	const value = (id: string) => amongValue({ ...asking.among, template: id });
	const used = templateNames(asking.house, account, { most: MOST_TEMPLATES }).filter(({ id }) =>
		anyIn(asking.house.db, waitsAsked(asking, 'packet', 'among', value(id), period))
	);
	return {
		more: used.length > MOST_SORTS,
		sorts: used.slice(0, MOST_SORTS).map(({ id, title }) => ({
			value: id,
			name: title,
			course: courseOf(waitsOf(asking, 'packet', 'among', value(id), period))
		}))
	};
}

function unusualOf(house: House, account: Account, asked: PaceAsked): Pick<PaceSeen, 'unusual' | 'lookedAt'> {
	const given = {
		...looker(house.db, account),
		...amongOf(asked.filter),
		folder: asked.filter.folder ?? null,
		looked: LOOKED_AT,
		least: UNUSUAL.toFixed(4)
	};
	const rows = house.db
		.prepare<[typeof given], Omit<Unusual, 'names'> & { names: string | null; fits: 0 | 1 }>(
			`SELECT p.id AS packet, p.title, p.reference, p.since, p.deadline, CAST(p.unusual AS REAL) AS unusual, f.rests_on AS restsOn,
			 (p.status IN ('out', 'held') AND (@folder IS NULL OR p.folder = @folder)
			 AND (@template = '' OR p.template = @template) AND (@type = '' OR p.type = @type) AND (@sender = '' OR p.owner = @sender)
			 AND ${MAY_SEE_PACKET}) AS fits,
			 (SELECT group_concat(q.name, ', ') FROM packet_people q WHERE q.packet = p.id AND q.standing IN ('notified', 'opened', 'unreachable', 'held')) AS names
			 FROM packets p INDEXED BY packets_open_unusual CROSS JOIN forecasts f ON f.packet = p.id
			 WHERE p.ended_at IS NULL AND p.batch IS NULL AND p.unusual >= @least ORDER BY p.unusual DESC, p.rowid DESC LIMIT @looked`
		)
		.all(given);
	const unusual = rows
		.filter(({ fits }) => fits)
		.slice(0, MOST_UNUSUAL)
		.map(({ fits: _fits, names, ...row }) => ({ ...row, names: names ?? '' }));
	return { unusual, lookedAt: rows.length === LOOKED_AT && unusual.length < MOST_UNUSUAL ? LOOKED_AT : null };
}

function comingOf({ house, asked, among, hidden }: Asking, now: string): ComingDay[] {
	const from = isoDay(officeDays(house).zone, now);
	const given = { among: amongValue(among), folder: asked.filter.folder ?? null, hidden, from };
	const rows = house.db
		.prepare<[typeof given], ComingDay>(
			`SELECT day, sum(n) / 1000.0 AS n FROM coming WHERE among = @among AND day >= @from AND ${IN_FOLDERS} GROUP BY day ORDER BY day`
		)
		.all(given);
	return eachDay(from, rows);
}

function openOf({ house, asked, among, hidden }: Asking): number {
	return house.db
		.prepare<[object], number>(
			`SELECT coalesce(sum(n), 0) FROM wait_open WHERE of = 'packet' AND facet = 'among' AND value = @among AND ${IN_FOLDERS}`
		)
		.pluck()
		.get({ among: amongValue(among), folder: asked.filter.folder ?? null, hidden })!;
}
