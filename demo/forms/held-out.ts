import { rgb } from '@cantoo/pdf-lib';
import { FormSheet } from './sheet';

/** Forms that were kept out while the search for places was made to work: they tell how it does on what it never saw. */

export async function rentalGerman() {
	const f = await FormSheet.make();
	f.text(60, 80, 'Mietvertrag Probenraum', { size: 15, bold: true });
	f.prose(
		60,
		110,
		470,
		'Zwischen dem Vermieter und dem unten genannten Mieter wird dieser Vertrag geschlossen. Beide erhalten eine Ausfertigung.'
	);
	f.run(60, 160, 'Name, Vorname:', 40, 'name');
	f.run(60, 184, 'Geburtsdatum:', 22, 'date');
	f.run(60, 208, 'Firma:', 44, 'organisation');
	f.run(60, 232, 'PLZ:', 10, 'text');
	f.run(170, 232, 'Ort:', 30, 'text');
	f.run(60, 256, 'Telefon:', 24, 'text');
	f.run(280, 256, 'E-Mail:', 30, 'email');
	f.run(60, 290, 'Miete je Abend, Betrag in €:', 12, 'number');
	f.run(60, 314, 'Anzahl der Abende:', 8, 'number');
	f.text(60, 350, 'Schlüssel erhalten:');
	f.tick(170, 350, 'ja', 'pick-one');
	f.tick(220, 350, 'nein', 'pick-one');
	f.rule(60, 470, 200, 'signature');
	f.text(60, 481, 'Unterschrift Mieter', { size: 8 });
	f.rule(320, 470, 100, 'signing-date');
	f.text(320, 481, 'Datum', { size: 8 });
	return f.done();
}

export async function letterWithBlanks() {
	const f = await FormSheet.make();
	f.text(70, 90, 'Agreement of engagement', { size: 15, bold: true });
	f.line(70, 94, 240, 94, 0.6);
	let x = f.run(70, 130, 'This agreement is made between', 28, 'text');
	f.text(x + 4, 130, '(the Musician)');
	f.text(70, 150, 'and Brindlevale Touring Orchestra. The concerts take place at');
	f.run(352, 150, '', 28, 'text');
	x = f.run(70, 170, 'The fee is €', 12, 'number');
	x = f.run(x + 6, 170, 'for the number of nights', 8, 'number');
	f.prose(
		70,
		200,
		455,
		'The musician brings an instrument of their own. Travel is paid by the orchestra on the usual terms, and rooms are shared. Whoever falls ill tells the company office at once; the fee is then paid for what has been played.'
	);
	f.text(70, 262, 'Rooms', { bold: true });
	f.tick(70, 282, 'I share a room');
	f.tick(70, 300, 'I need a room on the ground floor');
	f.text(70, 400, 'For the orchestra', { bold: true });
	f.rule(70, 450, 190, 'signature');
	f.text(70, 461, 'Signature', { size: 8 });
	f.rule(70, 496, 190, 'name');
	f.text(70, 507, 'Print name', { size: 8 });
	f.rule(70, 542, 190, 'signing-date');
	f.text(70, 553, 'Date', { size: 8 });
	f.text(330, 400, 'The musician', { bold: true });
	f.rule(330, 450, 190, 'signature');
	f.text(330, 461, 'Signature', { size: 8 });
	f.rule(330, 496, 190, 'name');
	f.text(330, 507, 'Print name', { size: 8 });
	f.rule(330, 542, 190, 'signing-date');
	f.text(330, 553, 'Date', { size: 8 });
	f.text(530, 800, 'Initials:', { size: 8 });
	return f.done();
}

export async function formWithFields() {
	const f = await FormSheet.make();
	f.text(60, 80, 'Contents', { size: 14, bold: true });
	f.text(60, 110, `Who may claim ${'.'.repeat(90)} 2`);
	f.text(60, 130, `What is paid ${'.'.repeat(92)} 3`);
	f.text(60, 170, 'Important', { bold: true });
	f.line(60, 173, 112, 173, 0.8);
	f.prose(
		60,
		200,
		470,
		'A line through a word, an underlined heading or a rule across the page is nothing to fill in.'
	);
	f.text(60, 250, 'Staunton Staunton');
	f.line(60, 246.5, 145, 246.5, 0.8);
	f.next();
	const form = f.doc.getForm();
	const at = (x: number, y: number, width: number, height: number) => ({
		x,
		y: 842 - y - height,
		width,
		height,
		borderColor: rgb(0.5, 0.5, 0.5),
		borderWidth: 0.5
	});
	f.text(60, 80, 'Claim', { size: 14, bold: true });
	f.text(60, 114, 'Claimant');
	const who = form.createTextField('claim.full_name');
	who.addToPage(f.pdfPage, at(140, 102, 240, 18));
	f.place('text', 140, 102, 240, 18);
	f.text(60, 144, 'Town');
	const town = form.createDropdown('claim.town');
	town.addOptions(['Staunton', 'Brindlevale']);
	town.addToPage(f.pdfPage, at(140, 132, 160, 18));
	f.place('choice', 140, 132, 160, 18);
	f.text(60, 174, 'Receipts');
	const box = form.createCheckBox('claim.receipts');
	box.addToPage(f.pdfPage, at(140, 164, 12, 12));
	f.place('ticks', 140, 164, 12, 12);
	f.text(60, 204, 'Paid by');
	const paid = form.createRadioGroup('claim.paid');
	paid.addOptionToPage('bank', f.pdfPage, at(140, 194, 12, 12));
	paid.addOptionToPage('cash', f.pdfPage, at(200, 194, 12, 12));
	f.place('pick-one', 140, 194, 12, 12);
	f.place('pick-one', 200, 194, 12, 12);
	f.asked(60, 300, 'Signature:', 330, 'signature');
	f.asked(350, 300, 'Date:', 530, 'signing-date');
	return f.done();
}
