import Database from 'better-sqlite3';
import { spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { ok, sent } from '../../../../e2e/kit/house';
import { closePool } from '../../press';
import { askBackup, backupList, backupWhenDue, setBackups } from '.';
import { backUp, keysFile } from './copy';
import { restore } from './restore';
import { checkData } from '../check';
import { openDb } from '../db';
import { health } from '../health';
import { checkKeys, sealKeys } from '../keys';
import { officeEvents } from '../office-record';
import { keepRoot } from '../roots';
import { place, onDisk } from '../../../../e2e/kit/on-disk';

afterAll(() => closePool());

describe('a backup', () => {
	it('is whole while everything goes on, holds no key, and is restored; what happened since is told', async () => {
		const { t, folder } = await onDisk();
		await keepRoot(t.house);
		const file = path.join(place(), 'one.db');
		await backUp(folder, file);
		const { seal } = await sealKeys(t.house);
		const { locked_key: locked } = t.house.db.prepare("SELECT locked_key FROM keys WHERE name = 'seal'").get() as {
			locked_key: Buffer;
		};
		expect(readFileSync(file).includes(locked)).toBe(false);
		expect(readFileSync(keysFile(file), 'utf8')).toContain(locked.toString('base64'));

		t.clock.now += 86_400_000;
		await sent(t, [['kit']]);
		await t.runner.drain();
		await keepRoot(t.house);
		expect(() => restore(file, folder, new Date(t.clock.now))).toThrow('A Pellum runs');
		t.house.db.close();
		const { aside, since } = restore(file, folder, new Date(t.clock.now));
		expect(since.join('\n')).toMatch(/the end is missing/);
		expect(since.join('\n')).toMatch(/“Guest musician engagement”: \d events are in the one set aside only/);
		expect(since.join('\n')).toMatch(/had gone to kit@post\.example/);
		expect(readdirSync(folder)).toContain(path.basename(aside!));

		const again = openDb(folder);
		const house = { ...t.house, db: again };
		checkKeys(house);
		expect(Buffer.from((await sealKeys(house)).seal.key).equals(Buffer.from(seal.key))).toBe(true);
		expect(checkData(again).faults).toEqual([]);
		expect(officeEvents(again)[0]).toMatchObject({ type: 'Restored', file: 'one.db' });
		again.close();
	});
	it('that lies without its keys is restored all the same: new ones seal, the old certificates still check', async () => {
		const { t, folder } = await onDisk();
		const file = path.join(place(), 'one.db');
		await backUp(folder, file);
		t.house.db.close();
		rmSync(keysFile(file));
		restore(file, folder, new Date(t.clock.now));
		const house = { ...t.house, db: openDb(folder) };
		checkKeys(house);
		await sealKeys(house);
		expect(readdirSync(path.join(folder, 'trust')).filter((name) => name.endsWith('.pem'))).toHaveLength(4);
		house.db.close();
	});
	it('that is not sound, or of a newer Pellum, is refused with nothing changed', async () => {
		const { t, folder } = await onDisk();
		const file = path.join(place(), 'one.db');
		await backUp(folder, file);
		const spoilt = (how: string) => {
			const db = new Database(file);
			db.exec('DROP TRIGGER IF EXISTS events_stay');
			db.exec(how);
			db.close();
			return () => restore(file, folder, new Date());
		};
		t.house.db.close();
		const before = readFileSync(path.join(folder, 'pellum.db'));
		expect(spoilt("UPDATE events SET body = replace(body, 'maren', 'karen') WHERE n = 1")).toThrow('not sound');
		expect(spoilt('PRAGMA user_version = 999')).toThrow('newer Pellum');
		expect(readFileSync(path.join(folder, 'pellum.db')).equals(before)).toBe(true);
	});
	it('is made by itself when it is due, in a process of its own; the oldest go', async () => {
		const { t, folder } = await onDisk();
		ok(setBackups(t.house, { account: t.odile, address: '' }, { hours: 24, keep: 2 }));
		expect(setBackups(t.house, { account: t.odile, address: '' }, { hours: -1, keep: 0 })).toMatchObject({
			code: 'malformed'
		});
		mkdirSync(path.join(folder, 'backups'), { recursive: true });
		for (const day of ['01', '02'])
			writeFileSync(path.join(folder, 'backups', `pellum-2020-01-${day}-00-00-00.db`), 'x');
		backupWhenDue(t.house);
		expect(t.house.db.prepare("SELECT 1 FROM jobs WHERE kind = 'backup'").all()).toHaveLength(0);
		askBackup(t.house);
		await t.runner.drain();
		expect(backupList(t.house).map(({ name }) => name)).toEqual([
			expect.stringMatching(/^pellum-20[2-9]\d/),
			'pellum-2020-01-02-00-00-00.db'
		]);
		expect(officeEvents(t.house.db)[0]).toMatchObject({ type: 'BackupMade' });
		expect(health(t.house).lastBackup).toBe(backupList(t.house)[0]!.at);
		t.house.db.close();
	});
	it('is a command: backup, restore, check-data', async () => {
		const { t, folder } = await onDisk();
		await keepRoot(t.house);
		t.house.db.close();
		const file = path.join(place(), 'two.db');
		const run = (script: string, ...args: string[]) =>
			spawnSync(process.execPath, ['--import', 'tsx', `scripts/${script}.ts`, ...args], {
				env: { ...process.env, PELLUM_DATA: folder },
				encoding: 'utf8'
			});
		expect(run('backup', file).stdout).toContain('1 packets');
		expect(run('restore', file).stdout).toContain('is set aside');
		expect(run('check-data').stdout).toContain('Sound.');
		rmSync(path.join(folder, 'pellum.db'));
		const { status, stderr } = run('restore', path.join(folder, 'nothing.db'));
		expect([status, stderr]).toEqual([1, expect.stringContaining('Nothing was restored. There is no file')]);
	});
});
