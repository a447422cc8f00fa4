import { expect, test, type Page } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { KINDS_OF_HOOKS } from '../src/lib/server/hooks/kinds';
import { clean } from './kit/axe';
import { answerFault, type Described } from './kit/described';
import { pressInList } from './kit/parts';
import { pdf } from './kit/pdfs';
import { linkFromMail, ready, Server, signIn } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('demo').start();
});
const begun: ChildProcess[] = [];
test.afterAll(async () => {
	for (const child of begun) child.kill();
	await server.stop();
});

/** Makes a key on the page that is open; what is shown this once. */
async function makeKey(page: Page, name: string, rights: string[]): Promise<string> {
	await page.getByLabel('Called').fill(name);
	for (const right of rights) await page.getByRole('checkbox', { name: new RegExp(`^${right}:`) }).click();
	await page.getByRole('button', { name: 'Make a key' }).click();
	const shown = page.locator('[data-secret]');
	await expect(shown).toHaveText(/^pellum-/);
	return (await shown.textContent())!;
}

/** Has an address told of these alone; the secret. */
async function makeHook(page: Page, address: string, kinds: string[]): Promise<string> {
	await page.getByLabel('Address', { exact: true }).fill(address);
	for (const kind of KINDS_OF_HOOKS)
		if (!kinds.includes(kind)) await page.getByRole('checkbox', { name: kind, exact: true }).click();
	await page.getByRole('button', { name: 'Have it told' }).click();
	const shown = page.locator('[data-secret]');
	await expect(shown).toHaveText(/^whsec_/);
	return (await shown.textContent())!;
}

/** What the server says of itself; every answer is held against it. */
let described: Promise<Described>;

async function judge(method: string, at: string, status: number, body: unknown) {
	described ??= fetch(`${server.origin}/api/v1/openapi.json`).then((response) => response.json());
	const description = await described;
	const pieces = at.split('?')[0]!.split('/');
	const path = Object.keys(description.paths).find((one) => {
		const wanted = one.split('/');
		return wanted.length === pieces.length && wanted.every((piece, i) => piece.startsWith('{') || piece === pieces[i]);
	})!;
	const wrong = answerFault(description, method, path, status, body);
	expect(wrong, `${method} ${at}: ${JSON.stringify(body)}`).toBeUndefined();
}

const ask = async (key: string, method: string, at: string, body?: object | Uint8Array) => {
	const response = await fetch(`${server.origin}/api/v1${at}`, {
		method,
		headers: {
			Authorization: `Bearer ${key}`,
			...(body && { 'Content-Type': body instanceof Uint8Array ? 'application/pdf' : 'application/json' })
		},
		...(body && { body: body instanceof Uint8Array ? Buffer.from(body) : JSON.stringify(body) })
	});
	const answer = await response.json();
	await judge(method, at, response.status, answer);
	return { status: response.status, headers: response.headers, body: answer };
};

/** Starts one of the examples; resolves with what it said and its exit code when it has ended. */
function run(env: NodeJS.ProcessEnv, file: string, ...args: string[]) {
	const child = spawn(process.execPath, [path.resolve('examples', file), ...args], { env: { ...process.env, ...env } });
	begun.push(child);
	const said = { text: '' };
	child.stdout.on('data', (chunk: Buffer) => (said.text += chunk.toString()));
	child.stderr.on('data', (chunk: Buffer) => (said.text += chunk.toString()));
	const ended = new Promise<number | null>((done) => child.on('exit', done));
	return { said, ended };
}

test('keys, hooks and a calendar are made under one’s account; the API is read there', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/account`);
	await page.getByRole('link', { name: /Other programs/ }).click();
	await ready(page);
	await page.getByLabel('Called').fill('no rights');
	await page.getByRole('button', { name: 'Make a key' }).click();
	await expect(page.getByText('Say what the key may do.')).toBeVisible();
	await expect(page.getByLabel('Called')).toHaveValue('no rights');
	const key = await makeKey(page, 'looks only', ['look']);
	expect((await ask(key, 'GET', '/packets')).status).toBe(200);
	const refused = await ask(key, 'POST', '/packets', { template: '0'.repeat(23) });
	expect([refused.status, refused.body.code]).toEqual([403, 'no-right']);
	expect(refused.headers.get('content-type')).toBe('application/problem+json');

	await page.getByLabel('Address', { exact: true }).fill('https://192.168.0.7/told');
	await page.getByRole('button', { name: 'Have it told' }).click();
	await expect(page.getByText('This address leads into your own network.')).toBeVisible();
	await page.getByRole('button', { name: 'the demo’s own receiver' }).click();
	await page.getByRole('button', { name: 'Have it told' }).click();
	await expect(page.locator('[data-secret]')).toHaveText(/^whsec_/);
	await page.getByRole('button', { name: 'Make an address' }).click();
	await expect(page.locator('[data-secret]')).toHaveText(/^http/);
	const calendar = (await page.locator('[data-secret]').textContent())!;
	const dates = await fetch(calendar);
	expect(dates.headers.get('content-type')).toContain('text/calendar');
	expect(await dates.text()).toContain('BEGIN:VEVENT');
	await clean(page, 'other programs');
	await page.getByRole('button', { name: 'Another address' }).click();
	await expect(page.locator('[data-secret]')).not.toHaveText(calendar);
	expect((await fetch(calendar)).status).toBe(404);

	// something happens, and the receiver hears of it
	await page.goto(`${server.origin}/desk`);
	await ready(page);
	await pressInList(page, 'Guest engagement, A. Dube');
	await page.getByRole('button', { name: 'More to do' }).click();
	await page.getByRole('menuitem', { name: /^Withdraw/ }).click();
	await page.getByLabel(/Reason|Why/).fill('The concert is off');
	await page
		.getByRole('dialog')
		.getByRole('button', { name: /^Withdraw/ })
		.click();
	await expect(page.getByText('The concert is off').first()).toBeVisible();
	await expect
		.poll(() => server.reading((db) => db.prepare('SELECT good, body FROM receiver').all()))
		.toMatchObject([{ good: 1, body: expect.stringContaining('packet.withdrawn') }]);
	await page.goto(`${server.origin}/stand-ins`);
	await expect(page.getByText('signed as it must be')).toHaveCount(1);
	await page.goto(`${server.origin}/account/programs`);
	await ready(page);
	await page.getByText('What it was told, 1').click();
	await expect(page.getByText('delivered, answered 200')).toBeVisible();
	await page.getByRole('button', { name: /^Tell packet.withdrawn/ }).click();
	await expect.poll(() => server.reading((db) => db.prepare('SELECT count(*) FROM receiver').pluck().get())).toBe(2);
	await page.getByRole('button', { name: 'End the key looks only' }).click();
	await expect(page.getByText(/ended/)).toBeVisible();
	expect((await ask(key, 'GET', '/packets')).status).toBe(401);

	await page.getByRole('link', { name: 'the description' }).click();
	await expect(page.getByText('Send a template', { exact: true })).toBeVisible();
	await clean(page, 'the API');
});

test('three programs: a sheet each night, copies filed as they are sealed, one sent and waited for', async ({
	page,
	browser
}) => {
	await signIn(page, server, 'odile');
	await page.goto(`${server.origin}/account/programs`);
	await ready(page);
	const key = await makeKey(page, 'the examples', ['look', 'prepare', 'send', 'record']);
	const env = { PELLUM: server.origin, PELLUM_KEY: key, EVERY: '0.3' };
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-examples-'));

	const port = server.port + 100;
	await page.getByLabel(/What leads into your own network/).fill(`127.0.0.1:${port}`);
	await page.getByRole('button', { name: 'Keep the list' }).click();
	await expect(page.getByText('Kept.')).toBeVisible();
	const secret = await makeHook(page, `http://127.0.0.1:${port}/`, ['packet.sealed']);
	const filing = run({ ...env, PELLUM_SECRET: secret }, 'file-copies.mjs', folder, String(port));
	await expect.poll(() => filing.said.text).toContain('Listening');

	// one of a document of its own is signed, sealed, and filed
	const draft = await ask(key, 'POST', '/drafts', {
		title: 'Key of the rehearsal room',
		people: [{ name: 'Ida Wren', email: 'ida@post.example', role: 'Holder' }]
	});
	const document = await pdf(1, { text: 'Sign ::holder.signature::' });
	expect((await ask(key, 'POST', `/drafts/${draft.body.id}/documents?name=Key.pdf`, document)).body.fields).toBe(1);
	const sent = await ask(key, 'POST', `/drafts/${draft.body.id}/send`);
	expect(sent.status).toBe(201);
	const signer = await browser.newPage();
	await signer.context().addCookies(await page.context().cookies());
	await signer.goto(await linkFromMail(signer, server, 'ida@post.example'));
	await ready(signer);
	await signer.getByLabel('I agree').check();
	await signer.getByRole('button', { name: /Go to the document/ }).click();
	await signer.getByRole('button', { name: /Ida Wren, handwriting 2/ }).click();
	await signer.getByRole('button', { name: 'Sign as Ida Wren' }).click();
	await expect(signer.getByRole('heading', { name: 'Signed', exact: true })).toBeVisible();
	await expect.poll(() => filing.said.text).toContain('Evidence sheet');
	const { reference } = sent.body;
	const filed = readdirSync(path.join(folder, reference)).map((name) =>
		readFileSync(path.join(folder, reference, name))
			.subarray(0, 5)
			.toString()
	);
	expect(filed).toEqual(['%PDF-', '%PDF-']);

	// the list of two nights
	const title = server.reading((db) =>
		db.prepare<[], string>("SELECT title FROM templates WHERE title LIKE 'Steward handbook%'").pluck().get()
	)!;
	const list = path.join(folder, 'stewards.csv');
	writeFileSync(list, 'Name,E-mail\nAnn Reed,ann@post.example\nBo Lind,bo@post\n');
	const first = run(env, 'nightly-sheet.mjs', title, list);
	expect(await first.ended, first.said.text).toBe(0);
	expect(first.said.text).toContain('Line 3: ');
	expect(first.said.text).toContain('1 new.');
	writeFileSync(list, 'Name,E-mail\nAnn Reed,ann@post.example\nBo Lind,bo@post.example\n');
	const second = run(env, 'nightly-sheet.mjs', title, list);
	expect(await second.ended, second.said.text).toBe(0);
	expect(second.said.text).toContain('1 new.');
	expect(second.said.text).toContain('2 gone');
	expect(readFileSync(path.join(folder, 'stewards back.csv'), 'utf8')).toContain('Pellum: state');
	const third = run(env, 'nightly-sheet.mjs', title, list);
	expect(await third.ended).toBe(0);
	expect(third.said.text).toContain('Nobody new.');

	// sent, waited for, and told how it ended
	const waiting = run(env, 'send-and-wait.mjs', title, 'Cy Marsh', 'cy@post.example');
	await expect.poll(() => waiting.said.text).toContain('Cy Marsh notified');
	const { packets } = (await ask(key, 'GET', '/people?email=cy@post.example')).body;
	await ask(key, 'POST', `/packets/${packets[0].id}/withdraw`, { reason: 'not needed' });
	expect(await waiting.ended).toBe(1);
	expect(waiting.said.text).toContain('is withdrawn. It was withdrawn: not needed');
});
