import type { Answers } from '../src/lib/core/field';
import type { FollowUp, Intake, Item } from '../src/lib/core/intake';
import { findPlaces } from '../src/lib/core/page';
import { emptyPlan, EVERYBODY, personIn, type Field, type Plan, type PlanPerson } from '../src/lib/core/packet';
import { takePlaces } from '../src/lib/core/plan';
import { isRefusal, type Refusal } from '../src/lib/core/refusal';
import type { Account } from '../src/lib/server/accounts';
import type { House } from '../src/lib/server/house';
import {
	beginCase,
	handIn,
	intakeAt,
	keepCase,
	newIntake,
	putIntakeInUse,
	readIntake,
	saveIntake
} from '../src/lib/server/intakes';
import { packetState } from '../src/lib/server/packets/act';
import { addPaper, readingOf } from '../src/lib/server/papers';
import { finish, openAndConsent } from '../src/lib/server/signing';
import { describeTemplate, newTemplate, putInUse } from '../src/lib/server/templates';
import { consentFromPage, hallHireFromPage } from './documents';
import { expenseClaim } from './forms/tuned';
import type { Letter } from './letter';

/** The scenario's three intakes, each over a template of its own, with a few cases of the last weeks. */

function must<T>(done: T | Refusal): T {
	if (isRefusal(done)) throw new Error(`${done.code}: ${done.say}`);
	return done;
}

const role = (id: string, name: string, duty: PlanPerson['duty'] = 'signs', more: Partial<PlanPerson> = {}) => ({
	id,
	name: '',
	email: '',
	duty,
	role: name,
	...more
});
const TAMSIN = {
	...role('tamsin', 'Company manager'),
	name: 'Tamsin Okoro',
	email: 'tamsin@brindlevale.example',
	locked: ['name' as const, 'address' as const, 'removal' as const]
};
const RUBEN = {
	...role('ruben', 'Finance', 'approves'),
	name: 'Ruben Vasquez-Lind',
	email: 'ruben@brindlevale.example',
	locked: ['name' as const, 'address' as const, 'removal' as const]
};

async function withPaper(house: House, name: string, bytes: Uint8Array) {
	const taken = await addPaper(house, name, bytes);
	if (isRefusal(taken) || 'attached' in taken) throw new Error(`${name} was not taken in`);
	return { taken, paper: { id: 'paper', name: taken.name, digest: taken.digest, pages: taken.pages } };
}

const on = (
	letter: Letter,
	place: string,
	field: Partial<Field> & Pick<Field, 'kind' | 'person' | 'label'>
): Field => ({
	id: place.replace('.', '-'),
	paper: 'paper',
	page: letter.places[place]!.page,
	rect: letter.places[place]!.rect,
	key: '',
	required: true,
	settings: {},
	...field
});
const block = (letter: Letter, key: string, person: string): Field[] => [
	on(letter, `${key}.signature`, { kind: 'signature', person, label: 'Signature' }),
	on(letter, `${key}.name`, { kind: 'name', person, label: 'Name in full' }),
	on(letter, `${key}.date`, { kind: 'signing-date', person, label: 'Date' })
];
const options = (...list: string[]) => list.map((text) => ({ value: text.toLowerCase().split(' ')[0]!, text }));

async function consentPlan(house: House): Promise<Plan> {
	const letter = await consentFromPage();
	const { paper } = await withPaper(house, 'Youth player consent.pdf', letter.bytes);
	const young = 'age(birthday) < 18';
	const both = `${young} and custody = "both"`;
	return {
		...emptyPlan(),
		title: 'Youth player consent, from its page',
		papers: [paper],
		people: [role('player', 'Young player'), role('guardian', 'Guardian'), role('second', 'Second guardian'), TAMSIN],
		stops: [
			{ id: 'player', people: ['player'] },
			{ id: 'guardian', people: ['guardian'], when: young },
			{ id: 'second', people: ['second'], when: both },
			{ id: 'tamsin', people: ['tamsin'] }
		],
		fields: [
			on(letter, 'player.birthday', { kind: 'date', person: 'player', label: 'Date of birth', key: 'birthday' }),
			on(letter, 'player.custody', {
				kind: 'choice',
				person: 'player',
				label: 'Who has custody',
				key: 'custody',
				showWhen: young,
				settings: { options: options('One of them', 'Both of them') }
			}),
			on(letter, 'player.instrument', { kind: 'text', person: 'player', label: 'Instrument', key: 'instrument' }),
			...block(letter, 'player', 'player'),
			on(letter, 'guardian.health', {
				kind: 'text',
				person: 'guardian',
				label: 'Medicines and allergies',
				key: 'health',
				required: false
			}),
			...block(letter, 'guardian', 'guardian'),
			...block(letter, 'second', 'second'),
			{
				...on(letter, 'player.name', { kind: 'note', person: EVERYBODY, label: 'Seen by', required: false }),
				id: 'seen',
				rect: { x: 316, y: 440, width: 210, height: 16 },
				settings: { text: 'Seen by the company office' }
			},
			{
				...on(letter, 'player.name', { kind: 'signature', person: 'tamsin', label: 'Signature' }),
				id: 'tamsin-signature',
				rect: { x: 316, y: 460, width: 210, height: 38 }
			}
		]
	};
}

async function claimPlan(house: House): Promise<Plan> {
	const { bytes } = await expenseClaim();
	const { taken, paper } = await withPaper(house, 'Expense claim.pdf', bytes);
	const places = findPlaces((await readingOf(house, taken.digest))!, taken.pages);
	const plan: Plan = {
		...emptyPlan(),
		title: 'Touring expense claim, from its page',
		papers: [paper],
		people: [role('claimant', 'Claimant'), role('leader', 'Section leader', 'approves'), RUBEN],
		stops: ['claimant', 'leader', 'ruben'].map((id) => ({ id, people: [id] }))
	};
	const { plan: placed } = takePlaces(plan, 'paper', places, places, 'claimant', 'the chosen');
	const fields = placed.fields.map((f): Field => {
		const line = /_([234])$/.exec(f.key)?.[1];
		if (f.key === 'total')
			return {
				...f,
				kind: 'computed',
				person: EVERYBODY,
				required: false,
				settings: { rule: 'sum(amount, amount_2, amount_3, amount_4)', currency: 'GBP' }
			};
		if (/^amount/.test(f.key)) return { ...f, required: !line, settings: { decimals: 2, currency: 'GBP', least: '0' } };
		if (f.kind === 'ticks' || f.key.startsWith('miles')) return { ...f, required: false };
		return line && f.kind !== 'signing-date' ? { ...f, required: false, requireWhen: `not(empty(amount_${line}))` } : f;
	});
	return { ...placed, fields };
}

async function hallPlan(house: House): Promise<Plan> {
	const letter = await hallHireFromPage();
	const { paper } = await withPaper(house, 'Rehearsal hall hire.pdf', letter.bytes);
	return {
		...emptyPlan(),
		title: 'Rehearsal hall hire, from its page',
		papers: [paper],
		people: [role('hirer', 'Hirer'), role('spouse', 'Spouse'), TAMSIN],
		stops: [
			{ id: 'hirer', people: ['hirer'] },
			{ id: 'spouse', people: ['spouse'], when: 'how = "with"' },
			{ id: 'tamsin', people: ['tamsin'] }
		],
		fields: [
			on(letter, 'hirer.county', {
				kind: 'choice',
				person: 'hirer',
				label: 'County of residence',
				key: 'county',
				settings: { options: options('Aldmoor', 'Brint', 'Corve', 'Dunwick', 'Elmset') }
			}),
			on(letter, 'hirer.how', {
				kind: 'choice',
				person: 'hirer',
				label: 'Hired',
				key: 'how',
				settings: { options: options('Alone', 'With spouse') }
			}),
			on(letter, 'hirer.day', { kind: 'date', person: 'hirer', label: 'Day', key: 'day_of_hire' }),
			on(letter, 'hirer.fee', {
				kind: 'computed',
				person: EVERYBODY,
				label: 'Fee',
				key: 'fee',
				required: false,
				settings: { rule: 'if(county = "elmset", 60, 85)', currency: 'GBP' }
			}),
			...block(letter, 'hirer', 'hirer'),
			...block(letter, 'spouse', 'spouse'),
			...block(letter, 'orchestra', 'tamsin')
		]
	};
}

const asked = (key: string): Item => ({ id: `ask-${key}`, is: 'field', key });

interface Made {
	plan: (house: House) => Promise<Plan>;
	folder: string;
	about: string;
	intake: (template: Plan) => Partial<Intake>;
}

const INTAKES: Record<'claim' | 'consent' | 'hall', Made> = {
	claim: {
		plan: claimPlan,
		folder: 'Claims',
		about: 'Begun by the claimant, who names their section leader; finance comes last.',
		intake: () => ({
			heading: 'Touring expense claim',
			text: 'For what you paid on tour. Have your receipts ready: **photos will do**, and they go with the paper copy.',
			pages: [
				{ id: 'you', title: 'Where you play', items: [asked('section'), asked('iban')] },
				{
					id: 'journeys',
					title: 'What you paid',
					items: [
						...['', '_2', '_3', '_4'].flatMap((line, i, lines): Item[] =>
							[i === 0 ? 'date_1' : `date${line}`, `journey${line}`, `amount${line}`].map((key) => ({
								...asked(key),
								...(i > 0 && { when: `not(empty(amount${lines[i - 1]}))` })
							}))
						),
						{
							id: 'total',
							is: 'question',
							question: {
								kind: 'computed',
								key: 'claimed',
								label: 'In all',
								required: false,
								settings: { rule: 'total', currency: 'GBP' }
							}
						}
					]
				},
				{
					id: 'leader',
					title: 'Who approves it',
					items: [{ id: 'who', is: 'people', roles: ['leader'], help: 'Your section leader reads it next.' }]
				}
			],
			says: [
				{
					id: 'large',
					when: 'total > 250',
					say: 'Above 250 pounds finance asks for the receipts themselves. Bring them to the office.'
				}
			],
			then: [
				{ id: 'row', at: 'completed', does: { is: 'row', keys: ['section', 'claimed', 'iban'] } },
				{
					id: 'paid',
					at: 'completed',
					when: 'total <= 250',
					does: {
						is: 'letter',
						to: 'claimant',
						subject: 'Your claim of {total}',
						message: 'Your claim has been approved. {total} will be with you within ten days.',
						copies: false
					}
				}
			] as FollowUp[]
		})
	},
	consent: {
		plan: consentPlan,
		folder: 'Players',
		about: 'One page for every young player; guardians sign only where they must.',
		intake: () => ({
			heading: 'Youth player consent',
			text: 'For players who join us in the spring. Under eighteen, a guardian signs as well.',
			representative: 'may',
			pages: [
				{ id: 'player', title: 'The player', items: [asked('birthday'), asked('instrument')] },
				{
					id: 'home',
					title: 'At home',
					when: 'age(birthday) < 18',
					items: [
						{
							id: 'why',
							is: 'text',
							text: 'Each guardian gets a letter with a link of their own, after the player has signed.'
						},
						asked('custody'),
						{ id: 'who', is: 'people', roles: ['guardian', 'second'] }
					]
				}
			],
			then: [{ id: 'file', at: { stop: 'player' }, does: { is: 'file', folder: 'Players' } }] as FollowUp[]
		})
	},
	hall: {
		plan: hallPlan,
		folder: 'Halls',
		about: 'Hired by private persons; in three counties both spouses sign.',
		intake: () => ({
			heading: 'Hire the rehearsal hall',
			text: 'A day in our rehearsal hall at Brindlevale, from nine to ten at night.',
			pages: [
				{ id: 'who', title: 'Who hires', items: [asked('county'), asked('how')] },
				{
					id: 'spouse',
					title: 'Your spouse',
					when: 'how = "with"',
					items: [{ id: 'named', is: 'people', roles: ['spouse'] }]
				},
				{
					id: 'when',
					title: 'The day',
					items: [
						asked('day_of_hire'),
						{
							id: 'fee',
							is: 'question',
							question: {
								kind: 'computed',
								key: 'fee_shown',
								label: 'Fee for the day',
								required: false,
								settings: { rule: 'fee', currency: 'GBP' }
							}
						}
					]
				}
			],
			says: [
				{
					id: 'both',
					when: 'how = "alone" and (county = "aldmoor" or county = "brint" or county = "corve")',
					say: 'In Aldmoor, Brint and Corve spouses hire together: both must take part. Choose “With spouse”.',
					closes: true
				}
			]
		})
	}
};

/** Makes the three templates and their intakes, and opens them. @returns the words in their addresses */
export async function makeIntakes(house: House, odile: Account): Promise<Record<keyof typeof INTAKES, string>> {
	const slugs: [string, string][] = [];
	for (const [name, { plan, folder, about, intake }] of Object.entries(INTAKES)) {
		const made = await plan(house);
		const copy = newTemplate(house, odile, made);
		const { template } = must(putInUse(house, odile, copy.id, copy.revision, 'First version'));
		describeTemplate(house, odile, template, { description: about, folder, shared: 'office', accounts: [] });
		const { id } = must(newIntake(house, odile, template));
		const fresh = must(readIntake(house, id));
		const { revision } = must(saveIntake(house, id, fresh.revision, { ...fresh.setting, ...intake(made) }));
		must(putIntakeInUse(house, odile, id, revision));
		slugs.push([name, fresh.slug]);
	}
	return Object.fromEntries(slugs) as Record<keyof typeof INTAKES, string>;
}

interface DemoCase {
	intake: keyof typeof INTAKES;
	ago: number;
	name: string;
	email: string;
	answers: Record<string, Answers[string]>;
	named?: Record<string, { name: string; email: string; note?: string }>;
	/** how far it came: begun and left on a page, handed in, or signed by the first */
	until: 'left' | 'handed in' | 'signed';
	page?: string;
}

const lines = (...amounts: string[]): DemoCase['answers'] =>
	Object.fromEntries(
		amounts.flatMap((number, i) => {
			const line = i === 0 ? '' : `_${i + 1}`;
			return [
				[`amount${line}`, { number }],
				[`journey${line}`, { text: ['Oldmere and back', 'Ferry', 'Night bus', 'Parking'][i]! }],
				[i === 0 ? 'date_1' : `date${line}`, { day: `2026-10-${10 + i}` }]
			];
		})
	);
const LUCIA = {
	leader: {
		name: 'Lucia Marchetti',
		email: 'l.marchetti@post.example',
		note: 'Two nights more than planned, as we said.'
	}
};
const IBAN = { text: 'GB33BUKB20201555555555' };

export const DEMO_CASES: DemoCase[] = [
	{
		intake: 'claim',
		ago: 9,
		name: 'Aurelio Dube',
		email: 'aurelio.dube@post.example',
		answers: { section: { text: 'Violas' }, iban: IBAN, ...lines('12.40', '7.05', '101.00') },
		named: LUCIA,
		until: 'signed'
	},
	{
		intake: 'claim',
		ago: 3,
		name: 'Petra Holub',
		email: 'p.holub@post.example',
		answers: { section: { text: 'Cellos' }, iban: IBAN, ...lines('48.00') },
		named: LUCIA,
		until: 'handed in'
	},
	{ intake: 'claim', ago: 6, name: '', email: '', answers: {}, until: 'left', page: 'journeys' },
	{ intake: 'claim', ago: 5, name: '', email: '', answers: {}, until: 'left', page: 'journeys' },
	{ intake: 'claim', ago: 4, name: '', email: '', answers: {}, until: 'left', page: 'you' },
	{
		intake: 'consent',
		ago: 7,
		name: 'Ottilie Brandt',
		email: 'o.brandt@post.example',
		answers: { birthday: { day: '2012-03-02' }, instrument: { text: 'Horn' }, custody: { choice: 'one' } },
		named: { guardian: { name: 'Henrik Brandt', email: 'h.brandt@post.example' } },
		until: 'signed'
	},
	{
		intake: 'hall',
		ago: 2,
		name: 'Gwen Tarrant',
		email: 'g.tarrant@post.example',
		answers: { county: { choice: 'dunwick' }, how: { choice: 'alone' }, day_of_hire: { day: '2027-01-16' } },
		until: 'handed in'
	}
];

const FROM = { address: '198.51.100.24', device: 'Mozilla/5.0 (demo phone)' };

/** One case, through the same code as a visitor's. */
export async function happensAsCase(house: House, slug: string, one: DemoCase, n: number): Promise<void> {
	const { token } = must(await beginCase(house, slug, { language: 'en' }, `198.51.100.${n}`));
	must(keepCase(house, token, one.page ?? '', undefined));
	if (one.until === 'left') return;
	const { setting, owner, template } = must(intakeAt(house, slug));
	void [owner, template];
	const visitor = { name: one.name, email: one.email };
	// the code in the letter is proved by the tests of the page; here the address is taken as proved
	house.db
		.prepare(
			'UPDATE cases SET email = ?, proved_at = ? WHERE proved_at IS NULL AND handed_at IS NULL AND begun_at = (SELECT max(begun_at) FROM cases)'
		)
		.run(one.email, house.now().toISOString());
	const plan = JSON.parse(
		house.db
			.prepare<[string], string>(
				'SELECT p.json FROM intakes i JOIN templates t ON t.id = i.template JOIN plans p ON p.digest = t.plan WHERE i.slug = ?'
			)
			.pluck()
			.get(slug)!
	) as Plan;
	const answers = Object.fromEntries(
		plan.fields.flatMap((f) =>
			f.person === setting.starter && one.answers[f.key] ? [[f.id, one.answers[f.key]!] as const] : []
		)
	);
	const made = must(
		handIn(house, token, { starting: { visitor, prepares: null, named: one.named ?? {} }, answers }, FROM.address)
	);
	if (one.until !== 'signed') return;
	const packet = packetState(house.db, made.packet);
	if (packet.status === 'none') return;
	const person = personIn(packet.plan, setting.starter)!;
	const at = { packet, person, coded: true, proved: true, guest: false };
	must(openAndConsent(house, at, FROM));
	const given: Answers = { ...answers };
	for (const field of packet.plan.fields) {
		if (field.person !== person.id) continue;
		if (field.kind === 'signature') given[field.id] = { way: 'typed', text: person.name, hand: 'kalam' };
		if (field.kind === 'name') given[field.id] = { text: person.name };
	}
	const state = packetState(house.db, made.packet);
	if (state.status === 'none') return;
	must(finish(house, { ...at, packet: state }, given, FROM));
}
