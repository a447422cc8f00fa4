import * as asn1 from 'asn1js';
import { randomBytes } from 'node:crypto';
import * as pkijs from 'pkijs';
import { buffer, OID, signedData } from './cms';
import { generalizedTime, integer, octets, oid, sequence, TRUE } from './der';
import type { Identity } from './keys';
import { hashed, hashNamed, SUITES, type HashName } from './suites';

/** A real policy would need an arc of its own; 2.999 is the one set aside for examples (ITU-T X.660). */
const POLICY = '2.999.3161.1';

/** Bytes of a digest, by the identifier of its hash. */
const LENGTHS = new Map<string, number>([
	[SUITES.p256.digest, 32],
	[SUITES.p384.digest, 48]
]);

/** PKIStatusInfo with status 2, rejection (RFC 3161 §2.4.2). */
const REJECTED = sequence(sequence(integer(2)));

/** A request for a token over these bytes, one part after the other, DER (RFC 3161 §2.4.1), with a nonce and the certificate asked for. */
export function timestampRequest(hash: HashName, ...parts: Uint8Array[]): Uint8Array {
	return sequence(integer(1), imprint(hash, hashed(hash, ...parts)), integer(positive(randomBytes(8))), TRUE);
}

/** The stand-in authority: answers a request (RFC 3161 §2.4.2), or refuses what it can't read or won't hash. */
export function answerTimestamp(authority: Identity, request: Uint8Array, now: Date): Uint8Array {
	let asked: pkijs.TimeStampReq;
	try {
		asked = new pkijs.TimeStampReq({ schema: asn1.fromBER(buffer(request)).result });
	} catch {
		return REJECTED;
	}
	const imprinted = asked.messageImprint.hashedMessage.valueBlock.valueHexView;
	const length = LENGTHS.get(asked.messageImprint.hashAlgorithm.algorithmId);
	if (imprinted.length !== length) return REJECTED;
	const info = sequence(
		integer(1),
		oid(POLICY),
		new Uint8Array(asked.messageImprint.toSchema().toBER()),
		integer(positive(randomBytes(12))),
		generalizedTime(now),
		...(asked.nonce ? [new Uint8Array(asked.nonce.toBER())] : [])
	);
	const token = signedData(authority, OID.tstInfo, { bytes: info });
	return sequence(sequence(integer(0)), token);
}

/** The token of a granted response, after checking that it answers this request. Throws otherwise. */
export function tokenOf(response: Uint8Array, request: Uint8Array): Uint8Array {
	const answer = new pkijs.TimeStampResp({ schema: asn1.fromBER(buffer(response)).result });
	if (answer.status.status > 1 || !answer.timeStampToken) throw new Error('the time-stamp authority refused');
	const token = new Uint8Array(answer.timeStampToken.toSchema().toBER());
	const asked = new pkijs.TimeStampReq({ schema: asn1.fromBER(buffer(request)).result });
	const info = tstInfoOf(token);
	const same = (a?: asn1.Integer, b?: asn1.Integer) =>
		a !== undefined &&
		b !== undefined &&
		Buffer.compare(Buffer.from(a.valueBlock.valueHexView), Buffer.from(b.valueBlock.valueHexView)) === 0;
	if (!same(info.nonce, asked.nonce)) throw new Error('the time-stamp answers another request');
	return token;
}

/** What a token says: the digest it covers and when. */
export function tstInfoOf(token: Uint8Array): pkijs.TSTInfo {
	const content = new pkijs.ContentInfo({ schema: asn1.fromBER(buffer(token)).result });
	const signed = new pkijs.SignedData({ schema: content.content });
	const bytes = signed.encapContentInfo.eContent?.getValue();
	if (!bytes) throw new Error('the time-stamp token is empty');
	return new pkijs.TSTInfo({ schema: asn1.fromBER(bytes).result });
}

/** The hash that a token is of, and what it came to. Faults on one that isn't permitted. */
export function imprintOf(info: pkijs.TSTInfo): { hash: HashName; digest: Uint8Array } {
	const { hashAlgorithm, hashedMessage } = info.messageImprint;
	return { hash: hashNamed(hashAlgorithm.algorithmId), digest: hashedMessage.valueBlock.valueHexView };
}

function imprint(hash: HashName, digest: Uint8Array): Uint8Array {
	const { digest: id } = hash === 'sha256' ? SUITES.p256 : SUITES.p384;
	return sequence(sequence(oid(id)), octets(digest));
}

function positive(bytes: Buffer): Buffer {
	bytes[0] = (bytes[0]! & 0x7f) | 0x40;
	return bytes;
}
