import { PDFDocument } from '@cantoo/pdf-lib';
import { FontSet } from './fonts';
import { QUIET, Sheet, THREAD } from './written';

/** All that is held on a person, ready to be written down. */
export interface PersonSheet {
	address: string;
	organisation: string;
	/** ISO 8601 */
	at: string;
	packets: {
		reference: string;
		title: string;
		state: string;
		sender: string;
		kept: string;
		parts: { name: string; duty: string; organisation: string; jobTitle: string; phone: string }[];
		answers: { asked: string; said: string }[];
		happened: { at: string; what: string; from: string }[];
	}[];
	/** where, and what */
	besides: [string, string][];
}

/** As a document that the person can read. */
export async function personSheet(held: PersonSheet): Promise<Uint8Array> {
	const doc = await PDFDocument.create({ updateMetadata: false });
	doc.setTitle(`What is held on ${held.address}`);
	doc.setLanguage('en-GB');
	const sheet = new Sheet(doc, new FontSet(doc));
	const moment = (at: string) => `${at.slice(0, 19).replace('T', ' ')} UTC`;
	await sheet.text('What is held on a person', { face: 'serif', size: 11, colour: THREAD });
	await sheet.text(held.address, { face: 'serifBold', size: 18 });
	await sheet.text(`${held.organisation} · ${moment(held.at)}`, { face: 'mono', size: 9, colour: QUIET });
	sheet.gap(8);
	if (held.packets.length === 0) await sheet.text('They have taken part in nothing that is kept.');
	for (const packet of held.packets) {
		await sheet.heading(`${packet.title}, ${packet.reference}`);
		await sheet.pair('State', packet.state, 9.5);
		await sheet.pair('From', `${packet.sender} sent it, and entered their name and address`, 9.5);
		await sheet.pair('Kept', packet.kept || 'for as long as nobody disposes of it', 9.5);
		for (const part of packet.parts) {
			const more = [part.organisation, part.jobTitle, part.phone].filter(Boolean).join(', ');
			await sheet.pair('Part', `${part.name} ${part.duty}${more ? ` (${more})` : ''}`, 9.5);
		}
		for (const { asked, said } of packet.answers) await sheet.pair(asked || 'Answer', said, 9.5);
		for (const { at, what, from } of packet.happened)
			await sheet.pair(moment(at), from ? `${what} (${from})` : what, 8.5);
	}
	if (held.besides.length > 0) await sheet.heading('Besides');
	for (const [where, what] of held.besides) await sheet.pair(where, what, 9.5);
	await sheet.number(held.address);
	return doc.save({ updateFieldAppearances: false });
}
