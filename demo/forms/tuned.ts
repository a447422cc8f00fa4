import { FormSheet } from './sheet';

/** Forms on which the search for places was made to work. */

export async function hallHire() {
	const f = await FormSheet.make();
	f.text(50, 70, 'Application to hire Staunton Parish Hall', { size: 16, bold: true });
	f.line(50, 78, 545, 78, 1.2);
	f.prose(
		50,
		100,
		495,
		'Please complete every line and return this form to the hall keeper at least four weeks before the first day of hire. A deposit secures the booking.'
	);
	f.asked(50, 150, 'Name of organisation:', 545, 'organisation');
	f.asked(50, 176, 'Full name:', 300, 'name');
	f.asked(310, 176, 'Position held:', 545, 'job-title');
	f.asked(50, 202, 'Address:', 545, 'text');
	f.asked(50, 228, 'Postcode:', 200, 'text');
	f.asked(210, 228, 'Telephone:', 370, 'text');
	f.asked(380, 228, 'E-mail:', 545, 'email');
	f.text(50, 262, 'Hire', { size: 12, bold: true });
	f.asked(50, 288, 'Hire starts on:', 250, 'date');
	f.asked(260, 288, 'Hire ends on:', 545, 'date');
	f.asked(50, 314, 'Number of chairs:', 250, 'number');
	f.asked(260, 314, 'Purpose of hire:', 545, 'text');
	f.asked(50, 340, 'Deposit (£):', 250, 'number');
	f.text(50, 380, 'Also needed:');
	f.tick(130, 380, 'kitchen');
	f.tick(210, 380, 'stage lights');
	f.tick(310, 380, 'piano');
	f.text(50, 404, 'Will alcohol be sold?');
	f.tick(170, 404, 'Yes', 'pick-one');
	f.tick(220, 404, 'No', 'pick-one');
	f.prose(
		50,
		440,
		495,
		'The hirer has read the conditions of hire and agrees to leave the hall as it was found. Damage is charged at cost.'
	);
	f.rule(50, 560, 220, 'signature');
	f.text(50, 572, 'Signature of the hirer', { size: 8 });
	f.rule(330, 560, 120, 'signing-date');
	f.text(330, 572, 'Date', { size: 8 });
	return f.done();
}

export async function instrumentLoan() {
	const f = await FormSheet.make();
	f.text(50, 70, 'Loan of an instrument', { size: 16, bold: true });
	f.prose(
		50,
		96,
		495,
		'Brindlevale Touring Orchestra lends the instruments listed below to the borrower for the time stated. The borrower insures them.'
	);
	f.asked(50, 150, 'Borrower’s name:', 545, 'text');
	f.asked(50, 176, 'Loan from:', 250, 'date');
	f.asked(260, 176, 'To be returned by:', 545, 'date');
	f.text(50, 210, 'Schedule', { size: 12, bold: true });
	f.table(
		50,
		220,
		[200, 105, 95, 95],
		22,
		[
			['Instrument', 'Serial number', 'Value (€)', 'Initials'],
			['Viola, after Gasparo', '', '', ''],
			['Bow, silver mounted', '', '', ''],
			['Case', '', '', '']
		],
		[null, 'text', 'number', 'initials']
	);
	f.text(50, 360, 'Condition', { size: 12, bold: true });
	f.tick(50, 382, 'photographs are attached');
	f.tick(50, 400, 'a valuation is attached');
	f.text(50, 440, 'For the lender', { bold: true });
	f.text(310, 440, 'The borrower', { bold: true });
	for (const x of [50, 310]) {
		f.asked(x, 490, 'Signed:', x + 220, 'signature');
		f.asked(x, 520, 'Name:', x + 220, 'name');
		f.asked(x, 550, 'Date:', x + 220, 'signing-date');
	}
	return f.done();
}

export async function expenseClaim() {
	const f = await FormSheet.make();
	f.text(50, 70, 'Claim for travel expenses', { size: 16, bold: true });
	f.box(50, 90, 245, 36);
	f.text(54, 100, 'Name', { size: 7 });
	f.place('name', 50, 102, 245, 24);
	f.box(300, 90, 245, 36);
	f.text(304, 100, 'Section', { size: 7 });
	f.place('text', 300, 102, 245, 24);
	f.text(50, 152, 'IBAN');
	f.letters(50, 158, 22, 15);
	f.table(
		50,
		205,
		[90, 225, 90, 90],
		24,
		[
			['Date', 'Journey', 'Miles', 'Amount'],
			['', '', '', ''],
			['', '', '', ''],
			['', '', '', ''],
			['', '', '', '']
		],
		['date', 'text', 'number', 'number']
	);
	f.text(365, 342, 'Total');
	f.box(455, 328, 90, 24, 'number');
	f.text(50, 380, 'Receipts:');
	f.tick(110, 380, 'enclosed', 'ticks');
	f.tick(190, 380, 'to follow', 'ticks');
	f.asked(50, 460, 'Signature:', 300, 'signature');
	f.asked(320, 460, 'Date:', 545, 'signing-date');
	f.prose(50, 520, 495, 'Claims are paid within fourteen days of approval. Keep a copy of every receipt.', 8);
	return f.done();
}

export async function youthConsent() {
	const f = await FormSheet.make();
	f.text(50, 70, 'Consent for a young player', { size: 16, bold: true });
	f.prose(
		50,
		96,
		495,
		'To be completed by a parent or guardian of any player who is under eighteen on the first day of the tour.'
	);
	f.run(50, 140, 'Name of player', 50, 'text', '.');
	f.run(50, 164, 'Date of birth', 26, 'date');
	f.run(300, 164, 'Instrument', 24, 'text');
	f.run(50, 188, 'Name of parent or guardian', 40, 'text');
	f.run(50, 212, 'Mobile', 24, 'text');
	f.run(260, 212, 'E-mail', 30, 'email');
	f.text(50, 246, 'My child may', { bold: true });
	f.tick(50, 266, 'travel with the orchestra in its vans');
	f.tick(50, 284, 'be given first aid');
	f.tick(50, 302, 'be photographed at rehearsals and concerts');
	f.text(50, 336, 'Does your child take medicine?');
	f.tick(220, 336, 'yes', 'pick-one');
	f.tick(270, 336, 'no', 'pick-one');
	f.text(50, 362, 'If so, which, and when:');
	f.box(50, 370, 495, 70, 'text');
	f.run(50, 520, 'Signature of parent or guardian', 34, 'signature');
	f.run(380, 520, 'Date', 20, 'signing-date');
	f.line(50, 760, 194, 760, 0.5);
	f.text(50, 771, '1 Guardian means anybody who has parental responsibility in law.', { size: 7 });
	return f.done();
}

export async function stewardSheet() {
	const f = await FormSheet.make(842, 595);
	f.text(50, 60, 'Steward registration', { size: 16, bold: true });
	const cell = (
		x: number,
		y: number,
		width: number,
		label: string,
		kind: Parameters<FormSheet['place']>[0],
		height = 38
	) => {
		f.box(x, y, width, height);
		f.text(x + 4, y + 10, label, { size: 7 });
		f.place(kind, x, y + 12, width, height - 12);
	};
	cell(50, 80, 240, 'First name', 'name');
	cell(290, 80, 240, 'Family name', 'name');
	cell(530, 80, 260, 'E-mail', 'email');
	cell(50, 118, 480, 'Address', 'text');
	cell(530, 118, 130, 'Postcode', 'text');
	cell(660, 118, 130, 'Mobile phone', 'text');
	f.text(50, 182, 'Date of birth');
	f.letters(120, 170, 8, 16);
	f.text(300, 182, 'Shirt size, choose one:');
	f.tick(420, 182, 'S', 'pick-one');
	f.tick(460, 182, 'M', 'pick-one');
	f.tick(500, 182, 'L', 'pick-one');
	f.text(50, 220, 'I can help on');
	f.tick(130, 220, 'Friday');
	f.tick(200, 220, 'Saturday');
	f.tick(280, 220, 'Sunday');
	f.text(50, 260, 'Anything we should know');
	f.box(50, 268, 740, 90, 'text');
	f.asked(50, 440, 'Signed:', 330, 'signature');
	f.asked(350, 440, 'Date:', 520, 'signing-date');
	return f.done();
}
