import { isoDay } from '../core/calendar';
import { calendarOf, type CalendarEntry } from '../core/icalendar';
import type { House } from './house';
import { organisation } from './settings';

/** More than this in one calendar helps nobody. */
const MOST = 2000;

/** The deadlines of packets that are out, and the last days of agreements that have a term, as an iCalendar file. */
export function datesAsCalendar(house: House): string {
	const { db, config } = house;
	const { zone } = organisation(db);
	const entries: CalendarEntry[] = [];
	const out = db
		.prepare<[number], { id: string; title: string; reference: string; deadline: string }>(
			'SELECT id, title, reference, deadline FROM packets WHERE ended_at IS NULL AND deadline IS NOT NULL ORDER BY since LIMIT ?'
		)
		.all(MOST);
	for (const { id, title, reference, deadline } of out)
		entries.push({
			id: `${id}-deadline`,
			day: isoDay(zone, deadline),
			name: `Last day: ${title}`,
			text: `${reference} ends if it is not complete by the end of this day.`,
			link: `${config.origin}/packets/${id}`
		});
	const termed = db
		.prepare<[number], { id: string; title: string; reference: string; ends: string }>(
			'SELECT id, title, reference, term_end AS ends FROM packets WHERE term_end IS NOT NULL ORDER BY term_end DESC LIMIT ?'
		)
		.all(MOST);
	for (const { id, title, reference, ends } of termed)
		entries.push({
			id: `${id}-term`,
			day: ends,
			name: `Runs out: ${title}`,
			text: `The agreement ${reference} holds until the end of this day.`,
			link: `${config.origin}/packets/${id}`
		});
	return calendarOf(entries, house.now().toISOString());
}
