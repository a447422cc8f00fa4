import { TZDate } from '@date-fns/tz';
import { addDays, addMonths } from 'date-fns';
import { isoDay } from './deadline';

/** The hour of the day, in the organisation's zone, at which Pellum writes by itself. */
const HOUR = 9;
const DAY = 86_400_000;

/** Nine o'clock on the day that lies `days` days from a moment, in that zone; negative days lie before it. ISO 8601, UTC. */
export function morningOf(at: string, days: number, zone: string): string {
	const local = addDays(new TZDate(at, zone), days);
	local.setHours(HOUR, 0, 0, 0);
	return new Date(local.getTime()).toISOString();
}

export interface ReminderFacts {
	/** since when it has been theirs */
	since: string;
	/** when they opened it, if they have */
	opened: string | null;
	/** the reminders they have had, oldest first */
	sent: string[];
	rule: { after: number; every: number | null; most: number };
	deadline: string | null;
	zone: string;
}

/**
 * When a person's next reminder is due: so many days after it came to them, then after the one before, at nine in the
 * morning, not within 24 hours after they opened it, none after the deadline. Null where none is to come. All ISO 8601, UTC.
 */
export function nextReminder({ since, opened, sent, rule, deadline, zone }: ReminderFacts): string | null {
	if (sent.length >= rule.most) return null;
	const last = sent[sent.length - 1];
	if (last !== undefined && rule.every === null) return null;
	let due = last === undefined ? morningOf(since, rule.after, zone) : morningOf(last, rule.every!, zone);
	const quietUntil = opened === null ? -Infinity : Date.parse(opened) + DAY;
	while (Date.parse(due) < quietUntil) due = morningOf(due, 1, zone);
	return deadline !== null && Date.parse(due) > Date.parse(deadline) ? null : due;
}

/** The last day of a term of so many months from a moment, ISO 8601. A month after 31 January is the last of February. */
export function termEnd(from: string, months: number, zone: string): string {
	const end = addDays(addMonths(new TZDate(from, zone), months), -1);
	return isoDay(zone, end.toISOString());
}
