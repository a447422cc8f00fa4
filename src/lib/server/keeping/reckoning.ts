import { isOpen } from '../../core/packet';
import { inTransaction } from '../db';
import type { House } from '../house';
import { packetState } from '../packets/act';
import { keptOf } from '../packets/kept';
import { writeOrder } from '../packets/ordering';

const AT_A_TIME = 25;

/** Reckons anew how long everything that has ended is kept, a few at a time, so that nobody waits for it. */
export async function reckonKept(house: House, done: () => void): Promise<null> {
	const { db } = house;
	const next = db.prepare<[number, number], { n: number; id: string }>(
		`SELECT m.n, p.id FROM packet_numbers m CROSS JOIN packets p ON p.id = m.packet
		 WHERE m.n > ? AND p.ended_at IS NOT NULL ORDER BY m.n LIMIT ?`
	);
	for (let at = 0; ;) {
		const few = next.all(at, AT_A_TIME);
		inTransaction(db, () => {
			for (const { id } of few) {
				const state = packetState(db, id);
				if (state.status === 'none' || isOpen(state)) continue;
				db.prepare('UPDATE packets SET kept_until = @keptUntil, kept_by = @keptBy WHERE id = @id').run({
					id,
					...keptOf(db, state)
				});
				writeOrder(db, state);
			}
		});
		if (few.length < AT_A_TIME) break;
		at = few.at(-1)!.n;
		await new Promise((go) => setImmediate(go));
	}
	done();
	house.changes.emit('packet', '');
	return null;
}
