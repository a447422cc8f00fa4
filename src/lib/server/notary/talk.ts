import type { SentPacket } from '../../core/packet';
import { refuse, type Refusal } from '../../core/refusal';
import { guestsOf, notaryIn } from '../../core/route';
import type { House } from '../house';
import { act, packetState } from '../packets/act';
import { notaryOfPlan } from './notaries';

/** What goes on in a room besides what the record holds: words, the page that all look at, and who is still heard of. */

export interface Said {
	id: number;
	person: string;
	said: string;
	at: string;
}

const MOST = { words: 300, shown: 100 };
/**
 * After so many ms without a word from somebody's page they are not in the room any more. A page in the background is let ask once a
 * minute only.
 */
const LOST = 90_000;

/** Refuses `too-much-said` where a room has had its fill. */
export function say(house: House, packet: string, person: string, text: string): Refusal | null {
	const { db } = house;
	const said = text.trim();
	if (said === '') return null;
	const count = db.prepare<[string], number>('SELECT count(*) FROM room_words WHERE packet = ?').pluck().get(packet)!;
	if (count >= MOST.words)
		return refuse('too-much-said', 'So much has been said here that no more fits. Speak on the phone.');
	db.prepare('INSERT INTO room_words (packet, person, said, at) VALUES (?, ?, ?, ?)').run(
		packet,
		person,
		said,
		house.now().toISOString()
	);
	return null;
}

/** The last words of a room, in their order. */
export function wordsOfRoom(house: House, packet: string): Said[] {
	return house.db
		.prepare<[string, number], Said>(
			'SELECT id, person, said, at FROM room_words WHERE packet = ? ORDER BY id DESC LIMIT ?'
		)
		.all(packet, MOST.shown)
		.reverse();
}

export interface PageShown {
	paper: string;
	page: number;
}

export function showPage(house: House, packet: string, { paper, page }: PageShown): void {
	house.db
		.prepare(
			`INSERT INTO room_pages (packet, paper, page) VALUES (?, ?, ?)
			 ON CONFLICT (packet) DO UPDATE SET paper = excluded.paper, page = excluded.page`
		)
		.run(packet, paper, page);
}

/** The page that all look at: what the notary has turned to, or the first. */
export function pageShown(house: House, { packet, plan }: SentPacket): PageShown {
	const kept = house.db.prepare<[string], PageShown>('SELECT paper, page FROM room_pages WHERE packet = ?').get(packet);
	const paper = plan.papers.find((one) => one.id === kept?.paper);
	return kept && paper && kept.page < paper.pages.length ? kept : { paper: plan.papers[0]!.id, page: 0 };
}

/** Something was heard of somebody in the room. */
export function heardOf(house: House, packet: string, person: string): void {
	house.db
		.prepare(
			'INSERT INTO room_seen (packet, person, at) VALUES (?, ?, ?) ON CONFLICT (packet, person) DO UPDATE SET at = excluded.at'
		)
		.run(packet, person, house.now().toISOString());
}

/**
 * Somebody's page has asked for news; whoever's has not for a while has gone. A notary whom the stand-in plays
 * has no page, and one who lends their device to guests has none while a guest has it.
 */
export function hear(house: House, packet: SentPacket, person: string): SentPacket {
	const { db } = house;
	const now = house.now();
	if (packet.session.present.includes(person)) heardOf(house, packet.packet, person);
	const notary = notaryIn(packet.plan)?.id ?? '';
	const stays = notaryOfPlan(db, packet.plan)?.plays === true || guestsOf(packet.plan, notary).length > 0;
	const before = new Date(now.getTime() - LOST).toISOString();
	const lost = packet.session.present.filter((id) => {
		const at = db
			.prepare<[string, string], string>('SELECT at FROM room_seen WHERE packet = ? AND person = ?')
			.pluck()
			.get(packet.packet, id);
		return id !== person && !(stays && id === notary) && (at === undefined || at < before);
	});
	for (const id of lost) act(house, packet.packet, { kind: 'pellum' }, { do: 'leaveRoom', person: id, how: 'lost' });
	const after = lost.length > 0 ? packetState(db, packet.packet) : packet;
	return after.status === 'none' ? packet : after;
}
