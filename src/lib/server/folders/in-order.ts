import type { PacketList, Place } from '../../core/packet';
import type { Account } from '../accounts/levels';
import type { Db } from '../db';
import { closedTo } from './seeing';

/**
 * A page of what an account may see of a long list, for accounts that don't see everything: each folder they see into, what they
 * have sent and where they take part are read in the list's order and laid together, so that whoever sees ten packets of a hundred
 * thousand never waits for the others to be walked past.
 */

interface Laid extends Place {
	id: string;
}

/** What somebody takes part in without seeing into its folder: more of it than this is found by its words. */
const MOST_PARTS = 500;

/** A page's packets, in order, from a place on; null where the account sees everything, and the list can be read as it is. */
export function inOrder(db: Db, account: Account, list: PacketList, most: number, after: Place | null): Laid[] | null {
	const hidden = closedTo(db, account, 'sees');
	if (hidden.length === 0) return null;
	const folders = db.prepare<[], string>('SELECT name FROM folders').pluck().all();
	const way = list === 'open' ? 1 : -1;
	const { at, n } = after ?? { at: way === 1 ? '' : '\u{10ffff}', n: way === 1 ? -1 : Number.MAX_SAFE_INTEGER };
	const lying = inFolder(db, list);
	const places: Laid[] = ['', ...folders.filter((name) => !hidden.includes(name))].flatMap((folder) =>
		lying.all(folder, at, n, most)
	);
	places.push(...mine(db, list).all(account.id, at, n, most));
	const comesAfter = (one: Laid) => (one.at === at ? (one.n - n) * way > 0 : one.at > at === (way === 1));
	places.push(...partsOf(db, list).all(account.email, JSON.stringify(hidden), MOST_PARTS).filter(comesAfter));
	places.sort((a, b) => (a.at < b.at ? -way : a.at > b.at ? way : (a.n - b.n) * way));
	return [...new Map(places.map((one) => [one.id, one])).values()].slice(0, most);
}

const inFolder = (db: Db, list: PacketList) =>
	list === 'open'
		? db.prepare<[string, string, number, number], Laid>(
				`SELECT id, since AS at, rowid AS n FROM packets INDEXED BY packets_open_in
				 WHERE folder = ? AND ended_at IS NULL AND batch IS NULL AND (since, rowid) > (?, ?) ORDER BY since, rowid LIMIT ?`
			)
		: db.prepare<[string, string, number, number], Laid>(
				`SELECT id, ended_at AS at, rowid AS n FROM packets INDEXED BY packets_ended_in
				 WHERE folder = ? AND ended_at IS NOT NULL AND put IS NULL AND (ended_at, rowid) < (?, ?) ORDER BY ended_at DESC, rowid DESC LIMIT ?`
			);

const mine = (db: Db, list: PacketList) =>
	list === 'open'
		? db.prepare<[string, string, number, number], Laid>(
				`SELECT id, since AS at, rowid AS n FROM packets INDEXED BY packets_mine
				 WHERE owner = ? AND ended_at IS NULL AND batch IS NULL AND (since, rowid) > (?, ?) ORDER BY since, rowid LIMIT ?`
			)
		: db.prepare<[string, string, number, number], Laid>(
				`SELECT id, ended_at AS at, rowid AS n FROM packets INDEXED BY packets_mine_ended
				 WHERE owner = ? AND ended_at IS NOT NULL AND put IS NULL AND (ended_at, rowid) < (?, ?) ORDER BY ended_at DESC, rowid DESC LIMIT ?`
			);

const partsOf = (db: Db, list: PacketList) =>
	list === 'open'
		? db.prepare<[string, string, number], Laid>(
				`SELECT p.id, p.since AS at, p.rowid AS n FROM packet_people q INDEXED BY people_packets CROSS JOIN packets p ON p.id = q.packet
				 WHERE q.email = ? COLLATE NOCASE AND p.folder IN (SELECT value FROM json_each(?)) AND p.ended_at IS NULL LIMIT ?`
			)
		: db.prepare<[string, string, number], Laid>(
				`SELECT p.id, p.ended_at AS at, p.rowid AS n FROM packet_people q INDEXED BY people_packets CROSS JOIN packets p ON p.id = q.packet
				 WHERE q.email = ? COLLATE NOCASE AND p.folder IN (SELECT value FROM json_each(?)) AND p.ended_at IS NOT NULL AND p.put IS NULL LIMIT ?`
			);
