import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { SORTS } from '../src/lib/core/packet';
import type { Account } from '../src/lib/server/accounts';
import { openDb, tune, type Db } from '../src/lib/server/db';
import { houseOf, type House } from '../src/lib/server/house';
import { packetPage } from '../src/lib/server/lists';
import { findEnded } from '../src/lib/server/words';
import { fill } from './desk';
import { figure, percentile, type Figure } from './measure';

/** Words are found among 100,000 packets with two million words; seldom ones, common ones, beginnings, several at once. */
const PACKETS = 100_000;
const WORDS = 20;

export async function benchSearch(): Promise<Figure[]> {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-bench-'));
	const db = openDb(folder);
	const house = houseOf(db, { folder, origin: '', key: '', demo: false, smtp: null, mailFrom: '' });
	const odile: Account = { id: 'odile', name: 'Odile', email: 'odile@brindlevale.example', level: 'owner' };
	fill(db, PACKETS);
	speak(db);
	const times = (): number => {
		const found: number[] = [];
		for (let i = 0; i < 400; i++) {
			const start = performance.now();
			findEnded(house, odile, searched(i), i % 4 === 3 ? { filter: { how: 'declined' } } : {});
			found.push(performance.now() - start);
		}
		return percentile(found.slice(20), 95);
	};
	const without = times();
	tune(db);
	const slower = Math.max(without, times());
	const ordered = byColumns(house, odile);
	db.close();
	rmSync(folder, { recursive: true, force: true });
	return [
		figure(
			'found among 100,000 packets with 2,000,000 words, p95',
			slower,
			'ms',
			{ what: 'the goal itself', value: 50 },
			{ value: 50 }
		),
		figure(
			'a page of the records by any of its columns, among 100,000, p95',
			ordered,
			'ms',
			{ what: 'the goal itself', value: 50 },
			{ value: 50 }
		)
	];
}

/** A page of what has ended by each of its columns, either way round, from the beginning and from the middle. */
function byColumns(house: House, account: Account): number {
	const took: number[] = [];
	for (let i = 0; i < 10; i++)
		for (const sort of SORTS.ended)
			for (const turned of [false, true]) {
				const asked = { list: 'ended' as const, sort, turned };
				const { next } = packetPage(house, account, asked);
				const start = performance.now();
				packetPage(house, account, { ...asked, ...(i % 2 === 1 && next && { after: next }) });
				took.push(performance.now() - start);
			}
	return percentile(took.slice(20), 95);
}

/** A word by its place in the order of how often words are used: the first stands everywhere. */
const word = (rank: number): string => `${'aeiou'[rank % 5]}${(rank * 7919).toString(36)}w`;
/** Zipf's law: the word of rank k about as often as 1/k of the first. */
const drawn = (seed: number): number => Math.floor(20_000 ** ((((seed * 9301 + 49_297) % 233_280) + 0.5) / 233_280));

function speak(db: Db): void {
	const number = db.prepare('INSERT OR IGNORE INTO packet_numbers (packet) VALUES (?)');
	const words = db.prepare('INSERT INTO packets_full (rowid, words) SELECT n, ? FROM packet_numbers WHERE packet = ?');
	const kept = db.prepare(
		`INSERT INTO packet_words (n, papers, answers) SELECT n, '[]', ? FROM packet_numbers WHERE packet = ?`
	);
	db.transaction(() => {
		for (let i = 0; i < PACKETS; i++) {
			const says = Array.from({ length: WORDS }, (_, k) => word(drawn(i * WORDS + k))).join(' ');
			number.run(`k${i}`);
			words.run(says, `k${i}`);
			kept.run(`Said: ${says}`, `k${i}`);
		}
	}).immediate();
}

/** What is searched for: the commonest word, a seldom one, a beginning of two letters, two words at once. */
function searched(i: number): string {
	switch (i % 4) {
		case 0:
			return word(1);
		case 1:
			return word(drawn(i * 31));
		case 2:
			return word(drawn(i * 17)).slice(0, 2);
		default:
			return `${word(drawn(i * 13))} ${word(2)}`;
	}
}
