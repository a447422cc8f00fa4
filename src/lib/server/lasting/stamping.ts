import { stampAgainInWorker, type Sealed } from '../../press';
import { keepBlob, readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';
import { keysThere, knownNow, provesUntil, rootsOf } from '../keys';
import { BY_ITSELF, note } from '../office-record';
import { act, packetState } from '../packets/act';
import { keepLasting, ofDisposal } from './keeping';

/** Puts another time-stamp over these copies, and records it. @param of as in {@link keepLasting} */
export function stampCopies(house: House, of: string, done: () => void): Promise<null> {
	const number = /^disposal:(\d+)$/.exec(of)?.[1];
	return number === undefined ? stampPacket(house, of, done) : stampCertificate(house, Number(number), done);
}

/** The clock of today, and how it stamps one file more, which has to be genuine with it. */
async function clock(house: House) {
	const { stamp } = await keysThere(house);
	const trusted = rootsOf(house.db).map(({ pem }) => pem);
	const { lists = [], ended } = knownNow(house);
	const now = house.now().toISOString();
	return {
		proven: provesUntil(stamp),
		over: (digest: string) =>
			stampAgainInWorker({ file: readBlob(house.db, digest)!.bytes, stamp, lists, trusted, ended, now })
	};
}

async function stampCertificate(house: House, number: number, done: () => void): Promise<null> {
	const { db } = house;
	const was = db
		.prepare<[number], string | null>('SELECT certificate FROM disposals WHERE number = ?')
		.pluck()
		.get(number);
	const { proven, over } = await clock(house);
	const sealed = was ? await over(was) : null;
	inTransaction(db, () => {
		if (sealed) {
			keepBlob(db, sealed.bytes, 'application/pdf', house.now(), sealed.digest);
			db.prepare('UPDATE disposals SET certificate = ? WHERE number = ?').run(sealed.digest, number);
			keepLasting(house, ofDisposal(number), proven);
			note(house, BY_ITSELF, { type: 'CertificateStamped', number, until: proven.until.slice(0, 10) });
		}
		done();
	});
	return null;
}

async function stampPacket(house: House, id: string, done: () => void): Promise<null> {
	const { db } = house;
	const packet = packetState(db, id);
	if (packet.status !== 'completed' || packet.evidence === null) {
		done();
		return null;
	}
	const { proven, over } = await clock(house);
	const made: { what: string; was: string; sealed: Sealed }[] = [];
	for (const [what, was] of Object.entries({ ...packet.sealed, evidence: packet.evidence }))
		made.push({ what, was, sealed: await over(was) });
	const copies = made.map(({ what, was, sealed }) => ({ what, was, now: sealed.digest }));
	inTransaction(db, () => {
		for (const { sealed } of made) keepBlob(db, sealed.bytes, 'application/pdf', house.now(), sealed.digest);
		act(house, id, { kind: 'pellum' }, { do: 'recordStamped', copies, ...proven });
		const later = db.prepare(
			'UPDATE sealed_files SET later = @now WHERE packet = @packet AND (digest = @was OR later = @was)'
		);
		for (const { was, now } of copies) later.run({ packet: id, was, now });
		keepLasting(house, id, proven);
		done();
	});
	return null;
}
