import 'reflect-metadata';
import * as x509 from '@peculiar/x509';
import * as asn1 from 'asn1js';
import { verify as verifySignature, X509Certificate } from 'node:crypto';
import * as pkijs from 'pkijs';
import { buffer } from './cms';
import { fault } from './fault';
import { listsOf, type Identity } from './keys';

/** Revocation lists (RFC 5280 §5): whose they are, when a newer one is due, and whether a certificate stands on one. */

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
 * Faults where a certificate had been withdrawn when it signed, or its key was lost before it is proven to have signed; and where its
 * authority has no list that tells.
 */
export function checkNotWithdrawn(
	certificate: X509Certificate,
	issuer: X509Certificate,
	lists: Uint8Array[],
	at: Date,
	proven: Date
): void {
	const own = lists.flatMap((der) => {
		const list = parsed(der);
		return isSigned(list, issuer) ? [list] : [];
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

const parsed = (der: Uint8Array): pkijs.CertificateRevocationList =>
	pkijs.CertificateRevocationList.fromBER(buffer(der));

/** Whether this authority signed the list. */
export const isListOf = (der: Uint8Array, issuer: X509Certificate): boolean => isSigned(parsed(der), issuer);

function isSigned(list: pkijs.CertificateRevocationList, issuer: X509Certificate): boolean {
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

/** The newest list of this authority, and when it ends. */
export function newest(lists: Uint8Array[], issuer: X509Certificate): { der: Uint8Array; end: Date | null } | null {
	const own = lists.flatMap((der) => {
		const list = parsed(der);
		const end = list.nextUpdate?.value ?? null;
		return isSigned(list, issuer) ? [{ der, end, since: list.thisUpdate.value.getTime() }] : [];
	});
	return own.sort((a, b) => b.since - a.since || Number(b.end ?? 0) - Number(a.end ?? 0))[0] ?? null;
}

/** When a list says that a newer one will be there; null where it says nothing. */
export const nextUpdateOf = (list: Uint8Array): Date | null => parsed(list).nextUpdate?.value ?? null;

/** Where its authority puts its list (RFC 5280 §4.2.1.13): addresses that begin with http. */
export function listAddresses(certificate: Uint8Array): string[] {
	const points = new x509.X509Certificate(buffer(certificate)).getExtension(x509.CRLDistributionPointsExtension);
	return (points?.distributionPoints ?? [])
		.flatMap(({ distributionPoint }) => distributionPoint?.fullName ?? [])
		.flatMap(({ uniformResourceIdentifier }) => uniformResourceIdentifier ?? [])
		.filter((address) => /^https?:\/\//.test(address));
}

/** When the first of an identity's lists ends; null: none does. */
export function firstEndOf(identity: Identity): Date | null {
	const ends = listsOf(identity).flatMap((list) => nextUpdateOf(list)?.getTime() ?? []);
	return ends.length > 0 ? new Date(Math.min(...ends)) : null;
}
