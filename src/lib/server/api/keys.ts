import { refuse, type Refusal } from '../../core/refusal';
import { accountById, type Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId, newToken, tokenHash } from '../ids';
import { note, type Doer } from '../office-record';
import { RIGHTS, type Right } from './rights';

/** A key of an account, as its owner sees it: the key itself is shown once, when it is made. */
export interface ApiKey {
	id: string;
	name: string;
	rights: Right[];
	madeAt: string;
	/** ISO 8601, to the minute; null where it never was */
	usedAt: string | null;
	endedAt: string | null;
}

interface Row {
	id: string;
	name: string;
	rights: string;
	madeAt: string;
	usedAt: string | null;
	endedAt: string | null;
}

const MOST_KEYS = 50;

/** Of those that have ended, so many are listed. */
const ENDED_LISTED = 50;

/** Keys of an account: those in use, all of them, then those that ended, the newest first. */
export function keysOf(house: House, account: Account): ApiKey[] {
	const keys = house.db.prepare<[string, number, number], Row>(
		`SELECT id, name, rights, made_at AS madeAt, used_at AS usedAt, ended_at AS endedAt FROM api_keys
		 WHERE account = ? AND (ended_at IS NOT NULL) = ? ORDER BY made_at DESC LIMIT ?`
	);
	return [...keys.all(account.id, 0, MOST_KEYS), ...keys.all(account.id, 1, ENDED_LISTED)].map((row) => ({
		...row,
		rights: JSON.parse(row.rights) as Right[]
	}));
}

/**
 * Makes a key of 256 random bits, of which only the SHA-256 is kept. Refuses `no-name`, `name-taken`, `no-rights` and
 * `too-many-keys`.
 */
export function makeKey(
	house: House,
	by: Doer & { account: Account },
	name: string,
	rights: readonly string[]
): { id: string; key: string } | Refusal {
	const called = name.trim();
	if (called === '') return refuse('no-name', 'Give the key a name, by which the record tells of it.', 'name');
	const granted = RIGHTS.filter((right) => rights.includes(right));
	if (granted.length === 0) return refuse('no-rights', 'Say what the key may do.', 'rights');
	return inTransaction(house.db, () => {
		const used = keysOf(house, by.account).filter((one) => one.endedAt === null);
		if (used.some((one) => one.name === called))
			return refuse('name-taken', `You have a key called “${called}” already.`, 'name');
		if (used.length >= MOST_KEYS)
			return refuse('too-many-keys', `${MOST_KEYS} keys in use are enough. End one that nobody needs.`);
		const id = newId(house.now());
		const { token, hash } = newToken();
		note(house, by, { type: 'ApiKeyMade', key: id, called, account: by.account.id, rights: granted });
		house.db
			.prepare('INSERT INTO api_keys (id, account, name, rights, hash, made_at) VALUES (?, ?, ?, ?, ?, ?)')
			.run(id, by.account.id, called, JSON.stringify(granted), hash, house.now().toISOString());
		return { id, key: `pellum-${token}` };
	});
}

/** Ends a key: whatever comes with it from now on is refused. */
export function endKey(house: House, by: Doer & { account: Account }, id: string): Refusal | null {
	return inTransaction(house.db, () => {
		const key = keysOf(house, by.account).find((one) => one.id === id && one.endedAt === null);
		if (!key) return refuse('no-key', 'There is no such key, or it has ended already.');
		note(house, by, { type: 'ApiKeyEnded', key: id, called: key.name, account: by.account.id });
		house.db.prepare('UPDATE api_keys SET ended_at = ? WHERE id = ?').run(house.now().toISOString(), id);
		return null;
	});
}

/** Who comes with a key: its account, which has its name, and what it may. */
export interface Caller {
	key: string;
	account: Account & { key: string };
	rights: Right[];
}

/** Whose key this is; null where it is nobody's, has ended, or its account is closed. */
export function callerOf(house: House, authorization: string | null): Caller | null {
	const [, token] = /^Bearer +pellum-([\w-]{40,60})$/i.exec(authorization ?? '') ?? [];
	if (!token) return null;
	const row = house.db
		.prepare<[string], { id: string; account: string; name: string; rights: string; usedAt: string | null }>(
			'SELECT id, account, name, rights, used_at AS usedAt FROM api_keys WHERE hash = ? AND ended_at IS NULL'
		)
		.get(tokenHash(token));
	const account = row && accountById(house, row.account);
	if (!row || !account) return null;
	const now = house.now().toISOString();
	// to the minute: a program that asks each second writes no row each second
	if (now.slice(0, 16) !== row.usedAt?.slice(0, 16))
		house.db.prepare('UPDATE api_keys SET used_at = ? WHERE id = ?').run(now, row.id);
	return { key: row.id, account: { ...account, key: row.name }, rights: JSON.parse(row.rights) as Right[] };
}
