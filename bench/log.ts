import Database from 'better-sqlite3';
import { createHash, hash } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { canonicalJson, extend, firstBroken, GENESIS } from '../src/lib/core/audit';
import type { Recorded } from '../src/lib/core/packet';
import { inTransaction, openDb } from '../src/lib/server/db';
import { append } from '../src/lib/server/packets/log';
import { sha256Text } from '../src/lib/server/ids';
import { figure, median, type Figure } from './measure';

const event = (n: number): Recorded => ({
	n,
	at: '2026-11-23T10:00:00.000Z',
	by: { kind: 'person', person: 'maren' },
	type: 'PaperOpened',
	person: 'maren',
	from: { address: '203.0.113.7', device: 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36' }
});

/** Appending to the chain and the tree, and verifying a chain of a million events. */
export async function benchLog(): Promise<Figure[]> {
	return [await appending(), await verifying(1_000_000)];
}

/** A thousand transactions of three events each, as a person's step makes them; both sides commit to disk in full. */
async function appending(): Promise<Figure> {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-bench-'));
	const db = openDb(folder);
	const raw = new Database(path.join(folder, 'raw.db'));
	raw.pragma('journal_mode = WAL');
	raw.pragma('synchronous = FULL');
	raw.exec(
		'CREATE TABLE events (seq INTEGER PRIMARY KEY, packet TEXT, n INTEGER, body TEXT, hash TEXT) STRICT; CREATE UNIQUE INDEX by_packet ON events (packet, n)'
	);
	const insert = raw.prepare('INSERT INTO events (packet, n, body, hash) VALUES (?, ?, ?, ?)');
	const body = canonicalJson(event(0));
	const link = 'a'.repeat(64);
	const times = 1000;
	let n = 0;
	const ours = await median(3, () => {
		for (let i = 0; i < times; i++, n++) inTransaction(db, () => append(db, `p${n}`, [event(0), event(1), event(2)]));
	});
	n = 0;
	const bound = await median(3, () => {
		for (let i = 0; i < times; i++, n++)
			raw
				.transaction(() => {
					for (let k = 0; k < 3; k++) insert.run(`p${n}`, k, body, link);
				})
				.immediate();
	});
	db.close();
	raw.close();
	rmSync(folder, { recursive: true, force: true });
	return figure(
		'append 3 events, committed',
		(ours / times) * 1000,
		'µs',
		{ what: 'the same rows inserted raw, committed', value: (bound / times) * 1000 },
		{ ratio: 3 }
	);
}

async function verifying(count: number): Promise<Figure> {
	const bodies = Array.from({ length: count }, (_, i) => canonicalJson(event(i % 40)));
	const links = extend(sha256Text, GENESIS, bodies);
	const ours = await median(3, () => {
		if (firstBroken(sha256Text, links) !== -1) throw new Error('the chain should be sound');
	});
	const each = await median(3, () => {
		for (const link of links) hash('sha256', link.hash + '\n' + link.body, 'hex');
	});
	const stream = await median(3, () => {
		const all = createHash('sha256');
		for (const link of links) all.update(link.hash + '\n' + link.body);
		all.digest();
	});
	const bound = Math.min(each, stream);
	return figure(
		'verify a chain of 1,000,000 events',
		ours,
		'ms',
		{
			what: `SHA-256 of the same bytes, the faster of one call an event (${Math.round(each)}) and one stream (${Math.round(stream)})`,
			value: bound
		},
		{ ratio: 4 }
	);
}
