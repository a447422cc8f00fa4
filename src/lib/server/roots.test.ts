import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import Database from 'better-sqlite3';
import { cpSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { idle, mails, ok, sent } from '../../../e2e/kit/house';
import { closePool } from '../press';
import { openDb } from './db';
import { setWitness, witnessRoots } from './keeping';
import { listHosts } from './outside';
import { witnessed } from './keeping/witness';
import { rootsOf } from './keys';
import { treeHead } from './packets/log';
import { keepRoot, rootDays, rootFaults, rootFile, type SignedRoot } from './roots';
import { againstRoot, consistencyBetween } from './verifying';
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
	it('goes to a witness, who sees by its own proof whether it goes on from the one before', async () => {
		const { t, folder } = await onDisk();
		const { db } = t.house;
		ok(setWitness(t.house, { by: 'stand-in', address: '' }));
		t.house.now = () => new Date(t.clock.now);
		const days = ['2026-11-24', '2026-11-25', '2026-11-26'];
		for (const day of days) {
			t.clock.now = Date.parse(`${day}T10:00:00Z`);
			await sent(t, [['kit']]);
			await keepRoot(t.house);
			await idle(t);
		}
		expect(witnessRoots(db).map(({ day, follows }) => [day, follows])).toEqual(days.map((day) => [day, 1]).reverse());
		expect(rootDays(folder)).toEqual(days);
		// another history, signed by the same keys: its proof is of its own past, not of what the witness has kept
		const body = JSON.parse(rootFile(folder, days[2]!)!.toString('utf8')) as SignedRoot;
		const other = { ...body, since: { ...body.since!, root: 'f'.repeat(64) } };
		expect(witnessed(db, '2026-11-27', JSON.stringify({ ...other, size: body.size + 1 }), 'x')).toBe(false);
		expect(setWitness(t.house, { by: 'mail', address: 'nobody' })).toMatchObject({ code: 'bad-address' });
		ok(setWitness(t.house, { by: 'mail', address: 'witness@elsewhere.example' }));
		t.clock.now = Date.parse('2026-11-28T10:00:00Z');
		await keepRoot(t.house);
		await idle(t);
		expect(mails(t.house, 'witness@elsewhere.example')).toMatchObject([
			{ attachments: expect.stringContaining('root 2026-11-28.json') as string }
		]);
		db.close();
	});
	it('goes to a program at its address, again until it is taken; not into the own network', async () => {
		const { t, folder } = await onDisk();
		t.house.now = () => new Date(t.clock.now);
		const got: string[] = [];
		let status = 503;
		const server = createServer((request, response) => {
			let body = '';
			request.on('data', (part) => (body += part));
			request.on('end', () => {
				got.push(body);
				response.writeHead(status).end('well');
			});
		});
		await new Promise<void>((go) => server.listen(0, '127.0.0.1', go));
		const host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
		const wish = { by: 'program', address: `http://${host}/roots` };
		expect(setWitness(t.house, wish)).toMatchObject({ code: 'hook-not-safe' });
		listHosts(t.house, { account: t.odile, address: '' }, [host]);
		ok(setWitness(t.house, wish));
		await sent(t, [['kit']]);
		await keepRoot(t.house);
		await t.runner.drain();
		status = 204;
		t.clock.now += 3_600_000;
		await idle(t);
		const day = rootDays(folder)[0]!;
		expect(got).toEqual([rootFile(folder, day)!.toString('utf8'), rootFile(folder, day)!.toString('utf8')]);
		server.close();
		t.house.db.close();
	});
	it('is what a record is held against: before it, after it, another Pellum’s, or of another past', async () => {
		const { t, folder } = await onDisk();
		const { db } = t.house;
		const trusted = rootsOf(db).map(({ pem }) => pem);
		const early = treeHead(db);
		await sent(t, [['kit']]);
		await keepRoot(t.house);
		const kept = rootFile(folder, rootDays(folder)[0]!)!.toString('utf8');
		await sent(t, [['kit']]);
		const against = (tree: { size: number; root: string } | null, root = kept) => againstRoot(db, tree, root, trusted);
		expect(against(early)).toMatchObject({ ok: true });
		expect(against(treeHead(db))).toMatchObject({ ok: true });
		expect(against({ ...early, root: 'e'.repeat(64) })).toMatchObject({ ok: false });
		expect(against({ size: treeHead(db).size + 1, root: early.root }).say).toContain('its end is missing');
		expect(against(null).ok).toBe(false);
		const other = await onDisk();
		await keepRoot(other.t.house);
		const foreign = rootFile(other.folder, rootDays(other.folder)[0]!)!.toString('utf8');
		expect(against(early, foreign).say).toContain('not one that this Pellum has signed');
		expect(against(early, 'no JSON').ok).toBe(false);
		expect(consistencyBetween(db, 1, early.size)?.proof.length).toBeGreaterThan(0);
		for (const [from, to] of [
			[0, 1],
			[2, 1],
			[1, 999],
			[0.5, 1]
		] as const)
			expect(consistencyBetween(db, from, to)).toBeNull();
		db.close();
		other.t.house.db.close();
	});
});
