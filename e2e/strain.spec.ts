import { expect, test } from '@playwright/test';
import Database from 'better-sqlite3';
import { request as ask } from 'node:http';
import { connect } from 'node:net';
import path from 'node:path';
import { PASSWORD } from '../demo/password';
import { Server, session } from './kit/server';

/** What must not stop a server: large bodies, slow connections, locks, and much at once. Plain requests, no browser. */

const server = new Server();
let cookie: string;
test.beforeAll(async () => {
	await server.seed('accounts').start();
	cookie = await session(server);
});
test.afterAll(() => server.stop());

const headers = (more: Record<string, string> = {}) => ({ cookie, origin: server.origin, ...more });

async function newDraft(): Promise<string> {
	const made = await fetch(`${server.origin}/bench/new`, { method: 'POST', headers: headers(), redirect: 'manual' });
	return made.headers.get('location')!.split('/').pop()!;
}

const save = (id: string, revision: number, title: string) =>
	fetch(`${server.origin}/bench/${id}/save`, {
		method: 'PUT',
		headers: headers({ 'content-type': 'application/json' }),
		body: JSON.stringify({
			revision,
			plan: { title, message: '', days: null, papers: [], attachments: [], people: [], stops: [], fields: [] }
		})
	});

test('a body is refused by its head, by what its door takes, before any of it is read', async () => {
	const say = (path: string, length: number, method = 'POST', more: Record<string, string> = {}) =>
		new Promise<{ status: number; body: string; ms: number }>((done, fail) => {
			const start = performance.now();
			const request = ask(
				`${server.origin}${path}`,
				{ method, headers: headers({ 'content-length': String(length), ...more }) },
				(response) => {
					let body = '';
					response.on('data', (chunk: Buffer) => (body += chunk.toString()));
					response.on('end', () => {
						done({ status: response.statusCode!, body, ms: performance.now() - start });
						request.destroy();
					});
				}
			);
			request.on('error', fail);
			// a few bytes of the many: an answer shows that nobody waits for the rest
			request.write('{"');
		});
	const id = await newDraft();
	for (const [path, length, method] of [
		[`/bench/${id}/save`, 3 * 1024 * 1024, 'PUT'],
		[`/bench/${id}/papers?name=x.pdf`, 60 * 1024 * 1024, 'POST'],
		[`/bench/${id}/send`, 300 * 1024, 'POST'],
		['/texts', 300 * 1024, 'POST'],
		['/sign-in', 300 * 1024, 'POST'],
		[`/s/${'x'.repeat(43)}/finish`, 2 * 1024 * 1024, 'POST'],
		['/stand-ins/time-stamp', 20_000, 'POST']
	] as const) {
		const { status, body } = await say(path, length, method);
		expect([path, status]).toEqual([path, 413]);
		expect(JSON.parse(body)).toMatchObject({ code: 'file-too-large' });
	}
	const untold = await new Promise<number>((done) => {
		const request = ask(
			`${server.origin}/texts`,
			{ method: 'POST', headers: headers({ 'transfer-encoding': 'chunked' }) },
			(response) => {
				done(response.statusCode!);
				request.destroy();
			}
		);
		request.write('{');
	});
	expect(untold).toBe(411);
});

test('who is slow is hung up on: a head within ten seconds, a body at a pace', async () => {
	const closed = (said: string, drip?: string) =>
		new Promise<number>((done) => {
			const start = performance.now();
			const socket = connect(server.port, '127.0.0.1');
			socket.write(said);
			const more = drip ? setInterval(() => socket.write(drip), 1000) : undefined;
			socket.on('error', () => {});
			socket.on('data', () => {});
			socket.on('close', () => {
				clearInterval(more);
				done((performance.now() - start) / 1000);
			});
		});
	const [nothing, head, body] = await Promise.all([
		closed(''),
		closed('GET / HTTP/1.1\r\nHost: x\r\n', 'X-a: b\r\n'),
		closed(
			`POST /sign-in HTTP/1.1\r\nHost: 127.0.0.1:${server.port}\r\nOrigin: ${server.origin}\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: 1000\r\n\r\n`,
			'a'
		)
	]);
	expect(nothing).toBeLessThan(15);
	expect(head).toBeLessThan(15);
	expect(body).toBeLessThan(30);
	expect((await fetch(`${server.origin}/sign-in`)).status).toBe(200);
});

test('a lock on the database holds up no reader, and what changes something waits for it', async () => {
	const id = await newDraft();
	const other = new Database(path.join(server.env['PELLUM_DATA']!, 'pellum.db'));
	other.exec('BEGIN IMMEDIATE');
	const start = performance.now();
	const saving = save(id, 1, 'Loan');
	const looks: number[] = [];
	// as long as a lock is waited for at most is five seconds: on a slow machine there are fewer looks
	for (let i = 0; i < 20 && (i < 3 || performance.now() - start < 2500); i++) {
		const before = performance.now();
		expect((await fetch(`${server.origin}/desk`, { headers: headers() })).status).toBe(200);
		looks.push(performance.now() - before);
		await new Promise((go) => setTimeout(go, 50));
	}
	other.exec('ROLLBACK');
	const saved = await saving;
	expect(saved.status).toBe(200);
	expect(await saved.json()).toMatchObject({ revision: 2 });
	expect(performance.now() - start).toBeGreaterThan(1000);
	// with the lock waited for on the thread, each look would take seconds
	expect(looks.sort((a, b) => a - b)[looks.length >> 1]!).toBeLessThan(1000);

	other.exec('BEGIN IMMEDIATE');
	const long = await save(id, 2, 'Loan of a violin');
	expect(long.status).toBe(503);
	expect(long.headers.get('retry-after')).toBe('1');
	expect(await long.json()).toMatchObject({ code: 'busy', say: expect.stringContaining('tried again') });
	other.exec('ROLLBACK');
	other.close();
	expect((await save(id, 2, 'Loan of a violin')).status).toBe(200);
});

test('every answer has its headers, also early refusals and static files', async () => {
	for (const [path, init] of [
		['/pellum.svg', {}],
		['/nothing-here', {}],
		['/desk', { redirect: 'manual' }],
		['/texts', { method: 'POST' }],
		['/sign-in', {}]
	] as const) {
		const response = await fetch(server.origin + path, init);
		expect([path, response.headers.get('x-content-type-options')]).toEqual([path, 'nosniff']);
		expect([path, response.headers.get('x-frame-options')]).toEqual([path, 'DENY']);
	}
});

test('a caller’s address is the connection’s; only where a proxy is told of, the one that it names', async () => {
	const addresses = async (of: Server): Promise<string[]> => {
		await fetch(`${of.origin}/sign-in`, {
			method: 'POST',
			body: new URLSearchParams({ email: 'odile@brindlevale.example', password: 'not hers at all' }),
			headers: { origin: of.origin, 'x-forwarded-for': '198.51.100.77' }
		});
		return of.reading((db) =>
			db.prepare<[], string>("SELECT body ->> '$.address' FROM office_events ORDER BY n DESC LIMIT 1").pluck().all()
		);
	};
	expect(await addresses(server)).toEqual(['127.0.0.1']);
	const behind = await new Server({ ADDRESS_HEADER: 'X-Forwarded-For', XFF_DEPTH: '1' }).seed('accounts').start();
	expect(await addresses(behind)).toEqual(['198.51.100.77']);
	await behind.stop();
});

test('on https: HSTS on every answer, and cookies over TLS alone', async () => {
	const safe = new Server();
	safe.env['ORIGIN'] = 'https://agreements.example';
	await safe.seed('accounts').start();
	for (const path of ['/sign-in', '/pellum.svg', '/desk'])
		expect(
			(await fetch(safe.origin + path, { redirect: 'manual' })).headers.get('strict-transport-security')
		).toContain('max-age=31536000');
	const entered = await fetch(`${safe.origin}/sign-in`, {
		method: 'POST',
		body: new URLSearchParams({ email: 'odile@brindlevale.example', password: PASSWORD }),
		headers: { origin: 'https://agreements.example', accept: 'text/html' },
		redirect: 'manual'
	});
	expect(entered.headers.get('set-cookie')).toMatch(/pellum_session=.*HttpOnly; Secure; SameSite=Lax/);
	await safe.stop();
});

test('a watcher is told how it is; what fails has a number, on the page and in the log', async () => {
	const watched = await new Server({ PELLUM_WATCHER: 'a word of the watcher' }).seed('accounts').start();
	expect(await (await fetch(`${watched.origin}/health`)).json()).toEqual({ ready: true });
	const headers = { authorization: 'Bearer a word of the watcher' };
	expect(await (await fetch(`${watched.origin}/health`, { headers })).json()).toMatchObject({
		ready: true,
		lanes: { seal: { waiting: 0 } }
	});
	watched.writing((db) => db.exec('ALTER TABLE packet_counts RENAME TO packet_counts_gone'));
	const cookie = await session(watched);
	const broken = await fetch(`${watched.origin}/desk`, { headers: { cookie, accept: 'text/html' } });
	expect(broken.status).toBe(500);
	const number = /font-mono[^>]*>([0-9a-f]{8})</.exec(await broken.text())?.[1];
	expect(number).toBe(broken.headers.get('x-request-id'));
	await expect.poll(() => watched.output).toContain(`"request":"${number}"`);
	expect(watched.output).not.toContain('brindlevale.example');
	await watched.stop();
});
