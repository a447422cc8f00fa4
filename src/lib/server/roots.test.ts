import Database from 'better-sqlite3';
import { cpSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { sent } from '../../../e2e/kit/house';
import { closePool } from '../press';
import { openDb } from './db';
import { keepRoot, rootFaults } from './roots';
import { onDisk } from '../../../e2e/kit/on-disk';

afterAll(() => closePool());

describe('the day’s root', () => {
	const spoil = (db: ReturnType<typeof openDb>, how: string) => {
		db.exec('PRAGMA foreign_keys = OFF; DROP TRIGGER IF EXISTS events_last; DROP TRIGGER IF EXISTS office_events_last');
		db.exec(how);
	};
	it('is kept once a day, signed; a sound database agrees with it, also when it has grown', async () => {
		const { t, folder } = await onDisk();
		expect([await keepRoot(t.house), await keepRoot(t.house)]).toEqual([true, false]);
		await sent(t, [['kit']]);
		expect(rootFaults(t.house.db, folder)).toEqual([]);
		t.house.db.close();
	});
	it('shows an end that was cut off, a record that was written anew, and a root of somebody else’s', async () => {
		const { t, folder } = await onDisk();
		const { db } = t.house;
		await sent(t, [['kit']]);
		await keepRoot(t.house);
		const whole = db.serialize();
		// its header says that its log lies beside it, which a database in memory has none of
		whole.fill(1, 18, 20);
		const changed = (how: string) => {
			const copy = new Database(whole);
			spoil(copy, how);
			return rootFaults(copy, folder);
		};
		const cut = changed('DELETE FROM events WHERE seq = (SELECT max(seq) FROM events)');
		expect(cut).toEqual([expect.stringContaining('the end is missing')]);
		expect(changed('DELETE FROM office_events WHERE n = (SELECT max(n) FROM office_events)')).toEqual([
			expect.stringContaining('the office record had')
		]);
		// another history of the same length, consistent in itself
		const other = await onDisk();
		await sent(other.t, [['kit']]);
		cpSync(path.join(folder, 'roots'), path.join(other.folder, 'roots'), { recursive: true });
		expect(rootFaults(other.t.house.db, other.folder)).toEqual([expect.stringContaining('not one that this Pellum')]);
		cpSync(path.join(folder, 'trust'), path.join(other.folder, 'trust'), { recursive: true });
		expect(rootFaults(other.t.house.db, other.folder)).toEqual([expect.stringContaining('their root is another one')]);
		const name = path.join(folder, 'roots', readdirSync(path.join(folder, 'roots'))[0]!);
		writeFileSync(name, readFileSync(name, 'utf8').replace('"size": ', '"size": 1'));
		expect(rootFaults(db, folder)).toEqual([expect.stringContaining('not one that this Pellum')]);
		db.close();
		other.t.house.db.close();
	});
});
