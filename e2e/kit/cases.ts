import { ok, realPlan, testHouse, type TestHouse } from './house';
import { field, typed } from './plans';
import type { Intake } from '../../src/lib/core/intake';
import type { Plan, SentPacket } from '../../src/lib/core/packet';
import { isRefusal } from '../../src/lib/core/refusal';
import { packetState } from '../../src/lib/server/packets/act';
import { finish, openAndConsent, visit } from '../../src/lib/server/signing';
import { newTemplate, putInUse } from '../../src/lib/server/templates';
import { beginCase, newIntake, putIntakeInUse, readIntake, saveIntake } from '../../src/lib/server/intakes';

/** Intakes over a claim and their cases, for the tests of that room; of the house that stands. */

const FROM = { address: '203.0.113.7', device: 'a test' };
let t: TestHouse;
/** A house of its own for each test. */
export async function caseHouse(): Promise<TestHouse> {
	return (t = await testHouse());
}

/** A claim: the claimant, whom they name, and Odile, who is of the office. */
export async function claim(): Promise<Plan> {
	const plan = await realPlan(t.house, [['claimant'], ['leader:approves'], ['odile:approves']]);
	return {
		...plan,
		title: 'Claim',
		people: plan.people.map((p) =>
			p.id === 'odile'
				? { ...p, email: t.odile.email, name: t.odile.name, role: 'Finance' }
				: { ...p, name: '', email: '', role: p.id }
		),
		fields: [
			...plan.fields,
			field('amount', 'number', 'claimant', {
				key: 'amount',
				settings: { least: '0' },
				rect: { x: 50, y: 600, width: 99, height: 20 }
			})
		]
	};
}

/** An intake over it, open; the word in its address. */
export async function opened(
	change: Partial<Intake> = {},
	plan?: Plan
): Promise<{ id: string; slug: string; template: string }> {
	const copy = newTemplate(t.house, t.odile, plan ?? (await claim()));
	const { template } = ok(putInUse(t.house, t.odile, copy.id, copy.revision, ''));
	const { id } = ok(newIntake(t.house, t.odile, template));
	const { setting, revision, slug } = ok(readIntake(t.house, id));
	const asked: Partial<Intake> = {
		proof: false,
		pages: [
			{ id: 'sum', title: 'Sum', items: [{ id: 'amount', is: 'field', key: 'amount' }] },
			{ id: 'who', title: 'Who', items: [{ id: 'leader', is: 'people', roles: ['leader'] }] }
		],
		...change
	};
	const saved = ok(saveIntake(t.house, id, revision, { ...setting, ...asked }));
	ok(putIntakeInUse(t.house, t.odile, id, saved.revision));
	return { id, slug, template };
}
export const begin = async (slug: string, more: { code?: string; key?: string } = {}, address = '203.0.113.9') =>
	beginCase(t.house, slug, { language: 'en', ...more }, address);
export const visitor = { name: 'Aurelio Dube', email: 'aurelio@post.example' };
export const LEADER = { leader: { name: 'Lucia Marchetti', email: 'lucia@post.example', note: 'As we said.' } };
export const entered = (amount = '12.4', more: object = {}) => ({
	starting: { visitor, prepares: null, named: LEADER, ...more },
	answers: { amount: { number: amount } }
});
export const state = (packet: string) => packetState(t.house.db, packet) as SentPacket;
export const code = (result: unknown) => (isRefusal(result) ? result.code : 'done');
export const letterTo = (to: string) =>
	t.house.db
		.prepare<[string], { subject: string; text: string }>(
			'SELECT subject, text FROM mailbox WHERE recipient = ? ORDER BY id DESC'
		)
		.get(to);

/** The first person signs. */
export function signs(packet: string, to: string, answers: object = { amount: { number: '12.4' } }) {
	const token = to.slice('/s/'.length);
	ok(openAndConsent(t.house, ok(visit(t.house, token)), FROM));
	return finish(
		t.house,
		ok(visit(t.house, token)),
		{ ...answers, 'claimant-sig': typed('Aurelio Dube'), 'claimant-name': { text: 'Aurelio Dube' } } as never,
		FROM
	);
}
export function approves(packet: string, person: string) {
	const at = () => ({
		packet: state(packet),
		person: state(packet).plan.people.find((p) => p.id === person)!,
		coded: true,
		proved: true,
		guest: false
	});
	ok(openAndConsent(t.house, at(), FROM));
	ok(finish(t.house, at(), {}, FROM));
}
