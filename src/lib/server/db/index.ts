import Database from 'better-sqlite3';
import { chmodSync, mkdirSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

export type Db = Database.Database;

/** Numbered migrations, in order; the number of the last one done is the database's user_version. */
const MIGRATIONS = path.resolve('src/lib/server/db/migrations');

/** How long a statement waits for a lock, in ms; meanwhile nothing else is answered. Longer waits: {@link writable}. */
const SHORT = 100;

/** Opens the database of a data folder, making and migrating it as needed. */
export function openDb(folder: string): Db {
	mkdirSync(folder, { recursive: true, mode: 0o700 });
	const file = path.join(folder, 'pellum.db');
	const db = new Database(file);
	chmodSync(file, 0o600);
	prepare(db);
	return db;
}

/** The same in memory, for tests. */
export function memoryDb(): Db {
	const db = new Database(':memory:');
	prepare(db);
	return db;
}

/** Runs `work` as one transaction that takes the write lock at once; within another one, as a part that stands or falls. */
export function inTransaction<T>(db: Db, work: () => T): T {
	return db.inTransaction ? db.transaction(work)() : db.transaction(work).immediate();
}

const codeOf = (error: unknown): string => String((error as { code?: unknown } | null)?.code ?? '');

/** Brings the planner's statistics up to what the tables have become; looks at a part of each only. Takes milliseconds. */
export function tune(db: Db): void {
	db.pragma('analysis_limit = 400');
	db.pragma('optimize = 0x10002');
}

/** Whether nothing can be written at the moment: a disk that is full, read-only or broken. */
export function isFull(error: unknown): boolean {
	return /^(SQLITE_(FULL|READONLY|IOERR|CANTOPEN)|ENOSPC|EROFS|EIO)/.test(codeOf(error));
}

/** Whether another program holds the database's lock. */
export function isBusy(error: unknown): boolean {
	return /^SQLITE_(BUSY|LOCKED)/.test(codeOf(error));
}

/**
 * Waits until nobody else holds the lock for writing, while everything else goes on. False when that takes longer than `most`
 * ms. A disk that can't be written on is not judged here.
 */
export async function writable(db: Db, most: number): Promise<boolean> {
	const end = Date.now() + most;
	for (;;) {
		db.pragma('busy_timeout = 0');
		try {
			db.exec('BEGIN IMMEDIATE; ROLLBACK');
			return true;
		} catch (error) {
			if (!isBusy(error)) return true;
		} finally {
			db.pragma(`busy_timeout = ${SHORT}`);
		}
		if (Date.now() >= end) return false;
		await new Promise((go) => setTimeout(go, 25));
	}
}

function prepare(db: Db): void {
	db.pragma('journal_mode = WAL');
	db.pragma('synchronous = FULL');
	db.pragma('foreign_keys = ON');
	db.pragma(`busy_timeout = ${SHORT}`);
	const files = readdirSync(MIGRATIONS).sort();
	const done = db.pragma('user_version', { simple: true }) as number;
	files.slice(done).forEach((name, i) => {
		db.transaction(() => {
			db.exec(readFileSync(path.join(MIGRATIONS, name), 'utf8'));
			db.pragma(`user_version = ${done + i + 1}`);
		}).immediate();
	});
}
