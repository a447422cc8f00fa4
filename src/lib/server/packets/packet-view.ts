import {
	addressOf,
	isOpen,
	localeOf,
	personIn,
	phoneOf,
	planOfRecord,
	stagesOf,
	termEndOf,
	type PacketView,
	type Recorded,
	type SentPacket
} from '../../core/packet';
import { hoursInWords } from '../../core/notary';
import { refuse, type Refusal } from '../../core/refusal';
import { notaryIn } from '../../core/route';
import { inWords, technicalOf } from '../../words/record';
import type { House } from '../house';
import { notaryOfPlan } from '../notary/notaries';
import { sourcesOf } from '../papers';
import { packetState } from './act';
import { correctionId } from './correcting';
import { chainOfPacket } from '../amending/chain';
import { holdsOn } from '../keeping/holds';
import { handedIn } from './copies';
import { keptByRules, keptOf } from './kept';
import { eventsOf } from './log';
import { derive } from './read-tables';

function titleOf(house: House, template: string): string {
	return (
		house.db.prepare<[string], { title: string }>('SELECT title FROM templates WHERE id = ?').get(template)?.title ??
		'a template'
	);
}

function named(house: House, id: string | null): { id: string; reference: string } | null {
	const row =
		id === null
			? undefined
			: house.db.prepare<[string], { reference: string }>('SELECT reference FROM packets WHERE id = ?').get(id);
	return row ? { id: id!, reference: row.reference } : null;
}

function followerOf(house: House, id: string): string | null {
	return house.db.prepare<[string], { id: string }>('SELECT id FROM packets WHERE follows = ?').get(id)?.id ?? null;
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
		endedAt: isOpen(packet) ? null : packet.at,
		thread: derive(packet).thread,
		people: packet.plan.people.map((p) => {
			const standing = packet.people[p.id]!;
			return {
				id: p.id,
				name: p.name,
				email: addressOf(packet, p.id),
				phone: phoneOf(packet, p.id),
				deliver: p.deliver ?? 'mail',
				duty: p.duty,
				standing: standing.is,
				why: standing.is === 'unreachable' ? standing.why : standing.is === 'declined' ? standing.reason : '',
				nudged: packet.nudged[p.id] ?? null,
				identity: p.identity !== undefined,
				ink: packet.inks[p.id]?.is ?? (p.ink ? 'may' : null)
			};
		}),
		handOvers: packet.handOvers,
		wordings: packet.wordings.map((one) => ({ ...one, name: personIn(packet.plan, one.person)?.name ?? '' })),
		folder: packet.folder,
		type: packet.type,
		put: packet.put?.where ?? null,
		chain: chainIn(house, id),
		kept: keptIn(house, packet),
		holds: holdsOn(house.db, id),
		sending: packet.plan.sending ?? {},
		termEnd: termEndOf(packet),
		correcting: packet.correcting && { by: packet.correcting.by, until: packet.correcting.until },
		correction: correctionId(house, id),
		begun: packet.begun && { intake: packet.begun.intake, heading: packet.begun.heading, by: packet.begun.by.name },
		follows: named(house, packet.plan.follows ?? null),
		followedBy: named(house, followerOf(house, id)),
		papers: packet.plan.papers,
		attachments: packet.plan.attachments,
		fields: packet.plan.fields,
		answers: packet.answers,
		from: (packet.plan.from ?? []).map((made) => ({ ...made, title: titleOf(house, made.template) })),
		sources: packet.plan.papers.flatMap(({ digest }) =>
			sourcesOf(house, digest).map(({ name }, n) => ({ paper: digest, n, name }))
		),
		session: sessionOf(house, packet),
		held: packet.status === 'held' ? packet.person : null,
		sealed: packet.evidence !== null,
		files: handedIn(packet).map(({ field, answer }) => ({ what: field, name: answer.name })),
		record: eventsOf(house.db, id)
			.map((event) => ({
				n: event.n,
				at: event.at,
				said: inWords(event, planOfRecord(packet), true),
				person: personOf(event),
				technical: technicalOf(event)
			}))
			.reverse()
	};
}

function chainIn(house: House, id: string): PacketView['chain'] {
	const { order, holds } = chainOfPacket(house.db, id);
	return order.length < 2
		? null
		: order.map(({ id: link, reference, status }) => ({
				id: link,
				reference,
				status,
				holds: link === holds?.id,
				here: link === id
			}));
}

function keptIn(house: House, packet: SentPacket): PacketView['kept'] {
	const { keptUntil } = keptOf(house.db, packet);
	if (keptUntil === null) return null;
	const said = packet.keep !== null;
	const by = packet.keep ? `${packet.keep.by}: ${packet.keep.why}` : (keptByRules(house.db, packet)?.rule.name ?? '');
	return { until: keptUntil, by, said };
}

function sessionOf(house: House, packet: SentPacket): PacketView['session'] {
	const asked = notaryIn(packet.plan)?.notary;
	const notary = notaryOfPlan(house.db, packet.plan);
	if (!asked || !notary) return null;
	const { session } = packet;
	return {
		notary: notary.name,
		act: asked.act,
		appointment: session.appointment,
		running: session.running,
		fee: session.begun?.fee ?? notary.fees[asked.act] ?? '',
		hours: hoursInWords(notary),
		open: isOpen(packet),
		people: stagesOf(packet).map(({ person, stage, doubt }) => ({
			id: person,
			name: personIn(packet.plan, person)?.name ?? '',
			stage,
			doubt
		}))
	};
}

function whyThus(packet: SentPacket): string {
	switch (packet.status) {
		case 'out':
			return packet.correcting
				? `It is being put right by ${packet.correcting.by}; until that is sent or left, nobody can sign.`
				: 'It is on its way. Answers that have been given are locked.';
		case 'held':
			return `It is held: ${personIn(packet.plan, packet.person)?.name ?? 'somebody'} could not show who they are. Nobody can go on until somebody of the office has judged.`;
		case 'completed':
			return packet.evidence === null
				? 'Everyone has finished. The sealed copies are being made.'
				: 'Everyone has finished, and the copies are sealed. Nothing can be changed.';
		case 'declined':
			return packet.reason === ''
				? `It ended because the office did not take ${personIn(packet.plan, packet.person)?.name ?? 'somebody'} for who they should be.`
				: `It ended because ${personIn(packet.plan, packet.person)?.name ?? 'somebody'} declined: ${packet.reason}`;
		case 'withdrawn':
			return `It was withdrawn: ${packet.reason}`;
		case 'expired':
			return 'Its time ran out before everyone had finished.';
	}
}

function personOf(event: Recorded): string | null {
	return 'person' in event ? event.person : null;
}
