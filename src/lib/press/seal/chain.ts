import { X509Certificate } from 'node:crypto';
import { sha256 } from './cms';
import { fault } from './fault';
import { checkNotWithdrawn } from './lists';
import type { Signer } from './signer';

/** Certificates and revocation lists, DER. */
export interface ValidationData {
	certificates: Uint8Array[];
	lists: Uint8Array[];
}

/** Authorities between a certificate and its root, at most. */
export const MOST_BETWEEN = 4;

/**
 * The root that a certificate leads to (RFC 5280 §6): each issued by the next, valid at that time, and not withdrawn.
 * @param at when it signed
 * @param proven when it is proven to have signed: where the key was lost before that, anybody could have, with whatever date
 */
export function chainRoot(signer: Signer, data: ValidationData, at: Date, proven = at): Uint8Array {
	// what the seal carries beside its signature is not covered by it; the same certificates in the file are
	const kept = data.certificates.map((der) => sha256(der).toString('hex'));
	if (![signer.der, ...signer.others].every((der) => kept.includes(sha256(der).toString('hex'))))
		fault('The seal carries a certificate that the file does not know.');
	return rootOf(signer.der, data, at, proven);
}

/** As {@link chainRoot}, of any certificate. */
export function rootOf(certificate: Uint8Array, data: ValidationData, at: Date, proven = at): Uint8Array {
	const authorities = data.certificates.map((der) => new X509Certificate(Buffer.from(der))).filter((c) => c.ca);
	let of = new X509Certificate(Buffer.from(certificate));
	for (let i = 0; i <= MOST_BETWEEN; i++) {
		const issuer = authorities.find((c) => of.checkIssued(c) && of.verify(c.publicKey));
		if (!issuer) return fault('The issuer of a certificate is missing.');
		for (const c of [of, issuer])
			if (at < new Date(c.validFrom) || at > new Date(c.validTo)) fault('A certificate was not valid at that time.');
		checkNotWithdrawn(of, issuer, data.lists, at, proven);
		if (issuer.verify(issuer.publicKey)) return new Uint8Array(issuer.raw);
		of = issuer;
	}
	return fault('A certificate leads through more authorities than any of ours.');
}
