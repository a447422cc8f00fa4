import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import {
	caseHouse,
	opened,
	begin,
	visitor,
	LEADER,
	entered,
	state,
	code,
	letterTo,
	signs
} from '../../../../e2e/kit/cases';
import { account, ok, type TestHouse } from '../../../../e2e/kit/house';
import { closePool } from '../../press';
import { checkData } from '../check';
import { beginCorrection, sendCorrection } from '../packets/correcting';
import { saveDraft } from '../packets/drafts';
import { eventsOf } from '../packets/log';
import { inWords } from '../../words/record';
import {
	caseAt,
	casesOf,
	handIn,
	keepCase,
	listIntakes,
	putIntakeInUse,
	readIntake,
	saveIntake,
	setIntakeState,
	takeOver,
	visitorView
} from '.';

afterAll(() => closePool());

let t: TestHouse;
beforeEach(async () => {
	t = await caseHouse();
});

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
