import type { Doing } from '../../core/access';
import { personIn, type PlanPerson, type SentPacket } from '../../core/packet';
import { refuse, type Refusal } from '../../core/refusal';
import { notPermitted } from '../access';
import type { Account } from '../accounts';
import type { House } from '../house';
import { packetState } from './act';

/** Somebody of a packet, for whoever of the office may do that with it. Refuses `not-yours`, and `no-packet` where there is nobody such. */
export function somebodyIn(
	house: House,
	account: Account,
	doing: Doing,
	id: string,
	person: string
): { packet: SentPacket; who: PlanPerson } | Refusal {
	const no = notPermitted(house.db, account, doing, 'packet', id);
	if (no) return no;
	const packet = packetState(house.db, id);
	const who = packet.status === 'none' ? undefined : personIn(packet.plan, person);
	return packet.status === 'none' || !who ? NOBODY : { packet, who };
}

export const NOBODY = refuse('no-packet', 'There is nothing to look at here.');
