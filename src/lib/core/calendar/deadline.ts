import { datesIn } from '../intl';
import { TZDate } from '@date-fns/tz';
import { addDays, endOfDay } from 'date-fns';

/**
 * The last moment of a packet: the end (23:59:59) of the day that lies `days` days after sending, in the organisation's
 * time zone.
 * @param sentAt ISO 8601 in UTC
 * @param zone IANA time zone, such as Europe/London
 * @param holidays ISO 8601 days; given, only working days count: not these, nor Saturdays and Sundays
 * @returns ISO 8601 in UTC, to the second
 */
export function deadlineAfter(sentAt: string, days: number, zone: string, holidays?: readonly string[]): string {
	// all that goes on one day of a zone ends alike: a batch asks a thousand times
	const name = [isoDay(zone, sentAt), days, zone, ...(holidays ? ['working', ...holidays] : [])].join(' ');
	let end = ends.get(name);
	if (end === undefined) {
		const local = new TZDate(sentAt, zone);
		end = lastMomentOf(holidays ? addWorkingDays(local, days, zone, new Set(holidays)) : addDays(local, days));
		if (ends.size > 500) ends.clear();
		ends.set(name, end);
	}
	return end;
}

const ends = new Map<string, string>();

/** The end of a calendar day in a zone, to the second. */
export function endOfDayIn(day: string, zone: string): string {
	return lastMomentOf(new TZDate(`${day}T12:00:00`, zone));
}

function lastMomentOf(local: Date): string {
	const end = endOfDay(local);
	end.setMilliseconds(0);
	return new Date(end.getTime()).toISOString();
}

function addWorkingDays(from: TZDate, days: number, zone: string, free: ReadonlySet<string>): Date {
	let day: Date = from;
	for (let left = days; left > 0;) {
		day = addDays(day, 1);
		if (isWorkingDay(isoDay(zone, day.toISOString()), free)) left -= 1;
	}
	return day;
}

/** Whether people work on that day: neither at the weekend nor on a public holiday. */
export function isWorkingDay(day: string, holidays: ReadonlySet<string>): boolean {
	const weekday = new Date(`${day}T12:00:00Z`).getUTCDay();
	return weekday !== 0 && weekday !== 6 && !holidays.has(day);
}

/** Whether the moment has passed. A packet without a deadline never ends by itself. */
export function isOver(deadline: string | null, now: string): boolean {
	return deadline !== null && Date.parse(now) > Date.parse(deadline);
}

/** Whole days between two moments, never below 0. */
export function daysBetween(from: string, to: string): number {
	return Math.max(0, Math.floor((Date.parse(to) - Date.parse(from)) / 86_400_000));
}

/** Whether the name is a time zone this machine knows. */
export function isZone(zone: string): boolean {
	try {
		new Intl.DateTimeFormat('en-GB', { timeZone: zone });
		return true;
	} catch {
		return false;
	}
}

/** A day as people in that zone write it, such as 2 December 2026. */
export function dayIn(zone: string, at: string, locale = 'en-GB'): string {
	return (
		datesIn(locale, { dateStyle: 'long', timeZone: zone })
			.formatToParts(new Date(at))
			// Ukrainian ends a day with an abbreviation, and no sentence can end after that
			.map(({ type, value }) => (type === 'literal' ? value.replace(/\s*р\.$/, '') : value))
			.join('')
	);
}

/** A moment to the minute, such as 2 Dec 2026, 14:05. */
export function momentIn(zone: string, at: string, locale = 'en-GB'): string {
	return datesIn(locale, {
		dateStyle: 'medium',
		timeStyle: 'short',
		timeZone: zone
	}).format(new Date(at));
}

/** When people meet: day of the week, day, time and zone, such as Monday 30 November 2026 at 10:00 GMT. */
export function meetingIn(zone: string, at: string, locale = 'en-GB'): string {
	return datesIn(locale, {
		weekday: 'long',
		day: 'numeric',
		month: 'long',
		year: 'numeric',
		hour: '2-digit',
		minute: '2-digit',
		timeZoneName: 'short',
		timeZone: zone
	}).format(new Date(at));
}

/** The calendar day of a moment in a zone, ISO 8601 (`2026-12-02`). */
export function isoDay(zone: string, at: string): string {
	return datesIn('sv-SE', { timeZone: zone }).format(new Date(at));
}
