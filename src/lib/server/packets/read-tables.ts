import {
	addressOf,
	channelsOf,
	isOpen,
	isSessionOpen,
	nextMoment,
	phoneOf,
	termEndOf,
	type PutAway,
	type SentPacket,
	type Thread,
	type ThreadPerson
} from '../../core/packet';
import { acts, beforeNotary, notaryIn, stopOf } from '../../core/route';
import type { Db } from '../db';
import { folded } from '../../core/folded';
import { keptOf } from './kept';
import { sizeOf, templateTitle, writeChain, writeOrder } from './ordering';

export interface Derived {
	title: string;
	status: string;
	folder: string;
	sentAt: string;
	since: string;
	deadline: string | null;
	endedAt: string | null;
	thread: Thread;
	sealed: boolean;
	events: number;
	/** when it next does something by itself */
	nextAt: string | null;
	/** 1 where it is out and somebody can't be reached */
	unreachable: number;
	/** until when it is shut to signers, being corrected */
	shutUntil: string | null;
	/** the last day of the agreement, and whether its sender has been told that it is near */
	termEnd: string | null;
	termTold: number;
	/** the template it was made from, the first where several were joined */
	template: string | null;
	/** the packet it is a new version of */
	follows: string | null;
	type: string;
	/** the packet that it changes, and the one that has changed it */
	amends: string | null;
	amendedBy: string | null;
	ownReference: string;
	/** null: in the archive or the bin it does not lie; and since when it does */
	put: PutAway | null;
	putAt: string | null;
	people: {
		person: string;
		name: string;
		email: string;
		/** where a text message goes; null where none does */
		phone: string | null;
		standing: string;
		since: string | null;
	}[];
}

/** All that the read tables hold of a packet, from its state alone: written after each commit, compared by check-data. */
export function derive(state: SentPacket): Derived {
	const person = (id: string): ThreadPerson => {
		const plan = state.plan.people.find((p) => p.id === id)!;
		const standing = state.people[id]!;
		return {
			id,
			name: plan.name || plan.role || '',
			duty: plan.duty,
			standing: standing.is,
			since: standing.is === 'waiting' ? null : standing.since
		};
	};
	const thread = state.plan.stops.map(({ people, when, anyOne }) =>
		people.map((id): ThreadPerson => ({
			...person(id),
			...(when && { byRule: true }),
			...(anyOne && { anyOne })
		}))
	);
	const having = isOpen(state)
		? (thread[state.stop] ?? []).filter(
				(p) => acts(p.duty as 'signs') && !['done', 'skipped', 'declined'].includes(p.standing)
			)
		: [];
	return {
		title: state.plan.title,
		status: state.status,
		folder: state.folder,
		sentAt: state.sentAt,
		since: having.map((p) => p.since ?? state.sentAt).sort()[0] ?? state.sentAt,
		deadline: state.deadline,
		endedAt: isOpen(state) ? null : state.at,
		thread,
		sealed: state.evidence !== null,
		events: state.events,
		nextAt: nextMoment(state),
		unreachable: isOpen(state) && Object.values(state.people).some((p) => p.is === 'unreachable') ? 1 : 0,
		shutUntil: isOpen(state) ? (state.correcting?.until ?? null) : null,
		termEnd: termEndOf(state),
		termTold: state.renewalTold ? 1 : 0,
		template: state.plan.from?.[0]?.template ?? null,
		follows: state.plan.follows ?? null,
		type: state.type,
		amends: state.plan.amends?.packet ?? null,
		amendedBy: state.amended?.by ?? null,
		ownReference: state.plan.sending?.ownReference ?? '',
		put: state.put?.where ?? null,
		putAt: state.put?.at ?? null,
		people: state.plan.people
			.filter((p) => stopOf(state.plan, p.id) >= 0)
			.map((p) => {
				const seen = person(p.id);
				return {
					person: p.id,
					name: p.name,
					email: addressOf(state, p.id),
					phone: channelsOf(p.deliver).includes('text') ? phoneOf(state, p.id) : null,
					standing: isOpen(state) ? seen.standing : 'ended',
					since: seen.since
				};
			})
	};
}

/** Writes the read tables after a command. Must run in the command's transaction. `batch`: which one it is sent with, if any. */
export function writeReadTables(
	db: Db,
	state: SentPacket,
	owner: string,
	head: string,
	batch: string | null = null
): void {
	const d = derive(state);
	const first = db.prepare(
		`INSERT INTO packets (id, reference, owner, title, status, folder, sent_at, since, deadline, ended_at, thread, sealed, events, head, template, next_at, term_end, term_told, follows, shut_until, unreachable, batch, type, own_reference, put, put_at, template_title, size, kept_until, kept_by, amends, amended_by)
			 VALUES (@id, @reference, @owner, @title, @status, @folder, @sentAt, @since, @deadline, @endedAt, @thread, @sealed, @events, @head, @template, @nextAt, @termEnd, @termTold, @follows, @shutUntil, @unreachable, @batch, @type, @ownReference, @put, @putAt, @templateTitle, @size, @keptUntil, @keptBy, @amends, @amendedBy)
			 ON CONFLICT (id) DO UPDATE SET title = excluded.title, shut_until = excluded.shut_until, status = excluded.status, folder = excluded.folder, since = excluded.since, deadline = excluded.deadline,
			 ended_at = excluded.ended_at, thread = excluded.thread, sealed = excluded.sealed, events = excluded.events, head = excluded.head,
			 deadline = excluded.deadline, next_at = excluded.next_at, term_end = excluded.term_end, term_told = excluded.term_told, unreachable = excluded.unreachable,
			 type = excluded.type, own_reference = excluded.own_reference, put = excluded.put, put_at = excluded.put_at, size = excluded.size,
			 kept_until = excluded.kept_until, kept_by = excluded.kept_by, amended_by = excluded.amended_by`
	);
	first.run({
		...d,
		templateTitle: templateTitle(db, state),
		size: sizeOf(db, state),
		...keptOf(db, state),
		id: state.packet,
		reference: state.reference,
		owner,
		thread: JSON.stringify(d.thread),
		sealed: JSON.stringify({ papers: state.sealed, evidence: state.evidence }),
		head,
		batch,
		people: null
	});
	const person = db.prepare(
		`INSERT INTO packet_people (packet, person, name, email, phone, standing, since) VALUES (?, ?, ?, ?, ?, ?, ?)
		 ON CONFLICT (packet, person) DO UPDATE SET name = excluded.name, email = excluded.email,
		 phone = excluded.phone, standing = excluded.standing, since = excluded.since`
	);
	if (state.corrections > 0) db.prepare('DELETE FROM packet_people WHERE packet = ?').run(state.packet);
	for (const p of d.people) person.run(state.packet, p.person, p.name, p.email, p.phone, p.standing, p.since);
	writeWordings(db, state);
	writeReturns(db, state);
	writeSession(db, state);
	writeWords(db, state, d.people);
	writeOrder(db, state);
	writeFiles(db, state);
	writeChain(db, state);
	db.prepare('INSERT OR IGNORE INTO pace_behind (packet) VALUES (?)').run(state.packet);
}

/** By what a packet is found: title, reference, people with their addresses, and what else the sender has said of it. */
export function wordsToFind(state: SentPacket, people: Derived['people']): string {
	const { description = '', ownReference = '' } = state.plan.sending ?? {};
	const words = [
		state.plan.title,
		state.reference,
		state.type,
		state.folder,
		description,
		ownReference,
		...state.handOvers.map((one) => one.from.name),
		...people.flatMap((p) => [p.name, p.email]),
		...state.plan.papers.map((p) => p.name)
	];
	return folded(words.join(' '));
}

/** Writes them where they have changed: somebody was named on the way, has taken over, has another address. */
function writeWords(db: Db, state: SentPacket, people: Derived['people']): void {
	const words = wordsToFind(state, people);
	db.prepare('INSERT OR IGNORE INTO packet_numbers (packet) VALUES (?)').run(state.packet);
	const { n } = db.prepare<[string], { n: number }>('SELECT n FROM packet_numbers WHERE packet = ?').get(state.packet)!;
	const kept = db.prepare<[number], { words: string }>('SELECT words FROM packets_text WHERE rowid = ?').get(n);
	if (kept?.words !== words)
		db.prepare('INSERT OR REPLACE INTO packets_text (rowid, words) VALUES (?, ?)').run(n, words);
}

/** The wishes for another wording that nobody has answered, of a packet that is out. */
export function openWordings(state: SentPacket) {
	if (!isOpen(state)) return [];
	return state.wordings
		.filter((wish) => wish.answer === null)
		.map((wish) => ({
			id: wish.id,
			person: wish.person,
			name: state.plan.people.find((p) => p.id === wish.person)?.name ?? '',
			words: wish.words,
			instead: wish.instead,
			at: wish.at
		}));
}

/** Returns that wait for somebody of the office. */
export function openReturns(state: SentPacket) {
	if (!isOpen(state)) return [];
	return Object.entries(state.inks)
		.filter(([, ink]) => ink.is === 'doubts' || ink.is === 'sure')
		.map(([person, ink]) => ({
			person,
			name: state.plan.people.find((p) => p.id === person)?.name ?? '',
			doubts: ink.doubts.length,
			at: ink.since
		}));
}

/** The session before a notary that is to come or going on; null where there is none. */
export function openSession(state: SentPacket) {
	const notary = notaryIn(state.plan);
	if (!notary?.notary || !isSessionOpen(state)) return null;
	const before = beforeNotary(state.plan).map(({ id }) => state.people[id]!.is);
	return {
		commission: notary.notary.commission,
		starts: state.session.appointment?.starts ?? null,
		running: state.session.running ? 1 : 0,
		people: before.length,
		signed: before.filter((is) => is === 'done').length,
		since: sinceOf(state, notary.id)
	};
}

function sinceOf(state: SentPacket, person: string): string {
	const standing = state.people[person]!;
	return standing.is === 'waiting' ? state.sentAt : standing.since;
}

function writeSession(db: Db, state: SentPacket): void {
	if (!notaryIn(state.plan)) return;
	db.prepare('DELETE FROM packet_sessions WHERE packet = ?').run(state.packet);
	// what was said in the room goes with its packet's end
	if (!isOpen(state)) {
		db.prepare('DELETE FROM room_words WHERE packet = ?').run(state.packet);
		db.prepare('DELETE FROM room_pages WHERE packet = ?').run(state.packet);
		db.prepare('DELETE FROM room_seen WHERE packet = ?').run(state.packet);
	}
	const session = openSession(state);
	if (session)
		db.prepare(
			`INSERT INTO packet_sessions (packet, commission, starts, running, people, signed, since)
			 VALUES (@packet, @commission, @starts, @running, @people, @signed, @since)`
		).run({ packet: state.packet, ...session });
}

function writeReturns(db: Db, state: SentPacket): void {
	if (Object.keys(state.inks).length === 0) return;
	db.prepare('DELETE FROM packet_returns WHERE packet = ?').run(state.packet);
	const one = db.prepare(
		'INSERT INTO packet_returns (packet, person, name, doubts, at) VALUES (@packet, @person, @name, @doubts, @at)'
	);
	for (const back of openReturns(state)) one.run({ packet: state.packet, ...back });
}

/** The wishes for another wording that wait for an answer. */
function writeWordings(db: Db, state: SentPacket): void {
	if (state.wordings.length === 0) return;
	db.prepare('DELETE FROM packet_wordings WHERE packet = ?').run(state.packet);
	const one = db.prepare(
		'INSERT INTO packet_wordings (packet, id, person, name, words, instead, at) VALUES (@packet, @id, @person, @name, @words, @instead, @at)'
	);
	for (const wish of openWordings(state)) one.run({ packet: state.packet, ...wish });
}

/** Which files are its sealed copies and its evidence sheet: they are never put away while it is here. */
function writeFiles(db: Db, { packet, sealed, evidence }: SentPacket): void {
	const one = db.prepare('INSERT OR IGNORE INTO sealed_files (digest, packet) VALUES (?, ?)');
	for (const digest of [...Object.values(sealed), ...(evidence ? [evidence] : [])]) one.run(digest, packet);
}
