import { prefilled, fieldsOf, kindOf, type Answers } from '../../core/field';
import {
	addressOf,
	localeOf,
	placedPlan,
	type Command,
	type Field,
	type From,
	type SentPacket
} from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { notaryIn } from '../../core/route';
import { OATH, type PlacedKind } from '../../core/notary';
import { notPermitted } from '../access';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { act, freezePlan, office, packetState } from '../packets/act';
import { NOBODY } from '../packets/somebody';
import { decline, finish as finishPart } from '../signing/acting';
import { readSaved, writeSaved } from '../signing/keeping';
import { unproved, type Visitor } from '../signing/visit';
import { broughtOn, drawUp, NO_PAGE, proposedText, type ActPlace } from './drawing';
import { enterInJournal } from './journal';
import { notaryOfPlan } from './notaries';
import { heardOf, say, showPage } from './talk';

/** What people do in a room before a notary, and what the office sets for it. */

/** What may be asked for in a room, by whoever has a link to it. */
export type RoomDeed =
	| { do: 'enter' | 'leave' | 'begin' | 'oath' | 'approve' | 'finish' }
	| { do: 'pause' | 'doubt' | 'refuse'; why: string }
	| { do: 'say'; text: string }
	| { do: 'show'; paper: string; page: number }
	| { do: 'confirm'; who: string; how: string }
	| { do: 'turn'; who: string }
	| { do: 'again'; who: string; why: string }
	| { do: 'place'; who: string; kind: PlacedKind; paper: string; page: number; x: number; y: number }
	| { do: 'draw'; text: string; place: ActPlace };

/** Does one of it. Refuses what core refuses, and whoever has not shown yet who they are. */
export async function doInRoom(
	house: House,
	visitor: Visitor,
	deed: RoomDeed,
	from: From
): Promise<SentPacket | Refusal | null> {
	const no = unproved(visitor);
	if (no) return no;
	const { packet, person } = visitor;
	const run = (command: Command, along?: { also: () => void }) =>
		act(house, packet.packet, { kind: 'person', person: person.id }, command, along);
	switch (deed.do) {
		case 'enter':
			return run(
				{ do: 'enterRoom', person: person.id, from },
				{ also: () => heardOf(house, packet.packet, person.id) }
			);
		case 'leave':
			return run({ do: 'leaveRoom', person: person.id, how: 'left' });
		case 'begin': {
			const commission = notaryOfPlan(house.db, packet.plan);
			if (!commission) return NO_NOTARY;
			return run({ do: 'beginSession', person: person.id, commission, from });
		}
		case 'pause':
			return said(house, visitor, deed.why, run({ do: 'pauseSession', person: person.id, why: deed.why }));
		case 'say':
			return inRoomOr(visitor) ?? say(house, packet.packet, person.id, deed.text) ?? told(house, packet);
		case 'show':
			return presidingOr(visitor) ?? shown(house, packet, deed);
		case 'confirm':
			return run({ do: 'confirmPerson', person: person.id, who: deed.who, how: deed.how });
		case 'oath':
			return run({ do: 'takeOath', person: person.id, words: OATH, from });
		case 'turn':
			return run({ do: 'giveTurn', person: person.id, who: deed.who });
		case 'again':
			return said(house, visitor, deed.why, openAgain(house, visitor, deed));
		case 'place':
			return presidingOr(visitor) ?? place(house, visitor, deed);
		case 'draw':
			return presidingOr(visitor) ?? drawUp(house, visitor, deed.text, deed.place);
		case 'approve':
			return run({ do: 'approveResult', person: person.id, from });
		case 'doubt':
			return run({ do: 'doubtResult', person: person.id, why: deed.why, from });
		case 'refuse':
			return presidingOr(visitor) ?? decline(house, visitor, deed.why, from);
		case 'finish':
			return presidingOr(visitor) ?? finishAct(house, visitor, from);
	}
}

const NO_NOTARY = refuse('no-commission', 'This notary has no commission here any more.');

/** Refuses whoever is not the notary of the packet. */
function presidingOr({ packet, person }: Visitor): Refusal | null {
	return notaryIn(packet.plan)?.id === person.id ? null : refuse('not-notary', 'Only the notary can do that.');
}

function inRoomOr({ packet, person }: Visitor): Refusal | null {
	return packet.session.present.includes(person.id) ? null : refuse('not-in-room', 'Go into the room first.');
}

/** The reason for what was done is among the words that all in the room read. */
function said(
	house: House,
	{ packet, person }: Visitor,
	why: string,
	done: SentPacket | Refusal
): SentPacket | Refusal {
	if (!isRefusal(done)) say(house, packet.packet, person.id, why);
	return done;
}

function told(house: House, packet: SentPacket): SentPacket {
	house.changes.emit('packet', packet.packet);
	return packet;
}

function shown(house: House, packet: SentPacket, { paper, page }: { paper: string; page: number }) {
	const there = packet.plan.papers.find((one) => one.id === paper);
	if (!there || page >= there.pages.length) return NO_PAGE;
	showPage(house, packet.packet, { paper, page });
	return told(house, packet);
}

/** Size and label of what a notary may place in a session, in points. */
const PLACED: Record<PlacedKind, { width: number; height: number; label: string }> = {
	signature: { width: 150, height: 36, label: 'Signature' },
	initials: { width: 60, height: 30, label: 'Initials' },
	'signing-date': { width: 90, height: 18, label: 'Date' },
	name: { width: 150, height: 18, label: 'Name' },
	text: { width: 180, height: 18, label: 'To fill in' }
};

function place(house: House, { packet, person }: Visitor, deed: Extract<RoomDeed, { do: 'place' }>) {
	const { label, width, height } = PLACED[deed.kind];
	const page = packet.plan.papers.find((one) => one.id === deed.paper)?.pages[deed.page];
	if (!page) return NO_PAGE;
	const field: Field = {
		id: newId(house.now()),
		kind: deed.kind,
		person: deed.who,
		paper: deed.paper,
		page: deed.page,
		rect: broughtOn(page, { x: deed.x, y: deed.y, width, height }),
		label,
		key: '',
		required: true,
		settings: {}
	};
	return inTransaction(house.db, () => {
		const now = packetState(house.db, packet.packet);
		if (now.status === 'none') return NOBODY;
		return act(
			house,
			packet.packet,
			{ kind: 'person', person: person.id },
			{
				do: 'placeFields',
				person: person.id,
				plan: freezePlan(house.db, placedPlan(now.plan, [field])),
				fields: [field]
			}
		);
	});
}

/** They sign once more, and find what they had entered. */
function openAgain(house: House, { packet, person }: Visitor, { who, why }: { who: string; why: string }) {
	const theirs = Object.entries(packet.answers).filter(([id]) => {
		const field = packet.plan.fields.find((one) => one.id === id);
		return field?.person === who && kindOf(field.kind).filledBy === 'person';
	});
	return act(
		house,
		packet.packet,
		{ kind: 'person', person: person.id },
		{ do: 'openPartAgain', person: person.id, who, why },
		{
			also: () => void writeSaved(house, packet.packet, who, Object.fromEntries(theirs))
		}
	);
}

/** The act is done: what the notary signs with is their own certificate, once the packet is sealed. */
function finishAct(house: House, visitor: Visitor, from: From): SentPacket | Refusal {
	const { packet, person } = visitor;
	const commission = notaryOfPlan(house.db, packet.plan) ?? undefined;
	return inTransaction(house.db, () => {
		const done = finishPart(house, visitor, notarysAnswers(house, visitor), from, { commission });
		if (!isRefusal(done) && packet.people[person.id]?.is !== 'done') enterInJournal(house, done);
		return done;
	});
}

/** What is the notary's to answer on the pages: entered before, known anyway, or their name where a signature is wanted. */
function notarysAnswers(house: House, { packet, person }: Visitor): Answers {
	const { plan } = packet;
	const known = {
		...prefilled(plan, person.id, {
			person: { ...person, email: addressOf(packet, person.id) },
			now: house.now().toISOString(),
			zone: packet.zone,
			locale: localeOf(plan)
		}),
		...readSaved(house, packet.packet, person.id)?.answers
	};
	const signed = fieldsOf(plan, person.id).flatMap((field): [string, Answers[string]][] =>
		kindOf(field.kind).signs && !known[field.id] ? [[field.id, { way: 'typed', text: person.name, hand: 'kalam' }]] : []
	);
	return { ...known, ...Object.fromEntries(signed) };
}

/** The office sets when a session is, or another time for it; everybody is written to. */
export function appoint(
	house: House,
	account: Account,
	id: string,
	starts: string,
	minutes: number
): SentPacket | Refusal {
	const no = notPermitted(house.db, account, 'change', 'packet', id);
	if (no) return no;
	const packet = packetState(house.db, id);
	const commission = packet.status === 'none' ? null : notaryOfPlan(house.db, packet.plan);
	if (!commission) return NO_NOTARY;
	return act(house, id, office(account), { do: 'appointSession', starts, minutes, commission });
}

/** The text that the notary finds when the act is to be drawn up. */
export const textToDraw = (house: House, packet: SentPacket): string =>
	packet.session.drawn?.text ?? proposedText(house, packet);
