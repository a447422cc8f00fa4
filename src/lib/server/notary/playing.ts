import { ACTS } from '../../core/notary';
import { comersOf, isInRoom, isOpen, isSessionOpen, personIn, type SentPacket } from '../../core/packet';
import { isRefusal, type Refusal } from '../../core/refusal';
import { notaryIn } from '../../core/route';
import type { House } from '../house';
import { packetState } from '../packets/act';
import { eventsOf } from '../packets/log';
import { openAndConsent, type Visitor } from '../signing';
import { knownBy } from './known';
import { notaryOfPlan } from './notaries';
import { doInRoom, textToDraw, type RoomDeed } from './session';

/** The stand-in plays a notary by itself: what it does next hangs only on what has happened. */

const FROM = { address: '', device: 'the stand-in, which plays the notary' };

/** What the notary would do now; null while others are at it. */
export function nextDeed(house: House, packet: SentPacket): RoomDeed | 'open' | null {
	const notary = notaryIn(packet.plan);
	if (!notary?.notary || !isSessionOpen(packet)) return null;
	const { session, people } = packet;
	const standing = people[notary.id]!;
	const left = comersOf(packet);
	const there = left.filter((one) => isInRoom(packet, one));
	if (left.length > 0 && there.length === 0 && !session.running) return null;
	if (standing.is !== 'opened' || standing.consented === null) return 'open';
	if (!session.present.includes(notary.id)) return { do: 'enter' };
	if (!session.running) return { do: 'begin' };
	const unknown = there.find(({ id }) => !(id in session.confirmed));
	if (unknown)
		return {
			do: 'confirm',
			who: unknown.id,
			how: knownBy(eventsOf(house.db, packet.packet), unknown.id) || 'known to the notary'
		};
	const { oath } = ACTS[notary.notary.act];
	const ready = there.find(
		({ id }) => people[id]!.is !== 'done' && (!oath || session.sworn.includes(id)) && session.turn === null
	);
	if (ready) return { do: 'turn', who: ready.id };
	if (left.some(({ id }) => people[id]!.is !== 'done')) return null;
	if (!session.drawn) return { do: 'draw', text: textToDraw(house, packet), place: null };
	return left.every(({ id }) => session.approved.includes(id)) ? { do: 'finish' } : null;
}

/** More steps than these in a row would be a circle. */
const MOST = 40;

/** Does all that the notary would do now, where the stand-in plays them. */
export async function playNotary(house: House, { packet: id }: { packet: string }, done: () => void): Promise<null> {
	for (let step = 0; step < MOST; step++) {
		const packet = packetState(house.db, id);
		if (packet.status === 'none' || !isOpen(packet) || !notaryOfPlan(house.db, packet.plan)?.plays) break;
		const deed = nextDeed(house, packet);
		if (deed === null || isRefusal(await playStep(house, packet, deed))) break;
	}
	done();
	return null;
}

async function playStep(house: House, packet: SentPacket, deed: RoomDeed | 'open'): Promise<object | Refusal | null> {
	const visitor: Visitor = {
		packet,
		person: personIn(packet.plan, notaryIn(packet.plan)!.id)!,
		coded: true,
		proved: true,
		guest: false
	};
	return deed === 'open' ? openAndConsent(house, visitor, FROM) : doInRoom(house, visitor, deed, FROM);
}
