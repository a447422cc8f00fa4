import { randomBytes, scryptSync, X509Certificate } from 'node:crypto';
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { makeIdentity, organisationIn, toPem, type Identity, type SealKeys } from '../press';
import { cutText } from '../core/clean-text';
import type { Db } from './db';
import type { House } from './house';
import { BY_ITSELF, note } from './office-record';
import { lockBytes, unlockBytes } from './secrets';
import { organisation } from './settings';

interface Row {
	certificate: Buffer;
	issuer: Buffer;
	crl: Buffer;
	locked_key: Buffer;
}

/** Under a secret it was locked with, each key is unlocked once: scrypt takes long, and is meant to. */
const unlocked = new WeakMap<object, Map<string, Identity>>();
/** One after the other for each database, so that two who seal at once don't make two keys. */
const making = new WeakMap<object, Promise<unknown>>();

/**
 * The keys that seal now, made when first asked for; after the organisation has another name, new ones under that name, the
 * old ones kept for what they have sealed. Throws where PELLUM_KEY is not the one they were locked with.
 */
export function sealKeys(house: House): Promise<SealKeys> {
	const next = (making.get(house.db) ?? Promise.resolve())
		.catch(() => {})
		.then(async () => ({
			seal: await sealIdentity(house),
			stamp: await identityNamed(house, 'stamp', 'Pellum stand-in')
		}));
	making.set(house.db, next);
	return next;
}

/** Looks at start whether the keys that there are can be unlocked; makes none, as nobody may have named the organisation yet. */
export function checkKeys(house: House): void {
	// one that was restored without its key only serves to check what it has sealed
	for (const { name, bare } of keyNames(house.db)) if (bare === 0) stored(house, name);
	writeTrust(house);
}

/** The root certificates as PEM: what somebody must trust to check Pellum's copies, those of earlier names among them. */
export async function trustedRoots(house: House): Promise<{ name: string; pem: string }[]> {
	await sealKeys(house);
	return rootsOf(house.db);
}

const keyNames = (db: Db): { name: string; bare: number }[] =>
	db
		.prepare<[], { name: string; bare: number }>('SELECT name, length(locked_key) = 0 AS bare FROM keys ORDER BY name')
		.all();

/** The roots of all keys that there are; of earlier ones with the day from which they were not used any more. */
export function rootsOf(db: Db): { name: string; pem: string }[] {
	return db
		.prepare<[], { name: string; issuer: Buffer }>('SELECT name, issuer FROM keys ORDER BY name')
		.all()
		.map(({ name, issuer }) => ({
			name: `${name.replace(/^seal/, 'organisation').replace(/^stamp/, 'time-stamp')}-root.pem`,
			pem: toPem(issuer)
		}));
}

/** Under the organisation's name as it is now. */
const sealIdentity = (house: House): Promise<Identity> => identityNamed(house, 'seal', organisation(house.db).name);

/** The key of a notary of the stand-in, made when first asked for, and anew under another name. */
export const notaryIdentity = (house: House, id: string, name: string): Promise<Identity> =>
	identityNamed(house, `notary-${id}`, name);

/** So long before its certificate ends another one takes its place: until then either is good. */
const OVERLAP = 2 * 365.25 * 86_400_000;

const endsSoon = (house: House, { certificate }: Identity): boolean =>
	Date.parse(new X509Certificate(certificate).validTo) - house.now().getTime() < OVERLAP;

/** What signs under this name, until its certificate is near its end; what signed before is kept for what it has signed. */
async function identityNamed(house: House, name: KeyName, of: string): Promise<Identity> {
	const now = stored(house, name);
	if (now && (organisationIn(now.certificate) !== cutText(of, 64) || endsSoon(house, now))) {
		const until = house.now().toISOString().slice(0, 19).replaceAll(/[:T]/g, '-');
		house.db.prepare('UPDATE keys SET name = ? WHERE name = ?').run(`${name}-until-${until}`, name);
		unlocked.get(house.db)?.delete(name);
	}
	return identity(house, name, of);
}

function stored(house: House, name: string): Identity | null {
	const kept = unlocked.get(house.db) ?? new Map<string, Identity>();
	unlocked.set(house.db, kept);
	const known = kept.get(name);
	if (known) return known;
	const row = house.db
		.prepare<[string], Row>('SELECT certificate, issuer, crl, locked_key FROM keys WHERE name = ?')
		.get(name);
	if (!row) return null;
	const found = {
		certificate: row.certificate,
		issuer: row.issuer,
		crl: row.crl,
		key: unlock(house.config.key, row.locked_key)
	};
	kept.set(name, found);
	return found;
}

type KeyName = 'seal' | 'stamp' | `notary-${string}`;
const USE = { seal: 'sealing', stamp: 'time-stamping', notary: 'a notary’s acts' } as const;

async function identity(house: House, name: KeyName, of: string): Promise<Identity> {
	const there = stored(house, name);
	if (there) return there;
	const use = name.split('-')[0] as keyof typeof USE;
	const made = await makeIdentity(of, use, house.now());
	house.db
		.prepare('INSERT INTO keys (name, certificate, issuer, crl, locked_key) VALUES (?, ?, ?, ?, ?)')
		.run(
			name,
			Buffer.from(made.certificate),
			Buffer.from(made.issuer),
			Buffer.from(made.crl),
			lock(house.config.key, made.key)
		);
	unlocked.get(house.db)!.set(name, made);
	note(house, BY_ITSELF, { type: 'KeysMade', key: USE[use], of });
	writeTrust(house);
	return made;
}

/** Beside the database, so that `verify` needs only the folder. */
function writeTrust(house: House): void {
	if (house.db.memory) return;
	const folder = path.join(house.config.folder, 'trust');
	mkdirSync(folder, { recursive: true });
	for (const { name, pem } of rootsOf(house.db)) writeFileSync(path.join(folder, name), pem);
}

/** salt (16) ‖ the key, locked under scrypt of the secret. */
function lock(secret: string, key: Uint8Array): Buffer {
	const salt = randomBytes(16);
	return Buffer.concat([salt, lockBytes(scryptSync(secret, salt, 32), key)]);
}

function unlock(secret: string, stored: Buffer): Uint8Array {
	try {
		return unlockBytes(scryptSync(secret, stored.subarray(0, 16), 32), stored.subarray(16));
	} catch {
		throw new Error('PELLUM_KEY is not the one the private keys of this data folder are locked with.');
	}
}
