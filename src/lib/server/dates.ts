import { isoDay } from '../core/calendar';
import { calendarOf, type CalendarEntry } from '../core/icalendar';
import type { Account } from './accounts';
import { batchLines } from './batches';
import { looker, MAY_SEE_PACKET } from './folders';
import type { House } from './house';
import { organisation } from './settings';

/** More than this in one calendar helps nobody. */
const MOST = 2000;

/** The deadlines of packets that are out, and the last days of agreements that have a term, as an iCalendar file. */
export function datesAsCalendar(house: House, account: Account): string {
	const { db, config } = house;
	const { zone } = organisation(db);
	const seen = { ...looker(db, account), most: MOST };
	const entries: CalendarEntry[] = [];
	const out = db
		.prepare<[typeof seen], { id: string; title: string; reference: string; deadline: string }>(
			`SELECT p.id, p.title, p.reference, p.deadline FROM packets p INDEXED BY packets_open
			 WHERE p.ended_at IS NULL AND p.batch IS NULL AND p.deadline IS NOT NULL AND ${MAY_SEE_PACKET} ORDER BY p.since LIMIT @most`
		)
		.all(seen);
	for (const { id, title, reference, deadline } of out)
		entries.push({
			id: `${id}-deadline`,
			day: isoDay(zone, deadline),
			name: `Last day: ${title}`,
			text: `${reference} ends if it is not complete by the end of this day.`,
			link: `${config.origin}/packets/${id}`
		});
	// a batch is one line here too
	for (const { id, name, until, out: left, mine } of batchLines(house, account))
		if (until)
			entries.push({
				id: `${id}-deadline`,
				day: isoDay(zone, until),
				name: `Last day: ${name}`,
				text: `${left} of this batch ${left === 1 ? 'is' : 'are'} still out; the first of them ends with this day.`,
				link: `${config.origin}${mine ? `/batches/${id}` : `/desk?batch=${id}`}`
			});
	const termed = db
		.prepare<[typeof seen], { id: string; title: string; reference: string; ends: string }>(
			`SELECT p.id, p.title, p.reference, p.term_end AS ends FROM packets p
			 WHERE p.term_end IS NOT NULL AND ${MAY_SEE_PACKET} ORDER BY p.term_end DESC LIMIT @most`
		)
		.all(seen);
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
