import {
	AFRelationship,
	PDFArray,
	PDFHexString,
	PDFName,
	PDFNumber,
	PDFString,
	type PDFDocument,
	type PDFRef
} from '@cantoo/pdf-lib';
import { sha256, OID, signedData } from './cms';
import type { SealKeys } from './keys';
import { answerTimestamp, timestampRequest, tokenOf } from './timestamp';

/** Bytes kept free for the signature; a token with its certificates takes about 4,000. */
const ROOM = 12_000;
const HOLE = '*'.repeat(10);
export const RECORD_NAME = 'audit-record.json';

export interface SealWish {
	/** whose seal it is, shown by readers */
	organisation: string;
	reason: string;
	/** the audit record as JSON, attached to the file; null for none */
	record: string | null;
	now: Date;
}

/**
 * Seals a document: PAdES baseline B-LT (ETSI EN 319 142-1 §6), certifying that no change is permitted
 * (ISO 32000-2 §12.8.2.2, P = 1). Certificates and revocation lists stand in the DSS (§12.8.4.3) of the same
 * revision: both authorities are known beforehand, so no second revision is needed and one signature covers all.
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
	addSignature(doc, wish);
	addValidationData(doc, keys);
	const bytes = Buffer.from(
		await doc.save({ updateFieldAppearances: false, addDefaultPage: false, useObjectStreams: false })
	);
	const from = bytes.indexOf('/Contents <' + '0'.repeat(64)) + '/Contents '.length;
	const to = from + ROOM * 2 + 2;
	const range = `0 ${from} ${to} ${bytes.length - to}`;
	const hole = `0 /${HOLE} /${HOLE} /${HOLE}`;
	const at = bytes.lastIndexOf(hole, from) >= 0 ? bytes.lastIndexOf(hole, from) : bytes.indexOf(hole, to);
	if (from < '/Contents '.length || at < 0) throw new Error('the place for the seal was not found');
	bytes.write(range.padEnd(hole.length), at, 'latin1');
	const digest = sha256(bytes.subarray(0, from), bytes.subarray(to));
	const cms = signedData(keys.seal, OID.data, { digest }, (signature) => {
		const request = timestampRequest(signature);
		return tokenOf(answerTimestamp(keys.stamp, request, wish.now), request);
	});
	if (cms.length > ROOM) throw new Error('the seal needs more room than was kept');
	bytes.write(Buffer.from(cms).toString('hex'), from + 1, 'latin1');
	return new Uint8Array(bytes);
}

function addSignature(doc: PDFDocument, wish: SealWish): void {
	const { context, catalog } = doc;
	const range = PDFArray.withContext(context);
	range.push(PDFNumber.of(0));
	for (let i = 0; i < 3; i++) range.push(PDFName.of(HOLE));
	const signature = context.register(
		context.obj({
			Type: 'Sig',
			Filter: 'Adobe.PPKLite',
			SubFilter: 'ETSI.CAdES.detached',
			ByteRange: range,
			Contents: PDFHexString.of('0'.repeat(ROOM * 2)),
			Name: PDFHexString.fromText(wish.organisation),
			Reason: PDFHexString.fromText(wish.reason),
			M: PDFString.fromDate(wish.now),
			Reference: [
				{
					Type: 'SigRef',
					TransformMethod: 'DocMDP',
					TransformParams: { Type: 'TransformParams', P: 1, V: PDFName.of('1.2') }
				}
			]
		})
	);
	const page = doc.getPage(0);
	const widget = context.register(
		context.obj({
			Type: 'Annot',
			Subtype: 'Widget',
			FT: 'Sig',
			Rect: [0, 0, 0, 0],
			V: signature,
			T: PDFString.of('seal'),
			F: 132,
			P: page.ref
		})
	);
	page.node.addAnnot(widget);
	catalog.set(PDFName.of('AcroForm'), context.obj({ Fields: [widget], SigFlags: 3 }));
	catalog.set(PDFName.of('Perms'), context.obj({ DocMDP: signature }));
}

function addValidationData(doc: PDFDocument, keys: SealKeys): void {
	const { context, catalog } = doc;
	const stream = (bytes: Uint8Array): PDFRef => context.register(context.flateStream(bytes));
	catalog.set(
		PDFName.of('DSS'),
		context.register(
			context.obj({
				Type: 'DSS',
				Certs: [keys.seal.certificate, keys.seal.issuer, keys.stamp.certificate, keys.stamp.issuer].map(stream),
				CRLs: [keys.seal.crl, keys.stamp.crl].map(stream)
			})
		)
	);
}
