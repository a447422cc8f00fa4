import type { Answer, Answers } from '../src/lib/core/field';
import { emptyPlan, EVERYBODY, type Field, type Plan } from '../src/lib/core/packet';
import { findPlaces } from '../src/lib/core/page';
import { isRefusal } from '../src/lib/core/refusal';
import { addAccount, type Account } from '../src/lib/server/accounts';
import { newBatch, settle } from '../src/lib/server/batches';
import { setClock } from '../src/lib/server/clock';
import type { House } from '../src/lib/server/house';
import { JobRunner } from '../src/lib/server/jobs';
import { setRefusedAddresses } from '../src/lib/server/mail/mailbox';
import { packetState } from '../src/lib/server/packets/act';
import { newDraft, saveDraft } from '../src/lib/server/packets/drafts';
import { sendPlan } from '../src/lib/server/packets/sending';
import { withdraw } from '../src/lib/server/packets/office';
import { decline, finish, openAndConsent } from '../src/lib/server/signing';
import { addPaper, readingOf } from '../src/lib/server/papers';
import { keepRule } from '../src/lib/server/keeping';
import { openFolder, setMember } from '../src/lib/server/folders';
import { describeTemplate, newTemplate, putInUse } from '../src/lib/server/templates';
import { setPaper } from '../src/lib/server/paper';
import { setOrganisation } from '../src/lib/server/settings';
import { takePlaces } from '../src/lib/core/plan';
import { expenseClaim } from './forms/tuned';
import { DEMO_CASES, happensAsCase, makeIntakes } from './intakes';
import { PASSWORD } from './password';
import { planOf, type Role } from './plans';
import { declared } from './notary/declared';
import { makeNotaries } from './notary/people';
import { CARD_WANTED, specials } from './special';
import { csv, stewards } from './stewards';
import { engagementInWord } from './word';
import { CASES, type Case, type CaseKind, type Step } from './cases';

const DAY = 86_400_000;

const FROM = { address: '203.0.113.24', device: 'Mozilla/5.0 (demo)' };

/** What each kind of document is kept as, and what its users may not change. */
const KEPT: Record<CaseKind, { title: string; role: string; folder: string; about: string; person: string }> = {
	engagement: {
		title: 'Guest musician engagement',
		role: 'Guest musician',
		folder: 'Players',
		about: 'Approved by the artistic director, signed by the musician, countersigned by the company manager.',
		person: 'Guest Musician'
	},
	loan: {
		title: 'Instrument loan agreement',
		role: 'Borrower',
		folder: 'Instruments',
		about: 'One season; the schedule lists the instruments.',
		person: 'A Borrower'
	},
	consent: {
		title: 'Youth player consent',
		role: 'Young player',
		folder: 'Players',
		about: 'For players under eighteen, with their guardian.',
		person: 'Young Player'
	},
	handbook: {
		title: 'Steward handbook receipt',
		role: 'Steward',
		folder: 'Stewards',
		about: 'Each steward confirms having read it.',
		person: 'A Steward'
	},
	hall: {
		title: 'Hall hire agreement',
		role: 'Hall keeper',
		folder: 'Halls',
		about: 'One rehearsal and one concert.',
		person: 'Hall Keeper'
	},
	release: {
		title: 'Recording release',
		role: 'Guest musician',
		folder: 'Players',
		about: 'One page, often sent together with an engagement.',
		person: 'Guest Musician'
	},
	rota: {
		title: 'Section rota swap',
		role: 'Player giving a service',
		folder: 'Players',
		about: 'Two players, side by side.',
		person: 'First Player'
	},
	claim: {
		title: 'Touring expense claim',
		role: 'Claimant',
		folder: 'Claims',
		about: 'The section leader signs, finance approves.',
		person: 'A Claimant'
	}
};

const OFFICE = ['ingrid', 'tamsin', 'ruben', 'odile'];

/** One template of each kind, shared with the office: the guest's place open, the office's own people set for good. */
async function makeTemplates(house: House, odile: Account): Promise<Record<CaseKind, string>> {
	const made: [CaseKind, string][] = [];
	for (const [kind, kept] of Object.entries(KEPT) as [CaseKind, (typeof KEPT)[CaseKind]][]) {
		const plan = await planOf(house, {
			kind,
			title: kept.title,
			person: kept.person,
			email: '',
			detail: '…',
			about: '…',
			ago: 0,
			steps: [],
			message: kind === 'engagement' ? 'Dear {guest musician.given name}, here is what we agreed on the phone.' : ''
		});
		const people = plan.people.map((p) =>
			OFFICE.includes(p.id)
				? { ...p, role: ROLES[p.id]!, locked: ['name', 'address', 'removal'] as ('name' | 'address' | 'removal')[] }
				: {
						...p,
						name: '',
						email: '',
						role: p.id === 'guest' ? kept.role : ROLES[p.id]!,
						// who borrows an instrument shows who they are
						...(kind === 'loan' && p.id === 'guest' && { identity: CARD_WANTED })
					}
		);
		const draft = newTemplate(house, odile, {
			...plan,
			people,
			...(kind === 'handbook' && {
				locked: ['message', 'fields', 'papers', 'people'] as ('message' | 'fields' | 'papers' | 'people')[]
			})
		});
		const used = putInUse(house, odile, draft.id, draft.revision, 'First version');
		if (isRefusal(used)) throw new Error(`${kept.title}: ${used.say}`);
		const no = describeTemplate(house, odile, used.template, {
			description: kept.about,
			folder: kept.folder,
			shared: 'office',
			accounts: []
		});
		if (no) throw new Error(no.say);
		made.push([kind, used.template]);
	}
	return Object.fromEntries(made) as Record<CaseKind, string>;
}

/** What players claim is nobody's business but the company manager's and finance's. */
function closeClaims(house: House, odile: Account, tamsin: Account, ruben: Account): void {
	const doer = { account: odile, address: '127.0.0.1' };
	const rule = { by: 'folder', from: 'end', key: '', yearEnd: true };
	keepRule(house, doer, { ...rule, name: 'Claims, 7 years for the books', of: 'Claims', years: 7, then: 'dispose' });
	keepRule(house, doer, { ...rule, name: 'Stewards, 2 years', of: 'Stewards', years: 2, then: 'review' });
	openFolder(house, doer, 'Claims', false);
	setMember(house, doer, 'Claims', tamsin.id, 'judges');
	setMember(house, doer, 'Claims', ruben.id, 'sees');
}

const ROLES: Record<string, string> = {
	ingrid: 'Artistic director',
	tamsin: 'Company manager',
	ruben: 'Finance',
	odile: 'Company office',
	lender: 'Lender',
	guardian: 'Guardian',
	second: 'Player taking it',
	leader: 'Section leader'
};

function answersFor(plan: Plan, person: Role | { id: string; name: string }, n: number): Answers {
	const hands = ['caveat', 'marck', 'literata'] as const;
	const texts = [
		'I can bring a second bow.',
		'None.',
		'Third floor, no lift.',
		'+44 7700 900321',
		'Two nights in Oldmere',
		'GBP 148.20'
	];
	return Object.fromEntries(
		plan.fields
			.filter((f) => f.person === person.id && f.kind !== 'signing-date')
			.map((f, i): [string, Answer] => {
				if (f.kind === 'signature') return [f.id, { way: 'typed', text: person.name, hand: hands[n % 3]! }];
				if (f.kind === 'initials')
					return [
						f.id,
						{
							way: 'typed',
							text: person.name
								.split(' ')
								.map((w) => w[0])
								.join(''),
							hand: hands[n % 3]!
						}
					];
				if (f.kind === 'name') return [f.id, { text: person.name }];
				return [f.id, { text: f.label.includes('elephone') ? '+44 7700 900321' : texts[(n + i) % texts.length]! }];
			})
	);
}

/** The office's people, the settings, every case of the year, and a few drafts. */
export async function makeDemo(house: House, cases: Case[] = CASES): Promise<{ packets: number; drafts: number }> {
	/** So many days from today, at an hour at which an office is at work; today never later than now. */
	const at = (days: number) => {
		const moment = Date.now() + days * DAY;
		const morning = Math.floor(moment / DAY) * DAY;
		const atWork = morning + (9 + (8 * (moment - morning)) / DAY) * 3_600_000;
		const today = morning === Math.floor(Date.now() / DAY) * DAY;
		setClock(house, (today ? Math.min(atWork, moment) : atWork) - Date.now());
	};
	at(-370);
	setPaper(house.db, {
		permitted: true,
		goesOn: false,
		post: 'Brindlevale Touring Orchestra\n3 Mill Lane\nHarrow Wells'
	});
	setOrganisation(house.db, {
		name: 'Brindlevale Touring Orchestra',
		colour: '#14525c',
		logo: '',
		zone: 'Europe/London'
	});
	const odile = await account(house, 'Odile Farrow', 'odile@brindlevale.example', 'owner');
	const tamsin = await account(house, 'Tamsin Okoro', 'tamsin@brindlevale.example', 'preparer');
	const ruben = await account(house, 'Ruben Vasquez-Lind', 'ruben@brindlevale.example', 'viewer');
	setRefusedAddresses(house, ['m.lindqvst@post.example']);
	const runner = new JobRunner(house);
	const templates = cases === CASES ? await makeTemplates(house, odile) : null;
	if (templates) await makeNotaries(house, odile);
	if (templates) closeClaims(house, odile, tamsin, ruben);
	const queue = cases.flatMap((one, n) =>
		happenings(house, runner, n % 5 === 3 ? tamsin : odile, one, n, templates?.[one.kind] ?? null)
	);
	if (cases === CASES)
		queue.push(...specials(house, odile), ...declared(house, odile), ...casesFromPages(house, odile));
	// everything of the year in the order of time, so that the log of events stands in it too
	for (const { day, run } of queue.sort((a, b) => a.day - b.day)) {
		at(day);
		await run();
		await runner.drain();
	}
	setClock(house, 0);
	await runner.drain();
	const drafts = cases === CASES ? await makeDrafts(house, odile) : 0;
	if (templates) {
		const batch = await newBatch(house, odile, templates.handbook, 'stewards.csv', csv(stewards()));
		if (isRefusal(batch)) throw new Error(batch.say);
		settle(house, batch.id, { filter: 'status = "confirmed"' });
	}
	const { packets } = house.db.prepare<[], { packets: number }>('SELECT count(*) AS packets FROM packets').get()!;
	return { packets, drafts };
}

/** Pages that people start packets from, and their cases. */
function casesFromPages(house: House, odile: Account): { day: number; run: () => Promise<void> }[] {
	let slugs: Awaited<ReturnType<typeof makeIntakes>>;
	return [
		{
			day: -24.5,
			run: async () => {
				slugs = await makeIntakes(house, odile);
			}
		},
		...DEMO_CASES.map((one, n) => ({
			day: -one.ago - n / 100,
			run: () => happensAsCase(house, slugs[one.intake], one, n)
		}))
	];
}

/** What happens to one packet, each with its day (counted from today, negative in the past, with a part of a day). */
function happenings(
	house: House,
	runner: JobRunner,
	sender: Account,
	one: Case,
	n: number,
	template: string | null
): { day: number; run: () => Promise<void> }[] {
	let plan: Plan;
	let id: string;
	// nobody does everything at the same minute of the day
	const dayOf = (whole: number, k: number) => Math.min(0, whole) - ((n * 37 + (40 - k) * 11) % 97) / 330;
	const sending = {
		day: dayOf(-one.ago, 0),
		run: async () => {
			plan = await planOf(house, one);
			if (template) plan = { ...plan, from: [{ template, version: 1 }] };
			const sent = sendPlan(house, sender, plan);
			if (isRefusal(sent)) throw new Error(`${one.title}: ${sent.say}`);
			id = sent.packet;
		}
	};
	let day = sending.day;
	const steps = one.steps.flatMap((step, k) => {
		const before = day;
		day = Math.min(
			-0.001 * (one.steps.length - k),
			Math.max(day + 0.01, dayOf(Math.floor(day) + 1 + step.after, k + 1))
		);
		const does = (what: Step) => async () => take(house, sender, one, what, id, plan, n);
		const itself = { day, run: does(step) };
		if (step.does !== 'finish') return [itself];
		// whoever finishes has opened it a while before: within minutes, or on the day before
		const opened = day - Math.min((day - before) / 2, 0.002 + (((n * 29 + k * 53) % 89) / 89) ** 3 * 1.4);
		return [{ day: opened, run: does({ after: 0, does: 'open' }) }, itself];
	});
	// those whose time ran out in the past have ended then, not today
	const end = one.expires ? [{ day: -one.ago + (one.days ?? 21) + 1, run: async () => runner.drain() }] : [];
	return [sending, ...steps, ...end];
}

async function take(
	house: House,
	sender: Account,
	one: Case,
	step: Step,
	id: string,
	plan: Plan,
	n: number
): Promise<void> {
	const packet = packetState(house.db, id);
	if (packet.status !== 'out') return;
	if (step.does === 'withdraw') {
		withdraw(house, sender, id, step.why ?? 'No longer needed.');
		return;
	}
	const who = plan.stops[packet.stop]!.people.find((p) => packet.people[p]!.is !== 'done')!;
	const visitor = { packet, person: plan.people.find((p) => p.id === who)!, coded: true, proved: true, guest: false };
	openAndConsent(house, visitor, FROM);
	if (step.does === 'decline') decline(house, visitor, step.why ?? 'I am not free on these days.', FROM);
	if (step.does === 'finish') {
		const done = finish(house, visitor, answersFor(plan, visitor.person, n), FROM);
		if (isRefusal(done)) throw new Error(`${one.title}: ${done.say}`);
	}
}

async function makeDrafts(house: House, odile: Account): Promise<number> {
	const bass = await planOf(house, {
		kind: 'engagement',
		title: 'Guest engagement, double bass',
		person: '',
		email: '',
		detail: 'double bass',
		about: 'the winter tour',
		ago: 0,
		steps: []
	});
	const draft = newDraft(house, odile);
	saveDraft(house, odile, draft.id, 1, bass);
	const loan = await planOf(house, {
		kind: 'loan',
		title: 'Instrument loan, viola no. 3',
		person: 'Noor van Dalen',
		email: 'n.vandalen@post.example',
		detail: 'Viola no. 3',
		about: '',
		ago: 0,
		steps: []
	});
	const second = newDraft(house, odile);
	saveDraft(house, odile, second.id, 1, {
		...loan,
		sending: {
			reminders: { after: 4, every: 3, most: 3 },
			warning: 2,
			term: { months: 12, notice: 60 },
			handOver: true,
			type: 'Loan',
			folder: 'Instruments'
		}
	});
	const third = newDraft(house, odile);
	const saved = saveDraft(house, odile, third.id, 1, await claim(house));
	if (isRefusal(saved)) throw new Error(saved.say);
	const word = await addPaper(
		house,
		'Engagement, timpani.docx',
		engagementInWord('Solveig Aas', 'timpani', 'the spring tour')
	);
	if (isRefusal(word) || 'attached' in word) throw new Error('the Word letter was not taken in');
	const fourth = newDraft(house, odile);
	saveDraft(house, odile, fourth.id, 1, {
		...emptyPlan(),
		title: 'Guest engagement, timpani',
		papers: [{ id: 'paper', name: word.name, digest: word.digest, pages: word.pages, shaded: word.shaded }]
	});
	return 4;
}

/** An expense claim on the Bench: the places of its table taken as they were found, the total reckoned, the rest to do. */
async function claim(house: House): Promise<Plan> {
	const { bytes } = await expenseClaim();
	const taken = await addPaper(house, 'Expense claim.pdf', bytes);
	if (isRefusal(taken) || 'attached' in taken) throw new Error('the expense claim was not taken in');
	const reading = (await readingOf(house, taken.digest))!;
	const places = findPlaces(reading, taken.pages);
	const people = [
		{
			id: 'claimant',
			name: 'Aurelio Dube',
			email: 'aurelio.dube@post.example',
			duty: 'signs' as const,
			jobTitle: 'Viola'
		},
		{
			id: 'finance',
			name: 'Ruben Vasquez-Lind',
			email: 'ruben@brindlevale.example',
			duty: 'approves' as const,
			jobTitle: 'Finance officer'
		}
	];
	const plan: Plan = {
		...emptyPlan(),
		title: 'Expense claim, October tour',
		papers: [{ id: 'paper', name: taken.name, digest: taken.digest, pages: taken.pages }],
		people,
		stops: people.map((p, i) => ({ id: `s${i}`, people: [p.id] }))
	};
	// the signature, its date and the receipts are left to be taken
	const table = places.filter((p) => p.rect.top < 345);
	const { plan: placed } = takePlaces(plan, 'paper', table, places, 'claimant');
	const fields = placed.fields.map((f): Field =>
		f.key === 'total'
			? {
					...f,
					kind: 'computed',
					person: EVERYBODY,
					required: false,
					settings: { rule: 'sum(amount, amount_2, amount_3, amount_4)', currency: 'GBP' }
				}
			: f.kind === 'number' && f.key.startsWith('amount')
				? { ...f, required: f.key === 'amount', settings: { decimals: 2, currency: 'GBP', least: '0' } }
				: /_[234]$/.test(f.key)
					? { ...f, required: false, requireWhen: `not(empty(amount${f.key.slice(-2)}))` }
					: f
	);
	return { ...placed, fields };
}

async function account(house: House, name: string, email: string, level: Account['level']): Promise<Account> {
	const made = await addAccount(house, { name, email, level, password: PASSWORD });
	if (isRefusal(made)) throw new Error(made.say);
	return made;
}
