import { X509Certificate } from 'node:crypto';
import { deflateSync } from 'node:zlib';
import {
	PDFArray,
	PDFDict,
	PDFDocument,
	PDFName,
	PDFRawStream,
	PDFRef,
	decodePDFRawStream,
	type PDFObject
} from '@cantoo/pdf-lib';
import { fault } from './fault';
import { certificatesOf, fingerprint, listsOf, type Identity } from './keys';
import { isListOf } from './lists';
import { revisionAfter } from './revision';
import { EMPTY, HOLE, sign, stampOver } from './seal';

/**
 * A later time-stamp over a sealed copy and all that it holds (PAdES baseline B-LTA, ETSI EN 319 142-1 §5.5 and §6; ISO 32000-2
 * §12.8.5), with what proves the one before it: a revision of its own, which a certified document permits (§12.8.2.2). Whoever
 * judges it makes the same revision anew and compares the bytes, so it can hold nothing else.
 */

export interface AgainWish {
	file: Uint8Array;
	stamp: Identity;
	/** revocation lists of today; those of authorities whose certificate is in the file go along */
	lists: Uint8Array[];
	now: Date;
}

export async function stampedAgain({ file, stamp, lists, now }: AgainWish): Promise<Uint8Array> {
	const doc = await read(file);
	const there = validationStreams(doc);
	const authorities = there.certificates.map((der) => new X509Certificate(der)).filter(({ ca }) => ca);
	const missing = (have: Uint8Array[], wanted: Uint8Array[]) => {
		const names = new Set(have.map(fingerprint));
		return wanted.filter((one) => !names.has(fingerprint(one)) && names.add(fingerprint(one)));
	};
	const bytes = withPlace(doc, file, {
		certificates: missing(there.certificates, certificatesOf(stamp)).map(packed),
		lists: missing(there.lists, [
			...listsOf(stamp),
			...lists.filter((list) => authorities.some((one) => isListOf(list, one)))
		]).map(packed)
	});
	sign(bytes, file.length, (parts) => stampOver(stamp, now, ...parts));
	return new Uint8Array(bytes);
}

/** Whether `later` is `before` with a time-stamp, and what proves it, and nothing else. Faults where it is not. */
export async function checkStamped(before: Uint8Array, later: Uint8Array, token: Uint8Array): Promise<void> {
	const [was, is] = [await read(before), await read(later)];
	const [old, now] = [validationRefs(was), validationRefs(is)];
	const added = (key: 'certificates' | 'lists') =>
		now[key].slice(old[key].length).map((ref) => {
			const stream = is.context.lookup(ref);
			return stream instanceof PDFRawStream ? stream.contents : fault(CHANGED);
		});
	const again = withPlace(was, before, { certificates: added('certificates'), lists: added('lists') });
	sign(again, before.length, () => token);
	if (!again.equals(later)) fault(CHANGED);
}

const CHANGED = 'Something else was changed where a time-stamp was added.';

const read = (file: Uint8Array) => PDFDocument.load(file, { updateMetadata: false, parseSpeed: Infinity });

const packed = (bytes: Uint8Array): Uint8Array => deflateSync(bytes);

/** The revision with its place for the time-stamp still empty. @param added contents of streams, packed */
function withPlace(
	doc: PDFDocument,
	before: Uint8Array,
	added: { certificates: Uint8Array[]; lists: Uint8Array[] }
): Buffer {
	const { context, catalog } = doc;
	const form = catalog.get(PDFName.of('AcroForm'));
	const dss = catalog.get(PDFName.of('DSS'));
	const root = context.trailerInfo.Root;
	if (!(form instanceof PDFDict) || !(dss instanceof PDFRef) || !(root instanceof PDFRef))
		return fault('The seal does not say what proves it.');
	const next = context.largestObjectNumber + 1;
	const [field, stamp] = [next, next + 1];
	const streams = [...added.certificates, ...added.lists].map((contents, i) => ({
		number: next + 2 + i,
		text: `<<\n/Filter /FlateDecode\n/Length ${contents.length}\n>>\nstream\n${Buffer.from(contents).toString('latin1')}\nendstream`
	}));
	const refs = streams.map(({ number }) => PDFRef.of(number));
	const fields = context.lookup(form.get(PDFName.of('Fields')), PDFArray);
	const nth = fields.size();
	const grown = (list: PDFArray | undefined, more: PDFRef[]) => {
		const whole = PDFArray.withContext(context);
		for (const one of [...(list?.asArray() ?? []), ...more]) whole.push(one);
		return whole;
	};
	const newForm = form.clone(context);
	newForm.set(PDFName.of('Fields'), grown(fields, [PDFRef.of(field)]));
	const newRoot = catalog.clone(context);
	newRoot.set(PDFName.of('AcroForm'), newForm);
	const newDss = context.lookup(dss, PDFDict).clone(context);
	const split = added.certificates.length;
	for (const [key, more] of [
		['Certs', refs.slice(0, split)],
		['CRLs', refs.slice(split)]
	] as const)
		newDss.set(PDFName.of(key), grown(newDss.lookupMaybe(PDFName.of(key), PDFArray), more));
	const page = String(doc.getPage(0).ref);
	return revisionAfter(doc, before, [
		{ number: root.objectNumber, text: newRoot.toString() },
		{ number: dss.objectNumber, text: newDss.toString() },
		{
			number: field,
			text: `<<\n/Type /Annot\n/Subtype /Widget\n/FT /Sig\n/Rect [ 0 0 0 0 ]\n/T (time-stamp-${nth})\n/F 132\n/P ${page}\n/V ${stamp} 0 R\n>>`
		},
		{
			number: stamp,
			text: `<<\n/Type /DocTimeStamp\n/Filter /Adobe.PPKLite\n/SubFilter /ETSI.RFC3161\n/ByteRange [ 0 /${HOLE} /${HOLE} /${HOLE} ]\n/Contents <${EMPTY}>\n>>`
		},
		...streams
	]);
}

/** Where the file keeps certificates and revocation lists (ISO 32000-2 §12.8.4.3). */
function validationRefs(doc: PDFDocument): { certificates: PDFRef[]; lists: PDFRef[] } {
	const look = (object: PDFObject | undefined) => doc.context.lookup(object);
	const dss = look(doc.catalog.get(PDFName.of('DSS')));
	const refs = (key: string) => {
		const list = dss instanceof PDFDict ? look(dss.get(PDFName.of(key))) : undefined;
		return list instanceof PDFArray ? list.asArray().filter((one): one is PDFRef => one instanceof PDFRef) : [];
	};
	return { certificates: refs('Certs'), lists: refs('CRLs') };
}

/** Certificates and revocation lists that are in the file, DER. */
export function validationStreams(doc: PDFDocument): { certificates: Uint8Array[]; lists: Uint8Array[] } {
	const refs = validationRefs(doc);
	const read = (ref: PDFRef) => {
		const stream = doc.context.lookup(ref);
		return stream instanceof PDFRawStream ? [decodePDFRawStream(stream).decode()] : [];
	};
	return { certificates: refs.certificates.flatMap(read), lists: refs.lists.flatMap(read) };
}
