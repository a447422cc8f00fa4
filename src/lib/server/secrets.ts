import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';
import type { House } from './house';

/** What is kept locked under PELLUM_KEY. */

/** A key of its own for each use, from this Pellum's secret (HKDF, RFC 5869). */
export function keyFor(house: House, use: string): Buffer {
	return Buffer.from(hkdfSync('sha256', house.config.key, '', `pellum ${use}`, 32));
}

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

/** A text, locked under the key for its use, in base 64. */
export function locked(house: House, use: string, secret: string): string {
	return lockBytes(keyFor(house, use), Buffer.from(secret)).toString('base64');
}

/** Throws where it was locked under another key, or for another use. */
export function unlocked(house: House, use: string, stored: string): string {
	return unlockBytes(keyFor(house, use), Buffer.from(stored, 'base64')).toString();
}
