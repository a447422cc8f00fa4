import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { amongValue, ANY, countedAs, EVERYTHING, type CountedWait, type PaceAsked } from '../src/lib/core/pace';
import type { Account } from '../src/lib/server/accounts';
import { openDb, tune, type Db } from '../src/lib/server/db';
import { houseOf } from '../src/lib/server/house';
import { paceSeen } from '../src/lib/server/pace';
import { count } from '../src/lib/server/pace/counts';
import { deskForetold, fill, foretell } from './desk';
import { figure, percentile, type Figure } from './measure';

const PACKETS = 100_000;

/** Pace over many packets of three years, and the Desk with a forecast for each that is out beside the Desk without. */
export async function benchPace(): Promise<Figure[]> {
	const { everything, year, template, counting } = pace();
	const seen = deskForetold(PACKETS);
	const goal = { what: 'the goal itself', value: 200 };
	return [
		figure('Pace of everything, a quarter, 100,000 packets, p95', everything, 'ms', goal, { value: 200 }),
		figure('Pace of everything, a year, p95', year, 'ms', goal, { value: 200 }),
		figure('Pace of one template and one sender, a year, p95', template, 'ms', goal, { value: 200 }),
		figure('a packet counted, when something has happened to it', counting, 'ms', goal, {}),
		figure(
			'Desk, 100,000 packets, a forecast for each that is out, p95',
			seen.with,
			'ms',
			{ what: 'the Desk before any is reckoned', value: seen.without },
			{ ratio: 1.1 }
		)
	];
}

function pace() {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-bench-'));
	const db = openDb(folder);
	const house = houseOf(db, { folder, origin: '', key: '', demo: false, smtp: null, mailFrom: '' });
	const odile: Account = { id: 'odile', name: 'Odile', email: 'odile@brindlevale.example', level: 'owner' };
	const counting = fillWaits(db);
	fill(db, PACKETS);
	foretell(db);
	fillComing(db);
	tune(db);
	const show = (asked: Partial<PaceAsked>): number => {
		const times: number[] = [];
		const { sorts } = paceSeen(house, odile, { ...EVERYTHING, ...asked }).where;
		if (!sorts.some(({ course }) => !course.few))
			throw new Error('there is nothing to set side by side: this measures too little');
		for (let i = 0; i < 60; i++) {
			const start = performance.now();
			paceSeen(house, odile, { ...EVERYTHING, ...asked });
			times.push(performance.now() - start);
		}
		return percentile(times.slice(5), 95);
	};
	const seen = {
		everything: show({}),
		year: show({ weeks: 52, clock: 'working' }),
		template: show({ filter: { template: 't3', sender: 'odile' }, weeks: 52 }),
		counting
	};
	db.close();
	rmSync(folder, { recursive: true, force: true });
	return seen;
}

/** Waits of packets of three years: 40 templates, ten folders, two parts each, one in ten of them still out. How long one takes, in ms. */
function fillWaits(db: Db): number {
	db.pragma('foreign_keys = OFF');
	const now = Date.now();
	const people = ['borrower', 'lender'].map((id) => ({ id, name: id, role: id, duty: 'signs' }));
	db.prepare("INSERT INTO plans (digest, json) VALUES ('both', ?)").run(JSON.stringify({ people }));
	for (let i = 0; i < 40; i++)
		db.prepare(
			`INSERT INTO templates (id, owner, title, version, plan, created_at, changed_at, last_used_at)
			 VALUES (?, 'odile', ?, 3, 'both', '', '', ?)`
		).run(`t${i}`, `Template ${i}`, new Date(now - i * 1000).toISOString());
	const start = performance.now();
	for (let from = 0; from < PACKETS; from += 1000)
		db.transaction(() => {
			for (let i = from; i < from + 1000; i++) count(db, `k${i}`, waitsOf(i, now));
		})();
	return (performance.now() - start) / PACKETS;
}

/** What is likely on each of the days to come: of everything, and of each template, in ten folders. */
function fillComing(db: Db): void {
	const add = db.prepare('INSERT INTO coming (among, day, folder, n) VALUES (?, ?, ?, 400)');
	const among = [ANY, ...Array.from({ length: 40 }, (_, i) => ({ ...ANY, template: `t${i}`, sender: 'odile' }))];
	for (const value of among.map(amongValue))
		for (let i = 0; i < 280; i++)
			add.run(
				value,
				new Date(Date.now() + (i % 28) * 86_400_000).toISOString().slice(0, 10),
				`folder ${Math.floor(i / 28)}`
			);
}

function waitsOf(i: number, now: number): CountedWait[] {
	const began = now - ((i * 7919) % (3 * 365)) * 86_400_000 - (i % 24) * 3_600_000;
	const open = i % 10 === 0;
	const wait = (of: CountedWait['of'], person: string, days: number): CountedWait => ({
		of,
		person,
		template: `t${i % 40}`,
		version: String(1 + (i % 3)),
		type: `type ${i % 7}`,
		sender: 'odile',
		folder: `folder ${i % 10}`,
		duty: of === 'packet' ? '' : 'signs',
		delivery: of === 'packet' ? '' : 'mail',
		language: '',
		partOfDay: i % 3 ? 'morning' : 'afternoon',
		hour: String(9 + (i % 9)).padStart(2, '0'),
		began: new Date(began).toISOString(),
		overAt: open ? null : new Date(began + days * 86_400_000).toISOString(),
		days: open ? null : countedAs(days),
		working: open ? null : countedAs(days * 0.7),
		how: open ? null : i % 13 === 0 ? 'declined' : 'done',
		reminded: null,
		warned: null,
		texted: null
	});
	// as agreements go: most within days, a few after weeks
	const took = (k: number) => 0.1 + ((i * (k + 3) * 104_729) % 1000) ** 2 / 40_000;
	return [
		wait('opened', 'borrower', took(1)),
		wait('packet', '', took(2) + took(1)),
		wait('part', 'borrower', took(1) + 0.2),
		wait('part', 'lender', took(2))
	];
}
