import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';
import type { House } from './house';

/** What is kept locked under PELLUM_KEY. */

/** A key of its own for each use, from this Pellum's secret (HKDF, RFC 5869). */
export function keyFor(house: House, use: string): Buffer {
	return Buffer.from(hkdfSync('sha256', house.config.key, '', `pellum ${use}`, 32));
}

/** nonce (12) ‖ tag (16) ‖ AES-256-GCM, in base 64. */
export function locked(house: House, use: string, secret: string): string {
	const nonce = randomBytes(12);
	const cipher = createCipheriv('aes-256-gcm', keyFor(house, use), nonce);
	const text = Buffer.concat([cipher.update(secret), cipher.final()]);
	return Buffer.concat([nonce, cipher.getAuthTag(), text]).toString('base64');
}

/** Throws where it was locked under another key, or for another use. */
export function unlocked(house: House, use: string, stored: string): string {
	const bytes = Buffer.from(stored, 'base64');
	const decipher = createDecipheriv('aes-256-gcm', keyFor(house, use), bytes.subarray(0, 12));
	decipher.setAuthTag(bytes.subarray(12, 28));
	return decipher.update(bytes.subarray(28), undefined, 'utf8') + decipher.final('utf8');
}
