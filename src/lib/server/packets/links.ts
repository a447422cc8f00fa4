import type { Db } from '../db';
import { dropUnfinished } from '../identity/store';
import { newToken, tokenHash } from '../ids';

export interface Link {
	packet: string;
	person: string;
	revoked: boolean;
	/** until when it holds; null: as long as the packet */
	expiresAt: string | null;
	/** whose part it is now, where it was handed over */
	passedTo: string | null;
}

/**
 * A new link's secret for a person. Older ones stay good: they may stand in a message that is read later.
 * @param hours how long it holds; without it, as long as the packet
 */
export function newLink(db: Db, packet: string, person: string, now: Date, hours?: number): string {
	const { token, hash } = newToken();
	db.prepare('INSERT INTO links (token_hash, packet, person, created_at, expires_at) VALUES (?, ?, ?, ?, ?)').run(
		hash,
		packet,
		person,
		now.toISOString(),
		hours === undefined ? null : new Date(now.getTime() + hours * 3_600_000).toISOString()
	);
	return token;
}

export function findLink(db: Db, token: string): Link | null {
	const row = db
		.prepare<
			[string],
			{ packet: string; person: string; revoked_at: string | null; expires_at: string | null; passed_to: string | null }
		>('SELECT packet, person, revoked_at, expires_at, passed_to FROM links WHERE token_hash = ?')
		.get(tokenHash(token));
	return row
		? {
				packet: row.packet,
				person: row.person,
				revoked: row.revoked_at !== null,
				expiresAt: row.expires_at,
				passedTo: row.passed_to
			}
		: null;
}

/** The links of a person die, with what was taken by them and not handed in. @param passedTo whose part it is now, so that the old link can say so */
export function revokeLinks(db: Db, packet: string, person: string, now: Date, passedTo: string | null = null): void {
	db.prepare(
		'UPDATE links SET revoked_at = ?, passed_to = ? WHERE packet = ? AND person = ? AND revoked_at IS NULL'
	).run(now.toISOString(), passedTo, packet, person);
	dropUnfinished(db, packet, person);
}
