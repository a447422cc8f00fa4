import Database from 'better-sqlite3';
import { chmodSync, copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { ordered } from '../../core/folded';
import { remember } from './remembered';

export type Db = Database.Database;

/** Numbered migrations, in order; the number of the last one done is the database's user_version. */
const MIGRATIONS = path.resolve('src/lib/server/db/migrations');

/** How long a statement waits for a lock, in ms; meanwhile nothing else is answered. Longer waits: {@link writable}. */
const SHORT = 100;

/** Opens the database of a data folder, making and migrating it as needed. */
export function openDb(folder: string): Db {
	mkdirSync(folder, { recursive: true, mode: 0o700 });
	const file = path.join(folder, 'pellum.db');
	if (existsSync(file)) tryOut(file);
	const db = new Database(file);
	chmodSync(file, 0o600);
	prepare(db);
	return db;
}

/**
 * Migrates a copy of the database first, where there is something to migrate: what fails there leaves the real one as it was. The
 * copy from before stays as `pellum.db.v13` or so, so that an upgrade can be gone back on. Throws for a newer database.
 */
function tryOut(file: string): void {
	const db = new Database(file);
	const version = versionOf(db);
	try {
		if (version > newestVersion())
			throw new Error(`The database is from a newer Pellum (${version}, here ${newestVersion()}). Run that one.`);
		if (version === 0 || version === newestVersion()) return;
		const before = `${file}.v${version}`;
		rmSync(before, { force: true });
		db.prepare('VACUUM INTO ?').run(before);
		chmodSync(before, 0o600);
	} finally {
		db.close();
	}
	const trial = `${file}.trial`;
	copyFileSync(`${file}.v${version}`, trial);
	const copy = new Database(trial);
	try {
		copy.pragma('foreign_keys = ON');
		migrate(copy);
		const broken = copy.pragma('foreign_key_check') as unknown[];
		const state = copy.pragma('quick_check', { simple: true });
		if (broken.length > 0 || state !== 'ok') throw new Error('afterwards it would not be in order');
	} catch (error) {
		throw new Error(
			`The database can't be brought up to this Pellum: ${(error as Error).message}. Nothing was changed; run the Pellum from before.`,
			{ cause: error }
		);
	} finally {
		copy.close();
		rmSync(trial, { force: true });
	}
}

/** The same in memory, for tests. */
export function memoryDb(): Db {
	const db = new Database(':memory:');
	prepare(db);
	return db;
}

/** Runs `work` as one transaction that takes the write lock at once; within another one, as a part that stands or falls. */
export function inTransaction<T>(db: Db, work: () => T): T {
	// making one takes longer than a small piece of work: there is one for each database
	const run = transactions.get(db) ?? db.transaction((any: () => unknown) => any());
	transactions.set(db, run);
	return (db.inTransaction ? run(work) : run.immediate(work)) as T;
}

const transactions = new WeakMap<Db, Database.Transaction<(work: () => unknown) => unknown>>();

/** The same, but within another transaction simply a piece of it: whoever fails there has to let the whole fail. */
export function joiningTransaction<T>(db: Db, work: () => T): T {
	return db.inTransaction ? work() : inTransaction(db, work);
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
	// what is deleted is overwritten: what has been disposed of is in no page of the file
	db.pragma('secure_delete = ON');
	db.pragma(`busy_timeout = ${SHORT}`);
	migrate(db);
	remember(db);
}

const migrations = (): string[] => readdirSync(MIGRATIONS).sort();

/** The number of the last migration there is. */
export const newestVersion = (): number => migrations().length;

const versionOf = (db: Db): number => db.pragma('user_version', { simple: true }) as number;

function migrate(db: Db): void {
	const done = versionOf(db);
	// for what was there before
	db.function('ordered', { deterministic: true }, (words) => ordered(String(words ?? '')));
	migrations()
		.slice(done)
		.forEach((name, i) => {
			db.transaction(() => {
				db.exec(readFileSync(path.join(MIGRATIONS, name), 'utf8'));
				db.pragma(`user_version = ${done + i + 1}`);
			}).immediate();
		});
}
