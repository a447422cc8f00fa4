import type { Need, Thread, Work } from '../core/packet';
import type { Account } from './accounts';
import { permitted } from './access';
import { sheetsToLookAt } from './batches';
import { lateJump } from './clock-watch';
import { looker, MAY_SEE_PACKET } from './folders';
import type { House } from './house';
import { troubles } from './jobs/clock';
import { failingJobs, jobsAside, waitingIn } from './jobs/outbox';
import { draftsOf } from './packets/drafts';
import { likelyIn, ROW_COLUMNS, rowOf, type KeptRow } from './packets/rows';

/** How many are out in the folders that this account sees into, beside those of batches. */
export function countOut(house: House, account: Account): number {
	return house.db
		.prepare<[string], { n: number }>(
			`SELECT coalesce(sum(n), 0) AS n FROM packet_counts
			 WHERE status IN ('out', 'held') AND batched = 0 AND folder NOT IN (SELECT value FROM json_each(?))`
		)
		.get(looker(house.db, account).hidden)!.n;
}

const MOST = 20;

/** Who looks, and how much is shown. */
type Seen = ReturnType<typeof looker> & { most: number };

/** What needs this account, most urgent first. */
export function needsYou(house: House, account: Account): Need[] {
	const { db } = house;
	const now = house.now();
	const seen = { ...looker(db, account), most: MOST };
	const failing = failingJobs(house).filter((job) => !house.paused.has(job.kind));
	const needs: Need[] = [...standing(house, account)];
	const jump = account.level === 'owner' ? lateJump(house) : null;
	if (jump) needs.push({ what: 'clock', ...jump });
	if (failing[0]) needs.push({ what: 'jobs', count: failing.length, error: failing[0].error });
	needs.push(...heldNow(house, seen), ...returnsBack(house, seen), ...wordingsAsked(house, seen));
	type Bounced = Omit<Extract<Need, { what: 'unreachable' }>, 'what'>;
	needs.push(
		...db
			.prepare<[Seen], Bounced>(
				`SELECT q.packet, p.title, q.person, q.name, q.email, q.since, q.phone
				 FROM packets p INDEXED BY packets_unreachable CROSS JOIN packet_people q ON q.packet = p.id
				 WHERE p.unreachable = 1 AND p.batch IS NULL AND q.standing = 'unreachable' AND ${MAY_SEE_PACKET} ORDER BY p.since LIMIT @most`
			)
			.all(seen)
			.map((row): Need => ({ what: 'unreachable', ...row }))
	);
	const soon = new Date(now.getTime() + 2 * 86_400_000).toISOString();
	needs.push(
		...db
			.prepare<[Seen & { soon: string }], KeptRow>(
				`SELECT ${ROW_COLUMNS} FROM packets p INDEXED BY packets_ending
				 WHERE p.status = 'out' AND p.deadline IS NOT NULL AND p.batch IS NULL AND p.deadline < @soon AND ${MAY_SEE_PACKET}
				 ORDER BY p.deadline LIMIT @most`
			)
			.all({ ...seen, soon })
			.map(rowOf)
			.map((row): Need => ({
				what: 'ending',
				packet: row.id,
				title: row.title,
				deadline: row.deadline!,
				names: having(row.thread)
			}))
	);
	needs.push(...likelyLate(house, seen, soon), ...termsEnding(house, seen));
	const lately = new Date(now.getTime() - 7 * 86_400_000).toISOString();
	needs.push(
		...db
			.prepare<[Seen & { lately: string }], { packet: string; title: string; at: string }>(
				`SELECT p.id AS packet, p.title, p.ended_at AS at FROM packets p INDEXED BY packets_declined
				 WHERE p.status = 'declined' AND p.ended_at > @lately AND ${MAY_SEE_PACKET} ORDER BY p.ended_at DESC LIMIT @most`
			)
			.all({ ...seen, lately })
			.map((row): Need => ({ what: 'declined', ...row }))
	);
	needs.push(
		...db
			.prepare<[string, number], { packet: string; title: string; since: string }>(
				`SELECT q.packet, p.title, q.since FROM packet_people q INDEXED BY people_turn CROSS JOIN packets p ON p.id = q.packet
				 WHERE q.email = ? COLLATE NOCASE AND q.standing IN ('notified', 'opened') LIMIT ?`
			)
			.all(account.email, MOST)
			.map((row): Need => ({ what: 'turn', ...row }))
	);
	if (account.level !== 'viewer')
		needs.push(
			...sheetsToLookAt(house, account, MOST),
			...draftsOf(house, account, MOST).map(({ id, ...rest }): Need => ({ what: 'draft', draft: id, ...rest }))
		);
	return needs;
}

/** Lanes that pause, and what is set aside. */
function standing(house: House, account: Account): Need[] {
	const title = house.db.prepare<[string], { title: string }>('SELECT title FROM packets WHERE id = ?');
	// that something stands is everybody's business, what it is called is not
	const seen = (packet: string) => permitted(house.db, account, 'see', 'packet', packet);
	const named = (packet: string) => (seen(packet) ? (title.get(packet)?.title ?? '') : 'a packet in a closed folder');
	return [
		...[...house.paused].map(([lane, { since, error }]): Need => {
			const work = lane as Work;
			return { what: 'lane', lane: work, since, error, waiting: waitingIn(house, work) };
		}),
		...jobsAside(house, MOST).map(({ id, kind, about, error, since }): Need => {
			return { what: 'aside', work: kind, id: String(id), packet: about, title: named(about), error, since };
		}),
		...troubles(house, MOST).map(({ what, id, title: called, error, since }): Need => {
			return {
				what: 'aside',
				work: what,
				id,
				packet: what === 'clock' ? id : '',
				title: what === 'clock' ? named(id) : called,
				error,
				since
			};
		})
	];
}

/** Packets that are held until somebody has judged. */
function heldNow({ db }: House, seen: Seen): Need[] {
	return db
		.prepare<[Seen], { packet: string; title: string; name: string; since: string }>(
			`SELECT p.id AS packet, p.title, q.name, q.since FROM packets p INDEXED BY packets_out CROSS JOIN packet_people q ON q.packet = p.id
			 WHERE p.status = 'held' AND q.standing = 'held' AND ${MAY_SEE_PACKET} ORDER BY p.since LIMIT @most`
		)
		.all(seen)
		.map((row): Need => ({ what: 'held', ...row }));
}

/** What came back on paper and has not been judged yet. */
function returnsBack({ db }: House, seen: Seen): Need[] {
	return db
		.prepare<[Seen], { packet: string; title: string; person: string; name: string; doubts: number; since: string }>(
			`SELECT r.packet, p.title, r.person, r.name, r.doubts, r.at AS since FROM packet_returns r CROSS JOIN packets p ON p.id = r.packet
			 WHERE ${MAY_SEE_PACKET} ORDER BY r.at LIMIT @most`
		)
		.all(seen)
		.map((row): Need => ({ what: 'paper', ...row }));
}

function wordingsAsked({ db }: House, seen: Seen): Need[] {
	return db
		.prepare<[Seen], { packet: string; title: string; name: string; words: string; instead: string; since: string }>(
			`SELECT w.packet, p.title, w.name, w.words, w.instead, w.at AS since FROM packet_wordings w CROSS JOIN packets p ON p.id = w.packet
			 WHERE ${MAY_SEE_PACKET} ORDER BY w.at LIMIT @most`
		)
		.all(seen)
		.map((row): Need => ({ what: 'wording', ...row }));
}

/** Agreements whose term ends soon: told once, and shown until the term is over. */
function termsEnding(house: House, seen: Seen): Need[] {
	return house.db
		.prepare<[Seen & { today: string }], { packet: string; title: string; ends: string }>(
			`SELECT p.id AS packet, p.title, p.term_end AS ends FROM packets p INDEXED BY packets_told
			 WHERE p.term_told = 1 AND p.term_end >= @today AND ${MAY_SEE_PACKET} ORDER BY p.term_end LIMIT @most`
		)
		.all({ ...seen, today: house.now().toISOString().slice(0, 10) })
		.map((row): Need => ({ what: 'term', ...row }));
}

/** So many that will likely be late are looked at for those that fit. */
const LOOKED_AT = 200;
/** So many are said, the surest first: the list of what is out says it of each. */
const MOST_LATE = 8;

/** What will likely not be done by its last day, beyond what ends so soon that it stands there by itself. */
function likelyLate(house: House, seen: Seen, soon: string): Need[] {
	type Found = Pick<
		Extract<Need, { what: 'late' }>,
		'packet' | 'title' | 'deadline' | 'chance' | 'restsOn' | 'helps'
	> & {
		thread: string;
		likely: string;
		unusual: string;
	};
	const needs: Need[] = [];
	for (const { thread, fits, likely, unusual, ...row } of house.db
		.prepare<[Seen & { soon: string; looked: number }], Found & { fits: 0 | 1 }>(
			`SELECT p.id AS packet, p.title, p.deadline, f.chance, f.rests_on AS restsOn, f.helps, p.thread, p.likely, p.unusual,
			 (p.status = 'out' AND p.batch IS NULL AND p.deadline >= @soon AND ${MAY_SEE_PACKET}) AS fits
			 FROM forecasts f INDEXED BY forecasts_late CROSS JOIN packets p ON p.id = f.packet
			 WHERE f.too_few = 0 AND f.chance >= 0.5 ORDER BY f.chance DESC LIMIT @looked`
		)
		.iterate({ ...seen, soon, looked: LOOKED_AT })) {
		if (!fits) continue;
		needs.push({
			what: 'late',
			...row,
			middle: likelyIn(likely, unusual)?.middle ?? null,
			unusual: Number(unusual),
			names: having(JSON.parse(thread) as Thread)
		});
		if (needs.length === MOST_LATE) break;
	}
	return needs;
}

/** The names of those it is waiting for. */
function having(thread: Thread): string {
	return thread
		.flat()
		.filter((p) => ['notified', 'opened', 'unreachable'].includes(p.standing))
		.map((p) => p.name)
		.join(', ');
}
