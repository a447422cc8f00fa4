import { PDFDocument } from '@cantoo/pdf-lib';
import { FontSet } from './fonts';
import { QUIET, Sheet, THREAD } from './written';

/** What a certificate of disposal says; nothing in it tells whom it was about. */
export interface DisposalSheet {
	/** D-0007 */
	number: string;
	organisation: string;
	/** ISO 8601 */
	at: string;
	by: string;
	/** who had agreed before; '' where one was enough */
	second: string;
	why: string;
	lines: {
		reference: string;
		type: string;
		template: string;
		state: string;
		/** days, ISO 8601 */
		sent: string;
		ended: string;
		documents: number;
		events: number;
		/** the last link of its chain, by which a record that somebody kept can be held against the tree */
		head: string;
		/** why it was due */
		by: string;
	}[];
}

/** What went, why and by whom (ISO 15489-1 §8.5), as a document a person can read. Not yet sealed. */
export async function disposalSheet(disposal: DisposalSheet): Promise<PDFDocument> {
	const doc = await PDFDocument.create({ updateMetadata: false });
	doc.setTitle(`Certificate of disposal ${disposal.number}`);
	doc.setLanguage('en-GB');
	const sheet = new Sheet(doc, new FontSet(doc));
	await sheet.text('Certificate of disposal', { face: 'serif', size: 11, colour: THREAD });
	await sheet.text(disposal.number, { face: 'serifBold', size: 20 });
	await sheet.text(disposal.organisation, { face: 'mono', size: 9, colour: QUIET });
	sheet.gap(10);
	await sheet.pair('When', `${disposal.at.slice(0, 19).replace('T', ' ')} UTC`);
	await sheet.pair('By', disposal.by);
	if (disposal.second) await sheet.pair('Agreed before', disposal.second);
	await sheet.pair('Why', disposal.why);
	await sheet.heading(disposal.lines.length === 1 ? 'One packet' : `${disposal.lines.length} packets`);
	for (const line of disposal.lines) {
		await sheet.pair('Reference', line.reference, 10, 'plainBold');
		const kind = [line.type, line.template && `made from “${line.template}”`].filter(Boolean).join(', ');
		if (kind) await sheet.pair('Kind', kind, 9.5);
		await sheet.pair('From, to', `sent ${line.sent}, ${line.state} ${line.ended}`, 9.5);
		await sheet.pair('Went', `${line.documents} documents and the words of ${line.events} events`, 9.5);
		await sheet.pair('Due', line.by, 9.5);
		await sheet.pair('Last link', line.head, 7.5, 'mono');
		sheet.gap(6);
	}
	await sheet.heading('What went and what stays');
	await sheet.text(
		'Documents, answers, pictures, letters and names are gone from the database and its indexes, and were overwritten. Of each ' +
			'event its hash stays, so that the chain and the tree over all events can still be proved, and a record that ' +
			'somebody has kept can be held against them. Backups made before that day hold it until they are deleted in their turn. ' +
			'Copies that people have received are theirs; a notary’s journal is the notary’s.',
		{ size: 9.5 }
	);
	await sheet.number(disposal.number);
	return doc;
}
