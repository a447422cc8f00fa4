import Database from 'better-sqlite3';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { ordered } from '../../core/folded';
import { closePool } from '../../press';
import { newestVersion, openDb } from '.';
import { place } from '../../../../e2e/kit/on-disk';

afterAll(() => closePool());

describe('a migration', () => {
	const MIGRATIONS = 'src/lib/server/db/migrations';
	/** A database as the Pellum of that time left it, with somebody in it and something being done. */
	function asOf(version: number): string {
		const folder = place();
		const db = new Database(path.join(folder, 'pellum.db'));
		db.function('ordered', (words) => ordered(String(words ?? '')));
		const files = readdirSync(MIGRATIONS).sort();
		const run = (name: string) => db.exec(readFileSync(path.join(MIGRATIONS, name), 'utf8'));
		run(files[0]!);
		const digest = '5feceb66ffc86f38d952786c6d696c79c2dbc239dd4e91b46729d73a27fb57e9';
		db.exec(`
			INSERT INTO accounts VALUES ('a1', 'Ada', 'ada@x.example', 'owner', 'x$y', '2026-01-01T00:00:00.000Z', NULL);
			INSERT INTO sessions VALUES ('${digest}', 'a1', '2026-01-01T00:00:00.000Z', '2026-01-09T00:00:00.000Z');
			INSERT INTO blobs VALUES ('${digest}', 'application/pdf', x'30', '2026-01-01T00:00:00.000Z');
			INSERT INTO attachments VALUES ('${digest}');
			INSERT INTO drafts VALUES ('d1', 'a1', 3, '{"title":"Kept","papers":[],"attachments":[{"digest":"${digest}"}],"fields":[]}', '2026-01-01T00:00:00.000Z');
			INSERT INTO saved_answers VALUES ('p1', 'kit', '{"f":{"text":"half"}}', '2026-01-01T00:00:00.000Z');
			INSERT INTO jobs (kind, key, payload, due_at) VALUES ('message', 'k', '{}', '2026-01-01T00:00:00.000Z');`);
		for (const name of files.slice(1, version)) run(name);
		db.pragma(`user_version = ${version}`);
		db.close();
		return folder;
	}
	it('goes from each version on, keeps what is there, and leaves a copy to go back to', () => {
		for (let version = 1; version <= newestVersion(); version++) {
			const folder = asOf(version);
			const db = openDb(folder);
			expect(db.pragma('user_version', { simple: true }), `from ${version}`).toBe(newestVersion());
			expect(db.pragma('foreign_key_check'), `from ${version}`).toEqual([]);
			expect(db.prepare('SELECT a.name, d.revision FROM drafts d JOIN accounts a ON a.id = d.owner').all()).toEqual([
				{ name: 'Ada', revision: 3 }
			]);
			expect(db.prepare('SELECT kind, id FROM holders').all()).toEqual([{ kind: 'draft', id: 'd1' }]);
			expect(db.prepare('SELECT count(*) FROM jobs WHERE set_aside_at IS NULL').pluck().get()).toBe(1);
			db.close();
			expect(readdirSync(folder).includes(`pellum.db.v${version}`)).toBe(version < newestVersion());
		}
	});
	it('is tried on a copy: what fails leaves the database as it was', () => {
		const folder = asOf(13);
		const file = path.join(folder, 'pellum.db');
		const db = new Database(file);
		// what the next migration is about to make is there already
		db.exec('CREATE TABLE holders (x)');
		db.close();
		expect(() => openDb(folder)).toThrow('Nothing was changed');
		const after = new Database(file, { readonly: true });
		expect(after.pragma('user_version', { simple: true })).toBe(13);
		after.close();
	});
	it('does not go back: a newer database is refused', () => {
		const folder = asOf(newestVersion());
		const db = new Database(path.join(folder, 'pellum.db'));
		db.pragma(`user_version = ${newestVersion() + 1}`);
		db.close();
		expect(() => openDb(folder)).toThrow('newer Pellum');
	});
});
