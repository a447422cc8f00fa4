import type Database from 'better-sqlite3';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { csv } from '../demo/stewards';
import { ok, realPlan, testHouse, type TestHouse } from '../e2e/kit/house';
import { closePool } from '../src/lib/press';
import { newBatch, readBatch, runBatch, verdictsOf, workBatch } from '../src/lib/server/batches';
import { openDb } from '../src/lib/server/db';
import { newTemplate, putInUse } from '../src/lib/server/templates';
import { figure, median, type Figure } from './measure';

const ROWS = 10_000;
const SENT = 1000;

/** A sheet of ten thousand rows judged; and a thousand of them sent, against the same rows of the database written raw. */
export async function benchBatches(): Promise<Figure[]> {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-bench-'));
	const t = await testHouse({ folder }, openDb(folder));
	const template = await steward(t);
	const people = (n: number) => [
		['Name', 'E-mail'],
		...Array.from({ length: n }, (_, i) => [`Steward ${i}`, `s${i}@post.example`])
	];
	const large = ok(await newBatch(t.house, t.odile, template, 'large.csv', csv(people(ROWS)))).id;
	const judge = () => {
		// as after a change: nothing of the judgement before is of use
		t.house.db.prepare('UPDATE batches SET revision = revision + 1 WHERE id = ?').run(large);
		const { verdicts } = ok(verdictsOf(t.house, t.odile, ok(readBatch(t.house, large))));
		if (verdicts.some(({ is }) => is !== 'ready')) throw new Error('every row should be ready');
	};
	const judging = await median(3, judge);
	const reading = await median(3, () => {
		t.house.db.prepare('SELECT cells FROM batch_rows WHERE batch = ?').pluck().all(large);
	});

	const small = ok(await newBatch(t.house, t.odile, template, 'small.csv', csv(people(SENT)))).id;
	ok(runBatch(t.house, t.odile, small));
	const start = performance.now();
	// the rows alone: letters have a lane of their own
	t.house.db.prepare("UPDATE jobs SET due_at = '9999' WHERE kind = 'message'").run();
	await sendAll(t, small);
	const sending = (performance.now() - start) / SENT;
	const raw = writtenRaw(t.house.db, small) / SENT;
	t.house.db.close();
	await closePool();
	rmSync(folder, { recursive: true, force: true });
	return [
		figure(
			`${ROWS.toLocaleString('en-GB')} rows of a sheet judged`,
			judging,
			'ms',
			{ what: 'their cells read from the database', value: reading },
			{ value: 1000 }
		),
		figure(
			`a row of a batch sent, of ${SENT.toLocaleString('en-GB')}`,
			sending,
			'ms',
			{ what: 'what it has written, written raw, committed', value: raw },
			{ ratio: 4 }
		)
	];
}

/** A template of one letter for one steward, in use. */
export async function steward(t: TestHouse): Promise<string> {
	const plan = await realPlan(t.house, [['steward']]);
	const people = plan.people.map((p) => ({ ...p, role: 'Steward', name: '', email: '' }));
	const draft = newTemplate(t.house, t.odile, { ...plan, people }, 'Steward handbook');
	return ok(putInUse(t.house, t.odile, draft.id, draft.revision, 'first')).template;
}

async function sendAll(t: TestHouse, id: string): Promise<void> {
	for (;;) {
		const job = t.house.db
			.prepare<[], { id: number; payload: string }>(
				"SELECT id, payload FROM jobs WHERE kind = 'batch' AND done_at IS NULL LIMIT 1"
			)
			.get();
		if (!job) break;
		await workBatch(t.house, JSON.parse(job.payload), () =>
			t.house.db.prepare("UPDATE jobs SET done_at = '2026-11-24' WHERE id = ?").run(job.id)
		);
	}
	const { sent } = ok(readBatch(t.house, id));
	if (sent !== SENT) throw new Error(`${sent} were sent`);
}

/** ms for writing the rows of these packets, of all tables that have any, into a database of the same make, a packet at a time. */
function writtenRaw(db: Database.Database, batch: string): number {
	const packets = db.prepare<[string], string>('SELECT packet FROM batch_packets WHERE batch = ?').pluck().all(batch);
	const tables = db
		.prepare<[], string>(
			`SELECT m.name FROM sqlite_schema m WHERE m.type = 'table' AND m.sql LIKE '%STRICT%'
			 AND EXISTS (SELECT 1 FROM pragma_table_info(m.name) c WHERE c.name = 'packet')`
		)
		.pluck()
		.all()
		.filter((name) => name !== 'batch_packets');
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-bench-raw-'));
	const raw = openDb(folder);
	raw.pragma('foreign_keys = OFF');
	const insert = (table: string, row: Record<string, unknown>) =>
		raw
			.prepare(
				`INSERT OR IGNORE INTO ${table} (${Object.keys(row).join(', ')}) VALUES (${Object.keys(row)
					.map((name) => `@${name}`)
					.join(', ')})`
			)
			.run(row);
	const rows = packets.map((packet) => [
		...tables.flatMap((table) =>
			(db.prepare(`SELECT * FROM ${table} WHERE packet = ?`).all(packet) as Record<string, unknown>[]).map(
				(row) => [table, row] as const
			)
		),
		['packets', db.prepare('SELECT * FROM packets WHERE id = ?').get(packet) as Record<string, unknown>] as const
	]);
	const start = performance.now();
	for (const one of rows)
		raw
			.transaction(() => {
				for (const [table, row] of one) insert(table, row);
			})
			.immediate();
	const spent = performance.now() - start;
	raw.close();
	rmSync(folder, { recursive: true, force: true });
	return spent;
}
