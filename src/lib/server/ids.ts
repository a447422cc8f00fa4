import { hash, randomBytes, randomInt } from 'node:crypto';

/** Crockford's base 32: no I, L, O, U, so that it can be read out on the phone. */
const ALPHABET = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';

/** A random id that sorts by the time it was made: 9 characters of time, 14 of chance. */
export function newId(now: Date): string {
	let time = now.getTime();
	let head = '';
	for (let i = 0; i < 9; i++) {
		head = ALPHABET[time % 32]! + head;
		time = Math.floor(time / 32);
	}
	return (head + letters(14)).toLowerCase();
}

/** A packet's short name for people, such as P-7K3QM. */
export function newReference(): string {
	return `P-${letters(5)}`;
}

/** 256 random bits for a link or a session, and the hash that is kept of them. */
export function newToken(): { token: string; hash: string } {
	const token = randomBytes(32).toString('base64url');
	return { token, hash: tokenHash(token) };
}

export function tokenHash(token: string): string {
	return sha256Text(token);
}

export function sha256Text(text: string): string {
	return hash('sha256', text, 'hex');
}

export function sha256Bytes(bytes: Uint8Array): string {
	return hash('sha256', bytes, 'hex');
}

function letters(count: number): string {
	let text = '';
	for (let i = 0; i < count; i++) text += ALPHABET[randomInt(32)];
	return text;
}
