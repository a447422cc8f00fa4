import { PDFName, PDFString, type PDFDocument } from '@cantoo/pdf-lib';
import { createHash } from 'node:crypto';
import { faultsOf, type AuditRecord } from '../../core/audit';
import { fault } from './fault';
import { sealField } from './revisions';
import { DISPOSAL_FORMAT, DISPOSAL_NAME, RECORD_NAME } from './seal';

/** What a sealed copy holds besides its pages: the record, and when the seal says that it was made. */

/** Of a certificate of disposal, the list that it is of: it has no events of its own. */
export function checkRecord(
	doc: PDFDocument
): Pick<AuditRecord, 'reference' | 'links'> & Partial<Pick<AuditRecord, 'tree'>> {
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
export function checkMoment(doc: PDFDocument, record: Pick<AuditRecord, 'links'>, at: Date): void {
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
