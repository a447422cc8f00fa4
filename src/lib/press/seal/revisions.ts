import {
	PDFArray,
	PDFDict,
	PDFDocument,
	PDFHexString,
	PDFName,
	PDFRawStream,
	PDFString,
	type PDFObject
} from '@cantoo/pdf-lib';
import * as asn1 from 'asn1js';
import { buffer } from './cms';
import { fault } from './fault';
import { FIELD } from './seal';

/** The signatures of a file, and what each covers: the seal the whole of it, a notary's before it all up to its own end. */

export interface Signed {
	/** the signature, DER */
	cms: Uint8Array;
	/** the bytes it covers */
	signed: [Uint8Array, Uint8Array];
	/** where its revision ends */
	end: number;
}

/** ISO 32000-2 §12.8.1: a range is everything but the hexadecimal string of its signature. Two at most, in the order of §12.8.2.2. */
export function signaturesIn(file: Uint8Array): { before: Signed | null; last: Signed } {
	const text = Buffer.from(file.buffer, file.byteOffset, file.byteLength).toString('latin1');
	const ranges = [...text.matchAll(/\/ByteRange\s*\[\s*(\d+)\s+(\d+)\s+(\d+)\s+(\d+)\s*\]/g)].map(
		(found) => found.slice(1, 5).map(Number) as Range
	);
	if (ranges.length === 0) fault('The file carries no seal.');
	if (ranges.length > 2) fault('The file carries more than one seal.');
	const last = one(file, text, ranges.at(-1)!);
	if (last.end !== file.length) fault('The seal does not cover the whole file.');
	if (ranges.length === 1) return { before: null, last };
	const before = one(file, text, ranges[0]!);
	const ends = /%%EOF\s*$/.test(text.slice(Math.max(0, before.end - 16), before.end));
	if (before.end >= file.length || !ends) fault('The file carries more than one seal.');
	return { before, last };
}

type Range = [number, number, number, number];

function one(file: Uint8Array, text: string, [a, from, to, rest]: Range): Signed {
	const end = to + rest;
	if (a !== 0 || to <= from || end > file.length) fault('The seal does not cover the whole file.');
	const hole = text.slice(from, to);
	if (!/^<[0-9a-f]+>$/.test(hole) || !/\/Contents\s*$/.test(text.slice(Math.max(0, from - 16), from)))
		fault('The place of the seal holds something else.');
	const bytes = Buffer.from(hole.slice(1, -1), 'hex');
	const parsed = asn1.fromBER(buffer(bytes));
	if (parsed.offset <= 0) fault('The seal can’t be read.');
	if (bytes.subarray(parsed.offset).some((byte) => byte !== 0))
		fault('The seal is followed by something that does not belong there.');
	return {
		cms: bytes.subarray(0, parsed.offset),
		signed: [file.subarray(0, from), file.subarray(to, end)],
		end
	};
}

/** The signature in the field of the seal; where `is` is given, it must be that one. */
export function sealField(doc: PDFDocument, is?: Signed): PDFDict {
	const field = fieldsOf(doc).find((one) => nameOf(one) === FIELD.seal);
	const signature = field && doc.context.lookup(field.get(PDFName.of('V')));
	if (!(signature instanceof PDFDict)) return fault('The seal is missing: the file was cut off before it.');
	const contents = signature.get(PDFName.of('Contents'));
	const held = contents instanceof PDFHexString ? Buffer.from(contents.asBytes()) : Buffer.alloc(0);
	if (is && !held.subarray(0, is.cms.length).equals(is.cms)) fault('The seal stands in another place than its own.');
	return signature;
}

function fieldsOf(doc: PDFDocument): PDFDict[] {
	const look = (object: PDFObject | undefined) => doc.context.lookup(object);
	const form = look(doc.catalog.get(PDFName.of('AcroForm')));
	const fields = form instanceof PDFDict ? look(form.get(PDFName.of('Fields'))) : undefined;
	return fields instanceof PDFArray
		? fields.asArray().flatMap((one) => {
				const field = look(one);
				return field instanceof PDFDict ? [field] : [];
			})
		: [];
}

function nameOf(field: PDFDict): string {
	const name = field.get(PDFName.of('T'));
	return name instanceof PDFString ? name.asString() : '';
}

/**
 * What came after the notary's signature: the seal in the place that was kept for it, and nothing else (ISO 32000-2 §12.8.2.2,
 * P = 2 permits to sign; we permit nothing more of what that does).
 */
export async function checkRevision(file: Uint8Array, before: Signed, whole: PDFDocument): Promise<void> {
	const earlier = await PDFDocument.load(file.subarray(0, before.end), {
		updateMetadata: false,
		parseSpeed: Infinity
	});
	const was = new Map(objectsOf(earlier));
	const changed = objectsOf(whole).filter(([ref, says]) => was.get(ref) !== says);
	const added = changed.filter(([ref]) => !was.has(ref));
	const filled = fieldsOf(earlier).filter((one) => nameOf(one) === FIELD.seal && !one.has(PDFName.of('V')));
	const seal = fieldsOf(whole).find((one) => nameOf(one) === FIELD.seal);
	const same =
		filled[0] !== undefined &&
		seal !== undefined &&
		[...seal.keys()].every((key) => key === PDFName.of('V') || String(seal.get(key)) === String(filled[0]!.get(key)));
	if (!same || added.length !== 1 || changed.length !== 2 || was.size + 1 !== objectsOf(whole).length)
		fault('Something was changed between the notary’s signature and the seal.');
}

/** Every object with all that it says, by its number. */
function objectsOf(doc: PDFDocument): [string, string][] {
	return doc.context
		.enumerateIndirectObjects()
		.map(([ref, object]): [string, string] => [
			String(ref),
			object instanceof PDFRawStream
				? `${String(object.dict)}${Buffer.from(object.contents).toString('latin1')}`
				: String(object)
		]);
}
