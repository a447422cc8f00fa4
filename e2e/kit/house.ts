import type { Answers } from '../../src/lib/core/field';
import type { Field, Plan, PlanPerson, SentPacket } from '../../src/lib/core/packet';
import { isRefusal, type Refusal } from '../../src/lib/core/refusal';
import type { Account, Level } from '../../src/lib/server/accounts';
import { hashPassword } from '../../src/lib/server/accounts/password';
import { insertAccount } from '../../src/lib/server/accounts/people';
import { memoryDb } from '../../src/lib/server/db';
import { houseOf, type Config, type House } from '../../src/lib/server/house';
import { JobRunner } from '../../src/lib/server/jobs';
import { setRefusedAddresses } from '../../src/lib/server/mail/mailbox';
import { sendPlan } from '../../src/lib/server/packets/sending';
import { finish, openAndConsent, visit, type Visitor } from '../../src/lib/server/signing';
import { addPaper, type TakenPaper } from '../../src/lib/server/papers';
import { field, plan, typed } from './plans';
import { pdf } from './pdfs';

export const FROM = { address: '203.0.113.9', device: 'a test' };

/** A house in memory whose clock stands where the test puts it. */
export interface TestHouse {
	house: House;
	runner: JobRunner;
	odile: Account;
	clock: { now: number };
}

export function ok<T>(result: T | Refusal): T {
	if (isRefusal(result)) throw new Error(`${result.code}: ${result.say}`);
	return result;
}

export async function testHouse(config: Partial<Config> = {}, db = memoryDb()): Promise<TestHouse> {
	const clock = { now: Date.parse('2026-11-24T09:00:00Z') };
	const house = houseOf(db, {
		folder: '/nonexistent',
		origin: 'http://127.0.0.1:1',
		key: 'k'.repeat(40),
		demo: false,
		smtp: null,
		mailFrom: 'pellum@brindlevale.example',
		...config
	});
	house.now = () => new Date(clock.now);
	setRefusedAddresses(house, ['gone@post.example']);
	const odile = await account(house, 'Odile Farrow', 'odile@brindlevale.example', 'owner');
	return { house, runner: new JobRunner(house), odile, clock };
}

export async function account(house: House, name: string, email: string, level: Level): Promise<Account> {
	return insertAccount(house, null, { name, email, level }, 'set-up', {
		password: await (hashed ??= hashPassword('long enough for us'))
	});
}

// hashing takes long, and is meant to
let hashed: Promise<string> | undefined;

let kept: Promise<Uint8Array> | undefined;

export async function paper(house: House): Promise<TakenPaper> {
	const taken = ok(await addPaper(house, 'Engagement.pdf', await (kept ??= pdf(2))));
	if ('attached' in taken) throw new Error(taken.why);
	return taken;
}

/** A plan over a real document, with a signature, a name, a date and a text for each who signs. */
export async function realPlan(house: House, stops: string[][]): Promise<Plan> {
	const taken = await paper(house);
	const p = plan(stops, {
		title: 'Guest musician engagement',
		papers: [{ id: 'paper', name: taken.name, digest: taken.digest, pages: taken.pages }]
	});
	for (const person of p.people.filter((one) => one.duty === 'signs'))
		p.fields.push(
			field(`${person.id}-name`, 'name', person.id, { key: `${person.id}_name` }),
			field(`${person.id}-date`, 'signing-date', person.id),
			field(`${person.id}-note`, 'text', person.id, { required: false, page: 1 })
		);
	return p;
}

export async function sent(t: TestHouse, stops: string[][]): Promise<SentPacket> {
	return ok(sendPlan(t.house, t.odile, await realPlan(t.house, stops)));
}

/** A plan over a real document with some of it changed, sent, its messages gone: the packet's id. */
export async function out(
	t: TestHouse,
	stops: string[][],
	people: Record<string, Partial<PlanPerson>> = {},
	more: Partial<Plan> = {}
): Promise<string> {
	const plan = await realPlan(t.house, stops);
	const changed = { ...plan, ...more, people: plan.people.map((p) => ({ ...p, ...people[p.id] })) };
	const { packet } = ok(sendPlan(t.house, t.odile, changed));
	await t.runner.drain();
	return packet;
}

/** Lets the jobs run until none is due or under way: what one asks for when it is done is begun beside them. */
export async function idle({ house, runner }: TestHouse): Promise<void> {
	const due = house.db.prepare(
		'SELECT 1 FROM jobs WHERE done_at IS NULL AND set_aside_at IS NULL AND due_at <= ? LIMIT 1'
	);
	do {
		await runner.drain();
		await new Promise((go) => setTimeout(go, 5));
	} while (due.get(house.now().toISOString()));
}

export interface Mail {
	recipient: string;
	subject: string;
	text: string;
	html: string;
	attachments: string;
}

export function mails(house: House, to?: string): Mail[] {
	return house.db
		.prepare<[], Mail>('SELECT recipient, subject, text, html, attachments FROM mailbox ORDER BY id')
		.all()
		.filter((mail) => to === undefined || mail.recipient === to);
}

/** The link in the newest message to somebody. */
export function linkTo(house: House, to: string): string {
	const token = mails(house, to)
		.at(-1)
		?.text.match(/\/s\/([\w-]{43})/)?.[1];
	if (!token) throw new Error(`no link went to ${to}`);
	return token;
}

export function visitor(house: House, to: string): Visitor {
	return ok(visit(house, linkTo(house, to)));
}

export function answersOf(fields: Field[], person: string): Answers {
	return Object.fromEntries(
		fields
			.filter((f) => f.person === person && f.kind !== 'signing-date')
			.map((f) => [f.id, f.kind === 'signature' || f.kind === 'initials' ? typed(person) : { text: person }])
	);
}

/** Opens, agrees and finishes for the one at that address, and lets the jobs run. */
export async function signs(t: TestHouse, to: string): Promise<SentPacket> {
	const who = visitor(t.house, to);
	ok(openAndConsent(t.house, who, FROM));
	const done = ok(finish(t.house, who, answersOf(who.packet.plan.fields, who.person.id), FROM));
	await t.runner.drain();
	return done;
}
