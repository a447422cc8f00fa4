import { isRefusal } from '../../core/refusal';
import { inTransaction } from '../db';
import type { House } from '../house';
import { act, packetState } from '../packets/act';

/** What happens when an amendment is complete: what it changed says so, and is put out of the way by itself. */
export async function noteAmendment(house: House, packet: string, done: () => void): Promise<null> {
	const { db } = house;
	inTransaction(db, () => {
		const state = packetState(db, packet);
		const amended = state.status === 'completed' ? state.plan.amends?.packet : undefined;
		if (amended && state.status === 'completed') {
			const noted = act(
				house,
				amended,
				{ kind: 'pellum' },
				{ do: 'noteAmended', by: packet, reference: state.reference }
			);
			// what it changed may have gone meanwhile
			if (isRefusal(noted) && noted.code !== 'no-packet') throw new Error(noted.say);
		}
		done();
	});
	return null;
}
