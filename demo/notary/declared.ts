import type { ActKind } from '../../src/lib/core/notary';
import type { Answers } from '../../src/lib/core/field';
import { personIn, type Field, type Plan, type PlanPerson } from '../../src/lib/core/packet';
import { isRefusal, type Refusal } from '../../src/lib/core/refusal';
import type { Account } from '../../src/lib/server/accounts';
import type { House } from '../../src/lib/server/house';
import { appoint, doInRoom, letPlay, notaries } from '../../src/lib/server/notary';
import { packetState } from '../../src/lib/server/packets/act';
import { sendPlan } from '../../src/lib/server/packets/sending';
import { addPaper } from '../../src/lib/server/papers';
import { finish, openAndConsent, type Visitor } from '../../src/lib/server/signing';
import { declaration } from '../documents';
import { showsCard } from '../identity/shown';
import type { Specimen } from '../identity/specimens';
import { NOTARY } from './people';

/** Declarations before a notary: the lost bow, which is to come, and one that was sworn. */

const FROM = { address: '203.0.113.61', device: 'Mozilla/5.0 (demo laptop)' };

function must<T>(done: T | Refusal): T {
	if (isRefusal(done)) throw new Error(`${done.code}: ${done.say}`);
	return done;
}

/** A declaration by one person before the notary, with whatever that person shows of themselves. */
export async function declarationPlan(
	house: House,
	title: string,
	what: string,
	when: string,
	person: Pick<PlanPerson, 'name' | 'email' | 'identity'>,
	act: ActKind = 'sworn statement'
): Promise<Plan> {
	const letter = await declaration(what, when);
	const paper = must(await addPaper(house, 'Statutory declaration.pdf', letter.bytes));
	if ('attached' in paper) throw new Error(paper.why);
	const field = (id: string, kind: Field['kind'], place: string, label: string): Field => ({
		id,
		kind,
		person: 'declarant',
		paper: 'paper',
		page: letter.places[place]!.page,
		rect: letter.places[place]!.rect,
		label,
		key: place.replace('.', '_'),
		required: true,
		settings: {}
	});
	const notary = notaries(house.db).find((one) => one.name === NOTARY.name)!;
	return {
		title,
		message: 'The insurer wants a declaration before a notary. It takes half an hour, from wherever you are.',
		days: 30,
		papers: [{ id: 'paper', name: paper.name, digest: paper.digest, pages: paper.pages }],
		attachments: [],
		people: [
			{ id: 'declarant', duty: 'signs', ...person },
			{
				id: 'notary',
				duty: 'notarises',
				name: notary.name,
				email: notary.email,
				notary: { act, commission: notary.id }
			},
			{ id: 'ruben', name: 'Ruben Vasquez-Lind', email: 'ruben@brindlevale.example', duty: 'gets a copy' }
		],
		stops: [
			{ id: 's0', people: ['declarant', 'notary'] },
			{ id: 's1', people: ['ruben'] }
		],
		fields: [
			field('where', 'text', 'declarant.where', 'Where it was last seen'),
			field('signature', 'signature', 'declarant.signature', 'Signature'),
			field('name', 'name', 'declarant.name', 'Name in full'),
			field('date', 'signing-date', 'declarant.date', 'Date')
		]
	};
}

/** Her card, as she shows it. */
const CARD: Specimen = {
	kind: 'identity card',
	surname: 'Ferrand',
	given: 'Saskia',
	number: 'UT9083315',
	born: '1991-04-17',
	expires: '2032-02-28',
	sex: 'F'
};
export const SHOWS_CARD: PlanPerson['identity'] = {
	document: { kinds: ['passport', 'identity card'], countries: [], bothSides: true, holder: false },
	tries: 3
};

function at(house: House, packet: string, person: string, proved = true): Visitor {
	const state = packetState(house.db, packet);
	if (state.status === 'none') throw new Error('no such packet');
	return { packet: state, person: personIn(state.plan, person)!, coded: true, proved, guest: false };
}

/** Ten in the morning of the next day on which the notary works: after today, so that it is still to come whenever the demo is opened. */
function nextMorning(): string {
	const day = new Date(Date.now() + 86_400_000);
	while ([0, 6].includes(day.getUTCDay())) day.setTime(day.getTime() + 86_400_000);
	return `${day.toISOString().slice(0, 10)}T10:00:00.000Z`;
}

interface Happening {
	day: number;
	run: () => Promise<void>;
}

export function declared(house: House, odile: Account): Happening[] {
	let bow = '';
	let mute = '';
	const answers: Answers = {
		where: { text: 'Town Hall, Oldmere, in the green room' },
		signature: { way: 'typed', text: 'Jonah Petrie', hand: 'kalam' },
		name: { text: 'Jonah Petrie' }
	};
	const does = async (person: string, deed: Parameters<typeof doInRoom>[2]) => {
		must(await doInRoom(house, at(house, mute, person), deed, FROM));
	};
	return [
		{
			day: -64.2,
			run: async () => {
				const person = { name: 'Jonah Petrie', email: 'j.petrie@post.example' };
				const plan = await declarationPlan(
					house,
					'Statutory declaration of a lost practice mute',
					'a practice mute of silver',
					'the third of September',
					person
				);
				mute = must(sendPlan(house, odile, plan)).packet;
				must(openAndConsent(house, at(house, mute, 'declarant'), FROM));
				const notary = notaries(house.db).find((one) => one.name === NOTARY.name)!;
				letPlay(house, notary.id, true);
				await does('declarant', { do: 'enter' });
			}
		},
		{ day: -64.19, run: () => does('declarant', { do: 'oath' }) },
		{
			day: -64.18,
			run: async () => {
				must(finish(house, at(house, mute, 'declarant'), answers, FROM));
			}
		},
		{ day: -64.17, run: () => does('declarant', { do: 'approve' }) },
		{
			day: -64.16,
			run: async () => letPlay(house, notaries(house.db).find((one) => one.name === NOTARY.name)!.id, false)
		},
		{
			day: -2.2,
			run: async () => {
				const person = { name: 'Saskia Ferrand', email: 's.ferrand@post.example', identity: SHOWS_CARD };
				const plan = await declarationPlan(
					house,
					'Statutory declaration of a lost bow',
					'a viola bow of pernambuco, number 12 of the inventory',
					'the tour to Oldmere',
					person
				);
				bow = must(sendPlan(house, odile, plan)).packet;
			}
		},
		{
			day: -1.2,
			run: () => showsCard(house, () => at(house, bow, 'declarant', false), FROM, CARD, { turn: 2, seed: 9 })
		},
		{
			day: -1.1,
			run: async () => {
				must(appoint(house, odile, bow, nextMorning(), 30));
			}
		}
	];
}
