import Database from 'better-sqlite3';
import { chmodSync, copyFileSync, existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import { checkData } from '../check';
import { newestVersion, openDb, type Db } from '../db';
import { asideName, isAside } from '../keys';
import { BY_ITSELF, note } from '../office-record';
import { rootFaults } from '../roots';
import { keysBeside } from './copy';

/** What a restore came to, a sentence each: what was put back, what was set aside, and what had happened since. */
export interface Restored {
	packets: number;
	events: number;
	/** the database that was there before, set aside */
	aside: string | null;
	since: string[];
}

/**
 * Puts a backup in the place of a data folder's database, which is set aside, not deleted. Throws, with nothing changed, where a
 * Pellum still runs on it, where the backup is not sound, or where it is from a newer Pellum.
 */
export function restore(file: string, data: string, now: Date): Restored {
	if (!existsSync(file)) throw new Error(`There is no file ${file}.`);
	mkdirSync(data, { recursive: true, mode: 0o700 });
	const place = path.join(data, 'pellum.db');
	if (existsSync(place)) refuseWhereOneRuns(place);
	const fresh = `${place}.restoring`;
	rmSync(fresh, { force: true });
	copyFileSync(file, fresh);
	chmodSync(fresh, 0o600);
	try {
		const { packets, events } = madeReady(fresh, file, now);
		const stamp = now.toISOString().slice(0, 19).replaceAll(/[:T]/g, '-');
		const aside = existsSync(place) ? `${place}.before-${stamp}` : null;
		if (aside) setAside(place, aside);
		renameSync(fresh, place);
		const db = openDb(data);
		note({ db, now: () => now }, BY_ITSELF, { type: 'Restored', file: path.basename(file), events });
		const since = [...rootFaults(db, data), ...(aside ? happenedSince(db, aside) : [])];
		db.close();
		return { packets, events, aside, since };
	} finally {
		rmSync(fresh, { force: true });
	}
}

/** A server that runs holds the database's shared memory: nobody else gets it for themselves alone. */
function refuseWhereOneRuns(place: string): void {
	const db = new Database(place, { timeout: 500 });
	try {
		db.pragma('locking_mode = EXCLUSIVE');
		db.exec('BEGIN EXCLUSIVE; COMMIT');
	} catch (error) {
		if (/SQLITE_(BUSY|LOCKED)/.test(String((error as { code?: string }).code)))
			throw new Error('A Pellum runs on this data folder. Stop it first.', { cause: error });
		// one that is damaged is what restoring is for
	} finally {
		db.close();
	}
}

function madeReady(fresh: string, file: string, now: Date): { packets: number; events: number } {
	const db = new Database(fresh);
	try {
		const version = db.pragma('user_version', { simple: true }) as number;
		if (version > newestVersion()) throw new Error('The backup is from a newer Pellum. Restore it with that one.');
		if (version === newestVersion()) {
			const { faults } = checkData(db);
			if (faults.length > 0) throw new Error(`The backup is not sound: ${faults.slice(0, 3).join(' ')}`);
		}
		const keys = keysBeside(file);
		for (const { name } of db.prepare<[], { name: string }>('SELECT name FROM keys').all()) {
			const locked = keys.get(name);
			if (locked) db.prepare('UPDATE keys SET locked_key = ? WHERE name = ?').run(locked, name);
			// without its key a certificate only serves to check what it has sealed; new ones are made
			else if (!isAside(name)) db.prepare('UPDATE keys SET name = ? WHERE name = ?').run(asideName(name, now), name);
		}
		const count = (sql: string) => db.prepare<[], number>(sql).pluck().get()!;
		return {
			packets: count('SELECT count(*) FROM packets'),
			events: count('SELECT count(*) FROM events')
		};
	} finally {
		db.close();
	}
}

function setAside(place: string, aside: string): void {
	for (const end of ['', '-wal', '-shm']) if (existsSync(place + end)) renameSync(place + end, aside + end);
}

/** What the database that was set aside knows and the restored one does not: packets that went on, letters that were sent. */
function happenedSince(db: Db, aside: string): string[] {
	let old: Db | undefined;
	try {
		old = new Database(aside, { readonly: true });
		const had = db.prepare<[string], number>('SELECT count(*) FROM events WHERE packet = ?').pluck();
		const packets = old
			.prepare<[], { id: string; reference: string; title: string; events: number }>(
				'SELECT id, reference, title, events FROM packets'
			)
			.all()
			.map((row) => ({ ...row, more: row.events - had.get(row.id)! }))
			.filter(({ more }) => more > 0)
			.map(({ reference, title, more }) => `${reference}, “${title}”: ${more} events are in the one set aside only.`);
		const last = db.prepare<[], number>('SELECT coalesce(max(id), 0) FROM mailbox').pluck().get()!;
		const letters = old
			.prepare<[number], { at: string; recipient: string; subject: string }>(
				'SELECT at, recipient, subject FROM mailbox WHERE id > ? ORDER BY id LIMIT 1000'
			)
			.all(last)
			.map(({ at, recipient, subject }) => `${at}: “${subject}” had gone to ${recipient}.`);
		return [...packets, ...letters];
	} catch {
		return [
			'The database that was set aside can’t be read; the roots and the letters that went out tell what is missing.'
		];
	} finally {
		old?.close();
	}
}
