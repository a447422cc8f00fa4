import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { account, idle, ok, realPlan, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import { field, typed } from '../../../../e2e/kit/plans';
import type { FollowUp, Intake } from '../../core/intake';
import type { Plan, SentPacket } from '../../core/packet';
import { isRefusal } from '../../core/refusal';
import { closePool } from '../../press';
import { checkData } from '../check';
import { listHosts, makeHook } from '../hooks';
import { hashedCode } from '../packets/codes';
import { packetState } from '../packets/act';
import { beginCorrection, sendCorrection } from '../packets/correcting';
import { saveDraft } from '../packets/drafts';
import { eventsOf } from '../packets/log';
import { finish, openAndConsent, visit } from '../signing';
import { newTemplate, putInUse } from '../templates';
import { inWords } from '../../words/record';
import {
	answersOfCases,
	askCaseCode,
	beginCase,
	caseAt,
	casesOf,
	framesFor,
	handIn,
	invitePeople,
	keepCase,
	leftAt,
	listIntakes,
	newIntake,
	proveCase,
	putIntakeInUse,
	readIntake,
	rowsThatFollowed,
	saveIntake,
	setIntakeState,
	sweepCases,
	takeOver,
	throwIntakeAway,
	visitorView
} from '.';

afterAll(() => closePool());

const FROM = { address: '203.0.113.7', device: 'a test' };
let t: TestHouse;
beforeEach(async () => {
	t = await testHouse();
});

/** A claim: the claimant, whom they name, and Odile, who is of the office. */
async function claim(): Promise<Plan> {
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
async function opened(
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
const begin = async (slug: string, more: { code?: string; key?: string } = {}, address = '203.0.113.9') =>
	beginCase(t.house, slug, { language: 'en', ...more }, address);
const visitor = { name: 'Aurelio Dube', email: 'aurelio@post.example' };
const LEADER = { leader: { name: 'Lucia Marchetti', email: 'lucia@post.example', note: 'As we said.' } };
const entered = (amount = '12.4', more: object = {}) => ({
	starting: { visitor, prepares: null, named: LEADER, ...more },
	answers: { amount: { number: amount } }
});
const state = (packet: string) => packetState(t.house.db, packet) as SentPacket;
const code = (result: unknown) => (isRefusal(result) ? result.code : 'done');
const letterTo = (to: string) =>
	t.house.db
		.prepare<[string], { subject: string; text: string }>(
			'SELECT subject, text FROM mailbox WHERE recipient = ? ORDER BY id DESC'
		)
		.get(to);

/** The first person signs. */
function signs(packet: string, to: string, answers: object = { amount: { number: '12.4' } }) {
	const token = to.slice('/s/'.length);
	ok(openAndConsent(t.house, ok(visit(t.house, token)), FROM));
	return finish(
		t.house,
		ok(visit(t.house, token)),
		{ ...answers, 'claimant-sig': typed('Aurelio Dube'), 'claimant-name': { text: 'Aurelio Dube' } } as never,
		FROM
	);
}
function approves(packet: string, person: string) {
	const at = () => ({
		packet: state(packet),
		person: state(packet).plan.people.find((p) => p.id === person)!,
		proved: true,
		guest: false
	});
	ok(openAndConsent(t.house, at(), FROM));
	ok(finish(t.house, at(), {}, FROM));
}

describe('a case', () => {
	it('becomes a packet: its first person finds filled in what they answered, signs, and the named one is next', async () => {
		const { id, slug } = await opened();
		const { token } = ok(await begin(slug));
		const made = ok(handIn(t.house, token, entered(), '203.0.113.9'));
		expect(made.to).toMatch(/^\/s\/[\w-]{43}$/);
		// pressed twice it is one packet
		expect(ok(handIn(t.house, token, entered('99'), '203.0.113.9')).packet).toBe(made.packet);
		const packet = state(made.packet);
		expect(packet.plan.people.map(({ name, email }) => [name, email])).toEqual([
			['Aurelio Dube', 'aurelio@post.example'],
			['Lucia Marchetti', 'lucia@post.example'],
			['Odile Farrow', t.odile.email]
		]);
		expect(packet.begun).toMatchObject({
			intake: id,
			by: visitor,
			prepares: false,
			proved: false,
			entered: ['amount']
		});
		const [first] = eventsOf(t.house.db, made.packet);
		expect(first!.by).toEqual({ kind: 'pellum' });
		expect(inWords(first!, packet.plan)).toMatch(
			/Aurelio Dube, aurelio@post.example, began it as P-.*through the intake “Claim”, and entered “amount”/
		);
		expect(checkData(t.house.db).faults).toEqual([]);
		ok(signs(made.packet, made.to!));
		expect(state(made.packet).answers['amount']).toEqual({ number: '12.4' });
		await t.runner.drain();
		expect(letterTo('lucia@post.example')?.text).toContain('As we said.');
		expect(casesOf(t.house, t.odile, id).rows).toMatchObject([
			{ visitor: 'Aurelio Dube', standing: 'waiting', having: 'Lucia Marchetti' }
		]);
		expect(listIntakes(t.house, t.odile)).toMatchObject([{ begun: 1, handed: 1, state: 'open', ahead: false }]);
	});
	it('is refused where something is missing or nobody may be named so, and nothing is sent', async () => {
		const { slug } = await opened();
		const { token } = ok(await begin(slug));
		const hand = (wanted: unknown) => code(handIn(t.house, token, wanted, '203.0.113.9'));
		expect(hand({})).toBe('malformed');
		expect(hand({ ...entered(), answers: {} })).toBe('answer-missing');
		expect(hand({ ...entered(), answers: { amount: { text: 'x' } } })).toBe('malformed');
		expect(hand(entered('12.4', { named: {} }))).toBe('name-missing');
		expect(hand(entered('12.4', { named: { leader: { name: 'X', email: 'x@' } } }))).toBe('bad-address');
		// they would approve twice
		expect(hand(entered('12.4', { named: { leader: { name: 'Odile', email: t.odile.email.toUpperCase() } } }))).toBe(
			'named-twice'
		);
		expect(hand(entered('12.4', { visitor: { name: ' ', email: 'a@post.example' } }))).toBe('own-name-missing');
		expect(hand(entered('12.4', { prepares: { name: 'P', email: 'p@post.example' } }))).toBe('no-representative');
		// more people, or answers to what nobody asks, are no way to write to strangers or to fill the disk
		const many = Object.fromEntries(
			Array.from({ length: 300 }, (_, i) => [`r${i}`, { name: 'X', email: `x${i}@post.example` }])
		);
		const tenThousand = Object.fromEntries(Array.from({ length: 10_000 }, (_, i) => [`a${i}`, { text: 'x' }]));
		expect(hand({ ...entered(), answers: tenThousand })).toBe('malformed');
		expect(t.house.db.prepare('SELECT count(*) AS n FROM packets').get()).toEqual({ n: 0 });
		const { packet } = ok(handIn(t.house, token, entered('1', { named: { ...many, ...LEADER } }), '203.0.113.9'));
		expect(state(packet).plan.people).toHaveLength(3);
	});
	it('takes from a visitor no word of a letter but the one to whom they name', async () => {
		const { slug } = await opened();
		const { token } = ok(await begin(slug));
		const hand = (wanted: unknown) => handIn(t.house, token, wanted, '203.0.113.9');
		const leader = { ...LEADER.leader, subject: 'You have won' };
		for (const odd of [
			{ ...entered(), subject: 'You have won' },
			entered('1', { message: 'You have won' }),
			entered('1', { named: { leader } }),
			entered('1', { visitor: { ...visitor, message: 'You have won' } })
		])
			expect(code(hand(odd))).toBe('malformed');
		// what stands in braces is filled in for the office alone
		const odd = { name: 'Ann {link} {title}', email: 'ann@post.example', note: 'Read {reference}.' };
		const made = ok(hand(entered('1', { named: { leader: odd } })));
		ok(signs(made.packet, made.to!, { amount: { number: '1' } }));
		await t.runner.drain();
		expect(letterTo(odd.email)!.text).toContain('Dear Ann {link} {title},');
		expect(letterTo(odd.email)!.text).toContain('Read {reference}.');
	});
	it('left open for a day is handed in all the same', async () => {
		const { slug } = await opened();
		const { token } = ok(await begin(slug));
		t.clock.now += 26 * 3_600_000;
		expect(ok(keepCase(t.house, token, 'who', entered()))).toEqual({ kept: false });
		expect(ok(handIn(t.house, token, entered(), '203.0.113.9')).to).toMatch(/^\/s\//);
	});
	it('stands once in the list, though a hundred others began at the same moment', async () => {
		const { id, slug } = await opened();
		for (let n = 0; n < 103; n++) ok(await begin(slug, {}, `203.0.113.${n}`));
		const first = casesOf(t.house, t.odile, id);
		expect([first.rows.length, first.rows[0]!.begunAt]).toEqual([100, first.rows[99]!.begunAt]);
		const second = casesOf(t.house, t.odile, id, first.next!);
		expect([second.rows.length, second.next]).toEqual([3, null]);
		expect(new Set([...first.rows, ...second.rows].map((row) => row.id)).size).toBe(103);
	});
	it('goes on as it began, though the intake is changed, closed or its template binned meanwhile', async () => {
		const { id, slug, template } = await opened();
		const { token } = ok(await begin(slug));
		const { setting, revision } = ok(readIntake(t.house, id));
		const saved = ok(saveIntake(t.house, id, revision, { ...setting, heading: 'Other', pages: [] }));
		expect(code(saveIntake(t.house, id, revision, setting))).toBe('changed-elsewhere');
		expect(code(putIntakeInUse(t.house, t.odile, id, saved.revision))).toBe('role-open');
		expect(setIntakeState(t.house, id, 'closed')).toBeNull();
		t.house.db.prepare('UPDATE templates SET binned_at = ? WHERE id = ?').run('2026-11-24', template);
		expect(code(await begin(slug))).toBe('intake-closed');
		expect(visitorView(t.house, slug, null, null)).toMatchObject({
			state: 'closed',
			say: 'This is closed at present.'
		});
		expect(visitorView(t.house, slug, token, null)).toMatchObject({ state: 'open', heading: 'Claim' });
		expect(ok(handIn(t.house, token, entered(), '203.0.113.9')).name).toBe('Aurelio Dube');
	});
	it('is put right like any packet that is out, with what was asked before the document in it', async () => {
		const question = { kind: 'text' as const, key: 'section', label: 'Section', required: true, settings: {} };
		const { slug } = await opened({
			pages: [
				{
					id: 'sum',
					title: 'Sum',
					items: [
						{ id: 'amount', is: 'field', key: 'amount' },
						{ id: 's', is: 'question', question },
						{ id: 'leader', is: 'people', roles: ['leader'] }
					]
				}
			]
		});
		const { token } = ok(await begin(slug));
		const wanted = entered();
		const made = ok(
			handIn(t.house, token, { ...wanted, answers: { ...wanted.answers, 'q-s': { text: 'Violas' } } }, '')
		);
		const draft = ok(beginCorrection(t.house, t.odile, made.packet));
		const saved = ok(
			saveDraft(t.house, t.odile, draft.id, draft.revision, { ...draft.plan, title: 'Claim, put right' })
		);
		ok(sendCorrection(t.house, t.odile, draft.id, saved.revision));
		ok(signs(made.packet, made.to!, { amount: { number: '12.4' }, 'q-s': { text: 'Violas' } }));
		expect(state(made.packet).answers['q-s']).toEqual({ text: 'Violas' });
	});
	it('leaves what was entered to nobody: the page tells no address, and a guessed link nothing', async () => {
		const { slug } = await opened({ closed: 'In May again.' });
		const seen = JSON.stringify(ok(visitorView(t.house, slug, null, null)));
		expect(seen).not.toContain('digest');
		expect(seen.replaceAll(`"contact":"${t.odile.email}"`, '')).not.toContain(t.odile.email);
		expect(code(visitorView(t.house, '0'.repeat(16), null, null))).toBe('no-intake');
		expect(code(visitorView(t.house, slug, 'x'.repeat(43), null))).toBe('case-gone');
		// nor at the address of another intake
		const other = await opened();
		const { token } = ok(await begin(slug));
		expect(code(visitorView(t.house, other.slug, token, null))).toBe('case-gone');
		expect(code(handIn(t.house, 'x'.repeat(43), entered(), ''))).toBe('case-gone');
	});
});

describe('put in use', () => {
	it('an intake is judged: its own questions by their kinds, and no two parts under one id', async () => {
		const { id } = await opened();
		const put = (settings: Record<string, unknown>, other: string) => {
			const { setting, revision } = ok(readIntake(t.house, id));
			const question = { kind: 'number' as const, key: 'how_old', label: 'Age', required: true, settings };
			const items = [{ id: other, is: 'question' as const, question }];
			const pages = [...setting.pages.slice(0, 2), { id: 'more', title: 'More', items }];
			const saved = ok(saveIntake(t.house, id, revision, { ...setting, pages }));
			return putIntakeInUse(t.house, t.odile, id, saved.revision);
		};
		expect(put({ least: 'many' }, 'age')).toMatchObject({ code: 'malformed', at: 'age' });
		expect(put({ least: '18' }, 'amount')).toMatchObject({ code: 'id-twice', at: 'amount' });
		expect(code(put({ least: '18' }, 'age'))).toBe('done');
	});
	it('it can’t be thrown away any more; before that it can', async () => {
		const { id, template } = await opened();
		expect(throwIntakeAway(t.house, id)).toMatchObject({ code: 'intake-used' });
		const other = ok(newIntake(t.house, t.odile, template));
		ok(await invitePeople(t.house, other.id, Buffer.from('Name,E-mail\nAnn,ann@post.example\n')));
		expect(throwIntakeAway(t.house, other.id)).toBeNull();
		expect(listIntakes(t.house, t.odile).map((one) => one.id)).toEqual([id]);
		expect(throwIntakeAway(t.house, other.id)).toMatchObject({ code: 'no-intake' });
	});
});

describe('an address', () => {
	it('is proved by a code before anybody is written to; the letter leads back, and what is entered is kept', async () => {
		const { id, slug } = await opened({ proof: true });
		const { token } = ok(await begin(slug));
		expect(ok(keepCase(t.house, token, 'sum', entered()))).toEqual({ kept: false });
		expect(leftAt(t.house, id)).toEqual({ sum: 1 });
		expect(code(handIn(t.house, token, entered(), ''))).toBe('address-unproved');
		expect(await askCaseCode(t.house, token, { ...visitor, language: 'de' }, '203.0.113.9')).toBeNull();
		// the job holds neither the code nor the way back in the open
		const job = t.house.db.prepare<[], string>("SELECT payload FROM jobs WHERE kind = 'case'").pluck().get()!;
		expect(job).not.toContain(token);
		await t.runner.drain();
		const letter = letterTo(visitor.email)!;
		expect(letter.text).toContain('Ihr Code');
		expect(letter.text).toContain(`/i/${slug}/${token}`);
		const right = /\b(\d{6})\b/.exec(letter.text)![1]!;
		const wrong = right === '000000' ? '000001' : '000000';
		for (let i = 0; i < 4; i++) expect(code(proveCase(t.house, token, wrong))).toBe('code-wrong');
		expect(code(proveCase(t.house, token, wrong))).toBe('code-old');
		// the right one comes too late now
		expect(code(proveCase(t.house, token, right))).toBe('code-old');
		expect(await askCaseCode(t.house, token, { ...visitor, language: 'en' }, '203.0.113.9')).toBeNull();
		await t.runner.drain();
		expect(proveCase(t.house, token, /\b(\d{6})\b/.exec(letterTo(visitor.email)!.text)![1]!)).toBeNull();
		expect(ok(keepCase(t.house, token, 'who', entered('7')))).toEqual({ kept: true });
		expect(ok(visitorView(t.house, slug, token, null))).toMatchObject({
			begun: {
				page: 'who',
				proved: true,
				email: visitor.email,
				answers: { amount: { number: '7' } },
				starting: { named: LEADER }
			}
		});
		// another address is another proof
		expect(code(handIn(t.house, token, entered('7', { visitor: { name: 'X', email: 'x@post.example' } }), ''))).toBe(
			'address-unproved'
		);
		const { packet } = ok(handIn(t.house, token, entered('7'), ''));
		expect(state(packet).begun!.proved).toBe(true);
		expect(t.house.db.prepare('SELECT entered FROM cases').get()).toEqual({ entered: null });
	});
	it('of a domain that was not named may not start', async () => {
		const { slug } = await opened({ proof: true, door: { by: 'domains', domains: ['brindlevale.example'] } });
		const { token } = ok(await begin(slug));
		expect(code(await askCaseCode(t.house, token, { ...visitor, language: 'en' }, ''))).toBe('not-your-domain');
		expect(code(handIn(t.house, token, entered(), ''))).toBe('not-your-domain');
	});
	it('gets five codes in ten minutes at most, and a case as many', async () => {
		const { slug } = await opened({ proof: true });
		const { token } = ok(await begin(slug, {}, '203.0.113.50'));
		const asked = [];
		for (let i = 0; i < 7; i++)
			asked.push(
				code(
					await askCaseCode(t.house, token, { name: 'X', email: 'five@post.example', language: 'en' }, '203.0.113.50')
				)
			);
		expect(asked).toEqual(['done', 'done', 'done', 'done', 'done', 'too-often', 'too-often'].map((one) => one));
	});
});

describe('the door', () => {
	it('opens by a code, of which ten can be tried', async () => {
		const { slug } = await opened({ door: { by: 'code', hash: hashedCode(t.house, 'KETTLE-7') } });
		const tried: string[] = [];
		for (let i = 0; i < 100; i++) tried.push(code(await begin(slug, { code: `no-${i}` }, '203.0.113.60')));
		expect(tried.filter((one) => one === 'wrong-door-code')).toHaveLength(10);
		expect(tried.filter((one) => one === 'too-often')).toHaveLength(90);
		// from elsewhere it opens, however it is written
		expect(code(await begin(slug, { code: 'kettle 7' }, '203.0.113.61'))).toBe('done');
	});
	it('opens by the link of a sheet, which knows who comes and what is known of them', async () => {
		const { id, slug } = await opened({ door: { by: 'sheet' } });
		const sheet = (text: string) => invitePeople(t.house, id, new TextEncoder().encode(text));
		expect(code(await sheet('Who,Sum\nA,1\n'))).toBe('sheet-no-people');
		expect(await sheet('Name,E-mail\nA,a@post\n')).toMatchObject({
			code: 'bad-address',
			say: expect.stringContaining('B2')
		});
		expect(code(await sheet('Name,E-mail\nA,a@post.example\nB,A@post.example\n'))).toBe('twice');
		const { csv, people } = ok(
			await sheet('Name,E-mail,Amount\nAurelio Dube,aurelio@post.example,31.5\n=B,b@post.example,\n')
		);
		expect(people).toBe(2);
		expect(csv).toContain("'=B,b@post.example");
		const [first] = [...csv.matchAll(/\?k=([\w-]{43})/g)].map((found) => found[1]!);
		expect(code(await begin(slug))).toBe('not-invited');
		expect(visitorView(t.house, slug, null, first!)).toMatchObject({
			invited: visitor,
			known: { amount: { number: '31.5' } }
		});
		const { token } = ok(await begin(slug, { key: first! }));
		// what is known is not asked, and counts
		const { packet } = ok(handIn(t.house, token, { ...entered(), answers: {} }, ''));
		expect(state(packet).begun!.entered).toEqual(['amount']);
		const other = ok(await begin(slug, { key: first! }));
		expect(
			code(handIn(t.house, other.token, entered('1', { visitor: { name: 'C', email: 'c@post.example' } }), ''))
		).toBe('not-invited');
	});
	it('shuts after so many, and after many from one address in a day', async () => {
		const { slug } = await opened({ most: 3, perAddress: 2 });
		const one = async (address: string) => {
			const begun = await begin(slug, {}, address);
			return isRefusal(begun) ? begun.code : code(handIn(t.house, begun.token, entered(), address));
		};
		const early = ok(await begin(slug, {}, '203.0.113.70'));
		expect([await one('203.0.113.71'), await one('203.0.113.71'), await one('203.0.113.71')]).toEqual([
			'done',
			'done',
			'too-many-cases'
		]);
		t.clock.now += 86_400_000 + 1000;
		expect(await one('203.0.113.71')).toBe('done');
		expect(await one('203.0.113.72')).toBe('intake-closed');
		// whoever had begun meets the same: no more come in than it takes
		expect(code(handIn(t.house, early.token, entered(), '203.0.113.70'))).toBe('intake-closed');
	});
	it('of a frame is open to the origins that are listed, for its own pages and the signing of its cases', async () => {
		const { slug } = await opened({ frames: ['https://www.brindlevale.example'] });
		const { token } = ok(await begin(slug));
		const { to } = ok(handIn(t.house, token, entered(), ''));
		expect(framesFor(t.house, '/i/[slug]', { slug })).toEqual(['https://www.brindlevale.example']);
		expect(framesFor(t.house, '/s/[token]', { token: to!.slice(3) })).toEqual(['https://www.brindlevale.example']);
		expect(framesFor(t.house, '/desk', {})).toEqual([]);
		expect(framesFor(t.house, '/s/[token]', { token: 'x' })).toEqual([]);
	});
});

describe('rules that speak', () => {
	it('hold on the document too: what was answered may be changed there, but not to what closes the way', async () => {
		const { slug } = await opened({
			says: [
				{ id: 'much', when: 'amount > 500', say: 'Above 500 a claim goes by paper.', closes: true },
				{ id: 'least', when: 'amount < 5', say: 'Five at least are paid.', forces: { key: 'amount', answer: '5' } }
			]
		});
		const { token } = ok(await begin(slug));
		expect(handIn(t.house, token, entered('501'), '')).toMatchObject({
			code: 'way-closed',
			say: expect.stringContaining('by paper')
		});
		const { packet, to } = ok(handIn(t.house, token, entered('3'), ''));
		expect(signs(packet, to!, { amount: { number: '900' } })).toMatchObject({ code: 'way-closed' });
		expect(signs(packet, to!, { amount: { number: '3' } })).toMatchObject({
			code: 'forced',
			say: 'Five at least are paid.'
		});
		ok(signs(packet, to!, { amount: { number: '80' } }));
	});
});

describe('somebody who prepares it for another', () => {
	it('is said in the record; the person finds it filled in, may change it, and signs', async () => {
		const { slug } = await opened({ representative: 'may' });
		const { token } = ok(await begin(slug));
		const bram = { name: 'Bram Oyelaran', email: 'bram@post.example' };
		const made = ok(handIn(t.house, token, entered('12.4', { visitor: bram, prepares: visitor }), ''));
		expect(made).toMatchObject({ to: null, name: 'Aurelio Dube' });
		expect(inWords(eventsOf(t.house.db, made.packet)[0]!, state(made.packet).plan)).toContain(
			'Bram Oyelaran, bram@post.example, prepared it as'
		);
		await t.runner.drain();
		const link = /\/s\/[\w-]{43}/.exec(letterTo(visitor.email)!.text)![0];
		ok(signs(made.packet, link, { amount: { number: '13' } }));
		expect(state(made.packet).answers['amount']).toEqual({ number: '13' });
	});
	it('answers as far as they may: the rest is answered, and the next one named, by the person on the document', async () => {
		const { slug } = await opened({ representative: 'may' });
		const { token } = ok(await begin(slug));
		const bram = { name: 'Bram Oyelaran', email: 'bram@post.example' };
		const starting = { visitor: bram, prepares: visitor, named: {} };
		const alone = { starting: { ...starting, prepares: null }, answers: {} };
		expect(code(handIn(t.house, token, alone, ''))).toBe('answer-missing');
		const made = ok(handIn(t.house, token, { starting, answers: {} }, ''));
		expect(state(made.packet).plan.people.map(({ namedBy }) => namedBy)).toEqual([undefined, 'claimant', undefined]);
		await t.runner.drain();
		const link = /\/s\/[\w-]{43}/.exec(letterTo(visitor.email)!.text)![0];
		expect(code(signs(made.packet, link))).toBe('name-missing');
	});
	it('may be of the office, who takes over what is stuck: with a link of their own, and never the one to sign', async () => {
		const { id, slug } = await opened({ proof: true });
		const { token } = ok(await begin(slug));
		const tamsin = await account(t.house, 'Tamsin Okoro', 'tamsin@x.example', 'preparer');
		const [row] = casesOf(t.house, t.odile, id).rows;
		expect(code(takeOver(t.house, tamsin, id, row!.id))).toBe('case-unproved');
		t.house.db.prepare('UPDATE cases SET proved_at = ?, email = ?').run('2026-11-24', visitor.email);
		ok(keepCase(t.house, token, 'who', entered()));
		expect(code(takeOver(t.house, tamsin, 'another', row!.id))).toBe('case-gone');
		const { to } = ok(takeOver(t.house, tamsin, id, row!.id));
		const own = to.split('/').at(-1)!;
		expect(ok(caseAt(t.house, own))).toMatchObject({
			byOffice: true,
			entered: { answers: { amount: { number: '12.4' } } }
		});
		expect(ok(caseAt(t.house, token)).byOffice).toBe(false);
		const made = ok(handIn(t.house, own, entered(), ''));
		expect(made.to).toBeNull();
		expect(state(made.packet).begun).toMatchObject({ by: { name: 'Tamsin Okoro' }, prepares: true, proved: false });
		expect(code(takeOver(t.house, tamsin, id, row!.id))).toBe('case-handed');
	});
});

describe('what follows', () => {
	const then: FollowUp[] = [
		{ id: 'filed', at: { stop: 's0' }, when: 'amount > 10', does: { is: 'file', folder: '' } },
		{ id: 'row', at: 'completed', does: { is: 'row', keys: ['amount'] } },
		{
			id: 'letter',
			at: 'completed',
			does: {
				is: 'letter',
				to: 'claimant',
				subject: 'Paid: {amount}',
				message: 'With thanks.\n\nThe office',
				copies: true
			}
		},
		{ id: 'never', at: 'completed', when: 'amount > 1000', does: { is: 'row', keys: ['amount'] } }
	];
	it('comes once each, in the record, with values and copies: a letter, a row, another template', async () => {
		const next = newTemplate(t.house, t.odile, {
			...(await realPlan(t.house, [['payee']])),
			title: 'Receipt',
			people: [{ id: 'payee', name: '', email: '', role: 'Payee', duty: 'signs' }],
			fields: [
				field('payee-sig', 'signature', 'payee'),
				field('sum', 'number', 'payee', { key: 'amount', rect: { x: 50, y: 600, width: 99, height: 20 } })
			]
		});
		const { template } = ok(putInUse(t.house, t.odile, next.id, next.revision, ''));
		const { id, slug } = await opened({
			then: [
				...then,
				{ id: 'next', at: 'completed', does: { is: 'template', template, people: { payee: 'claimant' } } }
			]
		});
		const { token } = ok(await begin(slug));
		const { packet, to } = ok(handIn(t.house, token, entered('12.4', { visitor: { ...visitor, locale: 'de' } }), ''));
		ok(signs(packet, to!));
		await t.runner.drain();
		approves(packet, 'leader');
		approves(packet, 'odile');
		await t.runner.drain();
		await t.runner.drain();
		const followed = eventsOf(t.house.db, packet).flatMap((event) =>
			event.type === 'FollowedUp' ? [[event.id, event.what]] : []
		);
		expect(followed.sort()).toEqual([
			['filed', 'file'],
			['letter', 'letter'],
			['next', 'template'],
			['row', 'row']
		]);
		expect(rowsThatFollowed(t.house, id, 'row')).toEqual({
			columns: ['packet', 'amount'],
			rows: [[state(packet).reference, '12.4']]
		});
		const letters = t.house.db
			.prepare<[string], { subject: string; text: string; attachments: string }>(
				"SELECT * FROM mailbox WHERE recipient = ? AND subject LIKE 'Paid%'"
			)
			.all(visitor.email);
		expect(letters).toHaveLength(1);
		// the office's own words, and around them and in them the language of whom it goes to
		expect(letters[0]!.subject).toBe('Paid: 12,4');
		expect(letters[0]!.text).toMatch(/^Guten Tag Aurelio Dube,\s+With thanks\./);
		// the receipt has gone to whom the claim was of, with what they had answered filled in
		const receipt = t.house.db.prepare<[], { id: string }>("SELECT id FROM packets WHERE title = 'Receipt'").get()!;
		expect(state(receipt.id).plan.people[0]).toMatchObject(visitor);
		expect(
			t.house.db.prepare<[string], string>('SELECT answers FROM saved_answers WHERE packet = ?').pluck().get(receipt.id)
		).toContain('12.4');
		// a job that comes twice does it once
		t.house.db.prepare("UPDATE jobs SET done_at = NULL WHERE kind = 'follow'").run();
		await t.runner.drain();
		expect(rowsThatFollowed(t.house, id, 'row').rows).toHaveLength(1);
		const all = ok(await answersOfCases(t.house, t.odile, id, 'csv'));
		expect(new TextDecoder().decode(all.bytes)).toContain('12.4');
		expect(ok(await answersOfCases(t.house, t.odile, id, 'xlsx')).bytes.length).toBeGreaterThan(1000);
	});
	it('tells another program the row that goes into a sheet, and of nothing else what was answered', async () => {
		const got: { type: string; data: Record<string, unknown> }[] = [];
		const program = createServer((request, answer) => {
			let body = '';
			request.on('data', (chunk) => (body += chunk));
			request.on('end', () => {
				got.push(JSON.parse(body) as (typeof got)[number]);
				answer.writeHead(204).end();
			});
		});
		await new Promise<void>((listening) => program.listen(0, '127.0.0.1', listening));
		const host = `127.0.0.1:${(program.address() as AddressInfo).port}`;
		const me = { account: t.odile, address: '' };
		listHosts(t.house, me, [host]);
		ok(makeHook(t.house, me, `http://${host}/`, ['packet.followed', 'packet.completed']));
		const { slug } = await opened({ then });
		const { token } = ok(await begin(slug));
		const { packet, to } = ok(handIn(t.house, token, entered(), ''));
		ok(signs(packet, to!));
		approves(packet, 'leader');
		approves(packet, 'odile');
		await idle(t);
		program.close();
		const { reference } = state(packet);
		expect(got.filter(({ data }) => 'row' in data)).toMatchObject([
			{ type: 'packet.followed', data: { packet, reference, row: { packet: reference, amount: '12.4' } } }
		]);
		expect(got.map(({ type }) => type)).toContain('packet.completed');
		expect(got.filter(({ type }) => type === 'packet.followed')).toHaveLength(3);
	});
	it('that can’t be done is said, and leaves a draft', async () => {
		const copy = newTemplate(t.house, t.odile, { ...(await claim()), title: 'Other' });
		const { template } = ok(putInUse(t.house, t.odile, copy.id, copy.revision, ''));
		const { slug } = await opened({
			then: [{ id: 'next', at: { stop: 's0' }, does: { is: 'template', template, people: {} } }]
		});
		const { token } = ok(await begin(slug));
		const { packet, to } = ok(handIn(t.house, token, entered(), ''));
		ok(signs(packet, to!));
		await t.runner.drain();
		await t.runner.drain();
		expect(eventsOf(t.house.db, packet).find((event) => event.type === 'FollowedUp')).toMatchObject({
			what: 'not done',
			about: expect.stringContaining('a draft of “Other” waits')
		});
		expect(t.house.db.prepare('SELECT count(*) AS n FROM drafts').get()).toEqual({ n: 1 });
	});
});

describe('check-data', () => {
	it('finds a setting that can’t be read, and a case whose version or packet is gone', async () => {
		const { slug } = await opened();
		const { token } = ok(await begin(slug));
		ok(handIn(t.house, token, entered(), ''));
		const { db } = t.house;
		const faults = () => checkData(db).faults;
		expect(faults()).toEqual([]);
		db.pragma('foreign_keys = OFF');
		const broken = (sql: string) => {
			db.exec('SAVEPOINT broken');
			db.exec(sql);
			const found = faults();
			db.exec('ROLLBACK TO broken; RELEASE broken');
			return found.join(' ');
		};
		expect(broken("UPDATE intakes SET setting = '{'")).toContain('can’t be read');
		expect(broken("UPDATE intake_versions SET setting = json_set(setting, '$.pages', 3)")).toContain('can’t be read');
		expect(broken('UPDATE cases SET version = 9')).toContain('a version of its intake that is not there');
		expect(broken("UPDATE cases SET packet = 'gone'")).toContain('names a packet that is not there');
	});
});

describe('what nobody goes on with', () => {
	it('goes after sixty days, with what was entered', async () => {
		const { slug } = await opened();
		ok(await begin(slug));
		expect(sweepCases(t.house)).toBe(0);
		t.clock.now += 61 * 86_400_000;
		expect(sweepCases(t.house)).toBe(1);
	});
});
