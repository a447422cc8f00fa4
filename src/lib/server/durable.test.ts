import Database from 'better-sqlite3';
import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { FROM, mails, ok, out, sent, signs, testHouse, visitor, type TestHouse } from '../../../e2e/kit/house';
import { closePool } from '../press';
import { askBackup, backupList, backupWhenDue, setBackups } from './backup';
import { backUp, keysFile } from './backup/copy';
import { restore } from './backup/restore';
import { checkData } from './check';
import { ClockWatch, lateJump } from './clock-watch';
import { newestVersion, openDb, tune } from './db';
import { needsYou } from './desk';
import { health, isWatcher } from './health';
import { checkKeys, sealKeys } from './keys';
import { withoutPeople } from './log';
import { officeEvents } from './office-record';
import { mayHaveCopies } from './packets/copies';
import { keepRoot, rootFaults } from './roots';
import { addMarkPicture, askWording, openAndConsent, saveAnswers } from './signing';
import { sweepUnused } from './sweeping';

afterAll(() => closePool());
const folders: string[] = [];
afterEach(() => folders.splice(0).forEach((folder) => rmSync(folder, { recursive: true, force: true })));

const place = (): string => {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-durable-'));
	folders.push(folder);
	return folder;
};

/** A house on the disk, with a sealed packet in it. */
async function onDisk(): Promise<{ t: TestHouse; folder: string }> {
	const folder = place();
	const t = await testHouse({ folder }, openDb(folder));
	await sent(t, [['maren']]);
	await t.runner.drain();
	await signs(t, 'maren@post.example');
	return { t, folder };
}

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
		expect(readdirSync(path.join(folder, 'trust'))).toHaveLength(4);
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
	}, 60_000);
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
	}, 60_000);
});

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

describe('a migration', () => {
	const MIGRATIONS = 'src/lib/server/db/migrations';
	/** A database as the Pellum of that time left it, with somebody in it and something being done. */
	function asOf(version: number): string {
		const folder = place();
		const db = new Database(path.join(folder, 'pellum.db'));
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
	}, 60_000);
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

describe('the machine’s clock', () => {
	it('that jumps against one that only goes forward stands in the record and on the Desk', async () => {
		const t = await testHouse();
		const clocks = { at: Date.now(), steady: 0 };
		const watch = new ClockWatch(t.house, { wall: () => clocks.at, steady: () => clocks.steady });
		const passes = (wall: number, steady: number) => {
			clocks.at += wall * 1000;
			clocks.steady += steady * 1000;
			watch.look();
		};
		passes(30, 30);
		passes(149, 30);
		expect(lateJump(t.house)).toBeNull();
		passes(-3570, 30);
		expect(officeEvents(t.house.db)[0]).toMatchObject({ type: 'ClockJumped', seconds: -3600, by: { kind: 'pellum' } });
		expect(needsYou(t.house, t.odile)).toContainEqual(expect.objectContaining({ what: 'clock', seconds: -3600 }));
		passes(3630, 30);
		expect(lateJump(t.house)!.seconds).toBe(3600);
		t.clock.now += 8 * 86_400_000;
		expect(needsYou(t.house, t.odile).some(({ what }) => what === 'clock')).toBe(false);
	});
	it('that is behind what was written before is told at the start', async () => {
		const t = await testHouse();
		t.clock.now -= 3_600_000;
		clearInterval(new ClockWatch(t.house).start());
		expect(lateJump(t.house)!.seconds).toBe(-3600);
	});
});

describe('what was handed in', () => {
	it('and never used goes after the end; what is used, or somebody else’s too, stays', async () => {
		const t = await testHouse();
		await sent(t, [['maren', 'kit']]);
		await t.runner.drain();
		const maren = visitor(t.house, 'maren@post.example');
		ok(openAndConsent(t.house, maren, FROM));
		const there = () => t.house.db.prepare("SELECT count(*) FROM blobs WHERE media = 'image/png'").pluck().get();
		const before = there() as number;
		ok(
			await addMarkPicture(
				t.house,
				visitor(t.house, 'maren@post.example'),
				await sharp({ create: { width: 300, height: 80, channels: 4, background: '#000' } })
					.png()
					.toBuffer()
			)
		);
		expect(there()).toBe(before + 1);
		expect(sweepUnused(t.house)).toBe(0);
		await signs(t, 'maren@post.example');
		await signs(t, 'kit@post.example');
		expect(sweepUnused(t.house)).toBe(0);
		t.clock.now += 2 * 86_400_000;
		expect([sweepUnused(t.house), there(), sweepUnused(t.house)]).toEqual([1, before, 0]);
		expect(checkData(t.house.db).faults).toEqual([]);
	});
});

describe('by link', () => {
	it('a consent is recorded once, wishes and what was typed so many times', async () => {
		const t = await testHouse();
		const plan = await sent(t, [['maren']]);
		await t.runner.drain();
		const who = () => visitor(t.house, 'maren@post.example');
		for (const language of ['en', 'de', 'en', 'fr']) ok(openAndConsent(t.house, who(), FROM, language));
		const count = (type: string) =>
			t.house.db.prepare<[string], number>("SELECT count(*) FROM events WHERE body ->> '$.type' = ?").pluck().get(type);
		expect(count('ConsentGiven')).toBe(1);
		for (let i = 0; i < 520; i++) {
			t.clock.now += 601_000;
			if (t.clock.now < Date.parse(plan.deadline ?? '2099-01-01'))
				ok(saveAnswers(t.house, who(), { 'maren-name': { text: `M${i}` } }, FROM));
		}
		expect(count('AnswersKept')).toBeLessThanOrEqual(500);
	}, 60_000);
	it('thirty wishes for another wording are letters enough to the sender', async () => {
		const t = await testHouse();
		await out(t, [['maren']], {}, { sending: { wording: true } });
		const who = () => visitor(t.house, 'maren@post.example');
		ok(openAndConsent(t.house, who(), FROM));
		const wish = { paper: 'paper', page: 0, words: 'x', instead: 'y', why: '' };
		for (let i = 0; i < 30; i++) ok(askWording(t.house, who(), wish, FROM));
		expect(askWording(t.house, who(), wish, FROM)).toMatchObject({ code: 'too-often' });
		await t.runner.drain();
		expect(mails(t.house, t.odile.email)).toHaveLength(30);
	}, 60_000);
	it('whoever was spared by another one of the group has no copies', async () => {
		const t = await testHouse();
		const plan = await sent(t, [['maren']]);
		expect(mayHaveCopies(plan, 'maren')).toBe(true);
		const spared = { ...plan, people: { maren: { is: 'skipped', why: 'group' } } } as unknown as typeof plan;
		expect(mayHaveCopies(spared, 'maren')).toBe(false);
	});
});

describe('a watcher', () => {
	it('is told how it is, and only the watcher', async () => {
		const t = await testHouse({ watcher: 'a word of the watcher' });
		await sent(t, [['maren']]);
		t.clock.now += 60_000;
		expect(health(t.house)).toMatchObject({
			ready: true,
			lanes: { message: { waiting: 1, pausedSince: null } },
			oldestJob: 60
		});
		expect(health(t.house).diskLeft).toBeGreaterThan(1_000_000);
		expect(isWatcher(t.house, 'Bearer a word of the watcher')).toBe(true);
		for (const no of [null, '', 'Bearer ', 'Bearer a word', 'a word of the watcher'])
			expect(isWatcher(t.house, no)).toBe(false);
	});
	it('reads a log without anybody in it', () => {
		const error = new Error('SMTP to maren@post.example failed for “Maren Solis”, +44 7700 900123');
		const said = JSON.stringify(withoutPeople(error));
		for (const part of ['maren', 'Solis', '7700']) expect(said).not.toContain(part);
		expect(said).toContain('SMTP to (address) failed');
		expect(said).toContain('durable.test.ts');
	});
});

describe('the planner', () => {
	it('is told by and by what the tables have become', async () => {
		const t = await testHouse();
		for (let i = 0; i < 300; i++)
			t.house.db.prepare("INSERT INTO jobs (kind, key, payload, due_at) VALUES ('seal', ?, '{}', 'x')").run(`k${i}`);
		const known = () => t.house.db.prepare("SELECT name FROM sqlite_master WHERE name = 'sqlite_stat1'").all().length;
		expect(known()).toBe(0);
		tune(t.house.db);
		expect(known()).toBe(1);
		expect(t.house.db.prepare("SELECT count(*) FROM sqlite_stat1 WHERE tbl = 'jobs'").pluck().get()).toBeGreaterThan(0);
	});
});
