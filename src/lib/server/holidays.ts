import { cutText, oneLine } from '../core/clean-text';
import { daysOf, type CalendarDay } from '../core/icalendar';
import { dayOf } from '../core/rule';
import { isRefusal, refuse, type Refusal } from '../core/refusal';
import type { House } from './house';

/** The organisation's public holidays: days on which nobody works, for deadlines that count working days. */

export function holidayList({ db }: Pick<House, 'db'>): CalendarDay[] {
	return db.prepare<[], CalendarDay>('SELECT day, name FROM holidays ORDER BY day').all();
}

/** Takes the days of a calendar file in, this year's and of the ten after; a day that is there already gets the new name. */
export function importHolidays(house: House, text: string): { added: number } | Refusal {
	const year = house.now().getUTCFullYear();
	const days = daysOf(text, year, year + 10);
	if (isRefusal(days)) return days;
	const add = house.db.prepare(
		'INSERT INTO holidays (day, name) VALUES (?, ?) ON CONFLICT (day) DO UPDATE SET name = excluded.name'
	);
	house.db.transaction(() => days.forEach(({ day, name }) => add.run(day, name)))();
	return { added: days.length };
}

export function addHoliday(house: House, day: string, name: string): Refusal | null {
	if (!dayOf(day)) return refuse('day-bad', 'The calendar has no such day.', 'day');
	house.db
		.prepare('INSERT INTO holidays (day, name) VALUES (?, ?) ON CONFLICT (day) DO UPDATE SET name = excluded.name')
		.run(day, cutText(oneLine(name.trim()), 120) || 'Holiday');
	return null;
}

export function removeHoliday(house: House, day: string): void {
	house.db.prepare('DELETE FROM holidays WHERE day = ?').run(day);
}
