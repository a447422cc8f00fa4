import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { zipSync } from 'fflate';
import { csv, stewards } from '../../../../demo/stewards';
import { account, idle, mails, ok, realPlan, signs, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import { answerFault, type Described } from '../../../../e2e/kit/described';
import { pdf } from '../../../../e2e/kit/pdfs';
import { field } from '../../../../e2e/kit/plans';
import { closeAccount, setSafety } from '../accounts';
import { standOpen } from '../batches';
import { beginCase, handIn, newIntake, putIntakeInUse, readIntake, saveIntake } from '../intakes';
import { BY_ITSELF, officeEvents } from '../office-record';
import { folderNamed, openFolder, setMember } from '../folders';
import { eventsOf } from '../packets/log';
import { moveToFolder } from '../packets/office';
import { newTemplate, putInUse } from '../templates';
import { count, forgive } from '../limits';
import { callerOf } from './keys';
import { operationAt } from './asking';
import { answerCall, description, endKey, keysOf, makeKey, RIGHTS, sweepAnswers } from './index';
import { OPERATIONS } from './operations';

let t: TestHouse;
let template: string;
let key: string;
const from = { address: '203.0.113.9' };

beforeAll(async () => {
	t = await testHouse();
	const plan = await realPlan(t.house, [['steward']]);
	const asRole = {
		...plan,
		people: plan.people.map((p) => ({ ...p, role: 'Steward', name: '', email: '' })),
		fields: [
			...plan.fields,
			field('shift', 'text', 'sender', { key: 'shift', label: 'Shift', required: false }),
			field('from', 'date', 'sender', { key: 'from', label: 'From', required: false })
		]
	};
	const draft = newTemplate(t.house, t.odile, asRole, 'Steward handbook');
	({ template } = ok(putInUse(t.house, t.odile, draft.id, draft.revision, 'first')));
});
beforeEach(() => {
	key = keyFor(RIGHTS);
});

let made = 0;
const keyFor = (rights: readonly string[], who = t.odile): string =>
	ok(makeKey(t.house, { account: who, ...from }, `key ${++made}`, rights)).key;

const described = description('http://127.0.0.1:1', '1') as unknown as Described;

interface Answer {
	status: number;
	headers: Headers;
	// what comes out is judged by its description and by each test
	// eslint-disable-next-line @typescript-eslint/no-explicit-any
	body: any;
}

/** Asks, and holds the answer against the description. */
async function ask(
	method: string,
	path: string,
	body?: unknown,
	headers: Record<string, string> = {}
): Promise<Answer> {
	const file = body instanceof Uint8Array;
	const sent = body === undefined ? null : file ? Buffer.from(body) : JSON.stringify(body);
	const url = new URL(`http://127.0.0.1:1/api/v1${path}`);
	const request = new Request(url, {
		method,
		headers: {
			Authorization: `Bearer ${key}`,
			...(sent && {
				'Content-Type': file ? 'application/octet-stream' : 'application/json',
				'Content-Length': String(Buffer.byteLength(sent))
			}),
			...headers
		},
		...(sent && { body: sent })
	});
	const response = await answerCall(t.house, {
		request,
		url,
		path: url.pathname.slice('/api/v1'.length),
		number: 'test',
		...from
	});
	const type = response.headers.get('content-type') ?? '';
	const bytes = Buffer.from(await response.arrayBuffer());
	const read = /json$/.test(type) ? JSON.parse(bytes.toString()) : bytes;
	const found = operationAt(OPERATIONS, method, url.pathname.slice('/api/v1'.length));
	if (!('methods' in found) && /json$/.test(type)) {
		const wrong = answerFault(described, method, found.op.path, response.status, read);
		expect(wrong, `${method} ${path}: ${JSON.stringify(read)}`).toBeUndefined();
		if (response.status >= 400) expect(type).toBe('application/problem+json');
	}
	return { status: response.status, headers: response.headers, body: read };
}

const steward = { people: { Steward: { name: 'Ada Quill', email: 'ada@post.example' } } };

describe('keys', () => {
	it('are shown once and kept as a hash; they say when they were used, and end', async () => {
		expect(t.house.db.serialize().includes(Buffer.from(key.slice(7)))).toBe(false);
		const mine = () => keysOf(t.house, t.odile).find((one) => one.name === `key ${made}`)!;
		expect(mine().usedAt).toBeNull();
		expect((await ask('GET', '/templates')).status).toBe(200);
		expect(mine().usedAt).toBe(t.house.now().toISOString());
		expect(endKey(t.house, { account: t.odile, ...from }, mine().id)).toBeNull();
		const refused = await ask('GET', '/templates');
		expect([refused.status, refused.body.code]).toEqual([401, 'no-key']);
		expect(refused.headers.get('www-authenticate')).toContain('Bearer');
		await forgive('apiUnknown', from.address);
	});
	it('may what they were made for, and never more than their account', async () => {
		key = keyFor(['look']);
		expect((await ask('POST', '/packets', { template, ...steward })).body.code).toBe('no-right');
		const viewer = await account(t.house, 'Vera', 'vera@x.example', 'viewer');
		key = keyFor(RIGHTS, viewer);
		expect((await ask('POST', '/packets', { template, ...steward })).body.code).toBe('not-permitted');
		expect((await ask('GET', '/packets')).status).toBe(200);
		setSafety(t.house, BY_ITSELF, { second: ['viewer'], idleHours: 12, longestDays: 7 });
		expect((await ask('GET', '/packets')).body.code).toBe('second-first');
		setSafety(t.house, BY_ITSELF, { second: [], idleHours: 12, longestDays: 7 });
		closeAccount(t.house, BY_ITSELF, viewer.id);
		expect((await ask('GET', '/packets')).status).toBe(401);
		await forgive('apiUnknown', from.address);
	});
	it('that are tried are slowed down, and a key that asks too much waits', async () => {
		key = 'pellum-' + 'a'.repeat(43);
		const tried = await Promise.all(Array.from({ length: 61 }, () => ask('GET', '/packets')));
		expect(tried.filter(({ status }) => status === 401)).toHaveLength(60);
		expect(tried.at(-1)!.headers.get('retry-after')).toMatch(/^\d+$/);
		await forgive('apiUnknown', from.address);
		key = keyFor(['look']);
		const first = await ask('GET', '/packets');
		expect(first.headers.get('ratelimit-policy')).toBe('"key";q=600;w=60');
		expect(first.headers.get('ratelimit')).toBe('"key";r=599;t=60');
		// as if it had asked 597 times more in the same minute
		for (let i = 0; i < 597; i++) await count('api', callerOf(t.house, `Bearer ${key}`)!.key);
		const last = [await ask('GET', '/batches'), await ask('GET', '/batches'), await ask('GET', '/batches')];
		expect(last.map(({ status }) => status)).toEqual([200, 200, 429]);
		expect(last[2]!.body.code).toBe('too-often');
		expect(last[2]!.headers.get('ratelimit')).toMatch(/^"key";r=0;t=\d+$/);
	});
});

describe('a packet from outside', () => {
	it('is sent from a template by names, followed, put right and withdrawn; the record says by which key', async () => {
		const [brief] = (await ask('GET', '/templates?search=handbook')).body.items;
		const needs = (await ask('GET', `/templates/${brief.id}`)).body;
		expect(needs.people).toEqual([{ role: 'Steward', duty: 'signs', optional: false, open: true }]);
		expect(needs.answers.map((one: { key: string }) => one.key)).toEqual(['shift', 'from']);
		expect((await ask('GET', `/templates/${brief.id}/sheet`)).body.subarray(0, 2).toString()).toBe('PK');
		const sent = await ask('POST', '/packets', {
			template: brief.id,
			...steward,
			answers: { shift: 'both', From: '2026-12-01' },
			days: 9,
			title: 'For Ada'
		});
		expect(sent.status).toBe(201);
		await t.runner.drain();
		const { id } = sent.body;
		const state = (await ask('GET', `/packets/${id}`)).body;
		expect(state).toMatchObject({ title: 'For Ada', status: 'out', sealed: false });
		const [ada] = state.people;
		expect(ada).toMatchObject({ email: 'ada@post.example', state: 'notified' });
		expect(mails(t.house, 'ada@post.example')).toHaveLength(1);
		expect((await ask('POST', `/packets/${id}/address`, { person: ada.id, email: 'ada.q@post.example' })).status).toBe(
			200
		);
		expect((await ask('POST', `/packets/${id}/deadline`, { day: '2026-12-24' })).status).toBe(200);
		expect((await ask('POST', `/packets/${id}/deadline`, { day: '2026-13-45' })).body.code).toBe('day-bad');
		t.clock.now += 3_700_000;
		expect((await ask('POST', `/packets/${id}/nudge`, {})).status).toBe(200);
		expect((await ask('POST', `/packets/${id}/nudge`, { person: ada.id })).body.code).toBe('nudged-lately');
		expect((await ask('POST', `/packets/${id}/link`, { person: ada.id })).status).toBe(422);
		expect((await ask('POST', `/packets/${id}/withdraw`, { reason: 'not needed' })).status).toBe(200);
		expect((await ask('GET', `/packets/${id}`)).body.status).toBe('withdrawn');
		expect(eventsOf(t.house.db, id)[0]!.by).toMatchObject({ kind: 'office', name: 'Odile Farrow', key: `key ${made}` });
		const byHand = { Steward: { name: 'Ida', email: 'ida@post.example', delivery: 'link' } };
		const handed = (await ask('POST', '/packets', { template, people: byHand })).body.id;
		const { people } = (await ask('GET', `/packets/${handed}`)).body;
		expect((await ask('POST', `/packets/${handed}/link`, { person: people[0].id })).body.link).toContain('/s/');
		const told = officeEvents(t.house.db).filter((one) => one.type === 'Called');
		expect(told.some((one) => one.what === 'POST /api/v1/packets/{packet}/withdraw')).toBe(true);
		expect(told[0]!.by).toMatchObject({ key: `key ${made}` });
	});
	it('is refused whole where anything is wrong, with its place and a sentence', async () => {
		const wrong = async (body: object) => {
			const { status, body: no } = await ask('POST', '/packets', { template, ...body });
			return [status, no.code, no.pointer];
		};
		expect(await wrong({ people: { Stewart: { name: 'A' } } })).toEqual([422, 'no-role', 'people.Stewart']);
		expect(await wrong({ people: { Steward: { name: 'A', email: 'no' } } })).toEqual([
			422,
			'not-ready',
			'people.Steward.email'
		]);
		expect(await wrong({ people: { Steward: { name: 'A' } } })).toEqual([422, 'not-ready', undefined]);
		expect(await wrong({ ...steward, answers: { shoes: 'red' } })).toEqual([422, 'no-field', 'answers.shoes']);
		expect(await wrong({ ...steward, answers: { from: 'soon' } })).toEqual([422, 'not-ready', 'answers.from']);
		expect(await wrong({ ...steward, nonsense: 1 })).toEqual([422, 'malformed', undefined]);
		expect(await wrong({ ...steward, title: 'x'.repeat(201) })).toEqual([422, 'malformed', 'title']);
		expect((await ask('POST', '/packets', undefined, { 'Content-Type': 'text/plain' })).status).toBe(415);
		expect((await ask('GET', '/packets?lst=open')).body.code).toBe('malformed');
		expect((await ask('GET', '/packets?after=nonsense')).body.code).toBe('bad-cursor');
		expect((await ask('GET', '/nothing')).status).toBe(404);
		const not = await ask('DELETE', '/packets');
		expect([not.status, not.headers.get('allow')]).toEqual([405, 'GET, POST']);
		expect((await ask('GET', '/packets/01m2n3b4v5c6x7z8a9s0d1f')).status).toBe(404);
	});
	it('asked for twice under one Idempotency-Key goes once; another thing under it is refused', async () => {
		const body = { template, people: { Steward: { name: 'Once', email: 'once@post.example' } } };
		const head = { 'Idempotency-Key': '"once-1"' };
		const first = await ask('POST', '/packets', body, head);
		const second = await ask('POST', '/packets', body, { 'Idempotency-Key': 'once-1' });
		expect(second.body).toEqual(first.body);
		expect(second.headers.get('idempotency-replayed')).toBe('true');
		await t.runner.drain();
		expect(mails(t.house, 'once@post.example')).toHaveLength(1);
		expect((await ask('POST', '/packets', { ...body, title: 'Other' }, head)).body.code).toBe('other-request');
		// what was refused is not kept: put right, it goes
		const wrong = { ...body, people: { Steward: { name: 'Once', email: 'bad' } } };
		expect((await ask('POST', '/packets', wrong, { 'Idempotency-Key': 'again' })).status).toBe(422);
		expect((await ask('POST', '/packets', body, { 'Idempotency-Key': 'again' })).status).toBe(201);
		expect((await ask('POST', '/packets', body, { 'Idempotency-Key': 'ä' })).status).toBe(400);
		// after a day it is forgotten
		t.clock.now += 25 * 3_600_000;
		sweepAnswers(t.house);
		expect(t.house.db.prepare('SELECT count(*) FROM api_answers').pluck().get()).toBe(0);
	});
	it('is listed in pages that hold all, each once', async () => {
		for (let i = 0; i < 60; i++)
			await ask('POST', '/packets', { template, people: { Steward: { name: `P ${i}`, email: `p${i}@post.example` } } });
		const seen: string[] = [];
		let after = '';
		do {
			const { items, next } = (await ask('GET', `/packets?list=open${after && `&after=${after}`}`)).body;
			seen.push(...items.map((one: { id: string }) => one.id));
			after = next ?? '';
		} while (after);
		expect(new Set(seen).size).toBe(seen.length);
		expect(seen.length).toBeGreaterThanOrEqual(60);
	});
});

describe('a draft from outside', () => {
	it('gets people and documents, whose markers become fields; saved only as it was read; sent', async () => {
		const begun = await ask('POST', '/drafts', {
			title: 'Letter to Maren',
			people: [{ name: 'Maren Holt', email: 'maren@post.example', role: 'Maren' }]
		});
		expect(begun.status).toBe(201);
		expect(begun.headers.get('etag')).toBe('"1"');
		const { id } = begun.body;
		const added = await ask(
			'POST',
			`/drafts/${id}/documents?name=Letter.pdf`,
			await pdf(1, { text: 'Sign ::maren.signature::' })
		);
		expect(added.body).toMatchObject({ name: 'Letter', pages: 1, fields: 1, attached: false });
		const read = await ask('GET', `/drafts/${id}`);
		expect(read.body.open).toEqual([]);
		const plan = { ...read.body.plan, title: 'Another title' };
		expect((await ask('PUT', `/drafts/${id}`, { plan })).status).toBe(428);
		expect((await ask('PUT', `/drafts/${id}`, { plan }, { 'If-Match': '"1"' })).status).toBe(412);
		const saved = await ask('PUT', `/drafts/${id}`, { plan }, { 'If-Match': read.headers.get('etag')! });
		expect([saved.status, saved.body.title]).toEqual([200, 'Another title']);
		expect((await ask('PUT', `/drafts/${id}`, { plan: 7 }, { 'If-Match': saved.headers.get('etag')! })).status).toBe(
			422
		);
		const sent = await ask('POST', `/drafts/${id}/send`, undefined, { 'If-Match': saved.headers.get('etag')! });
		expect(sent.status).toBe(201);
		expect((await ask('GET', `/drafts/${id}`)).status).toBe(404);
		const other = (await ask('POST', '/drafts', { title: 'Other', people: [] })).body.id;
		expect((await ask('POST', `/drafts/${other}/documents?name=x`, new Uint8Array())).body.code).toBe('file-empty');
		expect((await ask('POST', `/drafts/${other}/documents?name=x`, Buffer.from('no document'))).status).toBe(422);
		expect((await ask('POST', `/drafts/${other}/send`)).status).toBe(422);
		// somebody else's is nothing to them
		key = keyFor(RIGHTS, await account(t.house, 'Kit', 'kit@x.example', 'preparer'));
		expect((await ask('GET', `/drafts/${other}`)).status).toBe(404);
		expect((await ask('DELETE', `/drafts/${other}`)).status).toBe(404);
	});
});

describe('a batch from outside', () => {
	it('is judged, run, followed row by row, taken back, and goes on with a newer sheet', async () => {
		const sheet = csv(stewards().slice(0, 12));
		const judged = await ask('POST', `/batches?template=${template}&name=stewards.csv`, sheet);
		expect(judged.status).toBe(201);
		const { id, counts } = judged.body;
		expect((await ask('PUT', `/batches/${id}/filter`, { filter: 'status = ' })).body.counts.ready).toBe(0);
		expect((await ask('PUT', `/batches/${id}/filter`, { filter: '' })).body.counts).toEqual(counts);
		const bundle = zipSync({ 'letters/tess.pdf': await pdf(1) });
		expect((await ask('PUT', `/batches/${id}/documents`, bundle)).status).toBe(200);
		expect((await ask('PUT', `/batches/${id}/documents`, zipSync({}))).body.code).toMatch(/^bundle-/);
		expect((await ask('POST', `/batches/${id}/run`)).body.going).toBe('goes');
		expect((await ask('POST', `/batches/${id}/run`)).body.code).toBe('batch-runs');
		await idle(t);
		const now = (await ask('GET', `/batches/${id}`)).body;
		expect([now.going, now.counts.gone]).toEqual(['rests', counts.ready]);
		const { items } = (await ask('GET', `/batches/${id}/rows?show=gone`)).body;
		expect(items).toHaveLength(counts.ready);
		expect(eventsOf(t.house.db, items[0].packet)[0]!.by).toMatchObject({ key: `key ${made}` });
		expect((await ask('GET', `/batches/${id}/sheet`)).body.toString()).toContain('Pellum: state');
		t.clock.now += 3_700_000;
		expect((await ask('POST', `/batches/${id}/remind`)).status).toBe(202);
		const newer = csv([...stewards().slice(0, 12), ['Somebody New', 'new@post.example', 'confirmed']]);
		expect((await ask('PUT', `/batches/${id}/sheet`, newer)).body.counts.ready).toBe(1);
		// one that stands open sends what is ready of what is put there
		expect(standOpen(t.house, t.odile, id, true)).toBeNull();
		expect((await ask('PUT', `/batches/${id}/sheet`, newer)).body.going).toBe('goes');
		await idle(t);
		expect(mails(t.house, 'new@post.example')).toHaveLength(1);
		expect((await ask('POST', `/batches/${id}/withdraw`, { reason: 'over' })).status).toBe(202);
		await idle(t);
		expect((await ask('GET', `/batches/${id}`)).body.counts.out).toBe(0);
		expect((await ask('GET', '/batches')).body.items[0].id).toBe(id);
	});
});

describe('an intake from outside', () => {
	it('is listed with its address, and its cases page by page; another’s is nobody’s', async () => {
		const { id } = ok(newIntake(t.house, t.odile, template));
		const { setting, revision, slug } = ok(readIntake(t.house, id));
		ok(saveIntake(t.house, id, revision, { ...setting, pages: [], proof: false }));
		ok(putIntakeInUse(t.house, t.odile, id, revision + 1));
		const { token } = ok(await beginCase(t.house, slug, { language: 'en' }, '203.0.113.90'));
		const visitor = { name: 'Ada Quill', email: 'ada@post.example' };
		const { packet } = ok(
			handIn(t.house, token, { starting: { visitor, prepares: null, named: {} }, answers: {} }, '')
		);
		ok(await beginCase(t.house, slug, { language: 'en' }, '203.0.113.91'));
		const { items } = (await ask('GET', '/intakes')).body;
		expect(items).toMatchObject([
			{ id, state: 'open', begun: 2, handedIn: 1, address: expect.stringMatching(/\/i\//) }
		]);
		const cases = (await ask('GET', `/intakes/${id}/cases`)).body;
		expect(cases.items.map((one: { packet: string | null }) => one.packet).sort()).toEqual([packet, null].sort());
		expect(cases.next).toBeNull();
		expect((await ask('GET', `/intakes/${id}/cases?after=x`)).body.code).toBe('bad-cursor');
		key = keyFor(RIGHTS, await account(t.house, 'Bram', 'bram@x.example', 'preparer'));
		expect((await ask('GET', '/intakes')).body.items).toEqual([]);
		expect((await ask('GET', `/intakes/${id}/cases`)).status).toBe(404);
	});
});

describe('what is taken out', () => {
	it('wants its own right: record, answers, copies, what is over, what is known of a person', async () => {
		const { body: sent } = await ask('POST', '/packets', {
			template,
			people: { Steward: { name: 'Zoë Prak', email: 'zoe@post.example' } }
		});
		await t.runner.drain();
		await signs(t, 'zoe@post.example');
		const { items } = (await ask('GET', `/packets/${sent.id}/copies`)).body;
		expect(items.map((one: { what: string }) => one.what)).toContain('evidence');
		expect((await ask('GET', `/packets/${sent.id}/copies/evidence`)).body.subarray(0, 5).toString()).toBe('%PDF-');
		expect((await ask('GET', `/packets/${sent.id}/copies/nothing`)).status).toBe(404);
		expect((await ask('GET', `/packets/${sent.id}/record`)).body.format).toContain('pellum');
		expect((await ask('GET', `/packets/${sent.id}/answers`)).body).toMatchObject({ steward_name: expect.any(String) });
		expect((await ask('GET', '/records?search=prak')).body.items[0].id).toBe(sent.id);
		expect((await ask('GET', '/records')).body.items.length).toBeGreaterThan(0);
		expect((await ask('GET', '/people?email=zoe@post.example')).body.packets[0].name).toBe('Zoë Prak');
		expect((await ask('GET', '/people?email=nobody')).body.code).toBe('bad-address');
		key = keyFor(['look', 'send', 'prepare']);
		for (const path of [`/packets/${sent.id}/record`, '/records', '/people?email=zoe@post.example'])
			expect((await ask('GET', path)).body.code).toBe('no-right');
	});
	it('of a closed folder is its members’, whatever the key may', async () => {
		const folder = folderNamed(t.house, BY_ITSELF, 'Claims');
		openFolder(t.house, BY_ITSELF, folder, false);
		const ruben = await account(t.house, 'Ruben', 'ruben@x.example', 'preparer');
		const { body } = await ask('POST', '/packets', { template, ...steward });
		ok(moveToFolder(t.house, t.odile, body.id, folder));
		key = keyFor(RIGHTS, ruben);
		expect((await ask('GET', `/packets/${body.id}`)).status).toBe(404);
		expect((await ask('POST', `/packets/${body.id}/withdraw`, { reason: 'x' })).status).toBe(404);
		setMember(t.house, BY_ITSELF, folder, ruben.id, 'sees');
		expect((await ask('GET', `/packets/${body.id}`)).status).toBe(200);
		expect((await ask('POST', `/packets/${body.id}/withdraw`, { reason: 'x' })).body.code).toBe('not-yours');
	});
});

describe('the description', () => {
	it('has every operation, its right, and each schema once by its name', () => {
		const text = JSON.stringify(described);
		for (const op of OPERATIONS) expect(described.paths[op.path]?.[op.method]).toBeDefined();
		const names = Object.values(described.paths).flatMap((methods) =>
			Object.values(methods).map((one) => (one as unknown as { operationId: string }).operationId)
		);
		expect(new Set(names).size).toBe(OPERATIONS.length);
		expect(text).not.toContain('"line":true');
		for (const [, name] of text.matchAll(/#\/components\/schemas\/(\w+)/g))
			expect(described.components).toHaveProperty(['schemas', name!]);
	});
});
