export type CaseKind = 'engagement' | 'loan' | 'consent' | 'handbook' | 'hall' | 'release' | 'rota' | 'claim';

/** What somebody does, and how many days after the step before. */
export interface Step {
	after: number;
	does: 'open' | 'finish' | 'decline' | 'withdraw';
	why?: string;
}

/** One packet of the year: sent so many days ago, and what became of it. */
export interface Case {
	kind: CaseKind;
	title: string;
	person: string;
	email: string;
	/** instrument, hall or piece */
	detail: string;
	about: string;
	message?: string;
	days?: number;
	ago: number;
	steps: Step[];
	expires?: boolean;
}

const finish = (after: number): Step => ({ after, does: 'finish' });
const open = (after: number): Step => ({ after, does: 'open' });
const all = (...after: number[]): Step[] => after.map(finish);

function guest(
	title: string,
	person: string,
	email: string,
	detail: string,
	about: string,
	ago: number,
	steps: Step[],
	more: Partial<Case> = {}
): Case {
	return { kind: 'engagement', title, person, email: `${email}@post.example`, detail, about, ago, steps, ...more };
}
function plain(
	kind: CaseKind,
	title: string,
	person: string,
	email: string,
	detail: string,
	ago: number,
	steps: Step[],
	more: Partial<Case> = {}
): Case {
	return { kind, title, person, email: `${email}@post.example`, detail, about: '', ago, steps, ...more };
}

/** Twelve months of the company office. */
export const CASES: Case[] = [
	guest(
		'Guest engagement, A. Brightwell',
		'Agnes Brightwell',
		'a.brightwell',
		'oboe',
		'the winter tour',
		348,
		all(1, 2, 1)
	),
	guest('Guest engagement, T. Sorley', 'Tobias Sorley', 't.sorley', 'horn', 'the winter tour', 341, all(1, 1, 2)),
	plain('loan', 'Instrument loan, violin no. 2', 'Mirela Ionescu', 'm.ionescu', 'Violin no. 2', 330, all(2, 4)),
	plain('hall', 'Hall hire, Pump Room', 'Edwin Marsh', 'e.marsh', 'the Pump Room, Harrow Wells', 322, all(3, 1)),
	plain('consent', 'Youth consent, Ana Pilgrim', 'Ana Pilgrim', 'a.pilgrim', '', 300, all(1, 3)),
	plain('claim', 'Touring claim, January', 'Sorcha Keane', 's.keane', '', 291, all(0, 2, 1)),
	guest('Guest engagement, P. Vandermeer', 'Pieter Vandermeer', 'p.vandermeer', 'bassoon', 'the spring tour', 280, [
		finish(1),
		{ after: 2, does: 'decline', why: 'I have taken a post abroad and can’t come.' }
	]),
	plain(
		'release',
		'Recording release, serenade',
		'Agnes Brightwell',
		'a.brightwell',
		'the Serenade in E flat',
		262,
		all(1)
	),
	plain('handbook', 'Steward handbook, Gil Harkness', 'Gil Harkness', 'g.harkness', '', 250, all(5)),
	plain('handbook', 'Steward handbook, Priya Raman', 'Priya Raman', 'p.raman', '', 250, all(2)),
	plain('handbook', 'Steward handbook, Colm Danaher', 'Colm Danaher', 'c.danaher', '', 249, [open(3)], {
		expires: true
	}),
	plain(
		'hall',
		'Hall hire, Guildhall Staunton',
		'Noel Hartigan',
		'n.hartigan',
		'the Guildhall, Staunton',
		231,
		all(2, 2)
	),
	guest('Guest engagement, Y. Abara', 'Yemi Abara', 'y.abara', 'clarinet', 'the spring tour', 224, all(1, 1, 1)),
	guest('Guest engagement, L. Fenn', 'Linnea Fenn', 'l.fenn', 'flute', 'the spring tour', 223, all(2, 6, 1)),
	plain('rota', 'Rota swap, second violins', 'Kit Sandys', 'k.sandys', '', 205, all(0, 0)),
	plain('loan', 'Instrument loan, bass clarinet', 'Yemi Abara', 'y.abara', 'Bass clarinet', 190, [
		finish(2),
		{ after: 5, does: 'withdraw', why: 'The lender has sold the instrument.' }
	]),
	plain('claim', 'Touring claim, April', 'Jonah Petrie', 'j.petrie', '', 182, all(1, 1, 3)),
	plain('consent', 'Youth consent, Oskar Lind', 'Oskar Lind', 'o.lind', '', 170, all(1, 1)),
	plain('handbook', 'Steward handbook, Ines Duarte', 'Ines Duarte', 'i.duarte', '', 150, all(1)),
	plain('handbook', 'Steward handbook, Walt Perrin', 'Walt Perrin', 'w.perrin', '', 149, all(9)),
	guest(
		'Guest engagement, D. Achterberg',
		'Dieuwke Achterberg',
		'd.achterberg',
		'viola',
		'the summer festival',
		141,
		all(1, 2, 2)
	),
	guest('Guest engagement, S. Moreau', 'Solène Moreau', 's.moreau', 'harp', 'the summer festival', 140, [finish(1)], {
		expires: true
	}),
	plain('hall', 'Hall hire, St Audrey', 'Bethan Rice', 'b.rice', 'St Audrey, Felling Bridge', 128, all(1, 1)),
	plain('release', 'Recording release, folk songs', 'Linnea Fenn', 'l.fenn', 'the Five Folk Songs', 110, all(0)),
	plain('release', 'Recording release, folk songs', 'Tobias Sorley', 't.sorley', 'the Five Folk Songs', 110, [
		{ after: 1, does: 'decline', why: 'I was ill at that session; it is not my playing.' }
	]),
	plain('claim', 'Touring claim, July', 'Sorcha Keane', 's.keane', '', 101, all(0, 4, 2)),
	plain('loan', 'Instrument loan, cello no. 9', 'Wren Castellane', 'w.castellane', 'Cello no. 9', 90, all(1, 2)),
	guest('Guest engagement, Ł. Wójcik', 'Łukasz Wójcik', 'l.wojcik', 'trumpet', 'the autumn tour', 75, all(1, 3, 1)),
	guest('Guest engagement, Ε. Παππά', 'Ελένη Παππά', 'e.pappa', 'violin', 'the autumn tour', 74, all(2, 2, 1)),
	plain('consent', 'Youth consent, Mabel Orchard', 'Mabel Orchard', 'm.orchard', '', 60, all(2, 5)),
	plain('hall', 'Hall hire, Market House', 'Edwin Marsh', 'e.marsh', 'the Market House, Tarrow', 52, [
		{ after: 3, does: 'withdraw', why: 'The concert has moved to the Guildhall.' }
	]),
	plain('rota', 'Rota swap, cellos', 'Wren Castellane', 'w.castellane', '', 40, all(1, 1)),
	plain('handbook', 'Steward handbook, Hal Brook', 'Hal Brook', 'h.brook', '', 33, all(4)),
	plain('claim', 'Touring claim, September', 'Jonah Petrie', 'j.petrie', '', 30, all(1, 2, 1)),
	// out now
	plain('hall', 'Hall hire, Corn Exchange', 'Gwen Aldous', 'g.aldous', 'the Corn Exchange, Oldmere', 9, [open(2)], {
		days: 10,
		message: 'The date is fixed now; the piano has been ordered.'
	}),
	guest('Guest engagement, M. Lindqvist', 'Maren Lindqvist', 'm.lindqvst', 'violin', 'the winter tour', 4, all(1), {
		days: 14,
		message: 'We look forward to having you with us again.'
	}),
	plain('consent', 'Youth consent, Ffion Bell', 'Ffion Bell', 'f.bell', '', 6, [finish(3)], { days: 18 }),
	plain('loan', 'Instrument loan, cello no. 14', 'Idris Vaughan', 'i.vaughan', 'Cello no. 14', 3, [open(1)]),
	guest(
		'Guest engagement, J. Petrakis',
		'Joan Petrakis',
		'j.petrakis',
		'double bass',
		'the winter tour',
		2,
		[finish(1), open(0)],
		{ days: 14 }
	),
	plain('claim', 'Touring claim, October', 'Sorcha Keane', 's.keane', '', 1, [finish(0)]),
	guest('Guest engagement, A. Dube', 'Anele Dube', 'a.dube', 'trombone', 'the winter tour', 5, all(1, 2), { days: 14 }),
	guest('Guest engagement, R. Castellan', 'Rosa Castellan', 'r.castellan', 'percussion', 'the winter tour', 0, [], {
		days: 21
	}),
	plain('handbook', 'Steward handbook, Ola Brandt', 'Ola Brandt', 'o.brandt', '', 8, [open(1)]),
	plain('handbook', 'Steward handbook, Tess Marlow', 'Tess Marlow', 't.marlow', '', 8, []),
	plain('handbook', 'Steward handbook, Ravi Menon', 'Ravi Menon', 'r.menon', '', 8, [open(4)]),
	plain('release', 'Recording release, spring', 'Maren Lindqvist', 'maren.lindqvist', 'the Spring Overture', 2, []),
	plain('rota', 'Rota swap, violas', 'Dieuwke Achterberg', 'd.achterberg', '', 1, [finish(0)]),
	...autumnEngagements(),
	...autumnStewards(),
	...releasesOfLucia()
];

/** Of the autumn tour: so many days ago, and how long each of its three stops took. Most are quick, a few are not. */
function autumnEngagements(): Case[] {
	const SENT: [name: string, instrument: string, ago: number, steps: Step[]][] = [
		['Cyril Marlowe', 'cello', 88, all(1, 3, 1)],
		['Bisi Oyelaran', 'flute', 84, all(1, 12, 2)],
		['Halvard Tveit', 'horn', 70, all(2, 1, 1)],
		['Nell Quayle', 'oboe', 63, all(1, 2, 3)],
		['Ilka Szabo', 'viola', 57, all(1, 5, 1)],
		['Fergus Doyle', 'timpani', 49, all(3, 1, 1)],
		['Morayo Adeyemi', 'bassoon', 43, all(1, 8, 2)],
		['Edda Lysander', 'harp', 36, all(1, 1, 1)],
		['Vivian Crane', 'trombone', 24, [finish(1), { after: 3, does: 'decline', why: 'I am on tour myself that week.' }]]
	];
	return SENT.map(([name, instrument, ago, steps]) =>
		guest(`Guest engagement, ${initialled(name)}`, name, addressed(name), instrument, 'the autumn tour', ago, steps)
	);
}

/** Stewards who joined in the autumn: so many days ago, and how long they took. */
function autumnStewards(): Case[] {
	const SENT: [name: string, ago: number, after: number][] = [
		['Moira Tansley', 92, 3],
		['Dev Kapoor', 92, 1],
		['Ruth Ansell', 85, 12],
		['Femi Bankole', 78, 2],
		['Greta Holm', 71, 19],
		['Sid Orrell', 64, 6],
		['Lottie Pryce', 56, 1],
		['Yusuf Amin', 45, 15],
		['Carys Dean', 27, 4]
	];
	return SENT.map(([name, ago, after]) =>
		plain('handbook', `Steward handbook, ${name}`, name, addressed(name), '', ago, all(after))
	);
}

/** She answers on one day of the week, whenever something comes. */
function releasesOfLucia(): Case[] {
	const PIECES = ['the Nocturne', 'the Wedding Suite', 'two Marches', 'the Partita', 'the Harvest Songs'];
	return PIECES.map((piece, i) =>
		plain('release', `Recording release, ${piece}`, 'Lucia Marchetti', 'l.marchetti', piece, 65 - 7 * i, all(2))
	);
}

function initialled(name: string): string {
	const [first, last] = name.split(' ');
	return `${first![0]}. ${last}`;
}
function addressed(name: string): string {
	return initialled(name).replace(' ', '').toLowerCase();
}
