import { canonicalJson } from '../../core/audit';
import { CLOCKS, countedIn, facetsOf, mondayOf, type CountedWait, type OfficeDays } from '../../core/pace';
import type { Recorded, SentPacket } from '../../core/packet';
import { ownerBy } from '../packets/act';
import type { Db } from '../db';

/** The counts that Pace rests on: what a packet counts towards is taken off and added as its events come, never counted anew. */

type Row = CountedWait & { packet: string };

export const WAIT_COLUMNS = `of, person, template, version, type, sender, folder, duty, delivery, language, part_of_day AS partOfDay, hour, began, over_at AS overAt,
 days, working, how, reminded, warned, texted`;

/** What is counted of a packet now, in the order of their keys. */
export const countedOf = (db: Db, packet: string): CountedWait[] =>
	db
		.prepare<[string], CountedWait>(`SELECT ${WAIT_COLUMNS} FROM waits WHERE packet = ? ORDER BY of, person`)
		.all(packet);

/** What should be counted of a packet, from its events; nothing where it is not there. In the order of their keys. */
export function toCount(state: SentPacket, events: readonly Recorded[], days: OfficeDays): CountedWait[] {
	const key = (wait: CountedWait) => `${wait.of}\n${wait.person}`;
	return countedIn(state, events, ownerBy(events[0]!), days).sort((a, b) => (key(a) < key(b) ? -1 : 1));
}

/**
 * Counts a packet as it should be, taking off what was counted before. Runs in the caller's transaction.
 * @param wanted nothing where it is gone
 */
export function count(db: Db, packet: string, wanted: readonly CountedWait[]): void {
	const said = (wait: CountedWait) => canonicalJson(wait);
	const had = countedOf(db, packet);
	const wants = new Set(wanted.map(said));
	const has = new Set(had.map(said));
	for (const wait of had.filter((one) => !wants.has(said(one)))) {
		add(db, wait, -1);
		db.prepare('DELETE FROM waits WHERE packet = ? AND of = ? AND person = ?').run(packet, wait.of, wait.person);
	}
	for (const wait of wanted.filter((one) => !has.has(said(one)))) {
		add(db, wait, 1);
		db.prepare<[Row]>(
			`INSERT INTO waits (packet, of, person, template, version, type, sender, folder, duty, delivery, language, part_of_day, hour, began, over_at,
			 days, working, how, reminded, warned, texted)
			 VALUES (@packet, @of, @person, @template, @version, @type, @sender, @folder, @duty, @delivery, @language, @partOfDay, @hour, @began, @overAt,
			 @days, @working, @how, @reminded, @warned, @texted)`
		).run({ packet, ...wait });
	}
}

function add(db: Db, wait: CountedWait, n: 1 | -1): void {
	const { of, folder, how } = wait;
	for (const [facet, value] of facetsOf(wait)) {
		const key = { of, facet, value, folder, n };
		if (how === null) addOpen(db, { ...key, began: wait.began.slice(0, 13) });
		else
			for (const clock of CLOCKS)
				addOver(db, {
					...key,
					clock,
					week: mondayOf(wait.began),
					days: clock === 'all' ? wait.days! : wait.working!,
					how
				});
	}
}

function addOpen(db: Db, row: object): void {
	const left = db
		.prepare<[object], number>(
			`INSERT INTO wait_open (of, facet, value, began, folder, n) VALUES (@of, @facet, @value, @began, @folder, @n)
			 ON CONFLICT DO UPDATE SET n = n + excluded.n RETURNING n`
		)
		.pluck()
		.get(row);
	if (left === 0)
		db.prepare(
			'DELETE FROM wait_open WHERE of = @of AND facet = @facet AND value = @value AND began = @began AND folder = @folder'
		).run(row);
}

function addOver(db: Db, row: object): void {
	const left = db
		.prepare<[object], number>(
			`INSERT INTO wait_counts (of, facet, value, clock, week, folder, days, how, n)
			 VALUES (@of, @facet, @value, @clock, @week, @folder, @days, @how, @n)
			 ON CONFLICT DO UPDATE SET n = n + excluded.n RETURNING n`
		)
		.pluck()
		.get(row);
	if (left === 0)
		db.prepare(
			`DELETE FROM wait_counts WHERE of = @of AND facet = @facet AND value = @value AND clock = @clock AND week = @week
			 AND folder = @folder AND days = @days AND how = @how`
		).run(row);
}
