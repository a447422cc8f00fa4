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
import * as pkijs from 'pkijs';
import { buffer, OID } from './cms';
import { fault } from './fault';
import { FIELD } from './seal';

/** The signatures of a file, and what each covers: all up to the end of its own revision. */

export interface Signed {
	/** the signature, or a later time-stamp, DER */
	cms: Uint8Array;
	isStamp: boolean;
	/** the bytes it covers */
	signed: [Uint8Array, Uint8Array];
	/** where its revision ends */
	end: number;
}

export interface Signatures {
	/** a notary's, before the seal */
	before: Signed | null;
	seal: Signed;
	/** later time-stamps, in their order */
	stamps: Signed[];
}

/** More later time-stamps than any file will have in a thousand years. */
const MOST_STAMPS = 100;

/**
 * ISO 32000-2 §12.8.1: a range is everything but the hexadecimal string of its signature. Each revision has one, in the order of
 * §12.8.2.2: a notary's, the seal, later time-stamps; and the last covers the whole file.
 */
export function signaturesIn(file: Uint8Array): Signatures {
	const text = Buffer.from(file.buffer, file.byteOffset, file.byteLength).toString('latin1');
	const ranges = [...text.matchAll(/\/ByteRange\s*\[\s*(\d+)\s+(\d+)\s+(\d+)\s+(\d+)\s*\]/g)].map(
		(found) => found.slice(1, 5).map(Number) as Range
	);
	if (ranges.length === 0) fault('The file carries no seal.');
	if (ranges.length > MOST_STAMPS) fault('The file carries more than one seal.');
	const all = ranges.map((range) => one(file, text, range));
	const first = all.findIndex((signed) => signed.isStamp);
	const [seals, stamps] = first < 0 ? [all, []] : [all.slice(0, first), all.slice(first)];
	if (seals.length === 0) fault('The file carries no seal.');
	if (seals.length > 2 || !stamps.every((signed) => signed.isStamp)) fault('The file carries more than one seal.');
	if (all.at(-1)!.end !== file.length) fault('The seal does not cover the whole file.');
	const inOrder = all.every(
		({ end }, i) =>
			(i === 0 || end > all[i - 1]!.end) &&
			(end === file.length || /%%EOF\s*$/.test(text.slice(Math.max(0, end - 16), end)))
	);
	if (!inOrder) fault('The file carries more than one seal.');
	return { before: seals.length === 2 ? seals[0]! : null, seal: seals.at(-1)!, stamps };
}

/** Whether it is a time-stamp over the document, and no signature (ISO 32000-2 §12.8.5). */
function isToken(cms: Uint8Array): boolean {
	try {
		const content = new pkijs.ContentInfo({ schema: asn1.fromBER(buffer(cms)).result });
		return new pkijs.SignedData({ schema: content.content }).encapContentInfo.eContentType === OID.tstInfo;
	} catch {
		return fault('The seal can’t be read.');
	}
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
	const cms = bytes.subarray(0, parsed.offset);
	return {
		cms,
		isStamp: isToken(cms),
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
export async function checkRevision(file: Uint8Array, before: Signed, seal: Signed): Promise<void> {
	const whole = await PDFDocument.load(file.subarray(0, seal.end), { updateMetadata: false, parseSpeed: Infinity });
	const earlier = await PDFDocument.load(file.subarray(0, before.end), {
		updateMetadata: false,
		parseSpeed: Infinity
	});
	const was = new Map(objectsOf(earlier));
	const changed = objectsOf(whole).filter(([ref, says]) => was.get(ref) !== says);
	const added = changed.filter(([ref]) => !was.has(ref));
	const filled = fieldsOf(earlier).filter((one) => nameOf(one) === FIELD.seal && !one.has(PDFName.of('V')));
	const now = fieldsOf(whole).find((one) => nameOf(one) === FIELD.seal);
	const same =
		filled[0] !== undefined &&
		now !== undefined &&
		[...now.keys()].every((key) => key === PDFName.of('V') || String(now.get(key)) === String(filled[0]!.get(key)));
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
