import { Typesetter, type Letter } from './letter';

/** The letters and forms of the Brindlevale Touring Orchestra, set anew for each use. All of it is made up. */

export async function engagement(musician: string, instrument: string, tour: string, fee: string): Promise<Letter> {
	const t = await Typesetter.begin('Guest musician engagement');
	t.title('Guest musician engagement');
	t.paragraph(`Dear ${musician},`);
	t.paragraph(
		`The Brindlevale Touring Orchestra is glad to engage you as guest ${instrument} for ${tour}. The dates, the repertoire and the terms are set out below. Please read them, and sign at the end if you agree.`
	);
	t.heading('Dates');
	t.table(
		[2, 4, 1, 1],
		[
			['Day', 'Place', 'Call', 'Concert'],
			['Thursday', 'Corn Exchange, Oldmere', '14:00', '19:30'],
			['Friday', 'Guildhall, Staunton', '15:00', '19:30'],
			['Saturday', 'St Audrey, Felling Bridge', '15:00', '19:00'],
			['Sunday', 'Pump Room, Harrow Wells', '11:00', '15:00']
		]
	);
	t.clause(
		1,
		'Engagement',
		`You play in every rehearsal and concert named above, and hold yourself ready from the call time. The artistic director may change the seating.`
	);
	t.clause(
		2,
		'Fee',
		`The Orchestra pays ${fee} for each concert, rehearsals included, within fourteen days of the last one. Travel beyond thirty miles is paid at the rate of the touring handbook.`
	);
	t.clause(
		3,
		'Travel and lodging',
		'Places in the vans are kept for those who ask for them a week ahead. The Orchestra finds a room for any night on which the last train would not take you home.'
	);
	t.clause(
		4,
		'Music and dress',
		'Parts are sent three weeks before the first rehearsal and given back after the last concert. Concert dress is black, without sequins.'
	);
	t.clause(
		5,
		'Illness',
		'If you fall ill, tell the company office at once. The Orchestra pays for what you have played, and may engage somebody else for the rest.'
	);
	t.clause(
		6,
		'Recording',
		'Rehearsals may be recorded for study. A broadcast or a published recording needs a release of its own.'
	);
	t.initials('musician.initials');
	t.clause(
		7,
		'Instrument and insurance',
		'The Orchestra insures the instrument named in the schedule while it travels with the company, up to its agreed value. It must not be left in a van overnight.'
	);
	t.clause(
		8,
		'Acceptance',
		'I accept this engagement on the terms above and confirm that the dates in the schedule are free of other engagements. I have read the touring handbook of the current season.'
	);
	t.blank('Anything we should know', 'musician.note', 280);
	t.signatures([
		{ key: 'musician', label: 'Musician' },
		{ key: 'orchestra', label: 'For the Orchestra' }
	]);
	return t.done();
}

export async function loan(instrument: string, value: string): Promise<Letter> {
	const t = await Typesetter.begin('Instrument loan agreement');
	t.title('Instrument loan agreement');
	t.paragraph(
		`The lender lends the instrument named in the schedule to the Brindlevale Touring Orchestra, for use by the borrower named below, for one season.`
	);
	t.heading('Schedule of instruments');
	t.table(
		[3, 3, 2],
		[
			['Item', 'Maker', 'Agreed value'],
			[instrument, 'J. Thorne, 1911', value],
			['Bow', 'unnamed, silver mounted', 'EUR 1,850.00'],
			['Case', 'fibreglass', 'EUR 420.00']
		]
	);
	const clauses: [string, string][] = [
		[
			'Care',
			'The borrower keeps the instrument in its case when it is not played, away from heaters, windows and unattended vehicles, and has it looked over by a luthier once in the season.'
		],
		[
			'Insurance',
			'The Orchestra insures the instrument for its agreed value from the day of handing over to the day of return, at home and on tour.'
		],
		[
			'Strings and small repairs',
			'Strings, rosin and repairs up to sixty euros are the borrower’s. Anything larger is agreed with the lender first.'
		],
		[
			'Loss and damage',
			'Loss or damage is told to the company office within a day. What the insurer does not pay is shared equally by the Orchestra and the borrower, unless one of them was careless.'
		],
		[
			'Return',
			'The instrument is given back on the last day of the season, or within seven days when the lender asks for it in writing.'
		],
		[
			'Ownership',
			'The instrument remains the lender’s. It must not be lent on, altered, or taken abroad without the lender’s word.'
		]
	];
	clauses.forEach(([title, text], i) => {
		t.clause(
			i + 1,
			title,
			`${text} The condition of the instrument is described on the sheet that both have seen, and that sheet belongs to this agreement.`
		);
		t.paragraph(
			'Both sides keep a copy of this agreement. What is not written here is settled by talking first, and by the law of the place where the instrument is kept if talking does not help.'
		);
		if (i === 2) t.initials('borrower.initials');
		if (i % 2 === 0) t.newPage();
	});
	t.newPage();
	t.blank('Where it will be kept', 'borrower.address', 280, 24);
	t.blank('Telephone', 'borrower.phone');
	t.signatures([
		{ key: 'borrower', label: 'Borrower' },
		{ key: 'lender', label: 'Lender' }
	]);
	return t.done();
}

export async function youthConsent(player: string): Promise<Letter> {
	const t = await Typesetter.begin('Youth player consent');
	t.title('Youth player consent');
	t.paragraph(
		`${player} has been invited to play beside the orchestra in the spring. Players under eighteen need the word of a guardian before they may travel with us.`
	);
	t.clause(
		1,
		'Travel',
		'Young players travel in the second van with two adults of the company, and are met and brought home at the times of the call sheet.'
	);
	t.clause(
		2,
		'Rooms and meals',
		'On nights away they share rooms with players of their own age. Meals are paid by the Orchestra.'
	);
	t.newPage();
	t.clause(
		3,
		'Health',
		'The guardian tells us of medicines and allergies. In an emergency the company manager may agree to treatment when the guardian cannot be reached.'
	);
	t.blank('Medicines and allergies', 'guardian.health', 280, 24);
	t.blank('Telephone in an emergency', 'guardian.phone');
	t.newPage();
	t.paragraph('I have read the three pages of this consent and agree to them.');
	t.signatures([
		{ key: 'player', label: 'Player' },
		{ key: 'guardian', label: 'Guardian' }
	]);
	return t.done();
}

let handbook: Promise<Letter> | null = null;

/** The same for everybody, so it is set once. */
export function handbookReceipt(): Promise<Letter> {
	return (handbook ??= setHandbook());
}

async function setHandbook(): Promise<Letter> {
	const t = await Typesetter.begin('Steward handbook');
	t.title('Steward handbook');
	const chapters = [
		'Welcome',
		'Before the doors open',
		'Tickets',
		'Latecomers',
		'Seats and aisles',
		'People who need a hand',
		'The interval',
		'Fire',
		'First aid',
		'Lost children',
		'Lost things',
		'Money',
		'Cameras',
		'Difficult guests',
		'Weather',
		'After the concert',
		'The lorry',
		'Expenses',
		'Whom to call'
	];
	for (const chapter of chapters) {
		t.heading(chapter);
		t.paragraph(
			'A steward is the first and the last person of the orchestra whom a guest meets. Be early, be seen, be kind. Wear the grey sash, keep the aisle clear, and know the two ways out that are nearest to you.'
		);
		t.paragraph(
			'When something is not in this handbook, do what you would wish a stranger to do for you, and tell the hall keeper afterwards. Nobody was ever blamed here for asking.'
		);
		t.newPage();
	}
	t.heading('Receipt');
	t.paragraph('I have received the steward handbook, have read it, and will act by it.');
	t.signatures([{ key: 'steward', label: 'Steward' }]);
	return t.done();
}

/** @param apart each clause on a page of its own, as the larger halls have it */
export async function hallHire(hall: string, rent: string, apart = true): Promise<Letter> {
	const t = await Typesetter.begin('Hall hire agreement');
	t.title('Hall hire agreement');
	t.paragraph(
		`Between the keeper of ${hall} and the Brindlevale Touring Orchestra, for one rehearsal and one concert.`
	);
	t.table(
		[2, 2, 1],
		[
			['What', 'When', 'Rent'],
			['Great hall', '10:00 to 23:00', rent],
			['Green room', '10:00 to 23:00', 'included'],
			['Grand piano, tuned', 'by 12:00', 'GBP 60.00']
		]
	);
	['Access', 'Seating, heating and light', 'Piano', 'Bar', 'Cancelling'].forEach((title, i) => {
		t.clause(
			i + 1,
			title,
			'The keeper opens the hall an hour before the lorry is due and stays within call. The Orchestra leaves the hall as it found it, chairs stacked and lights out. Whatever breaks is told on the day and paid within a month.'
		);
		if (apart) t.newPage();
	});
	t.signatures([
		{ key: 'keeper', label: 'Hall keeper' },
		{ key: 'orchestra', label: 'For the Orchestra' }
	]);
	return t.done();
}

export async function recordingRelease(piece: string): Promise<Letter> {
	const t = await Typesetter.begin('Recording release');
	t.title('Recording release');
	t.paragraph(
		`I agree that my playing in the recording of ${piece} may be published on disc and online by the Brindlevale Touring Orchestra, that my name is printed with it, and that the fee agreed covers this use.`
	);
	t.signatures([{ key: 'musician', label: 'Musician' }]);
	return t.done();
}

export async function rotaSwap(): Promise<Letter> {
	const t = await Typesetter.begin('Section rota swap');
	t.title('Section rota swap');
	t.paragraph('We two exchange the services named here. The section leader has been told and agrees.');
	t.blank('Service given', 'first.service', 280);
	t.blank('Service taken', 'second.service', 280);
	t.signatures([
		{ key: 'first', label: 'The one who gives' },
		{ key: 'second', label: 'The one who takes' }
	]);
	return t.done();
}

export async function expenseClaim(): Promise<Letter> {
	const t = await Typesetter.begin('Touring expense claim');
	t.title('Touring expense claim');
	t.paragraph('For journeys, meals and lodging on tour. Keep the receipts until the claim has been paid.');
	t.blank('For what', 'claimant.what', 280, 24);
	t.blank('In all', 'claimant.sum', 120);
	t.signatures([
		{ key: 'claimant', label: 'Claimant' },
		{ key: 'leader', label: 'Section leader' }
	]);
	return t.done();
}

/** Youth consent as it is begun from a page: what was asked there stands in it, and a second guardian has a place. */
export async function consentFromPage(): Promise<Letter> {
	const t = await Typesetter.begin('Youth player consent');
	t.title('Youth player consent');
	t.paragraph('For a young player who has been invited to play beside the orchestra in the spring.');
	t.blank('Date of birth', 'player.birthday', 140);
	t.blank('Who has custody', 'player.custody', 240);
	t.blank('Instrument', 'player.instrument', 240);
	t.clause(
		1,
		'Travel',
		'Young players travel in the second van with two adults of the company, and are met and brought home at the times of the call sheet.'
	);
	t.clause(
		2,
		'Health',
		'The guardian tells us of medicines and allergies. In an emergency the company manager may agree to treatment when the guardian cannot be reached.'
	);
	t.blank('Medicines and allergies', 'guardian.health', 280, 24);
	t.newPage();
	t.paragraph('I have read both pages of this consent and agree to them.');
	t.signatures([
		{ key: 'player', label: 'Player' },
		{ key: 'guardian', label: 'Guardian' }
	]);
	t.signatures([{ key: 'second', label: 'Second guardian' }]);
	return t.done();
}

/** Hall hire as a private hirer begins it from a page. */
export async function hallHireFromPage(): Promise<Letter> {
	const t = await Typesetter.begin('Rehearsal hall hire');
	t.title('Rehearsal hall hire');
	t.paragraph('Our rehearsal hall at Brindlevale is let to private persons for a day at a time.');
	t.blank('County of residence', 'hirer.county', 200);
	t.blank('Hired', 'hirer.how', 200);
	t.blank('Day', 'hirer.day', 140);
	t.blank('Fee', 'hirer.fee', 140);
	t.clause(1, 'Use', 'The hirer leaves the hall as it was found and hands the keys back on the same day.');
	t.clause(2, 'Who is bound', 'In Aldmoor, Brint and Corve spouses hire together, and both sign.');
	t.signatures([
		{ key: 'hirer', label: 'Hirer' },
		{ key: 'spouse', label: 'Spouse' }
	]);
	t.signatures([{ key: 'orchestra', label: 'For the orchestra' }]);
	return t.done();
}

/** What somebody declares before a notary. */
export async function declaration(what: string, when: string): Promise<Letter> {
	const t = await Typesetter.begin('Statutory declaration');
	t.title('Statutory declaration');
	t.paragraph(
		`I, whose name stands below, solemnly declare that ${what}, lent to me by the Brindlevale Touring Orchestra, has been missing since ${when}, that I have looked for it wherever it could be, and that I have told the police and the hall.`
	);
	t.paragraph(
		'I have not sold it, lent it or given it away, and nobody has it with my knowledge. Should it be found, it belongs to the Orchestra, and I bring it back.'
	);
	t.blank('Where it was last seen', 'declarant.where', 280, 24);
	t.paragraph('I make this declaration believing it to be true.');
	t.signatures([{ key: 'declarant', label: 'The one who declares' }]);
	return t.done();
}
