import { addressOf, type SentPacket, type Thread, type ThreadPerson } from '../../core/packet';
import { acts, stopOf } from '../../core/route';
import type { Db } from '../db';
import { folded } from '../../core/folded';

export interface Derived {
	title: string;
	status: string;
	sentAt: string;
	since: string;
	deadline: string | null;
	endedAt: string | null;
	thread: Thread;
	sealed: boolean;
	events: number;
	/** the template it was made from, the first where several were joined */
	template: string | null;
	people: { person: string; name: string; email: string; standing: string; since: string | null }[];
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
	const thread = state.plan.stops.map((stop) => stop.people.map(person));
	const having =
		state.status === 'out'
			? (thread[state.stop] ?? []).filter((p) => acts(p.duty as 'signs') && p.standing !== 'done')
			: [];
	return {
		title: state.plan.title,
		status: state.status,
		sentAt: state.sentAt,
		since: having.map((p) => p.since ?? state.sentAt).sort()[0] ?? state.sentAt,
		deadline: state.deadline,
		endedAt: state.status === 'out' ? null : state.at,
		thread,
		sealed: state.evidence !== null,
		events: state.events,
		template: state.plan.from?.[0]?.template ?? null,
		people: state.plan.people
			.filter((p) => stopOf(state.plan, p.id) >= 0)
			.map((p) => {
				const seen = person(p.id);
				return {
					person: p.id,
					name: p.name,
					email: addressOf(state, p.id),
					standing: state.status === 'out' ? seen.standing : 'ended',
					since: seen.since
				};
			})
	};
}

/** Writes the read tables after a command. Must run in the command's transaction. */
export function writeReadTables(db: Db, state: SentPacket, owner: string, head: string): void {
	const d = derive(state);
	const first = db.prepare(
		`INSERT INTO packets (id, reference, owner, title, status, sent_at, since, deadline, ended_at, thread, sealed, events, head, template)
			 VALUES (@id, @reference, @owner, @title, @status, @sentAt, @since, @deadline, @endedAt, @thread, @sealed, @events, @head, @template)
			 ON CONFLICT (id) DO UPDATE SET status = excluded.status, since = excluded.since, deadline = excluded.deadline,
			 ended_at = excluded.ended_at, thread = excluded.thread, sealed = excluded.sealed, events = excluded.events, head = excluded.head`
	);
	first.run({
		...d,
		id: state.packet,
		reference: state.reference,
		owner,
		thread: JSON.stringify(d.thread),
		sealed: JSON.stringify({ papers: state.sealed, evidence: state.evidence }),
		head,
		people: null
	});
	const person = db.prepare(
		`INSERT INTO packet_people (packet, person, name, email, standing, since) VALUES (?, ?, ?, ?, ?, ?)
		 ON CONFLICT (packet, person) DO UPDATE SET name = excluded.name, email = excluded.email, standing = excluded.standing, since = excluded.since`
	);
	for (const p of d.people) person.run(state.packet, p.person, p.name, p.email, p.standing, p.since);
	// somebody named on the way is to be found as well
	if (state.events <= 2 || state.plan.people.some((p) => p.namedBy !== undefined && p.name !== '')) {
		const words = [
			d.title,
			state.reference,
			...d.people.flatMap((p) => [p.name, p.email]),
			...state.plan.papers.map((p) => p.name)
		];
		db.prepare('DELETE FROM packets_text WHERE id = ?').run(state.packet);
		db.prepare('INSERT INTO packets_text (id, words) VALUES (?, ?)').run(state.packet, folded(words.join(' ')));
	}
}
