import { isoDay } from '../core/calendar';
import { datesIn } from '../core/intl';

/** Dates and times as the office reads them; `zone` is an IANA name, `at` ISO 8601. */
export function day(at: string, zone: string, now: string): string {
	const [that, today] = [isoDay(zone, at), isoDay(zone, now)];
	const days = Math.round((Date.parse(that) - Date.parse(today)) / 86_400_000);
	if (days === 0) return 'today';
	if (days === 1) return 'tomorrow';
	if (days === -1) return 'yesterday';
	const sameYear = that.slice(0, 4) === today.slice(0, 4);
	return datesIn('en-GB', {
		day: 'numeric',
		month: 'short',
		...(!sameYear && { year: 'numeric' }),
		timeZone: zone
	}).format(new Date(at));
}

export function moment(at: string, zone: string): string {
	return datesIn('en-GB', { dateStyle: 'medium', timeStyle: 'medium', timeZone: zone }).format(new Date(at));
}

export function clock(at: string, zone: string, language = 'en'): string {
	return datesIn(language === 'en' ? 'en-GB' : language, { timeStyle: 'short', timeZone: zone }).format(new Date(at));
}

/** When people meet, such as `tomorrow, 10:00`. */
export const meeting = (at: string, zone: string, now: string): string => `${day(at, zone, now)}, ${clock(at, zone)}`;

/** This moment by the browser's own clock, ISO 8601 in UTC. */
export function rightNow(): string {
	return new Date().toISOString();
}
