import type { House } from '../house';

/** Work to be done after a commit: rows that stay until they are done, each under a key that is used once. */

/** What there is to do; each kind is a lane of its own. */
export const KINDS = [
	'seal',
	'message',
	'letter',
	'batch',
	'read',
	'backup',
	'hook',
	'case',
	'follow',
	'identity',
	'paper',
	'notary',
	'words',
	'forget',
	'keeping',
	'pace'
] as const;
export type Kind = (typeof KINDS)[number];

export interface JobRow {
	id: number;
	kind: Kind;
	key: string;
	payload: string;
	attempts: number;
}

/** A job that could not be done yet, for the Desk. */
interface FailingJob {
	kind: string;
	attempts: number;
	error: string;
	dueAt: string;
}

/** A job that is not tried any more until somebody asks for it. */
interface AsideJob {
	id: number;
	kind: Kind;
	/** the packet or batch it belongs to, '' where there is none */
	about: string;
	error: string;
	since: string;
}

/** Pauses between tries: 5 s, 10 s, 20 s … at most an hour. */
export const pauseAfter = (attempts: number): number => Math.min(3_600_000, 5000 * 2 ** Math.min(attempts, 20));

/** Asks for work, due now unless told otherwise. The same key a second time is the same work. */
export function queue(
	house: Pick<House, 'db' | 'now'>,
	kind: Kind,
	key: string,
	payload: object,
	dueAt = house.now().toISOString()
): void {
	house.db
		.prepare('INSERT OR IGNORE INTO jobs (kind, key, payload, due_at) VALUES (?, ?, ?, ?)')
		.run(kind, key, JSON.stringify(payload), dueAt);
}

/** Asks for work that stands under one key for good: done or not, it is to be done once more. */
export function queueAgain({ db, now }: Pick<House, 'db' | 'now'>, kind: Kind, key: string): void {
	db.prepare(
		`INSERT INTO jobs (kind, key, payload, due_at) VALUES (?, ?, '{}', ?)
		 ON CONFLICT (key) DO UPDATE SET done_at = NULL, attempts = 0, due_at = excluded.due_at WHERE done_at IS NOT NULL`
	).run(kind, key, now().toISOString());
}

/** The next job of a lane that is due and not under way. */
export function nextJob(house: House, kind: Kind, underWay: number[]): JobRow | undefined {
	return house.db
		.prepare<[string, string, string], JobRow>(
			`SELECT id, kind, key, payload, attempts FROM jobs
			 WHERE kind = ? AND done_at IS NULL AND set_aside_at IS NULL AND due_at <= ?
			 AND id NOT IN (SELECT value FROM json_each(?)) ORDER BY due_at, id LIMIT 1`
		)
		.get(kind, house.now().toISOString(), JSON.stringify(underWay));
}

export function markDone(house: House, id: number): void {
	house.db.prepare('UPDATE jobs SET done_at = ?, error = NULL WHERE id = ?').run(house.now().toISOString(), id);
}

export function isDone(house: House, id: number): boolean {
	return house.db.prepare('SELECT 1 FROM jobs WHERE id = ? AND done_at IS NOT NULL').get(id) !== undefined;
}

/** To be tried again after a pause. */
export function putOff(house: House, job: JobRow, why: string): void {
	house.db
		.prepare('UPDATE jobs SET attempts = attempts + 1, error = ?, due_at = ? WHERE id = ?')
		.run(why, new Date(house.now().getTime() + pauseAfter(job.attempts)).toISOString(), job.id);
}

/** Not tried any more by itself, and shown on the Desk with its reason. */
export function setAside(house: House, job: JobRow, why: string): void {
	house.db
		.prepare('UPDATE jobs SET attempts = attempts + 1, error = ?, set_aside_at = ? WHERE id = ?')
		.run(why, house.now().toISOString(), job.id);
}

export function failingJobs(house: House): FailingJob[] {
	return house.db
		.prepare<[], { kind: string; attempts: number; error: string; due_at: string }>(
			`SELECT kind, attempts, error, due_at FROM jobs WHERE done_at IS NULL AND attempts > 0 AND set_aside_at IS NULL
			 ORDER BY attempts DESC LIMIT 100`
		)
		.all()
		.map((row) => ({ kind: row.kind, attempts: row.attempts, error: row.error, dueAt: row.due_at }));
}

/** Newest first. */
export function jobsAside(house: House, most: number): AsideJob[] {
	return house.db
		.prepare<[number], { id: number; kind: Kind; payload: string; error: string; since: string }>(
			`SELECT id, kind, payload, error, set_aside_at AS since FROM jobs WHERE set_aside_at IS NOT NULL
			 ORDER BY set_aside_at DESC LIMIT ?`
		)
		.all(most)
		.map(({ payload, ...row }) => {
			const { packet, batch } = JSON.parse(payload) as { packet?: string; batch?: string };
			return { ...row, about: packet ?? batch ?? '' };
		});
}

/** How many wait in a lane, counted up to `most`. */
export function waitingIn(house: House, kind: Kind, most = 1000): number {
	return house.db
		.prepare<[string, number], { n: number }>(
			`SELECT count(*) AS n FROM (SELECT 1 FROM jobs WHERE kind = ? AND done_at IS NULL AND set_aside_at IS NULL LIMIT ?)`
		)
		.get(kind, most)!.n;
}

/** Tries everything that was put off or set aside at once. */
export function retryNow(house: House): void {
	const now = house.now().toISOString();
	house.db
		.prepare('UPDATE jobs SET due_at = ? WHERE done_at IS NULL AND attempts > 0 AND set_aside_at IS NULL')
		.run(now);
	house.db.prepare('UPDATE jobs SET set_aside_at = NULL, due_at = ? WHERE set_aside_at IS NOT NULL').run(now);
	house.db.prepare('UPDATE troubles SET again_at = ?').run(now);
	house.changes.emit('jobs', 'again');
}
