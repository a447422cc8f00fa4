import 'reflect-metadata';
import {
	PDFArray,
	PDFDict,
	PDFDocument,
	PDFName,
	PDFRawStream,
	PDFRef,
	PDFString,
	decodePDFRawStream,
	type PDFObject
} from '@cantoo/pdf-lib';
import * as x509 from '@peculiar/x509';
import * as asn1 from 'asn1js';
import { createHash, createPublicKey, verify as verifySignature, X509Certificate } from 'node:crypto';
import * as pkijs from 'pkijs';
import { faultsOf, type AuditRecord } from '../../core/audit';
import { buffer, OID, sha256 } from './cms';
import { isNotarys } from './keys';
import { signaturesIn, sealField, checkRevision, type Signed } from './revisions';
import { Fault, fault } from './fault';
import { DISPOSAL_FORMAT, DISPOSAL_NAME, RECORD_NAME } from './seal';
import { isDer, isLowS, isSorted } from './strict';
import { tstInfoOf } from './timestamp';

export interface Check {
	name: string;
	ok: boolean;
	say: string;
}

export interface Verdict {
	/** 'genuine': sealed by a trusted seal and unchanged; 'altered': not; 'unjudged': sound, but nobody said whom to trust */
	verdict: 'genuine' | 'altered' | 'unjudged';
	checks: Check[];
	sealedBy?: string;
	/** the notary who signed before the seal, and when (ISO 8601) */
	notary?: { name: string; at: string };
	/** ISO 8601, from the time-stamp */
	sealedAt?: string;
	reference?: string;
	/** until when what is in the file proves it: the end of its time-stamp's certificate, ISO 8601 */
	until?: string;
	/** of the record inside: the tree that it was sealed in */
	tree?: { size: number; root: string };
	/** SHA-256 of the root certificate that the seal leads to */
	root?: string;
}

/**
 * Judges a sealed file by itself: its seal, its time-stamp, its certificates and its audit record. Stricter than
 * the libraries it uses: one seal that covers the whole file, a notary's signature before it where there is one, hexadecimal only, zero padding, an encoding
 * that is reproduced to the byte, P-256 with SHA-256 only, and a time-stamp that must be there.
 * @param trusted root certificates (PEM) of seals and of time-stamps
 */
export async function verifySealed(file: Uint8Array, trusted: string[]): Promise<Verdict> {
	const checks: Check[] = [];
	const verdict: Verdict = { verdict: 'altered', checks };
	const check = async <T>(name: string, say: string, run: () => T | Promise<T>): Promise<T> => {
		try {
			const result = await run();
			checks.push({ name, ok: true, say });
			return result;
		} catch (error) {
			checks.push({ name, ok: false, say: error instanceof Fault ? error.message : 'It could not be read.' });
			throw new Fault();
		}
	};
	try {
		const { before, last } = await check('range', 'One seal, and it covers the whole file.', () => signaturesIn(file));
		const seal = await check('content', 'The file has not been changed since it was sealed.', () =>
			signerFor(last, 'The file has been changed after it was sealed.')
		);
		verdict.sealedBy = nameOf(seal.certificate);
		await check('signature', 'The seal was made with the key of its certificate.', () => {
			checkSignature(seal);
			if (isNotarys(seal.der)) fault('It was signed by a notary, but the seal is missing: it was cut off.');
		});
		const time = await check('time', 'An independent clock says when.', () => checkTime(seal));
		verdict.sealedAt = time.at.toISOString();
		verdict.until = new Date(new X509Certificate(Buffer.from(time.signer.der)).validTo).toISOString();
		const doc = await check('structure', 'The file is in order.', async () => {
			const whole = await PDFDocument.load(file, { updateMetadata: false, parseSpeed: Infinity });
			sealField(whole, last);
			return whole;
		});
		const data = validationData(doc);
		const roots = await check('certificates', 'Certificates and revocation lists lead to their roots.', () => [
			chainRoot(seal, data, time.at),
			chainRoot(time.signer, data, time.at)
		]);
		verdict.root = sha256(roots[0]!).toString('hex');
		if (before)
			await check('notary', 'A notary signed it before, and nothing but the seal came after that.', async () => {
				const notary = signerFor(before, 'The file has been changed after the notary signed it.');
				checkSignature(notary);
				if (!isNotarys(notary.der)) fault('The signature before the seal is not a notary’s.');
				const when = checkTime(notary);
				roots.push(chainRoot(notary, data, when.at), chainRoot(when.signer, data, when.at));
				await checkRevision(file, before, doc);
				verdict.notary = { name: nameOf(notary.certificate), at: when.at.toISOString() };
			});
		const record = await check('record', 'The audit record inside is complete and unbroken.', () => checkRecord(doc));
		await check('moment', 'The seal, its clock and the record agree on when.', () => checkMoment(doc, record, time.at));
		verdict.reference = record.reference;
		if (record.tree) verdict.tree = { size: record.tree.size, root: record.tree.root };
		const known = trusted.map((pem) => sha256(new X509Certificate(pem).raw).toString('hex'));
		if (known.length === 0) {
			checks.push({
				name: 'trust',
				ok: false,
				say: 'No trusted certificate was given, so nobody can say whose seal this is.'
			});
			verdict.verdict = 'unjudged';
			return verdict;
		}
		await check('trust', 'The seal and the time-stamp lead to roots that are trusted.', () => {
			if (!roots.every((root) => known.includes(sha256(root).toString('hex'))))
				fault('The seal does not lead to a root that is trusted here.');
		});
		verdict.verdict = 'genuine';
	} catch (error) {
		if (!(error instanceof Fault)) checks.push({ name: 'file', ok: false, say: 'It could not be read.' });
	}
	return verdict;
}

function signerFor({ cms, signed }: Signed, changed: string): Signer {
	const parsed = signerOf(cms, OID.data);
	return sha256(...signed).equals(parsed.digest) ? parsed : fault(changed);
}

interface Signer {
	certificate: pkijs.Certificate;
	der: Uint8Array;
	info: pkijs.SignerInfo;
	digest: Buffer;
	others: Uint8Array[];
}

function signerOf(cms: Uint8Array, type: string): Signer {
	const content = new pkijs.ContentInfo({ schema: asn1.fromBER(buffer(cms)).result });
	const again = Buffer.from(content.toSchema().toBER());
	if (!again.equals(cms) || !isDer(cms)) fault('The seal is not encoded as it must be.');
	if (content.contentType !== OID.signedData) fault('The seal is of another kind.');
	const signed = new pkijs.SignedData({ schema: content.content });
	const info = onlySigner(signed, type);
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
	const hash = (
		((ess.valueBlock.value[0] as asn1.Sequence).valueBlock.value[0] as asn1.Sequence).valueBlock
			.value[0] as asn1.OctetString
	).valueBlock.valueHexView;
	if (!sha256(der).equals(hash)) fault('The seal names another certificate.');
	return {
		certificate,
		der,
		info,
		digest: Buffer.from(digest.valueBlock.valueHexView),
		others: encodings.filter((_, i) => certificates[i] !== certificate)
	};
}

/** The one signer, with everything that no signature covers held to its one permitted value (RFC 5652 §5.1, §5.3). */
function onlySigner(signed: pkijs.SignedData, type: string): pkijs.SignerInfo {
	const info = signed.signerInfos[0];
	if (!info || signed.signerInfos.length !== 1 || signed.encapContentInfo.eContentType !== type)
		return fault('The seal is of another kind.');
	const plain = (algorithm: pkijs.AlgorithmIdentifier | undefined, id: string) =>
		algorithm?.algorithmId === id && algorithm.algorithmParams === undefined;
	const ok =
		signed.version === (type === OID.data ? 1 : 3) &&
		info.version === 1 &&
		signed.digestAlgorithms.length === 1 &&
		plain(signed.digestAlgorithms[0], OID.sha256) &&
		plain(info.digestAlgorithm, OID.sha256) &&
		plain(info.signatureAlgorithm, OID.ecdsaSha256) &&
		signed.crls === undefined &&
		// the seal's content is the file itself, and stands nowhere else
		(signed.encapContentInfo.eContent === undefined) === (type === OID.data) &&
		isLowS(info.signature.valueBlock.valueHexView) &&
		(info.unsignedAttrs?.attributes.length ?? 0) === (type === OID.data ? 1 : 0);
	return ok ? info : fault('The seal uses a method that is not permitted.');
}

function single(info: pkijs.SignerInfo, type: string): asn1.BaseBlock {
	const found = (info.signedAttrs?.attributes ?? []).filter((a) => a.type === type);
	const value = found[0]?.values[0] as asn1.BaseBlock | undefined;
	if (found.length !== 1 || found[0]!.values.length !== 1 || !value) return fault('The seal lacks what it must say.');
	return value;
}

function checkSignature({ info, der }: Signer): void {
	const attributes = new asn1.Set({ value: info.signedAttrs!.attributes.map((a) => a.toSchema()) });
	const key = new X509Certificate(Buffer.from(der)).publicKey;
	if (key.asymmetricKeyType !== 'ec' || key.asymmetricKeyDetails?.namedCurve !== 'prime256v1')
		fault('The seal uses a method that is not permitted.');
	const ok = verifySignature(
		'sha256',
		Buffer.from(attributes.toBER()),
		key,
		Buffer.from(info.signature.valueBlock.valueHexView)
	);
	if (!ok) fault('The seal was not made with the key of its certificate.');
}

function checkTime(seal: Signer): { at: Date; signer: Signer } {
	const tokens = (seal.info.unsignedAttrs?.attributes ?? []).filter((a) => a.type === OID.timeStampToken);
	if (tokens.length !== 1 || tokens[0]!.values.length !== 1) fault('The time-stamp is missing.');
	const token = new Uint8Array((tokens[0]!.values[0] as asn1.BaseBlock).toBER());
	const signer = signerOf(token, OID.tstInfo);
	const info = tstInfoOf(token);
	const stamped = Buffer.from(info.messageImprint.hashedMessage.valueBlock.valueHexView);
	if (!sha256(seal.info.signature.valueBlock.valueHexView).equals(stamped))
		fault('The time-stamp belongs to another seal.');
	const content = new pkijs.ContentInfo({ schema: asn1.fromBER(buffer(token)).result });
	const inside = new pkijs.SignedData({ schema: content.content }).encapContentInfo.eContent!.getValue();
	if (!sha256(new Uint8Array(inside)).equals(signer.digest)) fault('The time-stamp has been changed.');
	checkSignature(signer);
	const use = new x509.X509Certificate(buffer(signer.der)).getExtension(x509.ExtendedKeyUsageExtension);
	if (!use?.critical || use.usages.length !== 1 || use.usages[0] !== '1.3.6.1.5.5.7.3.8')
		fault('The time-stamp was not made by a time-stamp authority.');
	return { at: info.genTime, signer };
}

interface ValidationData {
	certificates: Uint8Array[];
	lists: Uint8Array[];
}

function validationData(doc: PDFDocument): ValidationData {
	const look = (object: PDFObject | undefined) => (object instanceof PDFRef ? doc.context.lookup(object) : object);
	const dss = look(doc.catalog.get(PDFName.of('DSS')));
	const streams = (key: string): Uint8Array[] => {
		const list = dss instanceof PDFDict ? look(dss.get(PDFName.of(key))) : undefined;
		if (!(list instanceof PDFArray)) return [];
		return list.asArray().flatMap((item) => {
			const stream = look(item);
			return stream instanceof PDFRawStream ? [decodePDFRawStream(stream).decode()] : [];
		});
	};
	return { certificates: streams('Certs'), lists: streams('CRLs') };
}

/** RFC 5280 §6, for a chain of two: issued by a root that is here, valid at that time, not on the root's list. */
function chainRoot(signer: Signer, data: ValidationData, at: Date): Uint8Array {
	// what the seal carries beside its signature is not covered by it; the same certificates in the file are
	const kept = data.certificates.map((der) => sha256(der).toString('hex'));
	if (![signer.der, ...signer.others].every((der) => kept.includes(sha256(der).toString('hex'))))
		fault('The seal carries a certificate that the file does not know.');
	const leaf = new X509Certificate(Buffer.from(signer.der));
	const root = data.certificates
		.map((der) => new X509Certificate(Buffer.from(der)))
		.find((c) => c.ca && leaf.checkIssued(c) && leaf.verify(c.publicKey) && c.verify(c.publicKey));
	if (!root) return fault('The issuer of a certificate is missing.');
	for (const c of [leaf, root]) {
		if (at < new Date(c.validFrom) || at > new Date(c.validTo)) fault('A certificate was not valid at that time.');
	}
	const list = data.lists
		.map((der) => pkijs.CertificateRevocationList.fromBER(buffer(der)))
		.find((crl) => listedBy(crl, root, at));
	if (!list) return fault('The revocation list of a certificate is missing.');
	const serial = signer.certificate.serialNumber;
	const revoked = list.revokedCertificates?.find((entry) => entry.userCertificate.isEqual(serial));
	if (revoked && revoked.revocationDate.value <= at) fault('The certificate of the seal had been revoked.');
	return new Uint8Array(root.raw);
}

function listedBy(crl: pkijs.CertificateRevocationList, root: X509Certificate, at: Date): boolean {
	const key = createPublicKey(root.publicKey.export({ format: 'pem', type: 'spki' }));
	const ok = verifySignature(
		'sha256',
		Buffer.from(crl.tbsView),
		key,
		Buffer.from(crl.signatureValue.valueBlock.valueHexView)
	);
	return ok && crl.thisUpdate.value <= at && (crl.nextUpdate === undefined || at <= crl.nextUpdate.value);
}

/** Of a certificate of disposal, the list that it is of: it has no events of its own. */
function checkRecord(doc: PDFDocument): Pick<AuditRecord, 'reference' | 'links'> & Partial<Pick<AuditRecord, 'tree'>> {
	const attached = (name: string) => {
		const found = doc.getAttachments().find((one) => one.name === name);
		return found && (JSON.parse(Buffer.from(found.data).toString('utf8')) as Record<string, unknown>);
	};
	const record = attached(RECORD_NAME) as AuditRecord | undefined;
	const disposal = record ? undefined : attached(DISPOSAL_NAME);
	if (disposal?.['format'] === DISPOSAL_FORMAT) return { reference: String(disposal['number']), links: [] };
	if (!record) return fault('The audit record is missing.');
	const hex = (data: string | Uint8Array) => createHash('sha256').update(data).digest('hex');
	const faults = faultsOf(record, hex, hex);
	if (faults[0]) fault(faults[0]);
	return record;
}

/** How far the time-stamp may lie from what the signed part says of when it was sealed, in ms. */
const APART = 5 * 60_000;

/**
 * A time-stamp is covered by no signature of the seal: a later one could be put in its place. The signed part says when it was
 * sealed as well (ISO 32000-2 §12.8.1, M), and nothing in the record inside is later.
 */
function checkMoment(doc: PDFDocument, record: Pick<AuditRecord, 'links'>, at: Date): void {
	const signature = sealField(doc);
	const said = signature.get(PDFName.of('M'));
	const sealed = said instanceof PDFString ? said.decodeDate() : fault('The seal does not say when it was made.');
	if (Math.abs(sealed.getTime() - at.getTime()) > APART)
		fault(
			`The seal says ${sealed.toISOString()}, its time-stamp ${at.toISOString()}: it is not the one it was made with.`
		);
	const last = record.links.at(-1);
	const when = last ? Date.parse(String((JSON.parse(last.body) as { at?: unknown }).at)) : NaN;
	if (when > sealed.getTime() + APART) fault('The record inside is later than the seal.');
}

function nameOf(certificate: pkijs.Certificate): string {
	const common = certificate.subject.typesAndValues.find((t) => t.type === '2.5.4.10');
	return common ? String(common.value.valueBlock.value) : 'unnamed';
}
