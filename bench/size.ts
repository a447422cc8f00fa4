import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { csv } from '../demo/stewards';
import { ok, signs, testHouse } from '../e2e/kit/house';
import { session } from '../e2e/kit/server';
import { closePool } from '../src/lib/press';
import { backUp } from '../src/lib/server/backup/copy';
import { newBatch, runBatch } from '../src/lib/server/batches';
import { openDb, type Db } from '../src/lib/server/db';
import { steward } from './batches';
import { figure, type Figure } from './measure';
import { seededServer } from './server';

const PACKETS = 200;

/**
 * What one house carries (docs/size.md): packets of one letter, sent to one person each as a batch, signed, sealed, with the letters
 * of it; then the disk that they hold, and a backup of them.
 */
export async function benchSize(): Promise<Figure[]> {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-bench-'));
	const t = await testHouse({ folder }, openDb(folder));
	const template = await steward(t);
	const people = Array.from({ length: PACKETS + 1 }, (_, i) => [`Steward ${i}`, `s${i}@post.example`]);
	const { id } = ok(await newBatch(t.house, t.odile, template, 's.csv', csv([['Name', 'E-mail'], ...people])));
	const before = held(t.house.db);
	const [began, processor] = [performance.now(), process.cpuUsage()];
	ok(runBatch(t.house, t.odile, id));
	// rows, then the letters that they ask for
	for (let i = 0; i < 2; i++) await t.runner.drain();
	const sent = performance.now();
	for (let i = 0; i < PACKETS; i++) await signs(t, `s${i}@post.example`);
	await t.runner.drain();
	const ended = performance.now();
	const used = process.cpuUsage(processor);
	const done = t.house.db.prepare("SELECT count(*) FROM packets WHERE status = 'completed'").pluck().get();
	if (done !== PACKETS) throw new Error(`${String(done)} of ${PACKETS} are complete`);
	const disk = (held(t.house.db) - before) / PACKETS / 1000;
	const copies =
		t.house.db
			.prepare<[], number>(
				"SELECT sum(length(bytes)) FROM blobs WHERE digest IN (SELECT value FROM packets, json_each(packets.sealed, '$.papers') UNION SELECT sealed ->> '$.evidence' FROM packets)"
			)
			.pluck()
			.get()! /
		PACKETS /
		1000;
	t.house.db.pragma('wal_checkpoint(TRUNCATE)');
	const file = path.join(folder, 'copy.db');
	const start = performance.now();
	await backUp(folder, file);
	const backup = (performance.now() - start) / PACKETS;
	const size = statSync(file).size / PACKETS / 1000;
	t.house.db.close();
	await closePool();
	rmSync(folder, { recursive: true, force: true });
	const { resting, bare } = await heldAtRest();
	const each = (used.user + used.system) / 1000 / PACKETS;
	return [
		figure('a packet sent, signed and sealed, one after the other', (ended - began) / PACKETS, 'ms', {
			what: 'of it, signed and sealed',
			value: (ended - sent) / PACKETS
		}),
		figure('a processor’s time for it, all workers counted', each, 'ms', {
			what: 'the time it takes',
			value: (ended - began) / PACKETS
		}),
		figure('held by a server at rest, after its first pages', resting, 'MB', {
			what: 'Node.js alone',
			value: bare
		}),
		figure('held on the disk by a packet that is complete', disk, 'kB', {
			what: 'its sealed copy and evidence alone',
			value: copies
		}),
		figure('a packet backed up and checked', backup, 'ms', { what: 'its size in the copy, in kB', value: size })
	];
}

/** Bytes of pages in use. */
const held = (db: Db): number =>
	((db.pragma('page_count', { simple: true }) as number) - (db.pragma('freelist_count', { simple: true }) as number)) *
	(db.pragma('page_size', { simple: true }) as number);

/** MB held by a built server that has shown the Desk, and by Node.js that does nothing. */
async function heldAtRest(): Promise<{ resting: number; bare: number }> {
	const server = await seededServer();
	try {
		const cookie = await session(server);
		for (let i = 0; i < 20; i++) await fetch(`${server.origin}/desk`, { headers: { cookie } });
		await new Promise((go) => setTimeout(go, 5000));
		const alone = spawnSync(process.execPath, ['-e', 'console.log(process.memoryUsage().rss)'], { encoding: 'utf8' });
		return { resting: server.held() / 1e6, bare: Number(alone.stdout) / 1e6 };
	} finally {
		await server.stop();
	}
}
