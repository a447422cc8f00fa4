import { createCipheriv, createDecipheriv, randomBytes, scryptSync } from 'node:crypto';
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { makeIdentity, toPem, type Identity, type SealKeys } from '../press';
import type { House } from './house';
import { organisation } from './settings';

interface Row {
	certificate: Buffer;
	issuer: Buffer;
	crl: Buffer;
	locked_key: Buffer;
}

const unlocked = new WeakMap<object, SealKeys>();

/** The organisation's keys, made when first asked for. Throws where PELLUM_KEY is not the one they were locked with. */
export async function sealKeys(house: House): Promise<SealKeys> {
	let keys = unlocked.get(house.db);
	if (!keys) {
		keys = { seal: await identity(house, 'seal'), stamp: await identity(house, 'stamp') };
		unlocked.set(house.db, keys);
		writeTrust(house, keys);
	}
	return keys;
}

/** The two root certificates as PEM: what somebody must trust to check Pellum's copies. */
export async function trustedRoots(house: House): Promise<{ name: string; pem: string }[]> {
	const keys = await sealKeys(house);
	return [
		{ name: 'organisation-root.pem', pem: toPem(keys.seal.issuer) },
		{ name: 'time-stamp-root.pem', pem: toPem(keys.stamp.issuer) }
	];
}

async function identity(house: House, name: 'seal' | 'stamp'): Promise<Identity> {
	const row = house.db
		.prepare<[string], Row>('SELECT certificate, issuer, crl, locked_key FROM keys WHERE name = ?')
		.get(name);
	if (row)
		return {
			certificate: row.certificate,
			issuer: row.issuer,
			crl: row.crl,
			key: unlock(house.config.key, row.locked_key)
		};
	const made = await makeIdentity(name === 'seal' ? organisation(house.db).name : 'Pellum stand-in', name, house.now());
	house.db
		.prepare('INSERT INTO keys (name, certificate, issuer, crl, locked_key) VALUES (?, ?, ?, ?, ?)')
		.run(
			name,
			Buffer.from(made.certificate),
			Buffer.from(made.issuer),
			Buffer.from(made.crl),
			lock(house.config.key, made.key)
		);
	return made;
}

/** Beside the database, so that `verify` needs only the folder. */
function writeTrust(house: House, keys: SealKeys): void {
	if (house.db.memory) return;
	const folder = path.join(house.config.folder, 'trust');
	mkdirSync(folder, { recursive: true });
	writeFileSync(path.join(folder, 'organisation-root.pem'), toPem(keys.seal.issuer));
	writeFileSync(path.join(folder, 'time-stamp-root.pem'), toPem(keys.stamp.issuer));
}

/** salt (16) ‖ nonce (12) ‖ tag (16) ‖ AES-256-GCM of the key, under scrypt of the secret. */
function lock(secret: string, key: Uint8Array): Buffer {
	const salt = randomBytes(16);
	const nonce = randomBytes(12);
	const cipher = createCipheriv('aes-256-gcm', scryptSync(secret, salt, 32), nonce);
	const locked = Buffer.concat([cipher.update(key), cipher.final()]);
	return Buffer.concat([salt, nonce, cipher.getAuthTag(), locked]);
}

function unlock(secret: string, stored: Buffer): Uint8Array {
	const decipher = createDecipheriv(
		'aes-256-gcm',
		scryptSync(secret, stored.subarray(0, 16), 32),
		stored.subarray(16, 28)
	);
	decipher.setAuthTag(stored.subarray(28, 44));
	try {
		return Buffer.concat([decipher.update(stored.subarray(44)), decipher.final()]);
	} catch {
		throw new Error('PELLUM_KEY is not the one the private keys of this data folder are locked with.');
	}
}
