import * as asn1 from 'asn1js';
import { verify as verifySignature, X509Certificate } from 'node:crypto';
import * as pkijs from 'pkijs';
import { buffer, sha256 } from './cms';
import { fault } from './fault';
import type { Signer } from './signer';

/** Certificates and revocation lists, DER. */
export interface ValidationData {
	certificates: Uint8Array[];
	lists: Uint8Array[];
}

/** Authorities between a certificate and its root, at most. */
const MOST_BETWEEN = 4;

/** Hashes of the ways in which a list may be signed (RFC 5758 §3.2, RFC 8017 appendix A.2.4). */
const LIST_HASH: Record<string, string> = {
	'1.2.840.10045.4.3.2': 'sha256',
	'1.2.840.10045.4.3.3': 'sha384',
	'1.2.840.10045.4.3.4': 'sha512',
	'1.2.840.113549.1.1.11': 'sha256',
	'1.2.840.113549.1.1.12': 'sha384',
	'1.2.840.113549.1.1.13': 'sha512'
};

/** Reasons after which nobody else can have used the key (RFC 5280 §5.3.1): affiliation changed, superseded, ceased. */
const HARMLESS = [3, 4, 5];

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

function checkNotWithdrawn(
	certificate: X509Certificate,
	issuer: X509Certificate,
	lists: Uint8Array[],
	at: Date,
	proven: Date
): void {
	const own = lists.flatMap((der) => {
		const list = pkijs.CertificateRevocationList.fromBER(buffer(der));
		return isListOf(list, issuer) ? [list] : [];
	});
	// one that was made later tells of then as well
	if (!own.some(({ nextUpdate }) => nextUpdate === undefined || at <= nextUpdate.value))
		fault('The revocation list of a certificate is missing.');
	const serial = BigInt(`0x${certificate.serialNumber}`);
	for (const { revokedCertificates = [] } of own)
		for (const entry of revokedCertificates) {
			if (BigInt(`0x${Buffer.from(entry.userCertificate.valueBlock.valueHexView).toString('hex')}`) !== serial)
				continue;
			const since = entry.revocationDate.value;
			if (since <= at) fault('The certificate had been withdrawn by then.');
			if (since <= proven && !HARMLESS.includes(reasonOf(entry)))
				fault(
					`The key was lost on ${since.toISOString().slice(0, 10)}, and nothing from before that proves when it was used.`
				);
		}
}

/** RFC 5280 §5.3.1; 0 where none is given. */
function reasonOf(entry: pkijs.RevokedCertificate): number {
	const found = entry.crlEntryExtensions?.extensions.find((one) => one.extnID === '2.5.29.21');
	if (!found) return 0;
	const value = asn1.fromBER(found.extnValue.valueBlock.valueHexView).result;
	return value instanceof asn1.Enumerated ? value.valueBlock.valueDec : 0;
}

/** Whether this authority signed the list. */
export function isListOf(list: pkijs.CertificateRevocationList, issuer: X509Certificate): boolean {
	const hash = LIST_HASH[list.signatureAlgorithm.algorithmId];
	return (
		hash !== undefined &&
		verifySignature(
			hash,
			Buffer.from(list.tbsView),
			issuer.publicKey,
			Buffer.from(list.signatureValue.valueBlock.valueHexView)
		)
	);
}
