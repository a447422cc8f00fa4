import { TZDate } from '@date-fns/tz';
import { datesIn } from '../intl';

/** When somebody usually answers, where they do so often enough at one time to say it. */
export interface UsualTime {
	/** 1 Monday … 7 Sunday */
	weekday: number;
	/** the hour of the day, in the middle of those */
	hour: number;
	times: number;
	of: number;
}

/** Fewer answers than this are no habit. */
const LEAST = 5;

/**
 * The day of the week on which at least half of somebody's answers came, and the hour about which they came then.
 * @param at moments, ISO 8601
 * @param zone of the office: that is where a reminder goes out from
 */
export function usualTime(at: readonly string[], zone: string): UsualTime | null {
	if (at.length < LEAST) return null;
	const local = at.map((moment) => new TZDate(moment, zone));
	const [weekday, most] = [1, 2, 3, 4, 5, 6, 7]
		.map((day) => [day, local.filter((moment) => (moment.getDay() || 7) === day)] as const)
		.reduce((a, b) => (b[1].length > a[1].length ? b : a));
	if (most.length * 2 < at.length) return null;
	const hours = most.map((moment) => moment.getHours()).sort((a, b) => a - b);
	return { weekday, hour: hours[Math.floor(hours.length / 2)]!, times: most.length, of: at.length };
}

/** Such as `Mondays about 9 (4 of 6 times)`. */
export function usualTimeInWords({ weekday, hour, times, of }: UsualTime): string {
	// 5 January 1970 was a Monday
	const day = datesIn('en-GB', { weekday: 'long', timeZone: 'UTC' }).format(new Date((weekday + 3) * 86_400_000));
	return `${day}s about ${hour} (${times} of ${of} times)`;
}
