import { randomBytes, scryptSync, X509Certificate } from 'node:crypto';
import { cutText } from '../../core/clean-text';
import {
	firstDer,
	nextUpdateOf,
	listsOf,
	makeIdentity,
	organisationIn,
	suiteFor,
	suiteOf,
	withdrawnBy,
	type HashName,
	type Identity,
	type SealKeys,
	type WithdrawnWhy
} from '../../press';
import { refuse, type Refusal } from '../../core/refusal';
import { inTransaction, type Db } from '../db';
import type { House } from '../house';
import { BY_ITSELF, note, type Doer } from '../office-record';
import { lockBytes, unlockBytes } from '../secrets';
import { organisation } from '../settings';
import { betweenOf, betweenText } from './between';
import { hashNow, methods } from './methods';
import { writeTrust } from './trust';

/** The keys that seal, stamp and notarise: made when they are needed, anew before they end, withdrawn, or taken in. */

interface Row {
	certificate: Buffer;
	issuer: Buffer;
	crl: Buffer;
	between_them: string;
	locked_key: Buffer;
	own: 0 | 1;
}

type Stored = Identity & {
	/** of the root, where it was made here; by an older Pellum it was not kept */
	rootKey: Uint8Array | null;
	own: boolean;
};

/** Under a secret it was locked with, each key is unlocked once: scrypt takes long, and is meant to. */
const unlocked = new WeakMap<object, Map<string, Stored>>();
/** One after the other for each database, so that two who seal at once don't make two keys. */
const making = new WeakMap<object, Promise<unknown>>();

/**
 * The keys that seal now, made when first asked for; after the organisation has another name, new ones under that name, the
 * old ones kept for what they have sealed. Throws where PELLUM_KEY is not the one they were locked with, and where the revocation
 * list of a certificate that was taken in has ended, as nobody would believe what it seals.
 */
export async function sealKeys(house: House): Promise<SealKeys> {
	const keys = await keysThere(house);
	const own = ownIdentity(house);
	if (own) checkLists(house, own);
	return keys;
}

/** As {@link sealKeys}, for what doesn't seal: also where a list has ended. */
export function keysThere(house: House): Promise<SealKeys> {
	return inTurn(house, async () => ({
		seal: await identityNamed(house, 'seal', organisation(house.db).name),
		stamp: await identityNamed(house, 'stamp', 'Pellum stand-in')
	}));
}

/** The key of a notary of the stand-in, made when first asked for, and anew under another name. */
export const notaryIdentity = (house: House, id: string, name: string): Promise<Identity> =>
	identityNamed(house, `notary-${id}`, name);

function inTurn<T>(house: House, work: () => Promise<T>): Promise<T> {
	const next = (making.get(house.db) ?? Promise.resolve()).catch(() => {}).then(work);
	making.set(house.db, next);
	return next;
}

/** Looks at start whether the keys that there are can be unlocked; makes none, as nobody may have named the organisation yet. */
export function checkKeys(house: House): void {
	// one that was restored without its key only serves to check what it has sealed
	for (const { name, bare } of house.db
		.prepare<[], { name: string; bare: number }>('SELECT name, length(locked_key) = 0 AS bare FROM keys ORDER BY name')
		.all())
		if (bare === 0) stored(house, name);
	writeTrust(house);
}

/** So long before its certificate ends another one takes its place: until then either is good. */
export const OVERLAP = 2 * 365.25 * 86_400_000;

/** When its certificate ends, in ms. */
export const endOf = ({ certificate }: Pick<Identity, 'certificate'>): number =>
	Date.parse(new X509Certificate(certificate).validTo);

/** Until when what this clock has stamped is proven by it, ISO 8601, and by which method. */
export const provesUntil = (stamp: Pick<Identity, 'certificate'>): { until: string; method: HashName } => ({
	until: new Date(endOf(stamp)).toISOString(),
	method: suiteFor(new X509Certificate(stamp.certificate).publicKey)?.hash ?? 'sha256'
});

/** As {@link provesUntil}, of what was stamped at that moment (ISO 8601). */
export function stampsOver(db: Db, at: string): { until: string; method: HashName } {
	const row = db
		.prepare<[string], { certificate: Buffer }>(
			`SELECT certificate FROM keys WHERE name = 'stamp' OR (name LIKE 'stamp-until-%' AND name >= 'stamp-until-' || ?)
			 ORDER BY name = 'stamp', name LIMIT 1`
		)
		.get(at.slice(0, 19).replaceAll(/[:T]/g, '-'));
	return row ? provesUntil(row) : { until: at, method: 'sha256' };
}

/** What signs under this name, until its certificate is near its end; what signed before is kept for what it has signed. */
async function identityNamed(house: House, name: KeyName, of: string): Promise<Identity> {
	const now = stored(house, name);
	if (now && !stillSigns(house, now, of)) putAside(house, name);
	return identity(house, name, of);
}

function stillSigns(house: House, now: Stored, of: string): boolean {
	const time = house.now().getTime();
	// one that was taken in names its owner as its authority wrote them, and ends when that says so
	if (now.own) {
		const ended = methods(house.db)[suiteOf(now).hash];
		return time < endOf(now) && !(ended && Date.parse(ended) <= time);
	}
	return (
		organisationIn(now.certificate) === cutText(of, 64) &&
		endOf(now) - time >= OVERLAP &&
		suiteOf(now).hash === hashNow(house.db)
	);
}

/** A seal whose list has ended would not be believed by anybody: better none until there is a newer one. */
function checkLists(house: House, own: Identity): void {
	if (listsOf(own).some((list) => listEnd(list) < house.now().getTime()))
		throw new Error(
			'The revocation list of the certificate that was taken in has ended. Add a newer one under Settings, Keys; then it goes on.'
		);
}

/** Under another name from now on: for what it has signed. */
function putAside(house: House, name: string): void {
	const until = house.now().toISOString().slice(0, 19).replaceAll(/[:T]/g, '-');
	house.db.prepare('UPDATE keys SET name = ? WHERE name = ?').run(`${name}-until-${until}`, name);
	unlocked.get(house.db)?.delete(name);
}

function stored(house: House, name: string): Stored | null {
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

export type KeyName = 'seal' | 'stamp' | `notary-${string}`;
const USE = { seal: 'sealing', stamp: 'time-stamping', notary: 'a notary’s acts' } as const;

async function identity(house: House, name: KeyName, of: string): Promise<Identity> {
	const there = stored(house, name);
	if (there) return there;
	const use = name.split('-')[0] as keyof typeof USE;
	const made = await makeIdentity(of, use, house.now(), hashNow(house.db));
	keep(house, name, { ...made, own: false });
	note(house, BY_ITSELF, { type: 'KeysMade', key: USE[use], of });
	writeTrust(house);
	return made;
}

function keep(house: House, name: KeyName, made: Stored): void {
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

/** Seals with this certificate from now on; what sealed before is kept for what it has sealed. */
export function sealWithOwn(house: House, by: Doer, own: Identity): Promise<void> {
	return inTurn(house, async () => {
		inTransaction(house.db, () => {
			if (stored(house, 'seal')) putAside(house, 'seal');
			keep(house, 'seal', { ...own, rootKey: null, own: true });
			note(house, by, { type: 'KeyTakenIn', of: organisationIn(own.certificate) || 'nobody by name' });
		});
		writeTrust(house);
	});
}

/** The certificate that was taken in and seals now; null where one that was made here does. */
export function ownIdentity(house: House): Identity | null {
	const now = stored(house, 'seal');
	return now?.own ? now : null;
}

/** Newer lists of the certificate that was taken in. */
export function keepLists(house: House, own: Identity): void {
	house.db
		.prepare("UPDATE keys SET crl = ?, between_them = ? WHERE name = 'seal' AND own = 1")
		.run(Buffer.from(own.crl), betweenText(own));
	unlocked.get(house.db)?.delete('seal');
	writeTrust(house);
}

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
			unlocked.get(house.db)?.delete(name);
			if (!name.includes('-until-')) putAside(house, name);
			note(house, by, { type: 'KeyWithdrawn', key: nameInWords(name), why, note: words });
		});
		writeTrust(house);
		return said;
	});
}

/** What a key is for, in words. */
export const nameInWords = (name: string): string => {
	const use = USE[name.split('-')[0] as keyof typeof USE];
	return name.includes('-until-') ? `earlier ${use}` : use;
};

/** When a list says that a newer one will be there, in ms; Infinity where it says nothing. */
function listEnd(list: Uint8Array): number {
	return nextUpdateOf(list)?.getTime() ?? Infinity;
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
