import { expect, test } from '@playwright/test';
import Database from 'better-sqlite3';
import { spawnSync } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { doorName } from '../src/lib/server/door-name';
import { DOORS } from '../src/lib/server/doors';
import { ready, SEEDS, Server, session } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('demo').start();
});
test.afterAll(() => server.stop());

type Caller = 'nobody' | 'viewer' | 'preparer' | 'owner' | 'right signer' | 'another signer' | 'revoked link';
const OFFICE: Caller[] = ['nobody', 'viewer', 'preparer', 'owner'];
const SIGNERS: Caller[] = ['right signer', 'another signer', 'revoked link'];

/**
 * For each route of the office: who may look and who may do; for signers' routes: what their links are answered; 'key' comes with a key
 * or a signature of its own, which `server/api` and `server/hooks` are tested for.
 */
const WHO: Record<string, { look?: Caller[]; do?: Caller[] } | 'signer' | 'key'> = {
	'/': { look: ['viewer', 'preparer', 'owner'] },
	'/api/v1/[...path]': 'key',
	'/api/v1/openapi.json': { look: OFFICE },
	'/account/programs': { look: ['viewer', 'preparer', 'owner'], do: ['viewer', 'preparer', 'owner'] },
	'/account/programs/api': { look: ['viewer', 'preparer', 'owner'] },
	'/calendar/[token]': { look: OFFICE },
	'/stand-ins/receiver': 'key',
	'/sign-in': { look: OFFICE, do: OFFICE },
	'/sign-in/second': { look: OFFICE, do: OFFICE },
	'/sign-in/passkey': { do: OFFICE },
	'/sign-in/directory': { look: OFFICE },
	'/sign-in/directory/back': { look: OFFICE },
	'/forgot': { look: OFFICE, do: OFFICE },
	'/choose/[token]': { look: OFFICE, do: OFFICE },
	'/account': { look: ['viewer', 'preparer', 'owner'], do: ['viewer', 'preparer', 'owner'] },
	'/account/passkey': { do: ['viewer', 'preparer', 'owner'] },
	'/prove': { look: ['viewer', 'preparer', 'owner'], do: ['viewer', 'preparer', 'owner'] },
	'/prove/passkey': { do: ['viewer', 'preparer', 'owner'] },
	'/set-up': { look: OFFICE, do: OFFICE },
	'/sign-out': { do: ['viewer', 'preparer', 'owner'] },
	'/logo': { look: OFFICE },
	'/health': { look: OFFICE },
	'/live': { look: ['viewer', 'preparer', 'owner'] },
	'/find': { look: ['viewer', 'preparer', 'owner'] },
	'/desk': { look: ['viewer', 'preparer', 'owner'], do: ['preparer', 'owner'] },
	'/desk/rows': { look: ['viewer', 'preparer', 'owner'] },
	'/lists': { look: ['viewer', 'preparer', 'owner'], do: ['viewer', 'preparer', 'owner'] },
	'/records/rows': { look: ['viewer', 'preparer', 'owner'] },
	'/pace': { look: ['viewer', 'preparer', 'owner'] },
	'/pace/table': { look: ['viewer', 'preparer', 'owner'] },
	'/bench/new': { do: ['preparer', 'owner'] },
	'/bench/[id]': { look: ['preparer', 'owner'], do: ['preparer', 'owner'] },
	'/bench/[id]/save': { do: ['preparer', 'owner'] },
	'/bench/[id]/papers': { do: ['preparer', 'owner'] },
	'/bench/[id]/files': { do: ['preparer', 'owner'] },
	'/bench/[id]/rehearse': { look: ['preparer', 'owner'] },
	'/bench/[id]/send': { do: ['preparer', 'owner'] },
	'/bench/[id]/in-use': { do: ['preparer', 'owner'] },
	'/bench/[id]/pages': { do: ['preparer', 'owner'] },
	'/bench/[id]/recognise': { look: ['preparer', 'owner'] },
	'/bench/[id]/likely': { look: ['preparer', 'owner'] },
	'/bench/[id]/template': { do: ['preparer', 'owner'] },
	'/bench/[id]/correction': { do: ['preparer', 'owner'] },
	'/bench/[id]/schedule': { do: ['preparer', 'owner'] },
	'/bench/code': { do: ['preparer', 'owner'] },
	'/batches': { look: ['preparer', 'owner'] },
	'/batches/[id]': { look: ['preparer', 'owner'], do: ['preparer', 'owner'] },
	'/batches/[id]/rows': { look: ['preparer', 'owner'] },
	'/batches/[id]/documents': { do: ['preparer', 'owner'] },
	'/batches/[id]/rehearsal': { look: ['preparer', 'owner'] },
	'/batches/[id]/rehearse': { look: ['preparer', 'owner'] },
	'/batches/[id]/sheet': { look: ['preparer', 'owner'] },
	'/templates/[id]/sheet': { look: ['preparer', 'owner'], do: ['preparer', 'owner'] },
	'/intakes': { look: ['preparer', 'owner'], do: ['preparer', 'owner'] },
	'/intakes/[id]': { look: ['preparer', 'owner'], do: ['preparer', 'owner'] },
	'/intakes/[id]/save': { do: ['preparer', 'owner'] },
	'/intakes/[id]/people': { do: ['preparer', 'owner'] },
	'/intakes/[id]/cases': { look: ['preparer', 'owner'] },
	'/intakes/[id]/code': { look: ['preparer', 'owner'] },
	'/intakes/[id]/answers': { look: ['preparer', 'owner'] },
	'/intakes/[id]/rows/[follow]': { look: ['preparer', 'owner'] },
	'/intakes/[id]/rehearse': { look: ['preparer', 'owner'] },
	// the word in the address, or a case's own secret: tried in intake.spec
	'/i/[slug]': 'key',
	'/i/[slug]/begin': 'key',
	'/i/[slug]/language': 'key',
	'/i/[slug]/[token]': 'key',
	'/i/[slug]/[token]/keep': 'key',
	'/i/[slug]/[token]/code': 'key',
	'/i/[slug]/[token]/hand-in': 'key',
	'/calendar': { look: ['viewer', 'preparer', 'owner'] },
	'/packets/[id]/link': { do: ['preparer', 'owner'] },
	'/papers/[digest]': { look: ['viewer', 'preparer', 'owner'] },
	'/papers/[digest]/looks': { look: ['preparer', 'owner'], do: ['preparer', 'owner'] },
	'/papers/[digest]/reading': { look: ['viewer', 'preparer', 'owner'] },
	'/papers/[digest]/source': { look: ['viewer', 'preparer', 'owner'] },
	'/papers/[digest]/thumbnail': { look: ['viewer', 'preparer', 'owner'] },
	'/pictures/[digest]': { look: ['viewer', 'preparer', 'owner'] },
	'/packets/[id]': { look: ['viewer', 'preparer', 'owner'], do: ['preparer', 'owner'] },
	'/packets/[id]/copies/[what]': { look: ['viewer', 'preparer', 'owner'] },
	'/packets/[id]/identity/[person]': { look: ['preparer', 'owner'], do: ['preparer', 'owner'] },
	'/packets/[id]/identity/[person]/zip': { do: ['preparer', 'owner'] },
	'/packets/[id]/identity/[person]/[try]/[side]': { look: ['preparer', 'owner'] },
	'/packets/[id]/paper/[person]': { look: ['viewer', 'preparer', 'owner'], do: ['preparer', 'owner'] },
	'/packets/[id]/paper/[person]/pdf': { do: ['preparer', 'owner'] },
	'/packets/[id]/paper/[person]/pictures': { do: ['preparer', 'owner'] },
	'/packets/[id]/paper/[person]/pictures/[picture]': {
		look: ['viewer', 'preparer', 'owner'],
		do: ['preparer', 'owner']
	},
	'/packets/[id]/sign': { do: ['viewer', 'preparer', 'owner'] },
	'/packets/[id]/template': { do: ['preparer', 'owner'] },
	'/people': { look: ['viewer', 'preparer', 'owner'], do: ['owner'] },
	'/records/due': { look: ['preparer', 'owner'] },
	'/records/holds': { look: ['preparer', 'owner'], do: ['preparer', 'owner'] },
	'/records/gone': { look: ['preparer', 'owner'] },
	'/records/certificate': { look: ['preparer', 'owner'] },
	'/records/compare': { look: ['viewer', 'preparer', 'owner'] },
	'/records/dispose': { do: ['preparer', 'owner'] },
	'/records/do': { do: ['preparer', 'owner'] },
	'/records/download': { do: ['viewer', 'preparer', 'owner'] },
	'/settings/keeping': { look: ['viewer', 'preparer', 'owner'], do: ['owner'] },
	'/people/held': { look: ['owner'], do: ['owner'] },
	'/packets/[id]/amend': { do: ['preparer', 'owner'] },
	'/packets/[id]/holds': { look: ['viewer', 'preparer', 'owner'] },
	'/bench/[id]/changes': { do: ['preparer', 'owner'] },
	'/bench/[id]/bin': { do: ['preparer', 'owner'] },
	'/stand-ins/witness': { look: ['viewer', 'preparer', 'owner'] },
	'/verify': { look: OFFICE },
	'/verify/page': { do: OFFICE },
	'/verify/root': { look: OFFICE },
	'/verify/consistency': { look: OFFICE },
	'/records': { look: ['viewer', 'preparer', 'owner'] },
	'/settings': { look: ['viewer', 'preparer', 'owner'], do: ['owner'] },
	'/settings/holidays': { look: ['viewer', 'preparer', 'owner'], do: ['owner'] },
	'/settings/identity': { look: ['viewer', 'preparer', 'owner'], do: ['owner'] },
	'/settings/paper': { look: ['viewer', 'preparer', 'owner'], do: ['owner'] },
	'/settings/outside': { look: ['viewer', 'preparer', 'owner'], do: ['owner'] },
	'/settings/accounts': { look: ['owner'], do: ['owner'] },
	'/settings/folders': { look: ['owner'], do: ['owner'] },
	'/settings/signing-in': { look: ['owner'], do: ['owner'] },
	'/settings/keys': { look: ['owner'], do: ['owner'] },
	'/settings/backups': { look: ['owner'], do: ['owner'] },
	'/settings/record': { look: ['owner'] },
	'/settings/about': { look: ['viewer', 'preparer', 'owner'] },
	'/settings/trust/[name]': { look: ['viewer', 'preparer', 'owner'] },
	'/stand-ins': { look: ['viewer', 'preparer', 'owner'], do: ['preparer', 'owner'] },
	'/stand-ins/mailbox/[id]': { look: ['viewer', 'preparer', 'owner'] },
	'/stand-ins/mailbox/[id]/letter': { look: ['viewer', 'preparer', 'owner'] },
	'/stand-ins/notary': { look: ['viewer', 'preparer', 'owner'], do: ['preparer', 'owner'] },
	'/stand-ins/notary/[id]': { look: ['viewer', 'preparer', 'owner'], do: ['preparer', 'owner'] },
	'/stand-ins/notary/[id]/journal/[as]': { look: ['viewer', 'preparer', 'owner'] },
	'/stand-ins/time-stamp': { do: ['owner'] },
	'/templates': { look: ['preparer', 'owner'], do: ['preparer', 'owner'] },
	'/templates/[id]/plan': { look: ['preparer', 'owner'] },
	'/templates/[id]/send': { do: ['preparer', 'owner'] },
	'/templates/[id]/use': { look: ['preparer', 'owner'] },
	'/templates/join': { look: ['preparer', 'owner'] },
	'/templates/joined': { do: ['preparer', 'owner'] },
	'/templates/recent': { look: ['preparer', 'owner'] },
	'/texts': { look: ['preparer', 'owner'], do: ['preparer', 'owner'] },
	'/s/[token]': 'signer',
	'/s/[token]/answers': 'signer',
	'/s/[token]/code': 'signer',
	'/s/[token]/consent': 'signer',
	'/s/[token]/guest': 'signer',
	'/s/[token]/hand-over': 'signer',
	'/s/[token]/identity': 'signer',
	'/s/[token]/paper/pdf': 'signer',
	'/s/[token]/paper/pictures': 'signer',
	'/s/[token]/paper/pictures/[id]': 'signer',
	'/s/[token]/questions': 'signer',
	'/s/[token]/language': 'signer',
	'/s/[token]/reading/[paper]': 'signer',
	'/s/[token]/changed': 'signer',
	'/s/[token]/room': 'signer',
	'/s/[token]/room/calendar': 'signer',
	'/s/[token]/room/do': 'signer',
	'/s/[token]/room/now': 'signer',
	'/s/[token]/seen': 'signer',
	'/s/[token]/stumbled': 'signer',
	'/s/[token]/told': 'signer',
	'/s/[token]/wording': 'signer',
	'/s/[token]/copies/[what]': 'signer',
	'/s/[token]/decline': 'signer',
	'/s/[token]/files': 'signer',
	'/s/[token]/files/[digest]': 'signer',
	'/s/[token]/finish': 'signer',
	'/s/[token]/papers/[paper]': 'signer',
	'/s/[token]/picture': 'signer',
	'/s/[token]/pictures/[digest]': 'signer'
};

/** The routes of the build that is served, not of the source. */
async function builtRoutes(): Promise<string[]> {
	const file = path.resolve('.svelte-kit/output/server/manifest-full.js');
	const { manifest } = (await import(pathToFileURL(file).href)) as {
		manifest: { _: { routes: { id: string; page: unknown; endpoint: unknown }[] } };
	};
	return manifest._.routes.filter((r) => r.page || r.endpoint).map((r) => doorName(r.id));
}

/** Asks as a program does, without a browser's memory of cookies. */
function ask(url: string, doing: boolean | 'PUT' | 'DELETE', cookie = '', origin = server.origin): Promise<Response> {
	return fetch(url, {
		method: doing === true ? 'POST' : doing || 'GET',
		headers: { ...(cookie && { cookie }), origin, accept: 'application/json', 'content-type': 'application/json' },
		...(doing && { body: '{}' }),
		redirect: 'manual'
	});
}

/** Sends a form as a page does. */
function send(url: string, form: Record<string, string>, cookie = ''): Promise<Response> {
	return fetch(url, {
		method: 'POST',
		headers: { ...(cookie && { cookie }), origin: server.origin, accept: 'text/html' },
		body: new URLSearchParams(form),
		redirect: 'manual'
	});
}
const PASS = { email: 'odile@brindlevale.example', password: 'quince-lantern-orbit' };

/** By which method a route does what it does. */
const how = (route: string, does: boolean) =>
	route.endsWith('/answers') ? 'PUT' : route.endsWith('/pictures/[id]') ? 'DELETE' : does;

const fill = (route: string, token = 't'.repeat(43)) =>
	route
		.replace('[token]', token)
		.replace('[digest]', '0'.repeat(64))
		.replace('[what]', 'evidence')
		.replace('[name]', 'x')
		.replace('[paper]', 'paper')
		.replace('[follow]', 'x')
		.replace('[person]', 'x')
		.replace('[try]', 'x')
		.replace('[side]', 'front')
		.replace('[as]', 'csv')
		.replace('[picture]', 'x')
		.replace('[id]', 'x');

test('every route of the build has a row, here and in the server’s own table', async () => {
	const routes = (await builtRoutes()).sort();
	expect(routes).toEqual(Object.keys(WHO).sort());
	expect(Object.keys(DOORS).sort()).toEqual(routes);
});

test('each kind of office caller passes exactly their doors', async () => {
	const cookies: Partial<Record<Caller, string>> = { nobody: '' };
	for (const [caller, who] of [
		['viewer', 'ruben'],
		['preparer', 'tamsin'],
		['owner', 'odile']
	] as const)
		cookies[caller] = await session(server, who);
	for (const [route, row] of Object.entries(WHO)) {
		if (row === 'signer' || row === 'key') continue;
		for (const doing of [false, true])
			for (const caller of OFFICE) {
				// signing out would end the session that the rows after it need; it is tried last, below
				if (route === '/sign-out' && doing && caller !== 'nobody') continue;
				if (route === '/live' && !doing && caller !== 'nobody') continue;
				const may = (doing ? row.do : row.look)?.includes(caller) ?? false;
				const response = await ask(server.origin + fill(route), doing, cookies[caller]);
				const shut = [401, 403].includes(response.status);
				// what may be asked may still be refused for what it asks; 405 and 415 come after the door
				expect(shut, `${caller} ${doing ? 'does' : 'looks at'} ${route}: ${response.status}`).toBe(!may);
			}
	}
	const live = await new Promise<number>((done) => {
		const stop = new AbortController();
		void fetch(`${server.origin}/live`, { headers: { cookie: cookies.viewer! }, signal: stop.signal }).then((r) => {
			done(r.status);
			stop.abort();
		});
	});
	expect(live).toBe(200);
	for (const caller of ['viewer', 'preparer', 'owner'] as const) {
		expect((await ask(`${server.origin}/sign-out`, true, cookies[caller])).status).toBe(303);
		expect((await ask(`${server.origin}/desk`, false, cookies[caller])).status).toBe(401);
	}
});

test('a link opens what is its own, another’s link opens another’s, a revoked one nothing', async () => {
	const db = new Database(path.join(server.env['PELLUM_DATA']!, 'pellum.db'), { readonly: true });
	const linkFor = (to: string) =>
		db
			.prepare<[string], { text: string }>(
				"SELECT text FROM mailbox WHERE recipient = ? AND subject LIKE 'To %' ORDER BY id DESC"
			)
			.get(to)!
			.text.match(/\/s\/([\w-]{43})/)![1]!;
	const tokens: Partial<Record<Caller, string>> = {
		'right signer': linkFor('g.aldous@post.example'),
		'another signer': linkFor('t.marlow@post.example'),
		'revoked link': linkFor('n.hartigan@post.example')
	};
	const id = db.prepare<[], { id: string }>("SELECT id FROM packets WHERE title = 'Hall hire, Staunton Parish'").get()!
		.id;
	db.close();
	const cookie = await session(server);
	const corrected = await send(
		`${server.origin}/packets/${id}?/correct`,
		{ person: 'guest', email: 'new.keeper@post.example' },
		cookie
	);
	expect(corrected.ok).toBe(true);

	const title = async (caller: Caller) =>
		(await (await fetch(`${server.origin}/s/${tokens[caller]}`)).text()).match(/<title>(.*?)<\/title>/)?.[1];
	expect(await title('right signer')).toContain('Corn Exchange');
	expect(await title('another signer')).toContain('Tess Marlow');
	for (const route of Object.keys(WHO).filter((r) => WHO[r] === 'signer')) {
		const { look } = DOORS[route]!;
		for (const caller of SIGNERS) {
			const url = server.origin + fill(route, tokens[caller]);
			const response = await ask(url, how(route, look === 'nobody'));
			if (caller === 'revoked link') expect(response.status, `${route} ${await response.text()}`).toBe(410);
			// whoever has nothing to do before a notary is led to their own page
			else
				expect(route === '/s/[token]/room' ? [303] : [200, 404, 422], `${caller} ${route}`).toContain(response.status);
			// the other way of asking is shut for everybody
			expect((await ask(url, look !== 'nobody')).status).toBe(403);
		}
		const nobody = await ask(server.origin + fill(route), how(route, look === 'nobody'));
		expect(nobody.status, route).toBe(404);
	}
	// one signer's link gives no document of another's packet, and no office page
	const papers = await fetch(`${server.origin}/s/${tokens['right signer']}/papers/paper`);
	expect(papers.headers.get('content-type')).toBe('application/pdf');
	expect((await ask(`${server.origin}/packets/${id}`, false, `pellum_session=${tokens['right signer']}`)).status).toBe(
		401
	);
});

test('nothing is done for a page of another origin', async () => {
	const cookie = await session(server);
	for (const [route, row] of Object.entries(WHO)) {
		if (row === 'key' || (row !== 'signer' && !row.do)) continue;
		for (const origin of ['https://elsewhere.example', 'null', '']) {
			const response = await ask(server.origin + fill(route), true, cookie, origin);
			expect([response.status, (await response.json()).code], route).toEqual([403, 'other-origin']);
		}
	}
});

test('pages carry a policy without inline scripts, and cookies stay on this site', async () => {
	const response = await fetch(`${server.origin}/sign-in`);
	const policy = response.headers.get('content-security-policy')!;
	expect(policy).toContain("script-src 'self'");
	expect(policy.match(/script-src[^;]*/)![0]).not.toContain('unsafe-inline');
	expect(policy).toContain("frame-ancestors 'none'");
	expect(response.headers.get('x-content-type-options')).toBe('nosniff');
	const signedIn = await send(`${server.origin}/sign-in`, PASS);
	expect(signedIn.headers.get('set-cookie')).toMatch(/HttpOnly.*SameSite=Lax/i);
	for (const to of ['//evil.example', '/\\evil.example', 'https://evil.example'])
		expect((await send(`${server.origin}/sign-in?to=${encodeURIComponent(to)}`, PASS)).headers.get('location')).toBe(
			'/desk'
		);
});

function goodLink(): string {
	const db = new Database(path.join(server.env['PELLUM_DATA']!, 'pellum.db'), { readonly: true });
	const { text } = db
		.prepare<[], { text: string }>(
			"SELECT text FROM mailbox WHERE recipient = 'g.aldous@post.example' ORDER BY id DESC"
		)
		.get()!;
	db.close();
	return text.match(/\/s\/([\w-]{43})/)![1]!;
}

test('guessing links is stopped after a while, and shuts nobody out who has a good one', async () => {
	let last = 0;
	for (let i = 0; i < 80 && last !== 429; i++)
		last = (await fetch(`${server.origin}/s/${String(i).padStart(43, 'g')}`)).status;
	expect(last).toBe(429);
	expect((await fetch(`${server.origin}/s/${goodLink()}`)).status).toBe(200);
});

test('of 150 passwords at once ten are judged, the right one among the others too; nobody else waits', async () => {
	const who = `${Math.random().toString(36).slice(2)}@brindlevale.example`;
	const tried = (email: string, password: string) =>
		fetch(`${server.origin}/sign-in`, {
			method: 'POST',
			body: new URLSearchParams({ email, password }),
			headers: { origin: server.origin, accept: 'application/json' }
		}).then(async (response) => (await response.json()).status as number);
	const looks: number[] = [];
	let over = false;
	const looking = (async () => {
		while (!over) {
			const start = performance.now();
			await fetch(`${server.origin}/pellum.svg`);
			looks.push(performance.now() - start);
			await new Promise((go) => setTimeout(go, 20));
		}
	})();
	const statuses = await Promise.all(Array.from({ length: 150 }, (_, i) => tried(who, `guess number ${i}`)));
	over = true;
	await looking;
	expect(statuses.filter((status) => status === 401).length).toBeLessThanOrEqual(10);
	expect(statuses.filter((status) => status === 429).length).toBeGreaterThanOrEqual(140);
	expect(Math.max(...looks)).toBeLessThan(2000);
});

test('a real Pellum starts with a set-up page for its first owner, and not with the demo’s secrets', async ({
	page
}) => {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-real-'));
	const real = new Server({
		PELLUM_DEMO: '',
		PELLUM_DATA: folder,
		PELLUM_KEY: 'a secret of this test, long enough to do'
	});
	for (const [key, data, says] of [
		['', folder, 'PELLUM_KEY'],
		['pellum-demo-key-published-and-worthless', folder, 'demo'],
		['a secret of this test, long enough to do', path.resolve(SEEDS, 'demo'), 'demo']
	]) {
		const { status, stderr } = spawnSync(process.execPath, ['scripts/serve.mjs'], {
			env: { ...real.env, PELLUM_KEY: key, PELLUM_DATA: data },
			encoding: 'utf8',
			timeout: 120_000
		});
		expect(status).toBe(1);
		expect(stderr).toContain(says);
	}
	await real.start();
	for (const [more, says] of [
		[
			{ PELLUM_DATA: mkdtempSync(path.join(tmpdir(), 'pellum-other-')) },
			`Port ${real.port} is taken by another program. Set PORT`
		],
		[{ PORT: String(real.port + 7) }, 'is held by another Pellum']
	] as const) {
		const { status, stderr } = spawnSync(process.execPath, ['scripts/serve.mjs'], {
			env: { ...real.env, ...more },
			encoding: 'utf8',
			timeout: 120_000
		});
		expect(status).toBe(1);
		expect(stderr).toContain(says);
		expect(stderr).not.toContain('    at ');
	}
	await page.goto(real.origin);
	await ready(page);
	await expect(page.getByRole('heading', { name: 'Set up this Pellum' })).toBeVisible();
	await page.getByLabel('Set-up code').fill('ABCDE-FGHJK');
	await page.getByLabel('Organisation').fill('Tarrow Players');
	await page.getByLabel('Your name').fill('Ada Quill');
	await page.getByLabel('Your e-mail').fill('ada@tarrow.example');
	await page.getByLabel(/Password/).fill('marmalade under seven bridges');
	await page.getByLabel('Time zone').fill('Europe/Nowhere');
	await page.getByRole('button', { name: 'Begin' }).click();
	await expect(page.getByRole('alert')).toContainText('not a time zone');
	await expect(page.getByLabel('Your name')).toHaveValue('Ada Quill');
	await page.getByLabel('Time zone').fill('Europe/London');
	await page.getByLabel(/Password/).fill('marmalade under seven bridges');
	await page.getByRole('button', { name: 'Begin' }).click();
	await expect(page.getByRole('alert')).toContainText('not the code printed');
	const code = /set-up code is (\S+)/.exec(real.output)![1]!;
	await page.getByLabel('Set-up code').fill(code);
	await page.getByLabel(/Password/).fill('marmalade under seven bridges');
	await page.getByRole('button', { name: 'Begin' }).click();
	await page.getByRole('heading', { name: 'Sign in' }).waitFor();
	await ready(page);
	await page.getByLabel('E-mail').fill('ada@tarrow.example');
	await page.getByLabel('Password').fill('marmalade under seven bridges');
	await page.getByRole('button', { name: 'Sign in' }).click();
	await expect(page.getByText('Nothing is out.')).toBeVisible();
	await page.goto(`${real.origin}/set-up`);
	await expect(page).toHaveURL(/desk/);
	await real.stop();
	rmSync(folder, { recursive: true, force: true });
});

test('verify can’t judge without somebody to trust, and export writes every finished packet', async () => {
	const target = mkdtempSync(path.join(tmpdir(), 'pellum-out-'));
	expect(server.run('scripts/export.ts', target)).toMatchObject({ status: 0 });
	const folders = readdirSync(target).filter((name) => name.startsWith('P-'));
	expect(folders.length).toBeGreaterThan(30);
	const full = folders
		.map((f) => path.join(target, f))
		.find((f) => readdirSync(f).includes('answers.csv') && readdirSync(f).length === 5)!;
	const copy = path.join(
		full,
		readdirSync(full).find((name) => name.startsWith('Evidence'))!
	);
	expect(server.run('scripts/verify.ts', copy, '--json')).toMatchObject({
		status: 0,
		out: expect.stringContaining('"genuine"')
	});
	// beside the house that made it, it is told that it is kept there; a copy with a byte more is not
	expect(server.run('scripts/verify.ts', copy).out).toContain('Byte for byte a copy that this Pellum keeps.');
	const longer = path.join(target, 'longer.pdf');
	writeFileSync(longer, Buffer.concat([readFileSync(copy), Buffer.from('\n')]));
	expect(server.run('scripts/verify.ts', longer).out).toContain('No copy of exactly these bytes is kept');
	const bare = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/verify.ts', copy], {
		env: { ...server.env, PELLUM_DATA: '/nonexistent' }
	});
	expect(bare.status).toBe(2);
	const given = spawnSync(
		process.execPath,
		[
			'--import',
			'tsx',
			'scripts/verify.ts',
			copy,
			'--trust',
			path.join(target, 'trust/organisation-root.pem'),
			'--trust',
			path.join(target, 'trust/time-stamp-root.pem')
		],
		{ env: { ...server.env, PELLUM_DATA: '/nonexistent' } }
	);
	expect(given.status).toBe(0);
	expect(server.run('scripts/verify.ts', '/nonexistent.pdf').status).toBe(2);
	expect(server.run('scripts/verify.ts', copy, '--trust', 'README.md')).toMatchObject({
		status: 2,
		out: expect.stringContaining('README.md is not a certificate (PEM)')
	});
	// the same root in another form: roots are read as text
	const der = path.join(target, 'root.der');
	writeFileSync(der, new X509Certificate(readFileSync(path.join(target, 'trust/time-stamp-root.pem'))).raw);
	expect(server.run('scripts/verify.ts', copy, '--trust', der)).toMatchObject({
		status: 2,
		out: expect.stringContaining('is not a certificate (PEM)')
	});
	expect(server.run('scripts/verify.ts', 'README.md').status).toBe(1);
	rmSync(target, { recursive: true });
});
