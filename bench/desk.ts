import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { SORTS, type PacketsAsked } from '../src/lib/core/packet';
import { batchLines } from '../src/lib/server/batches';
import { packetPage } from '../src/lib/server/lists';
import type { Account } from '../src/lib/server/accounts';
import { openDb, tune, type Db } from '../src/lib/server/db';
import { countOut, needsYou } from '../src/lib/server/desk';
import { houseOf } from '../src/lib/server/house';
import { figure, percentile, type Figure } from './measure';

/**
 * What the server does for the Desk, with 1,000 and with 100,000 packets, most of them out: the worst case; on a database
 * that never saw statistics and on one that keeps its own, as houses have them. The slower of the two counts.
 */
export async function benchDesk(): Promise<Figure[]> {
	const small = desk(1000);
	const large = desk(100_000);
	return [
		figure('Desk, 1,000 packets, p95', small, 'ms', { what: 'the goal itself', value: 30 }, { value: 30 }),
		figure(
			'Desk, 100,000 packets, p95',
			large,
			'ms',
			{ what: 'the same with 1,000 packets', value: small },
			{ ratio: 1.5, value: 30 }
		),
		figure(
			'Desk of somebody who sees one of 500 packets, 100,000 of them, p95',
			desk(100_000, 500),
			'ms',
			{ what: 'the Desk of an owner, who sees all', value: large },
			{ value: 30 }
		),
		figure(
			'Desk, 100,000 packets, 20,000 of them in two batches, p95',
			desk(100_000, undefined, 2),
			'ms',
			{ what: 'the Desk without batches', value: large },
			{ value: 30 }
		)
	];
}

/** The Desk as it is, by the last day, those that are mine, and by title the other way round. */
const ASKED: PacketsAsked[] = [
	{ list: 'open' },
	{ list: 'open', sort: 'until' },
	{ list: 'open', filter: { sender: 'odile' } },
	{ list: 'open', sort: 'title', turned: true }
];

/**
 * @param hidden where given, one packet in so many lies outside a closed folder, and somebody looks who is not of it
 * @param batches so many, of 10,000 packets each
 */
function desk(packets: number, hidden?: number, batches = 0): number {
	const { db, show, close } = opened(packets, hidden);
	for (let i = 0; i < batches; i++) batch(db, `b${i}`, i * 10_000);
	const shown = (): number => {
		const times: number[] = [];
		for (let i = 0; i < (hidden ? 300 : 2000); i++) times.push(show(i));
		return percentile(times.slice(100), 95);
	};
	const without = shown();
	tune(db);
	const slower = Math.max(without, shown());
	close();
	return slower;
}

/**
 * The Desk without any forecast, and the same with one for each that is out: looked at in turns, so that what slows the machine slows both.
 * @returns p95 of each, ms
 */
export function deskForetold(packets: number): { without: number; with: number } {
	const [plain, foretold] = [opened(packets), opened(packets)];
	foretell(foretold.db);
	tune(plain.db);
	tune(foretold.db);
	const times: [number, number][] = [];
	for (let i = 0; i < 2000; i++) times.push([plain.show(i), foretold.show(i)]);
	plain.close();
	foretold.close();
	const of = (which: 0 | 1) =>
		percentile(
			times.slice(100).map((pair) => pair[which]),
			95
		);
	return { without: of(0), with: of(1) };
}

/** A house with so many packets; `show` is the time that one look at its Desk takes, ms. */
function opened(packets: number, hidden?: number): { db: Db; show: (i: number) => number; close: () => void } {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-bench-'));
	const db = openDb(folder);
	const house = houseOf(db, { folder, origin: '', key: '', demo: false, smtp: null, mailFrom: '' });
	const odile: Account = { id: 'odile', name: 'Odile', email: 'odile@brindlevale.example', level: 'owner' };
	const who = hidden ? { ...odile, id: 'mio', email: 'mio@brindlevale.example', level: 'preparer' as const } : odile;
	fill(db, packets, hidden);
	return {
		db,
		show(i) {
			const start = performance.now();
			needsYou(house, who);
			packetPage(house, who, ASKED[i % 4]!);
			countOut(house, who);
			batchLines(house, who);
			return performance.now() - start;
		},
		close() {
			db.close();
			rmSync(folder, { recursive: true, force: true });
		}
	};
}

/** Rows as the read tables hold them; the events behind them play no part in showing the Desk. */
export function fill(db: Db, packets: number, hidden?: number): void {
	db.prepare("INSERT INTO folders (name, open, made_at) VALUES ('Personnel', 0, '')").run();
	const packet = db.prepare(
		`INSERT INTO packets (id, reference, owner, title, status, sent_at, since, deadline, ended_at, thread, unreachable, folder, sealed, events, head)
		 VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, '{}', 5, '')`
	);
	const person = db.prepare(
		"INSERT INTO packet_people (packet, person, name, email, standing, since) VALUES (?, 'guest', 'Guest', ?, ?, ?)"
	);
	const number = db.prepare('INSERT INTO packet_numbers (n, packet) VALUES (?, ?)');
	const order = db.prepare("INSERT INTO packet_order (put, sort, value, n) VALUES ('', ?, ?, ?)");
	const start = Date.now();
	const at = (days: number) => new Date(start - days * 86_400_000).toISOString();
	const thread = JSON.stringify(
		['Ingrid Halloran', 'Maren Lindqvist', 'Tamsin Okoro'].map((name, i) => [
			{ id: `p${i}`, name, duty: 'signs', standing: i === 0 ? 'done' : i === 1 ? 'opened' : 'waiting', since: at(3) }
		])
	);
	db.transaction(() => {
		for (let i = 0; i < packets; i++) {
			const out = i % 10 < 7;
			const since = at((i * 7919) % 300);
			// as many in trouble as a large office may have at once, whatever the size of its past
			const trouble = i % Math.ceil(packets / 40) === 0;
			packet.run(
				`k${i}`,
				`P-${i}`,
				i % 3 ? 'odile' : 'tamsin',
				`Packet ${i}`,
				out ? 'out' : 'completed',
				since,
				since,
				at(out ? -5 - (i % 60) : 5),
				out ? null : since,
				thread,
				out && trouble ? 1 : 0,
				hidden && i % hidden ? 'Personnel' : ''
			);
			number.run(i + 1, `k${i}`);
			if (!out)
				for (const sort of SORTS.ended)
					order.run(sort, sort === 'ended' || sort === 'sent' ? since : `${sort} ${(i * 7919) % 500}`, i + 1);
			person.run(`k${i}`, `guest${i}@post.example`, out ? (trouble ? 'unreachable' : 'opened') : 'ended', since);
		}
	}).immediate();
}

/** A forecast for each that is out; half of them will likely be late, which no office has. */
export function foretell(db: Db): void {
	db.prepare(
		`INSERT INTO forecasts (packet, as_of, rests_on, too_few, chance, whole, stops, helps, counted)
		 SELECT id, since, 40, 0, (rowid % 100) / 100.0, '{}', '[]', '', '{}' FROM packets WHERE ended_at IS NULL`
	).run();
	db.prepare(
		`UPDATE packets SET unusual = printf('%.4f', (rowid % 997) / 997.0),
		 likely = json_object('middle', since, 'chance', 0.4, 'tooFew', json('false'))
		 WHERE ended_at IS NULL`
	).run();
}

/** Makes ten thousand of the packets, from that on, those of one batch. */
function batch(db: Db, id: string, from: number): void {
	db.pragma('foreign_keys = OFF');
	db.prepare(
		"INSERT OR IGNORE INTO templates (id, owner, title, created_at, changed_at) VALUES ('t', 'odile', 'Handbook', '', '')"
	).run();
	db.prepare(
		"INSERT INTO batches (id, template, owner, name, made_at, columns, setting) VALUES (?, 't', 'odile', 'stewards.csv', '', '[]', '{}')"
	).run(id);
	db.prepare(
		'INSERT INTO batch_packets (batch, who, packet) SELECT ?, id, id FROM packets WHERE rowid > ? AND rowid <= ?'
	).run(id, from, from + 10_000);
}
