import type { Made, Part } from './set';

/** Documents to be fitted: a dozen of them, each laid out in its own way. Their wording is made up from parts. */

const SUBJECTS = [
	'The borrower',
	'The player',
	'The hall keeper',
	'The orchestra',
	'The lender',
	'Every steward',
	'The guardian',
	'The artistic director',
	'The treasurer',
	'A guest',
	'The driver',
	'The librarian'
];
const DEEDS = [
	'keeps',
	'returns',
	'insures',
	'looks after',
	'tells the office about',
	'gives notice of',
	'pays for',
	'agrees to',
	'makes ready',
	'does not lend on',
	'carries',
	'signs for'
];
const THINGS = [
	'the instrument and its case',
	'any damage to the hall',
	'the music on its stand',
	'the dates of the tour',
	'the keys of the stage door',
	'the agreed fee',
	'the insurance papers',
	'rooms for the night',
	'travel beyond thirty miles',
	'the list of repairs',
	'the concert dress',
	'the van and its ramps',
	'programmes left over',
	'the piano after tuning'
];
const WHENS = [
	'before the first rehearsal',
	'within fourteen days',
	'on the day of the concert',
	'when the season ends',
	'as soon as it is known',
	'unless both have agreed otherwise',
	'in writing',
	'without being asked',
	'at the latest by noon',
	'in the presence of a witness',
	'after the interval',
	'while the doors are open'
];
const TITLES = [
	'Engagement',
	'Fee',
	'Travel',
	'Lodging',
	'Music',
	'Dress',
	'Illness',
	'Recording',
	'Insurance',
	'Care',
	'Return',
	'Ownership',
	'Repairs',
	'Notice',
	'Keys',
	'Cleaning',
	'Heating',
	'Safety',
	'Storage',
	'Law'
];

/** Chance that comes out the same each time (mulberry32). */
export function chance(seed: number): () => number {
	let state = seed >>> 0;
	return () => {
		state = (state + 0x6d2b79f5) >>> 0;
		let t = Math.imul(state ^ (state >>> 15), 1 | state);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
	};
}

export function pick<T>(random: () => number, from: readonly T[]): T {
	return from[Math.floor(random() * from.length)]!;
}

export function sentence(random: () => number): string {
	return `${pick(random, SUBJECTS)} ${pick(random, DEEDS)} ${pick(random, THINGS)} ${pick(random, WHENS)}.`;
}

export function prose(random: () => number, sentences: number): Part {
	return { is: 'text', text: Array.from({ length: sentences }, () => sentence(random)).join(' ') };
}

const SYLLABLES = [
	'ba',
	'ren',
	'lo',
	'mi',
	'tar',
	'us',
	'ven',
	'dol',
	'ki',
	'sha',
	'pre',
	'con',
	'tu',
	'gal',
	'or',
	'ine'
];

/** A text of made-up words, some of them everywhere and most of them seldom, as in any language. */
export function wordy(random: () => number, words: number): Part {
	const word = () => {
		// the fourth power makes few words common and many rare
		let rank = Math.floor(random() ** 4 * 40_000);
		let text = '';
		do {
			text += SYLLABLES[rank % SYLLABLES.length]!;
			rank = Math.floor(rank / SYLLABLES.length);
		} while (rank > 0);
		return text;
	};
	return { is: 'text', text: Array.from({ length: words }, word).join(' ') };
}

/** Numbered clauses, each a heading and a text. */
function clauses(random: () => number, count: number): Part[] {
	const titles = [...TITLES].sort(() => random() - 0.5).slice(0, count);
	return titles.flatMap((title, i): Part[] => [
		{ is: 'heading', text: `${i + 1} ${title}` },
		prose(random, 2 + Math.floor(random() * 4))
	]);
}

const A4: [number, number] = [595, 842];

type Body = (random: () => number) => Part[];

const line = (label: string, key: string, blank?: 'rule' | 'run' | 'bare', width?: number): Part => ({
	is: 'line',
	label,
	key,
	blank,
	width
});

const BODIES: [name: string, look: Partial<Made>, body: Body][] = [
	[
		'Engagement letter',
		{ foot: { text: 'Engagement letter', initials: true } },
		(r) => [
			{ is: 'heading', text: 'Engagement of a guest musician' },
			prose(r, 3),
			{
				is: 'table',
				shares: [2, 4, 1, 1],
				head: ['Day', 'Place', 'Call', 'Concert'],
				open: true,
				rows: [
					{ cells: ['Thursday', 'Corn Exchange, Oldmere', '14:00', '19:30'], keys: [null, null, null, null] },
					{ cells: ['Friday', 'Guildhall, Staunton', '15:00', '19:30'], keys: [null, null, null, null] }
				]
			},
			...clauses(r, 9),
			line('Anything we should know', 'note'),
			{
				is: 'signatures',
				blocks: [
					{ label: 'Musician', key: 'musician' },
					{ label: 'For the Orchestra', key: 'orchestra' }
				]
			}
		]
	],
	[
		'Loan agreement',
		{ foot: { text: 'Loan agreement', initials: false } },
		(r) => [
			{ is: 'heading', text: 'Loan of an instrument' },
			line('Name of the borrower', 'name'),
			line('Where it is kept', 'address', 'run'),
			{
				is: 'table',
				shares: [3, 3, 2],
				head: ['Item', 'Maker', 'Value'],
				rows: [
					{ cells: ['Cello', '', ''], keys: [null, 'cello.maker', 'cello.value'] },
					{ cells: ['Bow', '', ''], keys: [null, 'bow.maker', 'bow.value'] },
					{ cells: ['Case', '', ''], keys: [null, 'case.maker', 'case.value'] }
				]
			},
			...clauses(r, 7),
			{
				is: 'signatures',
				blocks: [
					{ label: 'Borrower', key: 'borrower' },
					{ label: 'Lender', key: 'lender' }
				]
			}
		]
	],
	[
		'Youth consent',
		{},
		(r) => [
			{ is: 'heading', text: 'Consent for a young player' },
			prose(r, 3),
			{
				is: 'pair',
				items: [
					{ label: 'First name', key: 'first', width: 130 },
					{ label: 'Family name', key: 'family', width: 130 }
				]
			},
			line('Birthday', 'birthday'),
			...clauses(r, 3),
			line('Medicines and allergies', 'health'),
			line('Telephone in an emergency', 'phone'),
			{
				is: 'ticks',
				items: [
					{ label: 'May travel in the second van', key: 'van' },
					{ label: 'May swim when the group swims', key: 'swim' },
					{ label: 'May be photographed', key: 'photo' }
				]
			},
			{
				is: 'signatures',
				blocks: [
					{ label: 'Player', key: 'player' },
					{ label: 'Guardian', key: 'guardian' }
				]
			}
		]
	],
	[
		'Hall hire',
		{ size: 11, margin: 80 },
		(r) => [
			{ is: 'heading', text: 'Hire of a hall' },
			prose(r, 2),
			{
				is: 'pair',
				items: [
					{ label: 'From', key: 'from', width: 90 },
					{ label: 'to', key: 'to', width: 90 },
					{ label: 'Hall number', key: 'hall', width: 60 }
				]
			},
			...clauses(r, 12),
			line('Rent agreed', 'rent', 'run', 120),
			line('Deposit', 'deposit', 'run', 120),
			{
				is: 'signatures',
				blocks: [
					{ label: 'Keeper', key: 'keeper' },
					{ label: 'Hirer', key: 'hirer' }
				]
			}
		]
	],
	[
		'Steward sheet',
		{ size: 10 },
		(r) => [
			{ is: 'heading', text: 'Steward registration' },
			line('Full name', 'name'),
			line('E-mail', 'mail'),
			line('Telephone', 'phone'),
			prose(r, 5),
			{ is: 'heading', text: 'When can you come?' },
			{
				is: 'ticks',
				items: ['Thursday evening', 'Friday evening', 'Saturday afternoon', 'Sunday matinee'].map((label) => ({
					label,
					key: label
				}))
			},
			...clauses(r, 4),
			line('Signed', 'sign')
		]
	],
	[
		'Expense claim',
		{ size: 10, foot: { text: 'Expense claim', initials: false } },
		(r) => [
			{ is: 'heading', text: 'Touring expenses' },
			{
				is: 'pair',
				items: [
					{ label: 'Claimant', key: 'claimant', width: 180 },
					{ label: 'Section', key: 'section', width: 110 }
				]
			},
			{
				is: 'table',
				shares: [2, 4, 2, 2],
				head: ['Day', 'What for', 'Currency', 'Amount'],
				rows: [1, 2, 3, 4, 5].map((n) => ({
					cells: [`Day ${n}`, '', '', ''],
					keys: [null, `what.${n}`, `currency.${n}`, `amount.${n}`]
				}))
			},
			line('Total', 'total', 'rule', 110),
			prose(r, 4),
			{
				is: 'signatures',
				blocks: [
					{ label: 'Claimant', key: 'c' },
					{ label: 'Section leader', key: 's' }
				]
			}
		]
	],
	[
		'Recording release',
		{ size: 12 },
		(r) => [
			{ is: 'heading', text: 'Release of a recording' },
			prose(r, 4),
			line('Title of the work', 'work', 'bare'),
			line('Recorded on', 'day', 'bare', 120),
			prose(r, 6),
			{ is: 'signatures', blocks: [{ label: 'Performer', key: 'performer' }] }
		]
	],
	[
		'Volunteer agreement',
		{ foot: { text: 'Volunteer agreement', initials: true } },
		(r) => [
			{ is: 'heading', text: 'Working with us' },
			...clauses(r, 6),
			line('Your telephone', 'phone'),
			...clauses(r, 5).map((p): Part => (p.is === 'heading' ? { ...p, text: `Also: ${p.text}` } : p)),
			line('Next of kin', 'kin'),
			line('Their telephone', 'kin.phone'),
			{ is: 'signatures', blocks: [{ label: 'Volunteer', key: 'v' }] }
		]
	],
	[
		'Supplier form',
		{ size: 10, margin: 50 },
		(r) => [
			{ is: 'heading', text: 'New supplier' },
			{
				is: 'table',
				shares: [2, 5],
				head: ['Asked', 'Answer'],
				rows: ['Name', 'Street', 'Town', 'Tax number', 'Bank', 'Account'].map((n) => ({
					cells: [n, ''],
					keys: [null, `s.${n}`]
				}))
			},
			prose(r, 4),
			...clauses(r, 3),
			{
				is: 'signatures',
				blocks: [
					{ label: 'Supplier', key: 'supplier' },
					{ label: 'For the Orchestra', key: 'office' }
				]
			}
		]
	],
	[
		'Lost bow declaration',
		{ size: 12, margin: 85 },
		(r) => [
			{ is: 'heading', text: 'Declaration' },
			line('I,', 'name', 'run', 260),
			prose(r, 3),
			line('lost at', 'place', 'run', 200),
			prose(r, 4),
			line('on the day of', 'day', 'run', 140),
			prose(r, 3),
			{
				is: 'signatures',
				blocks: [
					{ label: 'Declared by', key: 'd' },
					{ label: 'Before me', key: 'n' }
				]
			}
		]
	],
	[
		'Rota swap',
		{ size: 11 },
		(r) => [
			{ is: 'heading', text: 'Section rota swap' },
			{
				is: 'table',
				shares: [3, 2, 2],
				head: ['Player', 'Gives', 'Takes'],
				rows: [
					{ cells: ['', '', ''], keys: ['a.player', 'a.gives', 'a.takes'] },
					{ cells: ['', '', ''], keys: ['b.player', 'b.gives', 'b.takes'] }
				]
			},
			prose(r, 3),
			{
				is: 'pair',
				items: [
					{ label: 'Signed', key: 'sa', width: 150 },
					{ label: 'Signed', key: 'sb', width: 150 }
				]
			},
			line('Seen by the section leader', 'seen')
		]
	],
	[
		'Long handbook',
		{ size: 10, foot: { text: 'Handbook', initials: false } },
		(r) => [
			...clauses(r, 20),
			...clauses(r, 18).map((p): Part => (p.is === 'heading' ? { ...p, text: `Part two, ${p.text}` } : p)),
			{ is: 'heading', text: 'Receipt' },
			{ is: 'text', text: 'I have received the handbook, have read it, and will act by it.' },
			line('Staff number', 'staff', 'run', 90),
			{ is: 'signatures', blocks: [{ label: 'Member of staff', key: 'm' }] }
		]
	]
];

/** The documents by name; every third was kept out while fitting was tuned. */
export const DOCUMENTS: { made: Made; tuned: boolean }[] = BODIES.map(([name, look, body], i) => ({
	tuned: i % 3 !== 2,
	made: { name, size: 10.5, margin: 66, paper: A4, foot: null, ...look, parts: body(chance(1000 + i)) }
}));
