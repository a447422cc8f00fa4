import { TZDate } from '@date-fns/tz';
import { addDays, startOfDay } from 'date-fns';
import { isoDay, isWorkingDay } from '../calendar';

/** The office's days: its zone, and its holidays (ISO 8601 days). */
export interface OfficeDays {
	zone: string;
	holidays: ReadonlySet<string>;
}

const DAY = 86_400_000;
/** Nobody waits ten years: what is said to be longer ago is a clock that was wrong. */
const LONGEST = 3653;

/**
 * The part of a span that lies on working days of the office, in days of 24 hours: what a weekend or a holiday adds to a wait is not
 * anybody's delay.
 * @param from, to ISO 8601 in UTC; 0 where `to` is earlier
 */
export const workingDaysIn = (from: string, to: string, days: OfficeDays): number => workingUntil(to, days)(from);

/** The same for many spans that end at one moment: each day is looked up once. */
export function workingUntil(to: string, { zone, holidays }: OfficeDays): (from: string) => number {
	const end = Date.parse(to);
	/** days from the last one back: when each begins, whether one works, and what lies between its end and `to`, in ms */
	const days: { start: number; works: boolean; after: number }[] = [];
	let first: Date = startOfDay(new TZDate(end, zone));
	const further = (): void => {
		const last = days.at(-1);
		const start = first.getTime();
		const works = isWorkingDay(isoDay(zone, new Date(start).toISOString()), holidays);
		const after = last ? last.after + (last.works ? Math.min(end, days.at(-2)?.start ?? end) - last.start : 0) : 0;
		days.push({ start, works, after });
		first = addDays(first, -1);
	};
	return (from) => {
		const begin = Math.max(Date.parse(from), end - LONGEST * DAY);
		if (begin >= end) return 0;
		while ((days.at(-1)?.start ?? Infinity) > begin) further();
		const at = days.findIndex(({ start }) => start <= begin);
		const { works, after } = days[at]!;
		return (after + (works ? Math.min(end, days[at - 1]?.start ?? end) - begin : 0)) / DAY;
	};
}

/** The part of a working day that something came in, or that it came outside working hours. */
export const PARTS_OF_DAY = ['morning', 'afternoon', 'off hours'] as const;
export type PartOfDay = (typeof PARTS_OF_DAY)[number];

/** The hour of the office's day, '00' to '23'. */
export const hourOf = (at: string, { zone }: OfficeDays): string =>
	String(new TZDate(at, zone).getHours()).padStart(2, '0');

/** Mornings are from seven to noon, afternoons until six, by the office's clock; the rest, weekends and holidays are off hours. */
export function partOfDay(at: string, days: OfficeDays): PartOfDay {
	const hour = Number(hourOf(at, days));
	const { zone, holidays } = days;
	if (!isWorkingDay(isoDay(zone, at), holidays) || hour < 7 || hour >= 18) return 'off hours';
	return hour < 12 ? 'morning' : 'afternoon';
}
