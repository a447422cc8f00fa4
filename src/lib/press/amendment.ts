import { PDFDocument } from '@cantoo/pdf-lib';
import { FontSet } from './fonts';
import { stampAll, type Stamp } from './stamp';
import { QUIET, Sheet, THREAD } from './written';

/** The page of changes, which everybody reads first. */
export interface ChangesSheet {
	/** “Amendment 1 to P-7K3QM” */
	heading: string;
	title: string;
	organisation: string;
	/** a sentence each, in the order of their numbers */
	changes: string[];
	/** why somebody who signed before takes no part; '' where all do */
	without: string;
	/** of what is changed: its documents and their digests */
	papers: { name: string; digest: string }[];
}

/** As a document that goes before the others. */
export async function changesSheet(said: ChangesSheet): Promise<Uint8Array> {
	const doc = await PDFDocument.create({ updateMetadata: false });
	doc.setTitle(said.heading);
	doc.setLanguage('en-GB');
	const sheet = new Sheet(doc, new FontSet(doc));
	await sheet.text(said.heading, { face: 'serif', size: 11, colour: THREAD });
	await sheet.text(said.title, { face: 'serifBold', size: 20 });
	await sheet.text(said.organisation, { face: 'mono', size: 9, colour: QUIET });
	await sheet.heading(
		said.changes.length === 1 ? 'What is changed' : `What is changed: ${said.changes.length} changes`
	);
	for (const [i, change] of said.changes.entries()) await sheet.pair(`(${i + 1})`, change, 11);
	if (said.without) await sheet.pair('Not signing', said.without, 10);
	sheet.gap(8);
	await sheet.text(
		'Everything else stays as it was agreed. What is struck can still be read on its page; beside each change stand the initials of ' +
			'those who agree to it.',
		{ size: 9.5 }
	);
	await sheet.heading('Of these documents');
	for (const paper of said.papers) {
		await sheet.pair('Name', paper.name, 10);
		await sheet.pair('As it was', paper.digest, 7.5, 'mono');
	}
	await sheet.number(said.heading);
	return doc.save({ updateFieldAppearances: false });
}

/** A document with answers drawn on it, and nothing sealed: what another packet goes on from. */
export async function stampedPaper(job: { paper: Uint8Array; stamps: Stamp[] }): Promise<Uint8Array> {
	const doc = await PDFDocument.load(job.paper, { updateMetadata: false, parseSpeed: Infinity });
	await stampAll(doc, new FontSet(doc), job.stamps);
	return doc.save({ updateFieldAppearances: false });
}

/** What holds now, to be read: where it comes from, then the pages. */
export interface ReadingCopy {
	heading: string;
	title: string;
	organisation: string;
	/** ISO 8601 */
	at: string;
	chain: {
		reference: string;
		what: string;
		when: string;
		changes: string[];
		digests: { name: string; digest: string }[];
	}[];
	papers: Uint8Array[];
}

/** One document of all pages that hold, behind a page that says what it was made from. */
export async function readingCopy(copy: ReadingCopy): Promise<Uint8Array> {
	const doc = await PDFDocument.create({ updateMetadata: false });
	doc.setTitle(`What holds: ${copy.title}`);
	doc.setLanguage('en-GB');
	const sheet = new Sheet(doc, new FontSet(doc));
	await sheet.text('What holds now: a reading copy', { face: 'serif', size: 11, colour: THREAD });
	await sheet.text(copy.title, { face: 'serifBold', size: 20 });
	await sheet.text(`${copy.organisation} · made ${copy.at.slice(0, 10)}`, { face: 'mono', size: 9, colour: QUIET });
	sheet.gap(6);
	await sheet.text(
		'This was made from the sealed copies below, for reading. It is no sealed copy itself: what was agreed is proved by those.',
		{ size: 9.5 }
	);
	for (const link of copy.chain) {
		await sheet.heading(`${link.reference}, ${link.what}`);
		await sheet.pair('When', link.when, 9.5);
		for (const change of link.changes) await sheet.pair('Changes', change, 9.5);
		for (const { name, digest } of link.digests) {
			await sheet.pair('Sealed copy', name, 9.5);
			await sheet.pair('SHA-256', digest, 7.5, 'mono');
		}
	}
	await sheet.number(copy.heading);
	for (const bytes of copy.papers) {
		const from = await PDFDocument.load(bytes, { updateMetadata: false });
		for (const page of await doc.copyPages(from, from.getPageIndices())) doc.addPage(page);
	}
	return doc.save({ updateFieldAppearances: false });
}
