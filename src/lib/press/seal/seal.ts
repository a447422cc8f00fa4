import {
	AFRelationship,
	PDFArray,
	PDFDict,
	PDFHexString,
	PDFName,
	PDFNumber,
	PDFString,
	type PDFDocument,
	type PDFRef
} from '@cantoo/pdf-lib';
import { OID, signedData } from './cms';
import { certificatesOf, listsOf, suiteOf, type Identity, type SealKeys } from './keys';
import { revisionAfter } from './revision';
import { answerTimestamp, timestampRequest, tokenOf } from './timestamp';

/** Bytes kept free for the signature; a token with its certificates takes about 4,000. */
const ROOM = 12_000;
export const HOLE = '*'.repeat(10);
export const EMPTY = '0'.repeat(ROOM * 2);
export const RECORD_NAME = 'audit-record.json';
/** What a certificate of disposal has in its place. */
export const DISPOSAL_NAME = 'disposal.json';
export const DISPOSAL_FORMAT = 'pellum-disposal/1';
/** Names of the signature fields. */
export const FIELD = { seal: 'seal', notary: 'notary' } as const;

export interface SealWish {
	/** whose seal it is, shown by readers */
	organisation: string;
	reason: string;
	/** the audit record as JSON, attached to the file; null for none */
	record: string | null;
	now: Date;
	/** the notary who signs before the seal, with a certificate of their own */
	notary?: { identity: Identity; name: string; reason: string };
}

/**
 * Seals a document: PAdES baseline B-LT (ETSI EN 319 142-1 §6), certifying that no change is permitted
 * (ISO 32000-2 §12.8.2.2, P = 1). Certificates and revocation lists stand in the DSS (§12.8.4.3) of the same
 * revision: all authorities are known beforehand, so no second revision is needed and one signature covers all.
 *
 * Where a notary has signed, theirs comes first: it certifies the document, and permits nothing but to sign where a place for it
 * stands already (P = 2). The seal fills that place in a revision of its own, covers the whole file, and locks every field (§12.8.2.4, §12.7.5.5).
 */
export async function seal(doc: PDFDocument, keys: SealKeys, wish: SealWish): Promise<Uint8Array> {
	if (wish.record !== null)
		await doc.attach(Buffer.from(wish.record), RECORD_NAME, {
			mimeType: 'application/json',
			description: 'Audit record of this packet',
			creationDate: wish.now,
			modificationDate: wish.now,
			afRelationship: AFRelationship.Data
		});
	const { notary } = wish;
	const first = notary
		? { name: notary.name, reason: notary.reason, reference: certifying(2) }
		: { name: wish.organisation, reason: wish.reason, reference: certifying(1) };
	const signature = doc.context.register(signatureOf(doc, { ...first, now: wish.now }));
	const fields = [field(doc, notary ? FIELD.notary : FIELD.seal, signature)];
	const empty = notary ? field(doc, FIELD.seal, null) : null;
	if (empty) fields.push(empty);
	const { context, catalog } = doc;
	catalog.set(PDFName.of('AcroForm'), context.obj({ Fields: fields, SigFlags: 3 }));
	catalog.set(PDFName.of('Perms'), context.obj({ DocMDP: signature }));
	addValidationData(doc, keys, notary?.identity);
	const bytes = Buffer.from(
		await doc.save({ updateFieldAppearances: false, addDefaultPage: false, useObjectStreams: false })
	);
	sign(bytes, 0, sealing(notary?.identity ?? keys.seal, keys.stamp, wish.now));
	return new Uint8Array(empty ? sealedAfter(doc, bytes, empty, keys, wish) : bytes);
}

type Reference = Record<string, string | Record<string, string | number | PDFName>>;

/** ISO 32000-2 §12.8.2.2: which changes are permitted afterwards. */
const certifying = (P: 1 | 2): Reference => ({
	Type: 'SigRef',
	TransformMethod: 'DocMDP',
	TransformParams: { Type: 'TransformParams', P, V: PDFName.of('1.2') }
});

/** ISO 32000-2 §12.8.2.4: every field is locked. */
const LOCKING: Reference = {
	Type: 'SigRef',
	TransformMethod: 'FieldMDP',
	TransformParams: { Type: 'TransformParams', Action: 'All', V: PDFName.of('1.2') }
};

function signatureOf(
	doc: PDFDocument,
	{ name, reason, reference, now }: { name: string; reason: string; reference: Reference; now: Date }
): PDFDict {
	const { context } = doc;
	const range = PDFArray.withContext(context);
	range.push(PDFNumber.of(0));
	for (let i = 0; i < 3; i++) range.push(PDFName.of(HOLE));
	return context.obj({
		Type: 'Sig',
		Filter: 'Adobe.PPKLite',
		SubFilter: 'ETSI.CAdES.detached',
		ByteRange: range,
		Contents: PDFHexString.of(EMPTY),
		Name: PDFHexString.fromText(name),
		Reason: PDFHexString.fromText(reason),
		M: PDFString.fromDate(now),
		Reference: [reference]
	}) as PDFDict;
}

/** A signature field with its widget, which shows nothing. @param signature null: still to be signed */
function field(doc: PDFDocument, name: string, signature: PDFRef | null): PDFRef {
	const page = doc.getPage(0);
	const widget = doc.context.register(
		doc.context.obj({
			Type: 'Annot',
			Subtype: 'Widget',
			FT: 'Sig',
			Rect: [0, 0, 0, 0],
			...(signature
				? { V: signature }
				: { Lock: doc.context.obj({ Type: 'SigFieldLock', Action: 'All', P: PDFNumber.of(1) }) }),
			T: PDFString.of(name),
			F: 132,
			P: page.ref
		})
	);
	page.node.addAnnot(widget);
	return widget;
}

/** The seal alone, as a revision after `before`, in the place that was kept for it (ISO 32000-2 §7.5.6). */
export function sealedAfter(doc: PDFDocument, before: Buffer, place: PDFRef, keys: SealKeys, wish: SealWish): Buffer {
	const { context } = doc;
	const number = context.largestObjectNumber + 1;
	const widget = context.lookup(place, PDFDict).clone(context);
	const said = signatureOf(doc, { name: wish.organisation, reason: wish.reason, reference: LOCKING, now: wish.now });
	const bytes = revisionAfter(doc, before, [
		{ number: place.objectNumber, text: widget.toString().replace(/>>$/, `/V ${number} 0 R\n>>`) },
		{ number, text: said.toString() }
	]);
	sign(bytes, before.length, sealing(keys.seal, keys.stamp, wish.now));
	return bytes;
}

/** Signs all bytes but the place kept free after `start`, and writes what was made over them there (ISO 32000-2 §12.8.1). */
export function sign(bytes: Buffer, start: number, made: (parts: Uint8Array[]) => Uint8Array): void {
	const found = bytes.indexOf('/Contents <' + '0'.repeat(64), start);
	const from = found + '/Contents '.length;
	const to = from + ROOM * 2 + 2;
	const range = `0 ${from} ${to} ${bytes.length - to}`;
	const hole = `0 /${HOLE} /${HOLE} /${HOLE}`;
	const earlier = bytes.lastIndexOf(hole, from);
	const at = earlier >= start ? earlier : bytes.indexOf(hole, to);
	if (found < 0 || at < 0) throw new Error('the place for the seal was not found');
	bytes.write(range.padEnd(hole.length), at, 'latin1');
	const cms = made([bytes.subarray(0, from), bytes.subarray(to)]);
	if (cms.length > ROOM) throw new Error('the seal needs more room than was kept');
	bytes.write(Buffer.from(cms).toString('hex'), from + 1, 'latin1');
}

/** A seal over these bytes, with its time-stamp. */
const sealing = (by: Identity, stamp: Identity, now: Date) => (parts: Uint8Array[]) =>
	signedData(by, OID.data, parts, (signature) => stampOver(stamp, now, signature));

/** A time-stamp over these bytes, one part after the other, by the hash that goes with its key. */
export function stampOver(stamp: Identity, now: Date, ...parts: Uint8Array[]): Uint8Array {
	const request = timestampRequest(suiteOf(stamp).hash, ...parts);
	return tokenOf(answerTimestamp(stamp, request, now), request);
}

function addValidationData(doc: PDFDocument, keys: SealKeys, notary?: Identity): void {
	const { context, catalog } = doc;
	const stream = (bytes: Uint8Array): PDFRef => context.register(context.flateStream(bytes));
	const all = [keys.seal, keys.stamp, ...(notary ? [notary] : [])];
	catalog.set(
		PDFName.of('DSS'),
		context.register(
			context.obj({
				Type: 'DSS',
				Certs: all.flatMap(certificatesOf).map(stream),
				CRLs: all.flatMap(listsOf).map(stream)
			})
		)
	);
}
