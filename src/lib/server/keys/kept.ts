import { randomBytes, scryptSync } from 'node:crypto';
import { firstDer, type Identity } from '../../press';
import type { House } from '../house';
import { lockBytes, unlockBytes } from '../secrets';
import { betweenOf, betweenText } from './between';
import { asideName, type KeyName } from './names';

/** Keys as the database keeps them: locked, each under its name; one that is not used any more has the day behind it. */

interface Row {
	certificate: Buffer;
	issuer: Buffer;
	crl: Buffer;
	between_them: string;
	locked_key: Buffer;
	own: 0 | 1;
}

export type Stored = Identity & {
	/** of the root, where it was made here; by an older Pellum it was not kept */
	rootKey: Uint8Array | null;
	own: boolean;
};

/** Under a secret it was locked with, each key is unlocked once: scrypt takes long, and is meant to. */
const unlocked = new WeakMap<object, Map<string, Stored>>();

/** Under another name from now on: for what it has signed. */
export function putAside(house: House, name: string): void {
	house.db.prepare('UPDATE keys SET name = ? WHERE name = ?').run(asideName(name, house.now()), name);
	forget(house, name);
}

/** The key of that name, unlocked; null where there is none. Throws where PELLUM_KEY is another one. */
export function stored(house: House, name: string): Stored | null {
	const kept = unlocked.get(house.db) ?? new Map<string, Stored>();
	unlocked.set(house.db, kept);
	const known = kept.get(name);
	if (known) return known;
	const row = house.db
		.prepare<[string], Row>('SELECT certificate, issuer, crl, between_them, locked_key, own FROM keys WHERE name = ?')
		.get(name);
	if (!row) return null;
	const both = unlock(house.config.key, row.locked_key);
	const key = firstDer(both);
	const found: Stored = {
		certificate: row.certificate,
		issuer: row.issuer,
		crl: row.crl,
		between: betweenOf(row.between_them),
		key,
		rootKey: key.length < both.length ? both.subarray(key.length) : null,
		own: row.own === 1
	};
	kept.set(name, found);
	return found;
}

export function keep(house: House, name: KeyName, made: Stored): void {
	house.db
		.prepare(
			'INSERT INTO keys (name, certificate, issuer, crl, between_them, locked_key, own) VALUES (?, ?, ?, ?, ?, ?, ?)'
		)
		.run(
			name,
			Buffer.from(made.certificate),
			Buffer.from(made.issuer),
			Buffer.from(made.crl),
			betweenText(made),
			lock(house.config.key, Buffer.concat([made.key, made.rootKey ?? Buffer.alloc(0)])),
			made.own ? 1 : 0
		);
	unlocked.get(house.db)?.set(name, made);
}

/** Newer lists of the certificate that was taken in. */
export function keepLists(house: House, own: Identity): void {
	house.db
		.prepare("UPDATE keys SET crl = ?, between_them = ? WHERE name = 'seal' AND own = 1")
		.run(Buffer.from(own.crl), betweenText(own));
	forget(house, 'seal');
}

/** What was unlocked of it is as good as forgotten: its row has changed. */
export function forget(house: House, name: string): void {
	unlocked.get(house.db)?.delete(name);
}

/** salt (16) ‖ the key, locked under scrypt of the secret. */
function lock(secret: string, key: Uint8Array): Buffer {
	const salt = randomBytes(16);
	return Buffer.concat([salt, lockBytes(scryptSync(secret, salt, 32), key)]);
}

function unlock(secret: string, kept: Buffer): Uint8Array {
	try {
		return unlockBytes(scryptSync(secret, kept.subarray(0, 16), 32), kept.subarray(16));
	} catch {
		throw new Error('PELLUM_KEY is not the one the private keys of this data folder are locked with.');
	}
}
