import { cutText } from '../clean-text';
import ICAL from 'ical.js';
import { refuse, type Refusal } from '../refusal';

/** Open calendar files in and out (RFC 5545). Days are ISO 8601. */
export interface CalendarDay {
	day: string;
	name: string;
}

/** More days than this are no list of holidays. */
const MOST = 5000;

/**
 * The whole days of a calendar file; an event over several days gives each of them, one that comes every year the years
 * from `from` to `to`. Refuses `not-a-calendar`, `no-days`, and `too-many-days`.
 */
export function daysOf(text: string, from: number, to: number): CalendarDay[] | Refusal {
	let component: InstanceType<typeof ICAL.Component>;
	try {
		component = new ICAL.Component(ICAL.parse(text) as unknown[]);
	} catch {
		return refuse('not-a-calendar', 'That is not a calendar file (iCalendar, .ics).');
	}
	const days = new Map<string, string>();
	try {
		for (const one of component.getAllSubcomponents('vevent')) {
			const event = new ICAL.Event(one);
			const name = cutText((event.summary ?? '').trim(), 120) || 'Holiday';
			const length = Math.max(1, Math.min(60, Math.round(event.duration.toSeconds() / 86_400)));
			const starts = event.iterator();
			for (let n = 0; n < 400; n++) {
				const start = starts.next() as InstanceType<typeof ICAL.Time> | null;
				if (!start || start.year > to) break;
				if (start.year < from) continue;
				for (let more = 0; more < length; more++) {
					const day = start.clone();
					day.isDate = true;
					day.adjust(more, 0, 0, 0);
					days.set(day.toString().slice(0, 10), name);
				}
				if (days.size > MOST)
					return refuse('too-many-days', `That calendar has more than ${MOST} days. Is it one of public holidays?`);
			}
		}
	} catch {
		return refuse('not-a-calendar', 'That calendar file can’t be read: one of its events is broken.');
	}
	return days.size === 0
		? refuse('no-days', 'That calendar has no days in these years.')
		: [...days].map(([day, name]) => ({ day, name })).sort((a, b) => (a.day < b.day ? -1 : 1));
}

/** An entry of a calendar: a whole day, with what it is about and where to look. */
export interface CalendarEntry extends CalendarDay {
	/** the same for the same entry at every export, so that a calendar replaces and doesn't repeat it */
	id: string;
	text: string;
	link: string;
}

/** Entries as a calendar file. @param now ISO 8601, the moment it is made */
export function calendarOf(entries: CalendarEntry[], now: string): string {
	const calendar = calendarWith('Deadlines and terms');
	for (const { id, day, name, text, link } of entries) {
		const event = new ICAL.Component('vevent');
		event.updatePropertyWithValue('uid', `${id}@pellum.invalid`);
		event.updatePropertyWithValue('dtstamp', ICAL.Time.fromJSDate(new Date(now), true));
		event.updatePropertyWithValue('dtstart', ICAL.Time.fromDateString(day));
		event.updatePropertyWithValue('summary', name);
		event.updatePropertyWithValue('description', text);
		event.updatePropertyWithValue('url', link);
		event.updatePropertyWithValue('transp', 'TRANSPARENT');
		calendar.addSubcomponent(event);
	}
	return written(calendar);
}

/** Something at a time of day. */
export interface Appointment {
	/** the same for the same appointment, also when it is moved */
	id: string;
	/** ISO 8601 in UTC */
	starts: string;
	minutes: number;
	name: string;
	text: string;
	link: string;
	/** greater each time it is moved (RFC 5545 §3.8.7.4) */
	sequence: number;
}

/** One appointment as a calendar file, in UTC. @param now ISO 8601, the moment it is made */
export function appointmentOf({ id, starts, minutes, name, text, link, sequence }: Appointment, now: string): string {
	const calendar = calendarWith('Appointments');
	calendar.updatePropertyWithValue('method', 'PUBLISH');
	const begins = ICAL.Time.fromJSDate(new Date(starts), true);
	const ends = ICAL.Time.fromJSDate(new Date(Date.parse(starts) + minutes * 60_000), true);
	const event = new ICAL.Component('vevent');
	event.updatePropertyWithValue('uid', `${id}@pellum.invalid`);
	event.updatePropertyWithValue('dtstamp', ICAL.Time.fromJSDate(new Date(now), true));
	event.updatePropertyWithValue('dtstart', begins);
	event.updatePropertyWithValue('dtend', ends);
	event.updatePropertyWithValue('sequence', sequence);
	event.updatePropertyWithValue('summary', name);
	event.updatePropertyWithValue('description', text);
	event.updatePropertyWithValue('url', link);
	calendar.addSubcomponent(event);
	return written(calendar);
}

function calendarWith(what: string): InstanceType<typeof ICAL.Component> {
	const calendar = new ICAL.Component(['vcalendar', [], []]);
	calendar.updatePropertyWithValue('version', '2.0');
	calendar.updatePropertyWithValue('prodid', `-//Pellum//${what}//EN`);
	return calendar;
}

const written = (calendar: InstanceType<typeof ICAL.Component>): string =>
	calendar.toString().replaceAll(/\r?\n/g, '\r\n');
