import type { Db } from '../db';
import { newToken, tokenHash } from '../ids';

export interface Link {
	packet: string;
	person: string;
	revoked: boolean;
}

/** A new link's secret for a person. Older ones stay good: they may stand in a message that is read later. */
export function newLink(db: Db, packet: string, person: string, now: Date): string {
	const { token, hash } = newToken();
	db.prepare('INSERT INTO links (token_hash, packet, person, created_at) VALUES (?, ?, ?, ?)').run(
		hash,
		packet,
		person,
		now.toISOString()
	);
	return token;
}

export function findLink(db: Db, token: string): Link | null {
	const row = db
		.prepare<[string], { packet: string; person: string; revoked_at: string | null }>(
			'SELECT packet, person, revoked_at FROM links WHERE token_hash = ?'
		)
		.get(tokenHash(token));
	return row ? { packet: row.packet, person: row.person, revoked: row.revoked_at !== null } : null;
}

export function revokeLinks(db: Db, packet: string, person: string, now: Date): void {
	db.prepare('UPDATE links SET revoked_at = ? WHERE packet = ? AND person = ? AND revoked_at IS NULL').run(
		now.toISOString(),
		packet,
		person
	);
}
