import type { IdentityWay } from '../../core/identity';
import type { Db } from '../db';

/** Who showed who they are lately, by their address. */

export function noteKnown(db: Db, email: string, way: IdentityWay, name: string, packet: string, at: string): void {
	db.prepare(
		`INSERT INTO identities_known (email, way, name, packet, at) VALUES (?, ?, ?, ?, ?)
		 ON CONFLICT (email, way) DO UPDATE SET name = excluded.name, packet = excluded.packet, at = excluded.at`
	).run(email, way, name, packet, at);
}

/** When and for which packet they showed it under this name; null where they never did, or not since then. */
export function knownSince(
	db: Db,
	email: string,
	way: IdentityWay,
	name: string,
	since: string
): { packet: string; at: string } | null {
	return (
		db
			.prepare<[string, string, string, string], { packet: string; at: string }>(
				'SELECT packet, at FROM identities_known WHERE email = ? AND way = ? AND name = ? AND at >= ?'
			)
			.get(email, way, name, since) ?? null
	);
}
