import { pressInList } from '../e2e/kit/parts';
import { chromium, type Page } from '@playwright/test';
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { engagement } from '../demo/documents';
import { PASSWORD } from '../demo/password';
import { BROWSER } from '../e2e/kit/browser';

/** npm run shots: every picture of docs/screenshots from a fresh demo database, at 1280x800 (the phone's at 390x844). */
const port = '5187';
const origin = `http://127.0.0.1:${port}`;
const given = process.argv[2];
const folder = mkdtempSync(path.join(tmpdir(), 'pellum-shots-'));
const env = {
	...process.env,
	PORT: port,
	HOST: '127.0.0.1',
	ORIGIN: origin,
	PELLUM_DEMO: '1',
	PELLUM_DATA: path.join(folder, 'demo')
};
const seeded = spawnSync(process.execPath, ['--import', 'tsx', 'demo/seed.ts'], { env, stdio: 'inherit' });
if (seeded.status !== 0) process.exit(1);
const server = spawn(process.execPath, ['scripts/serve.mjs'], { env, stdio: 'inherit' });
const target = path.resolve(given ?? 'docs/screenshots');
mkdirSync(target, { recursive: true });

async function started(): Promise<void> {
	for (let i = 0; i < 100 && !(await fetch(`${origin}/sign-in`).catch(() => null))?.ok; i++)
		await new Promise((go) => setTimeout(go, 100));
}

/** The desk of the notary in a session, whoever declares being in the room. */
async function notarysDesk(desk: Page): Promise<Page> {
	const comes = async (to: string) => {
		await desk.goto(`${origin}/stand-ins?to=${to}`);
		await desk
			.getByRole('link', { name: /Appointment/ })
			.first()
			.click();
		const href = await desk.getByRole('link', { name: 'Open the link in it' }).getAttribute('href');
		const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
		await page.goto(origin + href);
		await page.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
		await page.getByLabel('I agree').check();
		await page.getByRole('button', { name: 'Go to the documents' }).click();
		await page.getByRole('link', { name: 'Go into the room' }).first().click();
		await page.waitForURL('**/room');
		await page.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
		await page.getByRole('button', { name: 'Go into the room' }).click();
		return page;
	};
	await comes('s.ferrand@post.example');
	const notary = await comes('marchbank@notary.example');
	await notary.getByRole('button', { name: 'Begin the session' }).click();
	await notary.getByRole('textbox', { name: 'Words to everyone in the room' }).fill('Good morning, Ms Ferrand.');
	await notary.getByRole('button', { name: 'Say it' }).click();
	await notary.getByText('Good morning, Ms Ferrand.').waitFor();
	await notary.locator('canvas[data-drawn=yes]').first().waitFor();
	return notary;
}

const browser = await chromium.launch(BROWSER);
try {
	await started();
	const desk = await browser.newPage({ viewport: { width: 1280, height: 800 } });
	const shot = async (page: Page, name: string) => {
		// nothing looks as if somebody pointed at it
		await page.mouse.move(0, 0);
		await page.screenshot({ path: path.join(target, `${name}.png`) });
	};
	const drawn = (page: Page) => page.locator('canvas[data-drawn=yes]').first().waitFor();
	await desk.goto(`${origin}/sign-in`);
	await desk.getByLabel('E-mail').fill('odile@brindlevale.example');
	await desk.getByLabel('Password').fill(PASSWORD);
	await desk.getByRole('button', { name: 'Sign in' }).click();
	await desk.getByRole('heading', { name: 'Out now' }).waitFor();
	await shot(desk, 'desk');
	await pressInList(desk, 'Guest engagement, A. Dube');
	await drawn(desk);
	await shot(desk, 'packet');
	await desk.goto(`${origin}/desk`);
	const held = desk.locator('li', { hasText: 'Elodie Marchetti could not show who they are' });
	await held.getByRole('link', { name: 'Look at it' }).click();
	await desk.waitForURL('**/packets/*');
	await desk.getByRole('link', { name: 'Look at it' }).click();
	await desk.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
	await desk.getByRole('button', { name: 'Show the pictures' }).click();
	await desk.getByRole('img', { name: 'Back, as it was handed in' }).waitFor();
	await desk.waitForTimeout(500);
	await shot(desk, 'identity');
	await desk.goto(`${origin}/desk`);
	await desk.locator('li', { hasText: 'brought it back on paper' }).getByRole('link', { name: 'Look at it' }).click();
	await desk.waitForURL('**/paper/*');
	await desk.getByRole('img', { name: 'Page 1, as it came back' }).waitFor();
	await desk.waitForTimeout(2500);
	await shot(desk, 'paper');
	await desk.goto(`${origin}/desk`);
	await desk.locator('li', { hasText: 'Expense claim, October tour' }).getByRole('link', { name: 'Go on' }).click();
	await drawn(desk);
	await desk.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
	await desk.getByRole('group', { name: 'Found places' }).waitFor();
	await desk.locator('[data-field][aria-label^=computed]').click();
	await desk.waitForTimeout(800);
	await shot(desk, 'bench');
	await desk.goto(`${origin}/desk`);
	await desk.locator('li', { hasText: 'Instrument loan, viola no. 3' }).getByRole('link', { name: 'Go on' }).click();
	await drawn(desk);
	await desk.getByRole('button', { name: 'Go to Instrument loan, page 2' }).click();
	await desk.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
	await desk.getByRole('button', { name: 'Send…' }).click();
	await desk.getByRole('dialog').waitFor();
	await shot(desk, 'send');
	await desk.goto(`${origin}/templates`);
	await drawn(desk);
	await shot(desk, 'templates');
	await desk.goto(`${origin}/intakes`);
	await desk.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
	await desk.getByRole('link', { name: 'Hire the rehearsal hall' }).click();
	await desk.getByRole('tab', { name: 'Questions' }).click();
	await desk.getByRole('radio', { name: 'All ways through' }).click();
	await desk.getByText('ways were tried').waitFor();
	await shot(desk, 'intake');
	await desk.getByRole('tab', { name: 'On a website' }).click();
	const page = (await desk.getByRole('link', { name: /\/i\// }).textContent())!;
	const visitor = await browser.newPage({
		viewport: { width: 390, height: 844 },
		hasTouch: true,
		isMobile: true,
		deviceScaleFactor: 1,
		locale: 'en-GB'
	});
	await visitor.goto(page);
	await visitor.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
	await visitor.getByLabel('Name').fill('Gwen Aldous');
	await visitor.getByLabel('E-mail').fill('gwen@post.example');
	await visitor.getByRole('button', { name: 'Begin' }).click();
	await visitor.getByRole('combobox', { name: 'County of residence' }).click();
	await visitor.getByRole('option', { name: 'Brint' }).click();
	await visitor.getByRole('combobox', { name: 'Hired' }).click();
	await visitor.getByRole('option', { name: 'Alone' }).click();
	await visitor.getByText('both must take part').waitFor();
	await shot(visitor, 'intake-visitor');
	await visitor.close();
	await desk.goto(`${origin}/batches`);
	await desk.getByRole('link', { name: 'stewards.csv' }).click();
	await desk.getByRole('button', { name: /^Send/ }).waitFor();
	await shot(desk, 'batch');
	await desk.goto(`${origin}/desk`);
	await desk.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
	await desk.getByRole('button', { name: 'New packet' }).click();
	await desk.waitForURL('**/bench/*');
	const letter = await engagement(
		'Noor van Dalen',
		'double bass',
		'the winter tour in the northern towns',
		'GBP 240.00'
	);
	await desk
		.getByLabel('Add documents')
		.setInputFiles({ name: 'Engagement, Noor.pdf', mimeType: 'application/pdf', buffer: Buffer.from(letter.bytes) });
	await desk.getByRole('button', { name: /^Fit / }).click();
	await desk.getByRole('dialog').locator('canvas[data-drawn=yes]').nth(1).waitFor();
	await desk.waitForTimeout(800);
	await shot(desk, 'fit');
	await desk.goto(`${origin}/records`);
	await shot(desk, 'records');
	await desk.goto(`${origin}/pace?weeks=52`);
	await desk.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
	// charts are drawn once what draws them has come
	await desk.waitForLoadState('networkidle');
	await desk.waitForTimeout(400);
	await shot(desk, 'pace');
	await desk.goto(`${origin}/records?q=cello no. 9`);
	await desk.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
	await desk.getByRole('link', { name: 'Instrument loan, cello no. 9' }).first().click();
	await desk.waitForURL('**/packets/*');
	await desk.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
	await desk.getByRole('button', { name: 'Amend…' }).click();
	await desk.getByRole('button', { name: 'Go on to the Bench' }).click();
	await desk.waitForURL('**/bench/*');
	await drawn(desk);
	await desk.getByRole('button', { name: 'Strike words…' }).click();
	for (const [words, instead] of [
		['Cello no. 9', 'Viola no. 2'],
		['when it is not played, away from heaters, windows', 'at all times, away from heaters']
	] as const) {
		await desk.getByLabel('Which words').fill(words);
		await desk.getByText('In one place.').waitFor();
		await desk.getByLabel('What stands instead').fill(instead);
		await desk.getByRole('button', { name: 'Strike them there' }).click();
	}
	await desk.waitForTimeout(800);
	await shot(desk, 'amendment');
	await shot(await notarysDesk(desk), 'notary');
	await desk.goto(`${origin}/stand-ins?to=maren.lindqvist@post.example`);
	await desk.getByRole('link', { name: /To sign/ }).click();
	const link = origin + (await desk.getByRole('link', { name: 'Open the link in it' }).getAttribute('href'));
	await desk.goto(link);
	await desk.getByLabel('I agree').check();
	await desk.getByRole('button', { name: 'Go to the document' }).click();
	await drawn(desk);
	await desk.getByRole('button', { name: /handwriting 1/ }).click();
	await desk.waitForTimeout(1200);
	await shot(desk, 'signing-page');
	const phone = await browser.newPage({
		viewport: { width: 390, height: 844 },
		hasTouch: true,
		isMobile: true,
		deviceScaleFactor: 1
	});
	await phone.goto(link);
	await drawn(phone);
	await phone.waitForTimeout(500);
	await shot(phone, 'signing-phone');
	// a batch sent, and answered over four days
	await desk.goto(`${origin}/batches`);
	await desk.getByRole('link', { name: 'stewards.csv' }).click();
	await desk.waitForURL('**/batches/*');
	await desk.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
	const batch = desk.url();
	const pace = async (messages: string) => {
		await desk.goto(`${origin}/settings`);
		await desk.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
		await desk.locator('input[name=pace]').fill(messages);
		await desk
			.locator('form', { has: desk.locator('input[name=pace]') })
			.getByRole('button', { name: 'Save' })
			.click();
		await desk.waitForTimeout(800);
	};
	await pace('20');
	await desk.goto(batch);
	await desk.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
	await desk.getByRole('button', { name: 'Send 53…' }).click();
	await desk.getByRole('button', { name: 'Send 53 now' }).click();
	await desk.getByText('20 of 53 sent').waitFor();
	await shot(desk, 'batch-running');
	await pace('');
	const dark = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: 'dark' });
	await dark.context().addCookies(await desk.context().cookies());
	await dark.goto(`${origin}/desk`);
	await dark.getByRole('heading', { name: 'Out now' }).waitFor();
	await shot(dark, 'desk-dark');
} finally {
	await browser.close();
	server.kill('SIGTERM');
	rmSync(folder, { recursive: true, force: true });
}
