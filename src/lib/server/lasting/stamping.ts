import { stampAgainInWorker } from '../../press';
import { keepBlob, readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';
import { knownNow, provesUntil, sealKeys, trustedRoots } from '../keys';
import { BY_ITSELF, note } from '../office-record';
import { act, packetState } from '../packets/act';
import { keepLasting, ofDisposal } from './keeping';

/** Puts another time-stamp over these copies, and records it. @param of as in {@link keepLasting} */
export function stampCopies(house: House, of: string, done: () => void): Promise<null> {
	const number = /^disposal:(\d+)$/.exec(of)?.[1];
	return number === undefined ? stampPacket(house, of, done) : stampCertificate(house, Number(number), done);
}

/** Another time-stamp over one file, which has to be genuine with it. */
async function stampOne(house: House, was: string) {
	const { stamp } = await sealKeys(house);
	const { lists, ended } = knownNow(house);
	const sealed = await stampAgainInWorker({
		file: readBlob(house.db, was)!.bytes,
		stamp,
		known: { certificates: [], lists: lists ?? [] },
		trusted: (await trustedRoots(house)).map(({ pem }) => pem),
		ended,
		now: house.now().toISOString()
	});
	return { sealed, proven: provesUntil(stamp) };
}

async function stampCertificate(house: House, number: number, done: () => void): Promise<null> {
	const { db } = house;
	const was = db
		.prepare<[number], string | null>('SELECT certificate FROM disposals WHERE number = ?')
		.pluck()
		.get(number);
	const made = was ? await stampOne(house, was) : null;
	inTransaction(db, () => {
		if (made) {
			keepBlob(db, made.sealed.bytes, 'application/pdf', house.now(), made.sealed.digest);
			db.prepare('UPDATE disposals SET certificate = ? WHERE number = ?').run(made.sealed.digest, number);
			keepLasting(house, ofDisposal(number), made.proven);
			note(house, BY_ITSELF, { type: 'CertificateStamped', number, until: made.proven.until.slice(0, 10) });
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
	const made: ({ what: string; was: string } & Awaited<ReturnType<typeof stampOne>>)[] = [];
	for (const [what, was] of Object.entries({ ...packet.sealed, evidence: packet.evidence }))
		made.push({ what, was, ...(await stampOne(house, was)) });
	// the clock may have got another key meanwhile: the copies are proven for as long as the first of them is
	const { until, method } = made.map(({ proven }) => proven).sort((a, b) => (a.until < b.until ? -1 : 1))[0]!;
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
