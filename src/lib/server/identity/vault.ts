import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import type { House } from '../house';
import { keyFor } from '../secrets';

/** Bytes locked under a key: nonce (12) ‖ tag (16) ‖ AES-256-GCM (NIST SP 800-38D). */
export function lockBytes(key: Buffer, bytes: Uint8Array): Buffer {
	const nonce = randomBytes(12);
	const cipher = createCipheriv('aes-256-gcm', key, nonce);
	const text = Buffer.concat([cipher.update(bytes), cipher.final()]);
	return Buffer.concat([nonce, cipher.getAuthTag(), text]);
}

/** Throws where they were locked under another key, or have been changed. */
export function unlockBytes(key: Buffer, locked: Buffer): Buffer {
	const decipher = createDecipheriv('aes-256-gcm', key, locked.subarray(0, 12));
	decipher.setAuthTag(locked.subarray(12, 28));
	return Buffer.concat([decipher.update(locked.subarray(28)), decipher.final()]);
}

const USE = 'identity pictures';

/** A new key, as it is kept. */
export const newLockedKey = (house: House): Buffer => lockBytes(keyFor(house, USE), randomBytes(32));

export const openKey = (house: House, locked: Buffer): Buffer => unlockBytes(keyFor(house, USE), locked);
