import * as asn1 from 'asn1js';
import { createPublicKey, sign, type KeyObject } from 'node:crypto';
import * as pkijs from 'pkijs';
import { integer, NULL, octets, oid, sequence, setOf, tagged, tlv, type Der } from './der';
import { certificatesOf, privateKeyOf, type Identity } from './keys';
import { lowS } from './strict';
import { hashed, suiteFor, type Suite } from './suites';

/** Object identifiers used in seals, by the standard that defines them. */
export const OID = {
	data: '1.2.840.113549.1.7.1', // RFC 5652 §4
	signedData: '1.2.840.113549.1.7.2', // RFC 5652 §5.1
	contentType: '1.2.840.113549.1.9.3', // RFC 5652 §11.1
	messageDigest: '1.2.840.113549.1.9.4', // RFC 5652 §11.2
	signingCertificateV2: '1.2.840.113549.1.9.16.2.47', // RFC 5035 §3
	timeStampToken: '1.2.840.113549.1.9.16.2.14', // RFC 3161 appendix A
	tstInfo: '1.2.840.113549.1.9.16.1.4' // RFC 3161 §2.4.2
} as const;

export const sha256 = (...parts: Uint8Array[]): Buffer => hashed('sha256', ...parts);

/** The first DER value of these bytes (X.690 §8.1), without what follows it. */
export function firstDer(bytes: Uint8Array): Uint8Array {
	const parsed = asn1.fromBER(buffer(bytes));
	return bytes.subarray(0, parsed.offset);
}

/** A copy as the plain buffer that the ASN.1 library takes. Not `slice()`: a Node Buffer's shares its pool. */
export function buffer(bytes: Uint8Array): ArrayBuffer {
	return new Uint8Array(bytes).buffer;
}

/**
 * A SignedData in its ContentInfo (RFC 5652 §3, §5) with the attributes that CAdES baseline asks for
 * (ETSI EN 319 122-1 §6): content type, message digest, signing certificate v2, in DER order.
 * The hash is the one that goes with the key.
 * @param content detached: the bytes that it covers, one part after the other; attached: the bytes, as type `contentType`
 * @param later gives the unsigned time-stamp token over the signature value
 */
export function signedData(
	identity: Identity,
	contentType: string,
	content: Uint8Array[] | { bytes: Uint8Array },
	later?: (signature: Uint8Array) => Uint8Array
): Der {
	const { key, issuerAndSerial, suite } = parsed(identity);
	const digest = hashed(suite.hash, ...('bytes' in content ? [content.bytes] : content));
	const algorithm = sequence(oid(suite.digest));
	// RFC 5035 §3: the certificate's hash; SHA-256 is the default and so is left out
	const named = suite.hash === 'sha256' ? [] : [algorithm];
	const essCertificate = sequence(sequence(sequence(...named, octets(hashed(suite.hash, identity.certificate)))));
	const attributes = setOf(
		attribute(OID.contentType, oid(contentType)),
		attribute(OID.messageDigest, octets(digest)),
		attribute(OID.signingCertificateV2, essCertificate)
	);
	const raw = sign(suite.hash, attributes, key);
	const signature = suite.curve ? lowS(raw, suite.curve.order) : raw;
	const token = later?.(signature);
	const signerInfo = sequence(
		integer(1),
		issuerAndSerial,
		algorithm,
		// signed as a SET, carried as [0] IMPLICIT (RFC 5652 §5.4): only the tag differs
		Buffer.concat([Uint8Array.of(0xa0), attributes.subarray(1)]),
		// RFC 4055 §5: with RSA the parameters are NULL
		sequence(oid(suite.signature), ...(suite.curve ? [] : [NULL])),
		octets(signature),
		...(token ? [tagged(1, attribute(OID.timeStampToken, token))] : [])
	);
	const inside = 'bytes' in content ? [tagged(0, octets(content.bytes))] : [];
	const signed = sequence(
		integer(contentType === OID.data ? 1 : 3),
		tlv(0x31, algorithm),
		sequence(oid(contentType), ...inside),
		Buffer.concat([Uint8Array.of(0xa0), setOf(...certificatesOf(identity)).subarray(1)]),
		tlv(0x31, signerInfo)
	);
	return sequence(oid(OID.signedData), tagged(0, signed));
}

function attribute(type: string, value: Uint8Array): Der {
	return sequence(oid(type), tlv(0x31, value));
}

interface Parsed {
	key: KeyObject;
	suite: Suite;
	/** IssuerAndSerialNumber (RFC 5652 §10.2.4), DER */
	issuerAndSerial: Der;
}

/** By the certificate's hash: identities reach a worker as fresh copies with every job. */
const known = new Map<string, Parsed>();

function parsed(identity: Identity): Parsed {
	const id = sha256(identity.certificate, identity.key).toString('hex');
	let found = known.get(id);
	if (!found) {
		const certificate = new pkijs.Certificate({ schema: asn1.fromBER(buffer(identity.certificate)).result });
		const issuer = new Uint8Array(certificate.issuer.toSchema().toBER());
		const serial = new Uint8Array(certificate.serialNumber.toBER());
		const key = privateKeyOf(identity);
		const suite = suiteFor(createPublicKey(key));
		if (!suite) throw new Error('this key is of a kind that seals nothing here');
		found = { key, suite, issuerAndSerial: sequence(issuer, serial) };
		known.set(id, found);
	}
	return found;
}
