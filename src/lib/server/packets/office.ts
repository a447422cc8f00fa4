import { addressOf, localeOf, type Recorded, type SentPacket, type Status, type Thread } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { inWords } from '../../words/record';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { sourcesOf } from '../papers';
import { act, packetState } from './act';
import { handedIn } from './copies';
import { newLink, revokeLinks } from './links';
import { eventsOf } from './log';
import { derive } from './read-tables';

/** The packet page: the state in words for the office, with the record newest first. */
export interface PacketView {
	id: string;
	reference: string;
	title: string;
	status: Status;
	why: string;
	sender: string;
	sentAt: string;
	deadline: string | null;
	zone: string;
	locale: string;
	endedAt: string | null;
	thread: Thread;
	people: { id: string; name: string; email: string; duty: string; standing: string; why: string }[];
	papers: SentPacket['plan']['papers'];
	attachments: SentPacket['plan']['attachments'];
	fields: SentPacket['plan']['fields'];
	answers: SentPacket['answers'];
	/** the templates it was made from, and which version of each */
	from: { template: string; title: string; version: number }[];
	/** what documents were made from, where that was no PDF */
	sources: { paper: string; n: number; name: string }[];
	sealed: boolean;
	/** what people handed in */
	files: { what: string; name: string }[];
	record: { n: number; at: string; said: string; person: string | null; from: string }[];
}

function titleOf(house: House, template: string): string {
	return (
		house.db.prepare<[string], { title: string }>('SELECT title FROM templates WHERE id = ?').get(template)?.title ??
		'a template'
	);
}

export function packetView(house: House, id: string): PacketView | Refusal {
	const packet = packetState(house.db, id);
	if (packet.status === 'none') return refuse('no-packet', 'There is no such packet.');
	return {
		id,
		reference: packet.reference,
		title: packet.plan.title,
		status: packet.status,
		why: whyThus(packet),
		sender: packet.sender.name,
		sentAt: packet.sentAt,
		deadline: packet.deadline,
		zone: packet.zone,
		locale: localeOf(packet.plan),
		endedAt: packet.status === 'out' ? null : packet.at,
		thread: derive(packet).thread,
		people: packet.plan.people.map((p) => {
			const standing = packet.people[p.id]!;
			return {
				id: p.id,
				name: p.name,
				email: addressOf(packet, p.id),
				duty: p.duty,
				standing: standing.is,
				why: standing.is === 'unreachable' ? standing.why : standing.is === 'declined' ? standing.reason : ''
			};
		}),
		papers: packet.plan.papers,
		attachments: packet.plan.attachments,
		fields: packet.plan.fields,
		answers: packet.answers,
		from: (packet.plan.from ?? []).map((made) => ({ ...made, title: titleOf(house, made.template) })),
		sources: packet.plan.papers.flatMap(({ digest }) =>
			sourcesOf(house, digest).map(({ name }, n) => ({ paper: digest, n, name }))
		),
		sealed: packet.evidence !== null,
		files: handedIn(packet).map(({ field, answer }) => ({ what: field, name: answer.name })),
		record: eventsOf(house.db, id)
			.map((event) => ({
				n: event.n,
				at: event.at,
				said: inWords(event, packet.plan),
				person: personOf(event),
				from: 'from' in event ? `${event.from.address}, ${event.from.device}` : ''
			}))
			.reverse()
	};
}

function whyThus(packet: SentPacket): string {
	switch (packet.status) {
		case 'out':
			return 'It is on its way. Answers that have been given are locked.';
		case 'completed':
			return packet.evidence === null
				? 'Everyone has finished. The sealed copies are being made.'
				: 'Everyone has finished, and the copies are sealed. Nothing can be changed.';
		case 'declined':
			return `It ended because ${packet.plan.people.find((p) => p.id === packet.person)?.name ?? 'somebody'} declined: ${packet.reason}`;
		case 'withdrawn':
			return `It was withdrawn: ${packet.reason}`;
		case 'expired':
			return 'Its time ran out before everyone had finished.';
	}
}

function personOf(event: Recorded): string | null {
	return 'person' in event ? event.person : null;
}

export function withdraw(house: House, account: Account, id: string, reason: string): SentPacket | Refusal {
	return act(house, id, office(account), { do: 'withdraw', reason: reason.trim() });
}

/** A new address: the old links die in the same transaction, and a new message goes. */
export function correctAddress(
	house: House,
	account: Account,
	id: string,
	person: string,
	email: string
): SentPacket | Refusal {
	return inTransaction(house.db, () => {
		const before = packetState(house.db, id);
		const corrected = act(house, id, office(account), { do: 'correctAddress', person, email: email.trim() });
		if (!isRefusal(corrected) && before.status !== 'none' && addressOf(before, person) !== addressOf(corrected, person))
			revokeLinks(house.db, id, person, house.now());
		return corrected;
	});
}

/** A way to the signing page for somebody of the office whose turn it is: their own link, made for this visit. */
export function ownLink(house: House, account: Account, id: string): string | Refusal {
	const packet = packetState(house.db, id);
	if (packet.status === 'none') return refuse('no-packet', 'There is no such packet.');
	const me = packet.plan.people.find(
		(p) =>
			addressOf(packet, p.id).toLowerCase() === account.email.toLowerCase() &&
			['notified', 'opened'].includes(packet.people[p.id]!.is)
	);
	if (!me || packet.status !== 'out') return refuse('not-your-turn', 'It is not your turn here.');
	return newLink(house.db, id, me.id, house.now());
}

export function recordFetch(house: House, account: Account, id: string, what: string): SentPacket | Refusal {
	return act(house, id, office(account), { do: 'recordFetched', person: null, what });
}

function office(account: Account) {
	return { kind: 'office', account: account.id, name: account.name } as const;
}
