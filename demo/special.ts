import type { Answers } from '../src/lib/core/field';
import { personIn, type Field, type Plan, type PlanPerson } from '../src/lib/core/packet';
import { moved } from '../src/lib/core/route';
import { isRefusal, type Refusal } from '../src/lib/core/refusal';
import type { Account } from '../src/lib/server/accounts';
import type { House } from '../src/lib/server/house';
import { packetState } from '../src/lib/server/packets/act';
import { hashedCode } from '../src/lib/server/packets/codes';
import { beginCorrection, sendCorrection } from '../src/lib/server/packets/correcting';
import { saveDraft } from '../src/lib/server/packets/drafts';
import { sendPlan } from '../src/lib/server/packets/sending';
import {
	askWording,
	enterCode,
	finish,
	handOver,
	openAndConsent,
	saveAnswers,
	type Visitor
} from '../src/lib/server/signing';
import type { IdentityAsked } from '../src/lib/core/identity';
import type { Case } from './cases';
import { showsCard } from './identity/shown';
import type { Specimen } from './identity/specimens';
import { IN_INK, planOf } from './plans';
import { bringsBack } from './paper/brought';

/** Packets in which something out of the ordinary happens, each to show one thing that the year's cases do not. */

const FROM = { address: '203.0.113.57', device: 'Mozilla/5.0 (demo phone)' };

interface Happening {
	day: number;
	run: () => Promise<void>;
}

interface Special {
	what: Pick<Case, 'kind' | 'title' | 'person' | 'email' | 'detail'> & { about?: string };
	/** days ago */
	ago: number;
	plan: (plan: Plan, house: House) => Plan;
	then: { after: number; run: (house: House, packet: string, odile: Account) => unknown }[];
}

const people = (plan: Plan, changes: Record<string, Partial<PlanPerson>>): Plan => ({
	...plan,
	people: plan.people.map((p) => ({ ...p, ...changes[p.id] }))
});

function at(house: House, packet: string, person: string): Visitor {
	const state = packetState(house.db, packet);
	if (state.status === 'none') throw new Error('no such packet');
	return { packet: state, person: personIn(state.plan, person)!, coded: true, proved: true, guest: false };
}

function must<T>(done: T | Refusal): T {
	if (isRefusal(done)) throw new Error(`${done.code}: ${done.say}`);
	return done;
}

function opens(house: House, packet: string, person: string, language = 'en'): Visitor {
	must(openAndConsent(house, at(house, packet, person), FROM, language));
	return at(house, packet, person);
}

/** Opens, answers everything that is theirs, and finishes. */
function does(house: House, packet: string, person: string, given: Answers = {}): void {
	const visitor = opens(house, packet, person);
	const { plan } = visitor.packet;
	const own = plan.fields.filter((f) => f.person === person);
	const answers: Answers = Object.fromEntries(
		own.flatMap((f): [string, Answers[string]][] => {
			if (f.kind === 'signature' || f.kind === 'initials')
				return [[f.id, { way: 'typed', text: visitor.person.name, hand: 'kalam' }]];
			if (f.kind === 'name') return [[f.id, { text: visitor.person.name }]];
			return f.kind === 'text' ? [[f.id, { text: 'As agreed' }]] : [];
		})
	);
	must(finish(house, visitor, { ...answers, ...given }, FROM));
}

/** Corrects a packet that is out, as on the Bench. */
function corrects(house: House, by: Account, packet: string, change: (plan: Plan) => Plan): void {
	const { id, revision, plan } = must(beginCorrection(house, by, packet));
	const saved = must(saveDraft(house, by, id, revision, change(plan)));
	must(sendCorrection(house, by, id, saved.revision));
}

/** Hester approves after the musician and before the orchestra, who now also says where the parts are sent. */
function hesterLooksFirst(plan: Plan): Plan {
	const note = plan.fields.find((f) => f.person === 'guest' && f.kind === 'text')!;
	const parts: Field = { ...note, id: 'parts', person: 'guest', label: 'Where the parts are sent', required: false };
	const hester: PlanPerson = { id: 'hester', name: 'Hester Quill', email: 'h.quill@post.example', duty: 'approves' };
	const withHester = {
		...plan,
		people: [...plan.people, hester],
		stops: [...plan.stops, { id: 'hester', people: ['hester'] }],
		fields: [...plan.fields, { ...parts, rect: { ...note.rect, y: note.rect.y - note.rect.height - 6 } }]
	};
	return moved(withHester, 'hester', 2, 'before');
}

/** Her card is under the name she had before, so that a machine can't tell that it is hers. */
const CARD: Specimen = {
	kind: 'identity card',
	surname: 'Vandenbroucke',
	given: 'Elodie',
	number: 'UT4471902',
	born: '1988-11-03',
	expires: '2031-06-30',
	sex: 'F'
};
export const CARD_WANTED: IdentityAsked = {
	document: { kinds: ['passport', 'identity card'], countries: [], bothSides: true, holder: false },
	tries: 2
};
const unproved = (house: House, packet: string): Visitor => ({ ...at(house, packet, 'guest'), proved: false });

const SPECIALS: Special[] = [
	{
		what: {
			kind: 'consent',
			title: 'Youth player consent, Ottilie Brandt',
			person: 'Ottilie Brandt',
			email: 'o.brandt@post.example',
			detail: ''
		},
		ago: 4,
		plan: (plan) => {
			const near = plan.fields.find((f) => f.kind === 'name' && f.person === 'guest')!;
			const birthday: Field = {
				...near,
				id: 'birthday',
				kind: 'date',
				label: 'Birthday',
				key: 'birthday',
				rect: { ...near.rect, y: near.rect.y + near.rect.height + 14, width: 120, height: 20 },
				settings: {}
			};
			return {
				...people(plan, { guardian: { name: 'Henrik Brandt', locale: 'de-DE' } }),
				fields: [...plan.fields, birthday],
				stops: plan.stops.map((stop, i) => (i === 1 ? { ...stop, when: 'age(birthday, today) < 18' } : stop)),
				sending: { reminders: { after: 2, every: 2, most: 4 }, warning: 3 }
			};
		},
		then: [{ after: 1, run: (house, packet) => does(house, packet, 'guest', { birthday: { day: '2011-05-14' } }) }]
	},
	{
		what: {
			kind: 'loan',
			title: 'Instrument loan, cello no. 2',
			person: 'Joris Adeyemi',
			email: 'j.adeyemi@post.example',
			detail: 'Cello no. 2'
		},
		ago: 6,
		plan: (plan, house) => ({
			...people(plan, { guest: { check: { by: 'code', hash: hashedCode(house, 'blue heron') } } }),
			sending: { term: { months: 12, notice: 60 }, type: 'Loan', folder: 'Instruments' }
		}),
		then: [
			{
				after: 1,
				run: (house, packet) => {
					for (const code of ['grey heron', 'blue', 'heron', 'kestrel', 'red kite']) {
						enterCode(house, { ...at(house, packet, 'guest'), coded: false, proved: false }, code, FROM);
						wait(house, 90_000);
					}
				}
			}
		]
	},
	{
		what: {
			kind: 'loan',
			title: 'Instrument loan, harp',
			person: 'Elodie Marchetti',
			email: 'e.marchetti@post.example',
			detail: 'Lever harp'
		},
		ago: 3,
		plan: (plan) => ({
			...people(plan, { guest: { identity: CARD_WANTED } }),
			sending: { type: 'Loan', folder: 'Instruments' }
		}),
		then: [
			{ after: 0.4, run: (house, packet) => showsCard(house, () => unproved(house, packet), FROM, CARD, { turn: 5 }) },
			{
				after: 0.3,
				run: (house, packet) => showsCard(house, () => unproved(house, packet), FROM, CARD, { turn: 5, seed: 7 })
			}
		]
	},
	{
		what: {
			kind: 'hall',
			title: 'Hall hire, Staunton Parish',
			person: 'Noel Hartigan',
			email: 'n.hartigan@post.example',
			detail: 'the Parish Hall, Staunton',
			about: IN_INK
		},
		ago: 4,
		plan: (plan) => ({ ...people(plan, { guest: { ink: true } }), days: 25 }),
		then: [{ after: 2, run: (house, packet) => bringsBack(house, () => at(house, packet, 'guest'), FROM) }]
	},
	{
		what: {
			kind: 'engagement',
			title: 'Guest engagement, Lotte Amsel',
			person: 'Lotte Amsel',
			email: 'l.amsel@post.example',
			detail: 'second violin',
			about: 'the winter tour'
		},
		ago: 5,
		plan: (plan) => ({ ...people(plan, { guest: { locale: 'de-DE' } }), sending: { wording: true, handOver: true } }),
		then: [
			{ after: 1, run: (house, packet) => does(house, packet, 'ingrid') },
			{
				after: 1,
				run: (house, packet) => {
					const lotte = opens(house, packet, 'guest', 'de');
					must(saveAnswers(house, lotte, { 'guest-1': { text: 'I come by train.' } }, FROM));
					must(
						askWording(
							house,
							lotte,
							{
								paper: 'paper',
								page: 0,
								words: 'within fourteen days',
								instead: 'within seven days',
								why: 'My rent is due on the tenth.'
							},
							FROM
						)
					);
				}
			}
		]
	},
	{
		what: {
			kind: 'rota',
			title: 'Section rota swap, 12 December',
			person: 'Petra Vandersteen',
			email: 'p.vandersteen@post.example',
			detail: ''
		},
		ago: 0,
		plan: (plan) => ({
			...plan,
			people: [
				...people(plan, {
					guest: { deliver: 'in person', hostedBy: 'host' },
					second: { deliver: 'in person', hostedBy: 'host' }
				}).people,
				{ id: 'host', name: 'Odile Farrow', email: 'odile@brindlevale.example', duty: 'hosts' as const }
			],
			stops: [{ id: 's0', people: ['host', 'guest', 'second'] }]
		}),
		then: []
	},
	{
		what: {
			kind: 'claim',
			title: 'Touring expense claim, Oldmere',
			person: 'Sanne Achterberg',
			email: 's.achterberg@post.example',
			detail: ''
		},
		ago: 7,
		plan: (plan) => ({
			...people(plan, { leader: { name: '', email: '', role: 'Section leader', namedBy: 'guest' } }),
			sending: { handOver: true, reminders: { after: 3, every: 2, most: 3 } }
		}),
		then: [
			{
				after: 1,
				run: (house, packet) => {
					const sanne = opens(house, packet, 'guest');
					const own = sanne.packet.plan.fields.filter((f) => f.person === 'guest');
					const given: Answers = Object.fromEntries(
						own.flatMap((f): [string, Answers[string]][] =>
							f.kind === 'signature'
								? [[f.id, { way: 'typed', text: 'Sanne Achterberg', hand: 'sacramento' }]]
								: f.kind === 'name' || f.kind === 'text'
									? [[f.id, { text: f.kind === 'name' ? 'Sanne Achterberg' : 'Two nights in Oldmere' }]]
									: []
						)
					);
					const names = {
						leader: {
							name: 'Lucia Marchetti',
							email: 'l.marchetti@post.example',
							note: 'The receipts are with the van.'
						}
					};
					must(finish(house, sanne, given, FROM, { names }));
				}
			},
			{
				after: 2,
				run: (house, packet) => {
					const lucia = opens(house, packet, 'leader');
					must(
						handOver(
							house,
							lucia,
							{ name: 'Bram Oyelaran', email: 'b.oyelaran@post.example', why: 'I am on tour until Friday.' },
							FROM
						)
					);
				}
			}
		]
	},
	{
		what: {
			kind: 'engagement',
			title: 'Guest engagement, Silvan Roth',
			person: 'Silvan Roth',
			email: 's.roth@post.example',
			detail: 'bassoon',
			about: 'the winter tour'
		},
		ago: 4,
		plan: (plan) => plan,
		then: [
			{ after: 1, run: (house, packet) => does(house, packet, 'ingrid') },
			{ after: 1, run: (house, packet) => opens(house, packet, 'guest') },
			{ after: 1, run: (house, packet, odile) => corrects(house, odile, packet, hesterLooksFirst) }
		]
	},
	{
		what: {
			kind: 'handbook',
			title: 'Steward handbook receipt, Idris Kowal',
			person: 'Idris Kowal',
			email: '',
			detail: ''
		},
		ago: 3,
		plan: (plan) => people(plan, { guest: { deliver: 'text', phone: '+44 7700 900217' } }),
		then: []
	},
	{
		what: {
			kind: 'loan',
			title: 'Instrument loan, double bass no. 1',
			person: 'Margit Solberg',
			email: 'm.solberg@post.example',
			detail: 'Double bass no. 1'
		},
		ago: 345,
		plan: (plan) => ({ ...plan, sending: { term: { months: 12, notice: 60 }, type: 'Loan', folder: 'Instruments' } }),
		then: [
			{ after: 2, run: (house, packet) => does(house, packet, 'guest') },
			{ after: 1, run: (house, packet) => does(house, packet, 'lender') }
		]
	}
];

/** Moves the demo's clock on by so many milliseconds, within one happening. */
function wait(house: House, ms: number): void {
	const before = house.now;
	house.now = () => new Date(before().getTime() + ms);
}

/** What happens to them, each with its day counted from today. */
export function specials(house: House, odile: Account): Happening[] {
	return SPECIALS.flatMap(({ what, ago, plan, then }, n) => {
		let packet = '';
		let day = -ago - 0.3 - n * 0.01;
		const sending: Happening = {
			day,
			run: async () => {
				const first = await planOf(house, { about: '', steps: [], ago, ...what });
				packet = must(sendPlan(house, odile, plan(first, house))).packet;
			}
		};
		return [
			sending,
			...then.map(({ after, run }): Happening => {
				day += after;
				return {
					day: Math.min(day, -0.001),
					run: async () => {
						const { now } = house;
						await run(house, packet, odile);
						house.now = now;
					}
				};
			})
		];
	});
}
