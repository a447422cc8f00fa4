import { stampAgainInWorker } from '../../press';
import { keepBlob, readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';
import { knownNow, provesUntil, sealKeys, trustedRoots } from '../keys';
import { act, packetState } from '../packets/act';
import { keepLasting } from './keeping';

/** Puts another time-stamp over every sealed copy of a packet, and records it; each has to be genuine with it. */
export async function stampCopies(house: House, id: string, done: () => void): Promise<null> {
	const { db } = house;
	const packet = packetState(db, id);
	if (packet.status !== 'completed' || packet.evidence === null) {
		done();
		return null;
	}
	const { stamp } = await sealKeys(house);
	const trusted = (await trustedRoots(house)).map(({ pem }) => pem);
	const { lists, ended } = knownNow(house);
	const made: { what: string; was: string; sealed: Awaited<ReturnType<typeof stampAgainInWorker>> }[] = [];
	for (const [what, was] of Object.entries({ ...packet.sealed, evidence: packet.evidence })) {
		const sealed = await stampAgainInWorker({
			file: readBlob(db, was)!.bytes,
			stamp,
			known: { certificates: [], lists: lists ?? [] },
			trusted,
			ended,
			now: house.now().toISOString()
		});
		made.push({ what, was, sealed });
	}
	const { until, method } = provesUntil(stamp);
	const copies = made.map(({ what, was, sealed }) => ({ what, was, now: sealed.digest }));
	inTransaction(db, () => {
		for (const { sealed } of made) keepBlob(db, sealed.bytes, 'application/pdf', house.now(), sealed.digest);
		act(house, id, { kind: 'pellum' }, { do: 'recordStamped', copies, until, method });
		const later = db.prepare(
			'UPDATE sealed_files SET later = @now WHERE packet = @packet AND (digest = @was OR later = @was)'
		);
		for (const { was, now } of copies) later.run({ packet: id, was, now });
		keepLasting(house, id, { until, method });
		done();
	});
	return null;
}
