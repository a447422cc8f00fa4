import 'reflect-metadata';
import * as x509 from '@peculiar/x509';
import * as asn1 from 'asn1js';
import { verify as verifySignature, X509Certificate } from 'node:crypto';
import * as pkijs from 'pkijs';
import { buffer, OID } from './cms';
import { fault } from './fault';
import { isDer, isLowS, isSorted } from './strict';
import { hashed, suiteFor, suiteNamed, type HashName, type Suite } from './suites';
import { imprintOf, tstInfoOf } from './timestamp';

/** Who signed or stamped, and over what. */
export interface Signer {
	certificate: pkijs.Certificate;
	der: Uint8Array;
	info: pkijs.SignerInfo;
	suite: Suite;
	/** of what it covers, by the suite's hash */
	digest: Buffer;
	others: Uint8Array[];
}

/** The one signer of a SignedData (RFC 5652 §5), held to what we write. @param type of its content */
export function signerOf(cms: Uint8Array, type: string): Signer {
	const content = new pkijs.ContentInfo({ schema: asn1.fromBER(buffer(cms)).result });
	const again = Buffer.from(content.toSchema().toBER());
	if (!again.equals(cms) || !isDer(cms)) fault('The seal is not encoded as it must be.');
	if (content.contentType !== OID.signedData) fault('The seal is of another kind.');
	const signed = new pkijs.SignedData({ schema: content.content });
	const { info, suite } = onlySigner(signed, type);
	const certificates = (signed.certificates ?? []).filter(
		(c): c is pkijs.Certificate => c instanceof pkijs.Certificate
	);
	if (certificates.length !== signed.certificates?.length) fault('The seal carries what does not belong there.');
	const encodings = certificates.map((c) => new Uint8Array(c.toSchema().toBER()));
	if (!isSorted(encodings)) fault('The certificates of the seal stand in another order than they were written in.');
	const sid = info.sid as pkijs.IssuerAndSerialNumber;
	// to the byte: the library's own comparison of names overlooks case and string types
	const encoded = (part: { toSchema(): asn1.BaseBlock } | asn1.BaseBlock) =>
		Buffer.from(('toSchema' in part ? part.toSchema() : part).toBER()).toString('hex');
	const certificate = certificates.find(
		(c) => encoded(c.issuer) === encoded(sid.issuer) && encoded(c.serialNumber) === encoded(sid.serialNumber)
	);
	if (!certificate) return fault('The certificate of the seal is missing.');
	const der = new Uint8Array(certificate.toSchema().toBER());
	const digest = single(info, OID.messageDigest) as asn1.OctetString;
	const named = single(info, OID.contentType) as asn1.ObjectIdentifier;
	if (named.valueBlock.toString() !== type) fault('The seal is of another kind.');
	const ess = single(info, OID.signingCertificateV2) as asn1.Sequence;
	const ids = ((ess.valueBlock.value[0] as asn1.Sequence).valueBlock.value[0] as asn1.Sequence).valueBlock.value;
	// RFC 5035 §3: the hash is named where it isn't SHA-256
	const hash = (ids[suite.hash === 'sha256' ? 0 : 1] as asn1.OctetString).valueBlock.valueHexView;
	if (!hashed(suite.hash, der).equals(hash)) fault('The seal names another certificate.');
	return {
		certificate,
		der,
		info,
		suite,
		digest: Buffer.from(digest.valueBlock.valueHexView),
		others: encodings.filter((_, i) => certificates[i] !== certificate)
	};
}

/** The one signer, with everything that no signature covers held to its one permitted value (RFC 5652 §5.1, §5.3). */
function onlySigner(signed: pkijs.SignedData, type: string): { info: pkijs.SignerInfo; suite: Suite } {
	const info = signed.signerInfos[0];
	if (!info || signed.signerInfos.length !== 1 || signed.encapContentInfo.eContentType !== type)
		return fault('The seal is of another kind.');
	const suite = suiteNamed(info.digestAlgorithm.algorithmId, info.signatureAlgorithm.algorithmId);
	const plain = (algorithm: pkijs.AlgorithmIdentifier | undefined) =>
		algorithm?.algorithmId === suite.digest && algorithm.algorithmParams === undefined;
	const { algorithmParams } = info.signatureAlgorithm;
	const signature = info.signature.valueBlock.valueHexView;
	const ok =
		signed.version === (type === OID.data ? 1 : 3) &&
		info.version === 1 &&
		signed.digestAlgorithms.length === 1 &&
		plain(signed.digestAlgorithms[0]) &&
		plain(info.digestAlgorithm) &&
		// RFC 4055 §5: NULL with RSA, nothing with a curve (RFC 5758 §3.2)
		(suite.curve ? algorithmParams === undefined : algorithmParams instanceof asn1.Null) &&
		signed.crls === undefined &&
		// the seal's content is the file itself, and stands nowhere else
		(signed.encapContentInfo.eContent === undefined) === (type === OID.data) &&
		(suite.curve === null || isLowS(signature, suite.curve.order)) &&
		(info.unsignedAttrs?.attributes.length ?? 0) === (type === OID.data ? 1 : 0);
	return ok ? { info, suite } : fault('The seal uses a method that is not permitted.');
}

function single(info: pkijs.SignerInfo, type: string): asn1.BaseBlock {
	const found = (info.signedAttrs?.attributes ?? []).filter((a) => a.type === type);
	const value = found[0]?.values[0] as asn1.BaseBlock | undefined;
	if (found.length !== 1 || found[0]!.values.length !== 1 || !value) return fault('The seal lacks what it must say.');
	return value;
}

/** Whether the key of its certificate made it, and is of the kind that it says. Faults where not. */
export function checkSignature({ info, der, suite }: Signer): void {
	const attributes = new asn1.Set({ value: info.signedAttrs!.attributes.map((a) => a.toSchema()) });
	const key = new X509Certificate(Buffer.from(der)).publicKey;
	if (suiteFor(key) !== suite) fault('The seal uses a method that is not permitted.');
	const ok = verifySignature(
		suite.hash,
		Buffer.from(attributes.toBER()),
		key,
		Buffer.from(info.signature.valueBlock.valueHexView)
	);
	if (!ok) fault('The seal was not made with the key of its certificate.');
}

/** What a time-stamp says. */
export interface Stamped {
	at: Date;
	signer: Signer;
	/** of what it covers */
	hash: HashName;
}

/** The time-stamp beside a signature, over its value (RFC 3161 appendix A). Faults where it isn't one of that signature. */
export function checkTime(seal: Signer): Stamped {
	const tokens = (seal.info.unsignedAttrs?.attributes ?? []).filter((a) => a.type === OID.timeStampToken);
	if (tokens.length !== 1 || tokens[0]!.values.length !== 1) fault('The time-stamp is missing.');
	const token = new Uint8Array((tokens[0]!.values[0] as asn1.BaseBlock).toBER());
	return checkToken(token, [seal.info.signature.valueBlock.valueHexView], 'The time-stamp belongs to another seal.');
}

/** A time-stamp over these bytes, one part after the other (RFC 3161 §2.4.2). Faults with `other` where it is over others. */
export function checkToken(token: Uint8Array, parts: Uint8Array[], other: string): Stamped {
	const signer = signerOf(token, OID.tstInfo);
	const info = tstInfoOf(token);
	const { hash, digest } = imprintOf(info);
	if (!hashed(hash, ...parts).equals(digest)) fault(other);
	const content = new pkijs.ContentInfo({ schema: asn1.fromBER(buffer(token)).result });
	const inside = new pkijs.SignedData({ schema: content.content }).encapContentInfo.eContent!.getValue();
	if (!hashed(signer.suite.hash, new Uint8Array(inside)).equals(signer.digest))
		fault('The time-stamp has been changed.');
	checkSignature(signer);
	const use = new x509.X509Certificate(buffer(signer.der)).getExtension(x509.ExtendedKeyUsageExtension);
	if (!use?.critical || use.usages.length !== 1 || use.usages[0] !== '1.3.6.1.5.5.7.3.8')
		fault('The time-stamp was not made by a time-stamp authority.');
	return { at: info.genTime, signer, hash };
}

/** The organisation that a certificate is of. */
export function nameOf(certificate: pkijs.Certificate): string {
	const common = certificate.subject.typesAndValues.find((t) => t.type === '2.5.4.10');
	return common ? String(common.value.valueBlock.value) : 'unnamed';
}
