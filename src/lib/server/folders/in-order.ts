import type { Account } from '../accounts/levels';
import type { Db } from '../db';
import { closedTo } from './seeing';

/**
 * A page of what an account may see of a long list, for accounts that don't see everything: each folder they see into, what they
 * have sent and where they take part are read in the list's order and laid together, so that whoever sees ten packets of a hundred
 * thousand never waits for the others to be walked past.
 */

interface Place {
	id: string;
	at: string;
}

/** `open`: those that are out, longest wait first; `ended`: those that are over, newest end first. */
export type LongList = 'open' | 'ended';

/** What somebody takes part in without seeing into its folder: more of it than this is found by its words. */
const MOST_PARTS = 500;

/** The ids of a page, in order; null where the account sees everything, and the list can be read as it is. */
export function inOrder(db: Db, account: Account, list: LongList, most: number, offset: number): string[] | null {
	const hidden = closedTo(db, account, 'sees');
	if (hidden.length === 0) return null;
	const folders = db.prepare<[], string>('SELECT name FROM folders').pluck().all();
	const end = offset + most;
	const lying = inFolder(db, list);
	const places: Place[] = ['', ...folders.filter((name) => !hidden.includes(name))].flatMap((folder) =>
		lying.all(folder, end)
	);
	places.push(...mine(db, list).all(account.id, end));
	places.push(...partsOf(db, list).all(account.email, JSON.stringify(hidden), MOST_PARTS));
	const way = list === 'open' ? 1 : -1;
	const ids = places.sort((a, b) => (a.at < b.at ? -way : a.at > b.at ? way : 0)).map(({ id }) => id);
	return [...new Set(ids)].slice(offset, end);
}

const inFolder = (db: Db, list: LongList) =>
	list === 'open'
		? db.prepare<[string, number], Place>(
				`SELECT id, since AS at FROM packets INDEXED BY packets_open_in
				 WHERE folder = ? AND ended_at IS NULL ORDER BY since LIMIT ?`
			)
		: db.prepare<[string, number], Place>(
				`SELECT id, ended_at AS at FROM packets INDEXED BY packets_ended_in
				 WHERE folder = ? AND ended_at IS NOT NULL ORDER BY ended_at DESC LIMIT ?`
			);

const mine = (db: Db, list: LongList) =>
	list === 'open'
		? db.prepare<[string, number], Place>(
				`SELECT id, since AS at FROM packets INDEXED BY packets_mine
				 WHERE owner = ? AND ended_at IS NULL ORDER BY since LIMIT ?`
			)
		: db.prepare<[string, number], Place>(
				`SELECT id, ended_at AS at FROM packets INDEXED BY packets_mine_ended
				 WHERE owner = ? AND ended_at IS NOT NULL ORDER BY ended_at DESC LIMIT ?`
			);

const partsOf = (db: Db, list: LongList) =>
	list === 'open'
		? db.prepare<[string, string, number], Place>(
				`SELECT p.id, p.since AS at FROM packet_people q INDEXED BY people_packets CROSS JOIN packets p ON p.id = q.packet
				 WHERE q.email = ? COLLATE NOCASE AND p.folder IN (SELECT value FROM json_each(?)) AND p.ended_at IS NULL LIMIT ?`
			)
		: db.prepare<[string, string, number], Place>(
				`SELECT p.id, p.ended_at AS at FROM packet_people q INDEXED BY people_packets CROSS JOIN packets p ON p.id = q.packet
				 WHERE q.email = ? COLLATE NOCASE AND p.folder IN (SELECT value FROM json_each(?)) AND p.ended_at IS NOT NULL LIMIT ?`
			);
