import { PDFDocument } from '@cantoo/pdf-lib';
import { FontSet } from './fonts';
import { QUIET, Sheet, THREAD } from './written';
import type { JournalEntry } from '../core/notary';

/** What a notary's journal says, ready to be written down. */
export interface JournalSheet {
	name: string;
	under: string;
	lines: (JournalEntry & { hash: string })[];
}

/** The journal as a document a person can read: each act and refusal, with its link in the chain. */
export async function journalSheet({ name, under, lines }: JournalSheet): Promise<Uint8Array> {
	const doc = await PDFDocument.create({ updateMetadata: false });
	doc.setTitle(`Journal of ${name}`);
	doc.setLanguage('en-GB');
	const sheet = new Sheet(doc, new FontSet(doc));
	await sheet.text('Journal', { face: 'serif', size: 11, colour: THREAD });
	await sheet.text(name, { face: 'serifBold', size: 20 });
	await sheet.text(under, { face: 'mono', size: 9, colour: QUIET });
	if (lines.length === 0) await sheet.text('Nothing was done or refused yet.');
	for (const one of lines) {
		await sheet.heading(`${one.n}. ${one.act}, ${one.outcome}`);
		await sheet.pair('Time', `${one.at.slice(0, 19).replace('T', ' ')} UTC`, 9.5);
		await sheet.pair('Document', `${one.title}, ${one.reference}`, 9.5);
		for (const who of one.people) await sheet.pair('Who', [who.name, who.how].filter(Boolean).join(': '), 9.5);
		if (one.fee) await sheet.pair('Fee', one.fee, 9.5);
		if (one.reason) await sheet.pair('Refused', one.reason, 9.5);
		for (const digest of one.documents) await sheet.pair('Pages, SHA-256', digest, 7.5, 'mono');
		await sheet.pair('Link', one.hash, 7.5, 'mono');
	}
	await sheet.number(name);
	return doc.save({ updateFieldAppearances: false });
}

/** A document with one more, empty page at its end. Points. */
export async function withPage(job: { paper: Uint8Array; width: number; height: number }): Promise<Uint8Array> {
	const doc = await PDFDocument.load(job.paper, { updateMetadata: false });
	doc.addPage([job.width, job.height]);
	return doc.save({ updateFieldAppearances: false });
}
