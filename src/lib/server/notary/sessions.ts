import type { Db } from '../db';

/** A session that is to come or going on, for whoever keeps the notaries. */
export interface SessionRow {
	packet: string;
	title: string;
	reference: string;
	starts: string | null;
	running: boolean;
	people: number;
	signed: number;
	since: string;
}

const MOST = 50;

/** Of one notary, the oldest first. */
export function sessionsOf(db: Db, commission: string): SessionRow[] {
	return db
		.prepare<[string, number], Omit<SessionRow, 'running'> & { running: number }>(
			`SELECT s.packet, p.title, p.reference, s.starts, s.running, s.people, s.signed, s.since
			 FROM packet_sessions s CROSS JOIN packets p ON p.id = s.packet
			 WHERE s.commission = ? ORDER BY s.since LIMIT ?`
		)
		.all(commission, MOST)
		.map((row) => ({ ...row, running: row.running === 1 }));
}
