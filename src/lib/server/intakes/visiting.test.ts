import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { caseHouse, opened, begin, visitor, LEADER, entered, state, code, letterTo } from '../../../../e2e/kit/cases';
import { ok, type TestHouse } from '../../../../e2e/kit/house';
import { isRefusal } from '../../core/refusal';
import { closePool } from '../../press';
import { hashedCode } from '../packets/codes';
import { askCaseCode, framesFor, handIn, invitePeople, keepCase, leftAt, proveCase, sweepCases, visitorView } from '.';

afterAll(() => closePool());

let t: TestHouse;
beforeEach(async () => {
	t = await caseHouse();
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

describe('what nobody goes on with', () => {
	it('goes after sixty days, with what was entered', async () => {
		const { slug } = await opened();
		ok(await begin(slug));
		expect(sweepCases(t.house)).toBe(0);
		t.clock.now += 61 * 86_400_000;
		expect(sweepCases(t.house)).toBe(1);
	});
});
