import { refuse, type Refusal } from '../../core/refusal';
import { withdrawnBy, type WithdrawnWhy } from '../../press';
import { inTransaction } from '../db';
import type { House } from '../house';
import { note, type Doer } from '../office-record';
import { inTurn } from './identities';
import { forget, putAside, stored } from './kept';
import { isAside, nameInWords } from './names';
import { writeTrust } from './trust';

/** What is written of a key that was withdrawn. */
export interface Withdrawn {
	at: string;
	why: WithdrawnWhy;
	/** whether its own authority says so in a list */
	listed: boolean;
	note: string;
}

/**
 * Withdraws a key: nothing is signed with it any more, and where it was made here its root says so in a list that goes along with
 * every later time-stamp. Refuses `no-key` and `key-withdrawn`.
 */
export function withdrawKey(
	house: House,
	by: Doer,
	name: string,
	why: WithdrawnWhy,
	words: string
): Promise<Withdrawn | Refusal> {
	return inTurn(house, async () => {
		const row = house.db
			.prepare<[string], { withdrawn: string | null; bare: 0 | 1 }>(
				'SELECT withdrawn, length(locked_key) = 0 AS bare FROM keys WHERE name = ?'
			)
			.get(name);
		if (!row) return refuse('no-key', 'There is no such key any more. Look at the list anew.');
		if (row.withdrawn !== null) return refuse('key-withdrawn', 'It has been withdrawn already.');
		const key = row.bare ? null : stored(house, name)!;
		const at = house.now();
		const list = key?.rootKey ? await withdrawnBy({ ...key, rootKey: key.rootKey }, at, why) : null;
		const said: Withdrawn = { at: at.toISOString(), why, listed: list !== null, note: words };
		inTransaction(house.db, () => {
			if (list) house.db.prepare('UPDATE keys SET crl = ? WHERE name = ?').run(Buffer.from(list), name);
			house.db.prepare('UPDATE keys SET withdrawn = ? WHERE name = ?').run(JSON.stringify(said), name);
			forget(house, name);
			if (!isAside(name)) putAside(house, name);
			note(house, by, { type: 'KeyWithdrawn', key: nameInWords(name), why, note: words });
		});
		writeTrust(house);
		return said;
	});
}
