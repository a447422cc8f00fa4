import type { Need, Thread, Work } from '../core/packet';
import { folded } from '../core/folded';
import type { Account } from './accounts';
import { lateJump } from './clock-watch';
import type { House } from './house';
import { failingJobs, jobsAside, troubles, waitingIn } from './jobs';
import { draftsOf } from './packets/drafts';
import { searchExpression } from './search';

export interface PacketRow {
	id: string;
	reference: string;
	title: string;
	status: string;
	sentAt: string;
	since: string;
	deadline: string | null;
	/** until when it is shut to signers, being corrected */
	shutUntil: string | null;
	endedAt: string | null;
	thread: Thread;
}

interface Row extends Omit<PacketRow, 'thread'> {
	thread: string;
}

const COLUMNS =
	'p.id, p.reference, p.title, p.status, p.sent_at AS sentAt, p.since, p.deadline, p.shut_until AS shutUntil, p.ended_at AS endedAt, p.thread';

/** Which of the packets that are out: those of one kind of trouble, or all. */
export const CHIPS = ['all', 'mine', 'ending', 'unreachable'] as const;
export type Chip = (typeof CHIPS)[number];

export const PAGE = 50;

/** A page of the packets that are out, longest wait first. Every way through it is by an index. */
export function outNow(house: House, account: Account, chip: Chip, offset = 0): PacketRow[] {
	const soon = new Date(house.now().getTime() + 3 * 86_400_000).toISOString();
	// each index named, so that no planner ever walks all that is out, with statistics or without
	const by = {
		all: { from: 'packets_open WHERE p.ended_at IS NULL ORDER BY p.since', with: [] },
		mine: { from: 'packets_mine WHERE p.ended_at IS NULL AND p.owner = ? ORDER BY p.since', with: [account.id] },
		ending: {
			from: "packets_deadline WHERE p.status = 'out' AND p.deadline IS NOT NULL AND p.deadline < ? ORDER BY p.deadline",
			with: [soon]
		},
		unreachable: { from: 'packets_unreachable WHERE p.unreachable = 1 ORDER BY p.since', with: [] }
	}[chip];
	return house.db
		.prepare<unknown[], Row>(`SELECT ${COLUMNS} FROM packets p INDEXED BY ${by.from} LIMIT ? OFFSET ?`)
		.all(...by.with, PAGE, offset)
		.map(read);
}

export function countOut(house: House): number {
	return house.db
		.prepare<[], { n: number }>("SELECT coalesce(sum(n), 0) AS n FROM packet_counts WHERE status IN ('out', 'held')")
		.get()!.n;
}

const MOST = 20;

/** What needs this account, most urgent first. */
export function needsYou(house: House, account: Account): Need[] {
	const { db } = house;
	const now = house.now();
	const failing = failingJobs(house).filter((job) => !house.paused.has(job.kind));
	const needs: Need[] = [...standing(house)];
	const jump = account.level === 'owner' ? lateJump(house) : null;
	if (jump) needs.push({ what: 'clock', ...jump });
	if (failing[0]) needs.push({ what: 'jobs', count: failing.length, error: failing[0].error });
	needs.push(...heldNow(house), ...wordingsAsked(house));
	type Bounced = Omit<Extract<Need, { what: 'unreachable' }>, 'what'>;
	needs.push(
		...db
			.prepare<[number], Bounced>(
				`SELECT q.packet, p.title, q.person, q.name, q.email, q.since, q.phone
				 FROM packets p INDEXED BY packets_unreachable CROSS JOIN packet_people q ON q.packet = p.id
				 WHERE p.unreachable = 1 AND q.standing = 'unreachable' ORDER BY p.since LIMIT ?`
			)
			.all(MOST)
			.map((row): Need => ({ what: 'unreachable', ...row }))
	);
	const soon = new Date(now.getTime() + 2 * 86_400_000).toISOString();
	needs.push(
		...db
			.prepare<[string, number], Row>(
				`SELECT ${COLUMNS} FROM packets p INDEXED BY packets_deadline
				 WHERE p.status = 'out' AND p.deadline IS NOT NULL AND p.deadline < ? ORDER BY p.deadline LIMIT ?`
			)
			.all(soon, MOST)
			.map(read)
			.map((row): Need => ({
				what: 'ending',
				packet: row.id,
				title: row.title,
				deadline: row.deadline!,
				names: having(row.thread)
			}))
	);
	needs.push(...termsEnding(house));
	const lately = new Date(now.getTime() - 7 * 86_400_000).toISOString();
	needs.push(
		...db
			.prepare<[string, number], { packet: string; title: string; at: string }>(
				`SELECT id AS packet, title, ended_at AS at FROM packets INDEXED BY packets_declined
				 WHERE status = 'declined' AND ended_at > ? ORDER BY ended_at DESC LIMIT ?`
			)
			.all(lately, MOST)
			.map((row): Need => ({ what: 'declined', ...row }))
	);
	needs.push(
		...db
			.prepare<[string, number], { packet: string; title: string; since: string }>(
				`SELECT q.packet, p.title, q.since FROM packet_people q INDEXED BY people_turn CROSS JOIN packets p ON p.id = q.packet
				 WHERE q.email = ? AND q.standing IN ('notified', 'opened') LIMIT ?`
			)
			.all(account.email, MOST)
			.map((row): Need => ({ what: 'turn', ...row }))
	);
	if (account.level !== 'viewer')
		needs.push(
			...draftsOf(house, account, MOST).map(({ id, ...rest }): Need => ({ what: 'draft', draft: id, ...rest }))
		);
	return needs;
}

/** Lanes that pause, and what is set aside. */
function standing(house: House): Need[] {
	const title = house.db.prepare<[string], { title: string }>('SELECT title FROM packets WHERE id = ?');
	const named = (packet: string) => title.get(packet)?.title ?? '';
	return [
		...[...house.paused].map(([lane, { since, error }]): Need => {
			const work = lane as Work;
			return { what: 'lane', lane: work, since, error, waiting: waitingIn(house, work) };
		}),
		...jobsAside(house, MOST).map(({ id, kind, about, error, since }): Need => {
			return { what: 'aside', work: kind, id: String(id), packet: about, title: named(about), error, since };
		}),
		...troubles(house, MOST).map(({ what, id, title: called, error, since }): Need => {
			return { what: 'aside', work: what, id, packet: what === 'clock' ? id : '', title: called, error, since };
		})
	];
}

/** Packets that are held until somebody has judged. */
function heldNow({ db }: House): Need[] {
	return db
		.prepare<[number], { packet: string; title: string; name: string; since: string }>(
			`SELECT p.id AS packet, p.title, q.name, q.since FROM packets p INDEXED BY packets_out CROSS JOIN packet_people q ON q.packet = p.id
			 WHERE p.status = 'held' AND q.standing = 'held' ORDER BY p.since LIMIT ?`
		)
		.all(MOST)
		.map((row): Need => ({ what: 'held', ...row }));
}

function wordingsAsked({ db }: House): Need[] {
	return db
		.prepare<[number], { packet: string; title: string; name: string; words: string; instead: string; since: string }>(
			`SELECT w.packet, p.title, w.name, w.words, w.instead, w.at AS since FROM packet_wordings w CROSS JOIN packets p ON p.id = w.packet
			 ORDER BY w.at LIMIT ?`
		)
		.all(MOST)
		.map((row): Need => ({ what: 'wording', ...row }));
}

/** Agreements whose term ends soon: told once, and shown until the term is over. */
function termsEnding(house: House): Need[] {
	return house.db
		.prepare<[string, number], { packet: string; title: string; ends: string }>(
			`SELECT id AS packet, title, term_end AS ends FROM packets INDEXED BY packets_told
			 WHERE term_told = 1 AND term_end >= ? ORDER BY term_end LIMIT ?`
		)
		.all(house.now().toISOString().slice(0, 10), MOST)
		.map((row): Need => ({ what: 'term', ...row }));
}

/** Packets by their words; in the order of their numbers, which is that of their sending. */
const FOUND =
	'FROM packets_text t CROSS JOIN packet_numbers n ON n.n = t.rowid CROSS JOIN packets p ON p.id = n.packet WHERE packets_text MATCH ?';

/** Finished packets, newest end first, or those whose words match the search, last sent first. */
export function records(house: House, search: string, offset = 0): PacketRow[] {
	const match = searchExpression(search);
	if (search.trim() !== '' && match === '') return [];
	return (
		match === ''
			? house.db
					.prepare<[number, number], Row>(
						`SELECT ${COLUMNS} FROM packets p WHERE p.ended_at IS NOT NULL ORDER BY p.ended_at DESC LIMIT ? OFFSET ?`
					)
					.all(PAGE, offset)
			: house.db
					.prepare<[string, number, number], Row>(
						`SELECT ${COLUMNS} ${FOUND} AND p.ended_at IS NOT NULL ORDER BY t.rowid DESC LIMIT ? OFFSET ?`
					)
					.all(match, PAGE, offset)
	).map(read);
}

/** Packets in any state whose words match, for the field at the top of every page. */
export function findPackets(house: House, search: string, most = 8): PacketRow[] {
	const match = searchExpression(search);
	if (match === '') return [];
	return house.db
		.prepare<[string, number], Row>(`SELECT ${COLUMNS} ${FOUND} ORDER BY t.rowid DESC LIMIT ?`)
		.all(match, most)
		.map(read);
}

/** People of packets whose name has the words, each address once. Looked for among the packets that have them. */
export function findPeople(house: House, search: string, most: number): { name: string; email: string }[] {
	const match = searchExpression(search);
	if (match === '') return [];
	const words = folded(search).trim().split(/\s+/);
	const seen = new Set<string>();
	return house.db
		.prepare<[string], { name: string; email: string }>(
			`SELECT q.name, q.email FROM packets_text t CROSS JOIN packet_numbers n ON n.n = t.rowid
			 CROSS JOIN packet_people q ON q.packet = n.packet WHERE packets_text MATCH ? ORDER BY t.rowid DESC LIMIT 400`
		)
		.all(match)
		.filter((person) => {
			const address = person.email.toLowerCase();
			if (seen.has(address)) return false;
			seen.add(address);
			return words.every((word) => folded(`${person.name} ${person.email}`).includes(word));
		})
		.slice(0, most);
}

/** Every packet somebody takes or took part in, newest first, with the name they have there. */
export function packetsOf(house: House, email: string, most = PAGE): (PacketRow & { name: string })[] {
	return house.db
		.prepare<[string, number], Row & { name: string }>(
			// ids sort by the time they were made
			`SELECT ${COLUMNS}, q.name FROM packet_people q INDEXED BY people_packets CROSS JOIN packets p ON p.id = q.packet
			 WHERE q.email = ? ORDER BY q.packet DESC LIMIT ?`
		)
		.all(email, most)
		.map((row) => ({ ...read(row), name: row.name }));
}

function read(row: Row): PacketRow {
	return { ...row, thread: JSON.parse(row.thread) as Thread };
}

/** The names of those it is waiting for. */
function having(thread: Thread): string {
	return thread
		.flat()
		.filter((p) => ['notified', 'opened', 'unreachable'].includes(p.standing))
		.map((p) => p.name)
		.join(', ');
}
