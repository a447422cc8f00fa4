import {
	courseOf,
	eachDay,
	daysFrom,
	periodsOf,
	stopValue,
	UNUSUAL,
	workingUntil,
	type ComingDay,
	type Course,
	type End,
	type Facet,
	type PaceAsked,
	type Period,
	type CameAfter,
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
	where: { by: SideBySide | 'role'; sorts: Sort[] };
	/** of one template: what came after a reminder, a warning of the last day, a text message; null where nothing can be said */
	helped: Record<Touch, CameAfter | null> | null;
	unusual: Unusual[];
	/** how many will likely be done on each day to come, in packets */
	coming: ComingDay[];
	/** out now, of what is asked about */
	out: number;
	/** events that are still to be counted */
	behind: boolean;
}

const MOST_SORTS = 12;
const MOST_UNUSUAL = 12;
/** So many that are unusual are looked at for those that fit. */
const LOOKED_AT = 500;

/** Who asks, of what, which folders they may see into. */
interface Asking {
	house: House;
	asked: PaceAsked;
	hidden: string;
	since: (began: string) => number;
}

export function paceSeen(house: House, account: Account, asked: PaceAsked): PaceSeen {
	const now = house.now().toISOString();
	const working = workingUntil(now, officeDays(house));
	const asking: Asking = {
		house,
		asked,
		hidden: JSON.stringify(closedTo(house.db, account, 'sees')),
		since: asked.clock === 'working' ? working : (began) => daysFrom(began, now)
	};
	const periods = periodsOf(asked.weeks, now);
	const packets = (period: Period) => courseOf(waitsIn(asking, 'packet', asked.of, asked.value, period));
	return {
		periods,
		packets: { now: packets(periods.now), before: packets(periods.before) },
		where: whereOf(asking, account, periods.now),
		helped: asked.of === 'template' && whoSees(house, account, asked.value) ? helpedOf(house, asked.value) : null,
		unusual: unusualOf(house, account, asked),
		coming: comingOf(asking, now),
		out: openOf(asking),
		behind: house.db.prepare('SELECT 1 FROM pace_behind LIMIT 1').get() !== undefined
	};
}

/** Waits of one sort that began within a period. */
function waitsIn(
	{ house, asked, hidden, since }: Asking,
	of: Phase,
	facet: Facet,
	value: string,
	{ from, to }: Period
): Wait[] {
	const given = { of, facet, value, clock: asked.clock, from, to, hidden, folder: asked.folder };
	const over = house.db
		.prepare<[typeof given], { days: number; how: End | 'left open'; n: number }>(
			`SELECT days, how, sum(n) AS n FROM wait_counts
			 WHERE of = @of AND facet = @facet AND value = @value AND clock = @clock AND week >= @from AND week < @to AND ${FOLDER}
			 GROUP BY days, how`
		)
		.all(given)
		.map(({ days, how, n }): Wait => ({ days, n, end: how === 'left open' ? null : how }));
	const open = house.db
		.prepare<[typeof given], { began: string; n: number }>(
			`SELECT began, sum(n) AS n FROM wait_open
			 WHERE of = @of AND facet = @facet AND value = @value AND began >= @from AND began < @to AND ${FOLDER} GROUP BY began`
		)
		.all(given)
		.map(({ began, n }): Wait => ({ days: since(`${began}:00:00.000Z`), n, end: null }));
	return [...over, ...open];
}

const FOLDER = '(@folder IS NULL OR folder = @folder) AND folder NOT IN (SELECT value FROM json_each(@hidden))';

/** How long half of them took; -1 where that can't be said. */
const said = ({ few, half }: Course): number => (few ? -1 : (half.days ?? -1));

/** Of one template: its roles. Of everything: what is asked to be set side by side. Those that wait longest first, and last those of which nothing can be said. */
function whereOf(asking: Asking, account: Account, period: Period): PaceSeen['where'] {
	const { of, value, by } = asking.asked;
	const sorts =
		of === 'template'
			? roles(asking, account, value, period)
			: of !== 'all'
				? []
				: by === 'template'
					? templates(asking, account, period)
					: VALUES[by].map(([one, name]): Sort => ({
							value: one,
							name,
							course: courseOf(waitsIn(asking, by === 'hour' ? 'packet' : 'part', by, one, period))
						}));
	return {
		by: of === 'template' ? 'role' : by,
		sorts: sorts
			.filter(({ course }) => course.n > 0)
			.sort((a, b) => said(b.course) - said(a.course) || b.course.n - a.course.n)
	};
}

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

function roles(asking: Asking, account: Account, template: string, period: Period): Sort[] {
	const read = readTemplate(asking.house, account, template);
	if (isRefusal(read)) return [];
	return (read.plan?.people ?? [])
		.filter(({ duty }) => acts(duty))
		.slice(0, MOST_SORTS)
		.map((person): Sort => ({
			value: person.id,
			name: roleName(person),
			course: courseOf(waitsIn(asking, 'part', 'stop', stopValue(template, person.id), period))
		}));
}

function templates(asking: Asking, account: Account, period: Period): Sort[] {
	if (account.level === 'viewer') return [];
	return templateNames(asking.house, account, { most: MOST_SORTS }).map(({ id, title }): Sort => ({
		value: id,
		name: title,
		course: courseOf(waitsIn(asking, 'packet', 'template', id, period))
	}));
}

function unusualOf(house: House, account: Account, asked: PaceAsked): Unusual[] {
	const given = {
		...looker(house.db, account),
		of: asked.of,
		value: asked.value,
		folder: asked.folder,
		looked: LOOKED_AT,
		least: UNUSUAL.toFixed(4)
	};
	return house.db
		.prepare<[typeof given], Omit<Unusual, 'names'> & { names: string | null; fits: 0 | 1 }>(
			`SELECT p.id AS packet, p.title, p.reference, p.since, p.deadline, CAST(p.unusual AS REAL) AS unusual, f.rests_on AS restsOn,
			 (p.status IN ('out', 'held') AND (@folder IS NULL OR p.folder = @folder)
			 AND CASE @of WHEN 'all' THEN 1 WHEN 'template' THEN p.template = @value WHEN 'type' THEN p.type = @value ELSE p.owner = @value END
			 AND ${MAY_SEE_PACKET}) AS fits,
			 (SELECT group_concat(q.name, ', ') FROM packet_people q WHERE q.packet = p.id AND q.standing IN ('notified', 'opened', 'unreachable', 'held')) AS names
			 FROM packets p INDEXED BY packets_open_unusual CROSS JOIN forecasts f ON f.packet = p.id
			 WHERE p.ended_at IS NULL AND p.batch IS NULL AND p.unusual >= @least ORDER BY p.unusual DESC, p.rowid DESC LIMIT @looked`
		)
		.all(given)
		.filter(({ fits }) => fits)
		.slice(0, MOST_UNUSUAL)
		.map(({ fits: _fits, names, ...row }) => ({ ...row, names: names ?? '' }));
}

function comingOf({ house, asked, hidden }: Asking, now: string): ComingDay[] {
	const { of, value, folder } = asked;
	const given = { of, value, folder, hidden, from: isoDay(officeDays(house).zone, now) };
	const rows = house.db
		.prepare<[typeof given], ComingDay>(
			`SELECT day, sum(n) / 1000.0 AS n FROM coming WHERE facet = @of AND value = @value AND day >= @from AND ${FOLDER}
			 GROUP BY day ORDER BY day`
		)
		.all(given);
	return eachDay(given.from, rows);
}

function openOf({ house, asked, hidden }: Asking): number {
	const { of, value, folder } = asked;
	return house.db
		.prepare<[object], number>(
			`SELECT coalesce(sum(n), 0) FROM wait_open WHERE of = 'packet' AND facet = @of AND value = @value AND ${FOLDER}`
		)
		.pluck()
		.get({ of, value, folder, hidden })!;
}
