import { isOpen } from '../../core/packet';
import { isRefusal } from '../../core/refusal';
import { inTransaction } from '../db';
import type { House } from '../house';
import { queue } from '../jobs/outbox';
import { act, packetState } from '../packets/act';
import { identitySetting } from './setting';
import { deletePictures, triesOf } from './store';

/**
 * Deletes a packet's pictures once their time is over; before that, asks for itself again on that day. What was found, and the
 * pictures' digests, stay in the record.
 */
export async function forgetPictures(
	house: House,
	{ packet: id }: { packet: string },
	done: () => void
): Promise<null> {
	const packet = packetState(house.db, id);
	if (packet.status === 'none' || isOpen(packet)) {
		done();
		return null;
	}
	const due = new Date(Date.parse(packet.at) + identitySetting(house.db).keep * 86_400_000).toISOString();
	inTransaction(house.db, () => {
		if (due > house.now().toISOString()) {
			queue(house, 'forget', `${id}:forget pictures until ${due}`, { packet: id }, due);
			return done();
		}
		const tries = packet.plan.people
			.concat(packet.former)
			.flatMap((person) => triesOf(house.db, id, person.id))
			.filter((one) => !one.deleted);
		deletePictures(
			house.db,
			tries.map((one) => one.id)
		);
		const handedIn = tries.filter((one) => one.handedAt !== null).map((one) => one.id);
		const noted = act(house, id, { kind: 'pellum' }, { do: 'deletePictures', tries: handedIn });
		if (isRefusal(noted)) throw new Error(noted.say);
		done();
	});
	return null;
}
