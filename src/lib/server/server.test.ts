import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { SMTPServer } from 'smtp-server';
import { afterAll, describe, expect, it } from 'vitest';
import { account, mails, ok, realPlan, sent, signs, testHouse, type TestHouse } from '../../../e2e/kit/house';
import { canonicalJson, extend, faultsOf, GENESIS } from '../core/audit';
import { closePool, verifySealed } from '../press';
import { checkData } from './check';
import { openDb } from './db';
import { countOut, needsYou } from './desk';
import { packetPage } from './lists';
import { findPackets, records } from './records';
import { exportAll } from './export';
import { DEMO_KEY, houseOf, unsafe } from './house';
import { failingJobs, retryNow } from './jobs';
import { sealKeys, trustedRoots } from './keys';
import { sha256Bytes, sha256Text } from './ids';
import { packetState } from './packets/act';
import { copyFile } from './packets/copies';
import { auditRecord, eventsOf } from './packets/log';
import { sendPlan } from './packets/sending';
import { withdraw } from './packets/office';
import { addPaper, paperName } from './papers';
import { organisation, setOrganisation } from './settings';

afterAll(() => closePool());

describe('settings', () => {
	it.each([
		[{ name: '' }, 'malformed'],
		[{ colour: 'red' }, 'malformed'],
		[{ colour: '#ffee00' }, 'pale-colour'],
		[{ zone: 'Europe/Nowhere' }, 'bad-zone']
	])('refuse %j', async (change, code) => {
		const { house } = await testHouse();
		expect(setOrganisation(house.db, { ...organisation(house.db), ...change })).toMatchObject({ code });
	});
});

describe('starting for real', () => {
	const config = { folder: '', origin: '', key: 'x'.repeat(32), demo: false, smtp: null, mailFrom: '' };
	it('refuses the demo’s key, a short one, and the demo’s data', async () => {
		const { house } = await testHouse();
		expect(unsafe(config, house.db)).toBeNull();
		expect(unsafe({ ...config, key: DEMO_KEY }, house.db)).toContain('PELLUM_KEY');
		expect(unsafe({ ...config, key: 'short' }, house.db)).toContain('PELLUM_KEY');
		houseOf(house.db, { ...config, demo: true });
		expect(unsafe(config, house.db)).toContain('demo');
	});
	it('keeps private keys locked, and opens them with the right key only', async () => {
		const { house } = await testHouse();
		const keys = await sealKeys(house);
		const { locked_key } = house.db
			.prepare<[], { locked_key: Buffer }>("SELECT locked_key FROM keys WHERE name = 'seal'")
			.get()!;
		expect(locked_key.includes(Buffer.from(keys.seal.key))).toBe(false);
		const folder = mkdtempSync(path.join(tmpdir(), 'pellum-keys-'));
		const db = openDb(folder);
		await sealKeys(houseOf(db, { ...config, folder }));
		db.close();
		const again = openDb(folder);
		await expect(sealKeys(houseOf(again, { ...config, folder, key: 'y'.repeat(32) }))).rejects.toThrow('PELLUM_KEY');
		again.close();
		expect(readdirSync(path.join(folder, 'trust')).sort()).toEqual([
			'methods.json',
			'organisation-root.pem',
			'organisation.crl',
			'time-stamp-root.pem',
			'time-stamp.crl'
		]);
		rmSync(folder, { recursive: true });
	});
});

describe('the seal', () => {
	it('names the organisation as it is called when it seals; copies from before stay genuine', async () => {
		const t = await testHouse();
		const sealed = async () => {
			const { packet } = await sent(t, [['maren']]);
			await t.runner.drain();
			await signs(t, 'maren@post.example');
			const state = packetState(t.house.db, packet);
			if (state.status !== 'completed') throw new Error(state.status);
			return copyFile(t.house, state, 'paper')!.bytes;
		};
		const judged = async (bytes: Uint8Array) => {
			const roots = (await trustedRoots(t.house)).map((root) => root.pem);
			const { verdict, sealedBy } = await verifySealed(bytes, roots);
			return [verdict, sealedBy];
		};
		// nothing is made before somebody has named the organisation
		expect(t.house.db.prepare('SELECT count(*) AS n FROM keys').get()).toEqual({ n: 0 });
		const name = (to: string) => ok(setOrganisation(t.house.db, { ...organisation(t.house.db), name: to }));
		name('Brindlevale Touring Orchestra');
		const first = await sealed();
		expect(await judged(first)).toEqual(['genuine', expect.stringContaining('Brindlevale Touring Orchestra')]);
		t.clock.now += 60_000;
		name('Tarrow & Brindlevale Players, “North”');
		const second = await sealed();
		expect(await judged(second)).toEqual(['genuine', expect.stringContaining('Tarrow & Brindlevale Players')]);
		expect(await judged(first)).toEqual(['genuine', expect.stringContaining('Brindlevale Touring Orchestra')]);
		await Promise.all([sealKeys(t.house), sealKeys(t.house)]);
		expect((await trustedRoots(t.house)).map((root) => root.name)).toEqual([
			'organisation-root.pem',
			expect.stringMatching(/^organisation-until-2026-11-24-.*-root\.pem$/),
			'time-stamp-root.pem'
		]);
	});
});

describe('a clock that is set back', () => {
	it('makes no record that runs backwards, and check-data and verify say one that does', async () => {
		const t = await testHouse();
		const { packet } = await sent(t, [['maren']]);
		await t.runner.drain();
		t.clock.now -= 3_600_000;
		await signs(t, 'maren@post.example');
		const times = eventsOf(t.house.db, packet).map((event) => event.at);
		expect(times.length).toBeGreaterThan(5);
		expect([...times].sort()).toEqual(times);
		expect(checkData(t.house.db).faults).toEqual([]);
		const record = auditRecord(t.house.db, packet);
		expect(faultsOf(record, sha256Text, sha256Bytes)).toEqual([]);
		// the same events, each an hour before the last, chained anew
		const bodies = record.links.map((link, i) =>
			canonicalJson({ ...JSON.parse(link.body), at: new Date(t.clock.now - i * 3_600_000).toISOString() })
		);
		const links = extend(sha256Text, GENESIS, bodies);
		expect(faultsOf({ ...record, links }, sha256Text, sha256Bytes).join()).toContain('earlier than the one before it');
		t.house.db.exec('DROP TRIGGER events_stay');
		links.forEach(({ body, hash }, n) =>
			t.house.db.prepare('UPDATE events SET body = ?, hash = ? WHERE packet = ? AND n = ?').run(body, hash, packet, n)
		);
		expect(checkData(t.house.db).faults.join()).toContain('earlier than the one before it');
	});
});

describe('mail by SMTP', () => {
	interface Got {
		to: string;
		raw: string;
		secure: boolean;
	}
	async function smtp(refuse: (to: string) => number | null = () => null) {
		const got: Got[] = [];
		const server = new SMTPServer({
			authOptional: true,
			onRcptTo: ({ address }, _session, done) => {
				const code = refuse(address);
				done(code ? Object.assign(new Error('refused'), { responseCode: code }) : null);
			},
			onData: (stream, session, done) => {
				let raw = '';
				stream.on('data', (chunk: Buffer) => (raw += chunk.toString()));
				stream.on('end', () => {
					const first = session.envelope.rcptTo[0];
					got.push({ to: first ? first.address : '', raw, secure: session.secure });
					done();
				});
			}
		});
		await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
		const { port } = server.server.address() as { port: number };
		return { got, port, close: () => new Promise<void>((done) => server.close(() => done())) };
	}
	// the server's certificate is its own, as on many a small mail server within the house
	const url = (port: number) => `smtp://127.0.0.1:${port}?tls.rejectUnauthorized=false`;

	it('goes out over STARTTLS, with text, HTML and the sender to answer to', async () => {
		const server = await smtp();
		const t = await testHouse({ smtp: url(server.port) });
		const { packet } = await sent(t, [['maren']]);
		await t.runner.drain();
		expect(server.got).toHaveLength(1);
		expect(server.got[0]).toMatchObject({ to: 'maren@post.example', secure: true });
		expect(server.got[0]!.raw).toMatch(/Reply-To: Odile Farrow <odile@brindlevale\.example>/);
		expect(server.got[0]!.raw).toContain('text/html');
		expect(packetState(t.house.db, packet)).toMatchObject({ people: { maren: { is: 'notified' } } });
		expect(mails(t.house)).toEqual([]);
		await server.close();
	});
	it('down: shown on the Desk, tried again, and sent once when it is back', async () => {
		const free = createServer();
		await new Promise<void>((ready) => free.listen(0, '127.0.0.1', ready));
		const { port } = free.address() as { port: number };
		await new Promise<void>((done) => free.close(() => done()));
		const t = await testHouse({ smtp: url(port) });
		await sent(t, [['maren']]);
		await t.runner.drain();
		expect(failingJobs(t.house)).toMatchObject([{ kind: 'message', attempts: 1 }]);
		expect(needsYou(t.house, t.odile)[0]).toMatchObject({
			what: 'jobs',
			count: 1,
			error: expect.stringContaining('ECONNREFUSED')
		});
		await t.runner.drain();
		expect(failingJobs(t.house)[0]!.attempts).toBe(1); // not before its pause is over
		t.clock.now += 6000;
		await t.runner.drain();
		expect(failingJobs(t.house)[0]!.attempts).toBe(2);

		const server = await smtp();
		(t.house.config as { smtp: string }).smtp = url(server.port);
		retryNow(t.house);
		await t.runner.drain();
		await t.runner.drain();
		expect(server.got).toHaveLength(1);
		expect(failingJobs(t.house)).toEqual([]);
		await server.close();
	});
	it('refused for good is shown with the address; refused for now is tried again', async () => {
		const server = await smtp((to) => (to.startsWith('maren') ? 550 : 451));
		const t = await testHouse({ smtp: url(server.port) });
		const { packet } = await sent(t, [['maren', 'kit']]);
		await t.runner.drain();
		expect(packetState(t.house.db, packet)).toMatchObject({
			people: { maren: { is: 'unreachable' }, kit: { is: 'notified' } }
		});
		expect(needsYou(t.house, t.odile).map((n) => n.what)).toEqual(['jobs', 'unreachable']);
		await server.close();
	});
});

describe('a disk that is full or read-only', () => {
	it('refuses, and nothing is half done', async () => {
		const t = await testHouse();
		const plan = await realPlan(t.house, [['maren']]);
		const { db } = t.house;
		const full = (run: () => unknown) => {
			db.pragma(`max_page_count = ${db.pragma('page_count', { simple: true })}`);
			expect(run).toThrow(/full/);
			db.pragma('max_page_count = 1000000');
		};
		const before = db
			.prepare(
				'SELECT (SELECT count(*) FROM events) AS e, (SELECT count(*) FROM packets) AS p, (SELECT count(*) FROM jobs) AS j'
			)
			.get();
		full(() => {
			for (let i = 0; i < 200; i++) sendPlan(t.house, t.odile, { ...plan, message: 'x'.repeat(3000) + i });
		});
		expect(checkData(db).faults).toEqual([]);
		db.pragma('query_only = 1');
		expect(() => sendPlan(t.house, t.odile, plan)).toThrow(/readonly/);
		db.pragma('query_only = 0');
		expect(before).toBeDefined();
		const { packet } = ok(sendPlan(t.house, t.odile, plan));
		await t.runner.drain();
		await signs(t, 'maren@post.example');
		expect(packetState(db, packet).status).toBe('completed');
		expect(checkData(db).faults).toEqual([]);
	});
});

describe('what a page says when the disk fails', () => {
	it.each([
		['SQLITE_FULL', 'disk'],
		['SQLITE_READONLY', 'disk'],
		['SQLITE_IOERR_WRITE', 'disk'],
		['ERR_ANYTHING', undefined]
	])('%s', async (code, want) => {
		const { handleError } = await import('../../hooks.server');
		const said = await handleError({
			error: Object.assign(new Error('secret detail'), { code }),
			status: 500,
			message: '',
			event: {} as never
		});
		expect(said).toMatchObject(
			want
				? { code: want, message: expect.stringContaining('nothing was done') }
				: { message: expect.stringContaining('nothing was half done') }
		);
		expect(JSON.stringify(said)).not.toContain('secret detail');
	});
});

describe('check-data', () => {
	it.each<[string, string, RegExp]>([
		[
			'an event changed',
			"DROP TRIGGER events_stay; UPDATE events SET body = replace(body, 'maren', 'karen')",
			/does not follow|tree/
		],
		[
			'an event cut off',
			'DROP TRIGGER events_last; DELETE FROM events WHERE seq = (SELECT max(seq) FROM events)',
			/lists say|tree/
		],
		['a list that says otherwise', "UPDATE packets SET status = 'withdrawn'", /another status/],
		['a list that lacks a packet', 'PRAGMA foreign_keys = OFF; DELETE FROM packets', /missing from the lists/],
		['a file changed', "UPDATE blobs SET bytes = x'00' WHERE media = 'application/pdf'", /not what it was/],
		[
			'a plan changed',
			"UPDATE plans SET json = replace(json, 'Guest', 'Ghost')",
			/not the one that was sent|lists say/
		],
		['the tree changed', "UPDATE tree_nodes SET hash = 'x' WHERE level = 1 AND idx = 0", /tree/]
	])('finds %s', async (_, sql, says) => {
		const t = await testHouse();
		await sent(t, [['maren']]);
		await t.runner.drain();
		await signs(t, 'maren@post.example');
		expect(checkData(t.house.db)).toMatchObject({ packets: 1, faults: [] });
		t.house.db.exec(sql);
		expect(checkData(t.house.db).faults.join('\n')).toMatch(says);
	});
	it('and the database itself refuses to change what has happened', async () => {
		const t = await testHouse();
		await sent(t, [['maren']]);
		expect(() => t.house.db.exec("UPDATE events SET body = ''")).toThrow('never changed');
		expect(() => t.house.db.exec('DELETE FROM events')).toThrow('never deleted');
	});
});

describe('lists', () => {
	const all = async (): Promise<TestHouse> => {
		const t = await testHouse();
		await sent(t, [['maren'], ['odile']]);
		const { packet } = await sent(t, [['zoë']]);
		await t.runner.drain();
		ok(withdraw(t.house, t.odile, packet, 'no longer'));
		return t;
	};
	it('count, find by any word of title, person or reference, and keep to what has ended', async () => {
		const t = await all();
		expect(countOut(t.house, t.odile)).toBe(1);
		expect(packetPage(t.house, t.odile, { list: 'open' }).rows.map((r) => r.status)).toEqual(['out']);
		expect(
			packetPage(t.house, { ...t.odile, id: 'other' }, { list: 'open', filter: { sender: 'other' } }).rows
		).toEqual([]);
		expect(findPackets(t.house, t.odile, 'zoe')).toHaveLength(1);
		expect(findPackets(t.house, t.odile, 'GUEST mus')).toHaveLength(2);
		expect(records(t.house, t.odile, 'maren').rows).toEqual([]);
		expect(records(t.house, t.odile, '').rows).toHaveLength(1);
		for (const odd of ['"', "'; DROP TABLE packets", 'a AND', '*', 'title:x', '((('])
			expect(() => records(t.house, t.odile, odd)).not.toThrow();
	});
	it('say what needs whom', async () => {
		const t = await all();
		const kit = await account(t.house, 'Maren', 'maren@post.example', 'viewer');
		expect(needsYou(t.house, kit).map((n) => n.what)).toEqual(['turn']);
		expect(needsYou(t.house, t.odile)).toEqual([]);
		t.clock.now += 9 * 86_400_000;
		expect(needsYou(t.house, t.odile)).toMatchObject([{ what: 'ending', names: 'Maren' }]);
	});
});

it('exports every finished packet so that nobody is locked in', async () => {
	const t = await testHouse();
	const { reference } = await sent(t, [['maren']]);
	await t.runner.drain();
	await signs(t, 'maren@post.example');
	const target = mkdtempSync(path.join(tmpdir(), 'pellum-export-'));
	expect(exportAll(t.house.db, target).packets).toBe(1);
	expect(readdirSync(path.join(target, reference)).sort()).toEqual([
		'Engagement ' + reference + '.pdf',
		'Evidence sheet ' + reference + '.pdf',
		'answers.csv',
		'answers.json',
		'record.json'
	]);
	expect(JSON.parse(readFileSync(path.join(target, reference, 'record.json'), 'utf8')).reference).toBe(reference);
	expect(readdirSync(path.join(target, 'trust')).filter((name) => name.endsWith('.pem'))).toHaveLength(2);
	rmSync(target, { recursive: true });
});

it.each([
	['../../etc/passwd.pdf', 'passwd'],
	['C:\\temp\\Hire.PDF', 'Hire'],
	['a\u0000b\u202Egnp.pdf', 'abgnp'],
	['<b>x</b>.pdf', 'b>'],
	['.pdf', 'Document'],
	['x'.repeat(500), 'x'.repeat(200)]
])('a document called %j is called %j', (given, want) => expect(paperName(given)).toBe(want));

it('names the document in a refusal', async () => {
	const { house } = await testHouse();
	expect(await addPaper(house, 'Rota.pdf', Buffer.from('hello'))).toMatchObject({
		code: 'not-a-pdf',
		say: '“Rota”: This is neither a PDF, a Word document (DOCX), nor a picture (PNG, JPEG).'
	});
});
