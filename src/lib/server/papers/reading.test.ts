import Database from 'better-sqlite3';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { expenseClaim } from '../../../../demo/forms/tuned';
import { ok, testHouse } from '../../../../e2e/kit/house';
import { placesOn } from '../../core/page';
import { closePool } from '../../press';
import { openDb } from '../db';
import { addPaper, readingOf } from './index';

afterAll(() => closePool());

describe('what is known of a document', () => {
	it('is kept when it is taken in, and read again where it was taken in before that', async () => {
		const { house } = await testHouse();
		const taken = ok(await addPaper(house, 'Claim.pdf', (await expenseClaim()).bytes));
		const reading = (await readingOf(house, taken.digest))!;
		expect(reading.words[0]!.length).toBeGreaterThan(20);
		const drawn = () => house.db.prepare('SELECT drawn FROM papers').pluck().get();
		const before = drawn();
		house.db.prepare('UPDATE papers SET drawn = NULL').run();
		const again = (await readingOf(house, taken.digest))!;
		expect(placesOn(again, 0, { width: 595, height: 842, rotate: 0 })).toEqual(
			placesOn(reading, 0, { width: 595, height: 842, rotate: 0 })
		);
		expect(drawn()).toBe(before);
		expect(await readingOf(house, 'f'.repeat(64))).toBeNull();
	});
	it('a database of the version before is brought up, with all that is in it', () => {
		const folder = mkdtempSync(path.join(tmpdir(), 'pellum-old-'));
		const old = new Database(path.join(folder, 'pellum.db'));
		old.exec(readFileSync('src/lib/server/db/migrations/001-start.sql', 'utf8'));
		old.pragma('user_version = 1');
		old.exec(
			"INSERT INTO blobs VALUES ('a', 'application/pdf', x'00', '2026-01-01'); INSERT INTO papers VALUES ('a', '[]', '[[]]', 'a', '[]')"
		);
		old.close();
		const db = openDb(folder);
		expect(db.prepare('SELECT digest, words, drawn FROM papers').get()).toEqual({
			digest: 'a',
			words: '[[]]',
			drawn: null
		});
		expect(db.pragma('user_version', { simple: true })).toBe(readdirSync('src/lib/server/db/migrations').length);
		db.close();
		rmSync(folder, { recursive: true });
	});
});
