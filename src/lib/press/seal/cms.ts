import * as asn1 from 'asn1js';
import { createHash, sign } from 'node:crypto';
import * as pkijs from 'pkijs';
import { privateKeyOf, type Identity } from './keys';

/** Object identifiers used in seals, by the standard that defines them. */
export const OID = {
	data: '1.2.840.113549.1.7.1', // RFC 5652 §4
	signedData: '1.2.840.113549.1.7.2', // RFC 5652 §5.1
	contentType: '1.2.840.113549.1.9.3', // RFC 5652 §11.1
	messageDigest: '1.2.840.113549.1.9.4', // RFC 5652 §11.2
	signingCertificateV2: '1.2.840.113549.1.9.16.2.47', // RFC 5035 §3
	timeStampToken: '1.2.840.113549.1.9.16.2.14', // RFC 3161 appendix A
	tstInfo: '1.2.840.113549.1.9.16.1.4', // RFC 3161 §2.4.2
	sha256: '2.16.840.1.101.3.4.2.1', // RFC 5754 §2.2
	ecdsaSha256: '1.2.840.10045.4.3.2' // RFC 5758 §3.2
} as const;

export function sha256(...parts: Uint8Array[]): Buffer {
	const hash = createHash('sha256');
	for (const part of parts) hash.update(part);
	return hash.digest();
}

/** A copy as the plain buffer that the ASN.1 library takes. Not `slice()`: a Node Buffer's shares its pool. */
export function buffer(bytes: Uint8Array): ArrayBuffer {
	return new Uint8Array(bytes).buffer;
}

/**
 * A SignedData (RFC 5652 §5) with the attributes that CAdES baseline asks for (ETSI EN 319 122-1 §6):
 * content type, message digest, signing certificate v2, in DER order.
 * @param content detached: its digest only; attached: the bytes, as type `contentType`
 * @param later gives the unsigned time-stamp token over the signature value
 */
export function signedData(
	identity: Identity,
	contentType: string,
	content: { digest: Uint8Array } | { bytes: Uint8Array },
	later?: (signature: Uint8Array) => Uint8Array
): Uint8Array {
	const certificate = pkijs.Certificate.fromBER(buffer(identity.certificate));
	const digest = 'bytes' in content ? sha256(content.bytes) : content.digest;
	const attributes = derSorted([
		attribute(OID.contentType, new asn1.ObjectIdentifier({ value: contentType })),
		attribute(OID.messageDigest, new asn1.OctetString({ valueHex: buffer(digest) })),
		attribute(OID.signingCertificateV2, essCertificate(identity.certificate))
	]);
	const toSign = Buffer.from(new asn1.Set({ value: attributes.map((a) => a.toSchema()) }).toBER());
	const signature = sign('sha256', toSign, privateKeyOf(identity));
	const ecdsa = new pkijs.AlgorithmIdentifier({ algorithmId: OID.ecdsaSha256 });
	const digestAlgorithm = new pkijs.AlgorithmIdentifier({ algorithmId: OID.sha256 });
	const token = later?.(signature);
	const info = new pkijs.SignerInfo({
		version: 1,
		sid: new pkijs.IssuerAndSerialNumber({ issuer: certificate.issuer, serialNumber: certificate.serialNumber }),
		digestAlgorithm,
		signedAttrs: new pkijs.SignedAndUnsignedAttributes({ type: 0, attributes }),
		signatureAlgorithm: ecdsa,
		signature: new asn1.OctetString({ valueHex: buffer(signature) }),
		...(token && {
			unsignedAttrs: new pkijs.SignedAndUnsignedAttributes({
				type: 1,
				attributes: [attribute(OID.timeStampToken, asn1.fromBER(buffer(token)).result)]
			})
		})
	});
	const signed = new pkijs.SignedData({
		version: contentType === OID.data ? 1 : 3,
		digestAlgorithms: [digestAlgorithm],
		encapContentInfo: new pkijs.EncapsulatedContentInfo({
			eContentType: contentType,
			...('bytes' in content && { eContent: primitiveOctets(content.bytes) })
		}),
		certificates: [certificate, pkijs.Certificate.fromBER(buffer(identity.issuer))],
		signerInfos: [info]
	});
	const wrapped = new pkijs.ContentInfo({ contentType: OID.signedData, content: signed.toSchema(true) });
	return new Uint8Array(wrapped.toSchema().toBER());
}

function attribute(type: string, value: asn1.BaseBlock | asn1.AsnType): pkijs.Attribute {
	return new pkijs.Attribute({ type, values: [value] });
}

/** RFC 5035 §3: the hash of the certificate; SHA-256 is the default and so is left out. */
function essCertificate(certificate: Uint8Array): asn1.Sequence {
	const essCertId = new asn1.Sequence({ value: [new asn1.OctetString({ valueHex: buffer(sha256(certificate)) })] });
	return new asn1.Sequence({ value: [new asn1.Sequence({ value: [essCertId] })] });
}

/** DER wants the members of a SET OF in ascending order of their encodings (X.690 §11.6). */
function derSorted(attributes: pkijs.Attribute[]): pkijs.Attribute[] {
	const encoded = attributes.map((a) => ({ a, der: Buffer.from(a.toSchema().toBER()) }));
	return encoded.sort((x, y) => Buffer.compare(x.der, y.der)).map(({ a }) => a);
}

/** The library would cut long content into pieces (BER); a signature wants DER. */
function primitiveOctets(bytes: Uint8Array): asn1.OctetString {
	const octets = new asn1.OctetString({ valueHex: buffer(bytes) });
	octets.idBlock.isConstructed = false;
	return octets;
}
