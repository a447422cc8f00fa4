import { PDFDocument } from '@cantoo/pdf-lib';
import { FontSet } from './fonts';
import { QUIET, Sheet, THREAD } from './written';
import type { Mark } from './stamp';

/** What the evidence sheet says; every text is ready for a person to read. */
export interface Evidence {
	title: string;
	reference: string;
	organisation: string;
	/** pairs of a word and what it says, in the order they stand */
	facts: [string, string][];
	people: {
		name: string;
		address: string;
		did: string;
		when: string;
		from: string;
		/** how they showed who they are; '' where nothing was asked */
		known: string;
		/** their signature as they gave it */
		mark: Mark | null;
		/** SHA-256 of exactly what they were shown when they finished; '' where they did not */
		shown: string;
	}[];
	papers: { name: string; pages: number; digest: string; sealed: string }[];
	/** files that went along unchanged */
	attachments: { name: string; digest: string }[];
	events: { when: string; what: string; from: string }[];
	/** hash of the last event, and root and size of the tree over all events */
	head: string;
	root: string;
	size: number;
}

/** The audit record as a document a person can read: who, what, when, and how to prove it. Not yet sealed. */
export async function evidenceSheet(evidence: Evidence): Promise<PDFDocument> {
	const doc = await PDFDocument.create({ updateMetadata: false });
	doc.setTitle(`Evidence sheet ${evidence.reference}`);
	doc.setLanguage('en-GB');
	const sheet = new Sheet(doc, new FontSet(doc));
	await sheet.text('Evidence sheet', { face: 'serif', size: 11, colour: THREAD });
	await sheet.text(evidence.title, { face: 'serifBold', size: 20 });
	await sheet.text(`${evidence.reference} · ${evidence.organisation}`, { face: 'mono', size: 9, colour: QUIET });
	sheet.gap(10);
	for (const [word, says] of evidence.facts) await sheet.pair(word, says);
	await sheet.heading('People');
	for (const person of evidence.people) {
		await sheet.pair('Name', person.name, 10, 'plainBold');
		if (person.address) await sheet.pair('Address', person.address, 9.5);
		await sheet.pair('Part', [person.did, person.when].filter(Boolean).join(' · '), 9.5);
		if (person.known) await sheet.pair('Showed who they are', person.known, 9.5);
		if (person.from) await sheet.pair('Came', person.from, 8.5);
		if (person.shown) await sheet.pair('Was shown', person.shown, 7.5, 'mono');
		if (person.mark) await sheet.mark(person.mark);
		sheet.gap(6);
	}
	await sheet.heading('Documents');
	for (const paper of evidence.papers) {
		await sheet.pair('Name', paper.name, 10, 'plainBold');
		await sheet.pair('Pages', String(paper.pages), 9.5);
		await sheet.pair('As shown', paper.digest, 7.5, 'mono');
		await sheet.pair('As sealed', paper.sealed, 7.5, 'mono');
		sheet.gap(6);
	}
	for (const file of evidence.attachments) {
		await sheet.pair('Name', file.name, 10, 'plainBold');
		await sheet.pair('Attached unchanged', file.digest, 7.5, 'mono');
		sheet.gap(6);
	}
	await sheet.heading('What happened');
	for (const [i, event] of evidence.events.entries())
		await sheet.row(i + 1, event.when, event.from ? `${event.what} (${event.from})` : event.what);
	await sheet.heading('How to check this');
	await sheet.text(
		'This sheet and every sealed copy carry a digital signature and a time-stamp. Any program that checks PDF signatures ' +
			'shows whether a byte has been changed. The complete record is attached to this file as audit-record.json: each ' +
			'event holds the SHA-256 of the one before, so none can be left out, added or altered unseen.',
		{ size: 9.5 }
	);
	sheet.gap(4);
	await sheet.text(`last event ${evidence.head}`, { face: 'mono', size: 7.5, colour: QUIET });
	await sheet.text(`tree of ${evidence.size} ${evidence.root}`, { face: 'mono', size: 7.5, colour: QUIET });
	await sheet.number(evidence.reference);
	return doc;
}
