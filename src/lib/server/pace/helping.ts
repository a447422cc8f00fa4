import {
	cameAfter,
	cameAfterInWords,
	daysFrom,
	type CameAfter,
	usualTime,
	usualTimeInWords,
	type End,
	type Touched
} from '../../core/pace';
import type { Db } from '../db';
import type { House } from '../house';
import { organisation } from '../settings';

/** What may help with a packet: when somebody usually answers, and what came after a reminder. Seen, and not as cause. */

const MOST_ANSWERS = 50;
/** So many days after a reminder are looked at. */
const WITHIN = 2;

/** The one thing that may help with a packet that will likely be late; '' where the records show none. */
export function helpsWith(house: House, packet: string): string {
	const { db } = house;
	const having = db
		.prepare<[string], { name: string; email: string }>(
			"SELECT name, email FROM packet_people WHERE packet = ? AND standing IN ('notified', 'opened')"
		)
		.all(packet);
	for (const { name, email } of having) {
		const when = email === '' ? null : usualTime(answersOf(db, email), organisation(db).zone);
		if (when) return `${name} mostly answers ${usualTimeInWords(when)}: remind then.`;
	}
	const template = db.prepare<[string], string | null>('SELECT template FROM packets WHERE id = ?').pluck().get(packet);
	const seen = template ? cameAfter(touchedOf(house, template, 'reminded'), WITHIN) : null;
	if (!seen || seen.difference.low <= 0) return '';
	return `A reminder: ${cameAfterInWords(seen)}`;
}

/** When somebody was done with their parts, the newest first. */
function answersOf(db: Db, email: string): string[] {
	return db
		.prepare<[string, number], string>(
			`SELECT w.over_at FROM packet_people q INDEXED BY people_packets
			 CROSS JOIN waits w ON w.packet = q.packet AND w.of = 'part' AND w.person = q.person
			 WHERE q.email = ? COLLATE NOCASE AND w.how = 'done' ORDER BY q.packet DESC LIMIT ?`
		)
		.pluck()
		.all(email, MOST_ANSWERS);
}

/** What can be done about a part, as `waits` calls it. */
export type Touch = 'reminded' | 'warned' | 'texted';

/** What came after each within two days, beside like parts of the template without. */
export const helpedOf = (house: House, template: string): Record<Touch, CameAfter | null> => ({
	reminded: cameAfter(touchedOf(house, template, 'reminded'), WITHIN),
	warned: cameAfter(touchedOf(house, template, 'warned'), WITHIN),
	texted: cameAfter(touchedOf(house, template, 'texted'), WITHIN)
});

/** So many parts of a template are set beside each other, the newest: more would take longer than they tell. */
const MOST_PARTS = 200;

/** The newest parts of a template, each with when it was first reminded, warned of its last day or told by a text message. */
function touchedOf(house: House, template: string, by: Touch): Touched[] {
	const now = house.now().toISOString();
	const touch = {
		reminded: { column: 'reminded' },
		warned: { column: 'warned' },
		texted: { column: 'texted' }
	}[by]!;
	return house.db
		.prepare<
			[string, number],
			{ began: string; overAt: string | null; how: End | 'left open' | null; touched: string | null }
		>(
			`SELECT began, over_at AS overAt, how, ${touch.column} AS touched FROM waits INDEXED BY waits_of_template
			 WHERE of = 'part' AND template = ? ORDER BY began DESC LIMIT ?`
		)
		.all(template, MOST_PARTS)
		.map(({ began, overAt, how, touched }) => ({
			days: daysFrom(began, overAt ?? now),
			end: how === 'left open' ? null : how,
			touched: touched === null ? null : daysFrom(began, touched)
		}));
}
