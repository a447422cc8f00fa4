import { createHmac, randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import type { PlanPerson } from '../../core/packet';
import { refuse, type Refusal } from '../../core/refusal';
import type { House } from '../house';

/** How long a one-time code holds. */
export const CODE_MINUTES = 10;

/** A code as it is kept: keyed by this Pellum's secret, since six digits alone could be tried through. `salt:hex`. */
export function hashedCode(house: House, code: string, salt = randomBytes(12).toString('hex')): string {
	return `${salt}:${createHmac('sha256', house.config.key)
		.update(`${salt} ${plain(code)}`)
		.digest('hex')}`;
}

/** Blanks, hyphens and case are how people write a code down, not part of it. */
function plain(code: string): string {
	return code.replaceAll(/[\s-]/g, '').toUpperCase();
}

/** Whether a code is the one that was kept. */
export function codeFits(house: House, code: string, hash: string): boolean {
	const made = Buffer.from(hashedCode(house, code, hash.split(':')[0]));
	const kept = Buffer.from(hash);
	return made.length === kept.length && timingSafeEqual(made, kept);
}

/** Six digits by chance. */
export const sixDigits = (): string => String(randomInt(1_000_000)).padStart(6, '0');

/** A new one-time code for a person, in place of any other; only its hash is kept. */
export function newCode(house: House, packet: string, person: string): string {
	const code = sixDigits();
	house.db
		.prepare(
			`INSERT INTO codes (packet, person, hash, expires_at) VALUES (?, ?, ?, ?)
			 ON CONFLICT (packet, person) DO UPDATE SET hash = excluded.hash, expires_at = excluded.expires_at`
		)
		.run(
			packet,
			person,
			hashedCode(house, code),
			new Date(house.now().getTime() + CODE_MINUTES * 60_000).toISOString()
		);
	return code;
}

export function forgetCode(house: House, packet: string, person: string): void {
	house.db.prepare('DELETE FROM codes WHERE packet = ? AND person = ?').run(packet, person);
}

/** Whether the code is the person's. Refuses `code-old` where theirs holds no longer, or none was sent. */
export function isRight(house: House, packet: string, person: PlanPerson, code: string): boolean | Refusal {
	if (person.check?.by === 'code') return codeFits(house, code, person.check.hash);
	const row = house.db
		.prepare<[string, string], { hash: string; expires_at: string }>(
			'SELECT hash, expires_at FROM codes WHERE packet = ? AND person = ?'
		)
		.get(packet, person.id);
	if (!row || row.expires_at < house.now().toISOString())
		return refuse('code-old', 'That code holds no longer. Ask for a new one.');
	return codeFits(house, code, row.hash);
}
