import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { lockedPdf, pdf } from './kit/pdfs';
import { linkFromMail, phone, ready, Server, signIn } from './kit/server';
import { clean } from './kit/axe';
import { pressInList } from './kit/parts';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('demo').start();
});
test.afterAll(() => server.stop());

test.describe('axe finds nothing', () => {
	test('on the office’s screens, in the light and in the dark', async ({ page }) => {
		test.slow();
		const both = async (where: string) => {
			await page.emulateMedia({ colorScheme: 'light' });
			await clean(page, where, { frameless: true });
			// the dark only changes colours
			await page.emulateMedia({ colorScheme: 'dark' });
			await clean(page, `${where}, dark`, { rules: ['color-contrast'], frameless: true });
		};
		await page.goto(`${server.origin}/sign-in`);
		await both('sign-in');
		await signIn(page, server);
		await both('desk');
		await page.getByRole('button', { name: 'Put the address right' }).first().click();
		await both('desk, correcting');
		await pressInList(page, 'Guest engagement, A. Dube');
		await page.locator('canvas[data-drawn=yes]').first().waitFor();
		await both('packet');
		for (const area of ['records', 'settings', 'stand-ins', 'records?q=nothing-of-the-kind', 'packets/none']) {
			await page.goto(`${server.origin}/${area}`);
			await both(area);
		}
		await page.goto(`${server.origin}/stand-ins`);
		await page.getByRole('row').nth(1).getByRole('link').click();
		await page.waitForURL(/mailbox/);
		await both('message');
		await page.setContent(await (await page.request.get(`${page.url()}/letter`)).text());
		await both('letter');
		await page.goto(`${server.origin}/desk`);
		await ready(page);
		await page.locator('li', { hasText: 'viola no. 3' }).getByRole('link', { name: 'Go on' }).click();
		await page.locator('canvas[data-drawn=yes]').first().waitFor();
		await both('bench');
		await page.getByRole('button', { name: 'Go to Instrument loan, page 2' }).click();
		await page.locator('[data-field]').first().focus();
		await both('bench with a field');
		await page.getByRole('button', { name: 'Send…' }).click();
		await page.getByRole('dialog').waitFor();
		await both('send');
		await page.goto(`${server.origin}/desk`);
		await ready(page);
		await page.keyboard.press('Control+k');
		await page.getByRole('combobox', { name: 'Find or do' }).fill('maren');
		await page.getByRole('option', { name: /Recording release, spring/ }).waitFor();
		await both('find');
	});

	test('on the signing page, at a desk and on a phone, before, while and after', async ({ page, browser }) => {
		await signIn(page, server);
		const link = await linkFromMail(page, server, 'l.marchetti@post.example', 'October');
		const small = await phone(browser);
		for (const view of [page, small]) {
			await view.goto(link);
			await ready(view);
			const first = view.getByLabel('I agree');
			if (await first.isVisible()) {
				await clean(view, 'first view', { frameless: true });
				await first.check();
				await view.getByRole('button', { name: /Go to the document/ }).click();
			}
			await view.locator('canvas[data-drawn=yes]').first().waitFor();
			await clean(view, 'signing', { frameless: true });
		}
		// nothing is cut off on a phone, and everything to press is large enough
		expect(await small.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
		for (const button of await small.locator('main section[aria-labelledby=todo] button:visible').all())
			expect((await button.boundingBox())!.height).toBeGreaterThanOrEqual(43);
		await small.getByRole('button', { name: /handwriting 3/ }).click();
		await small.getByRole('button', { name: 'Sign as Lucia Marchetti' }).click();
		await small.getByRole('heading', { name: 'Signed', exact: true }).waitFor();
		await clean(small, 'finished', { frameless: true });
		await small.goto(`${server.origin}/s/${'x'.repeat(43)}`);
		await expect(small.getByText('This link is not complete, or not from here.')).toBeVisible();
		await clean(small, 'no link', { frameless: true });
	});
});

test('what can’t be taken in is said with the name of the file, and everything else is kept', async ({ page }) => {
	await signIn(page, server);
	await page.getByRole('button', { name: 'New packet' }).click();
	const add = (name: string, buffer: Buffer) =>
		page.getByLabel('Add documents').setInputFiles({ name, mimeType: 'application/pdf', buffer });
	await add('Good.pdf', Buffer.from(await pdf(1)));
	await expect(page.getByRole('heading', { name: 'Good' }).first()).toBeVisible();
	for (const [name, bytes, says] of [
		['Letter.pdf', Buffer.from('Dear all'), '“Letter”: This is neither a PDF, a Word document'],
		['Nothing.pdf', Buffer.alloc(0), '“Nothing”: The file is empty (0 bytes).'],
		['Locked.pdf', Buffer.from(await lockedPdf()), '“Locked”: The PDF is'],
		['<b>odd</b>\u202E.pdf', Buffer.from('x'), 'This is neither a PDF']
	] as const) {
		await add(name, bytes);
		await expect(page.getByRole('alert').filter({ hasText: says })).toContainText('Everything else is kept.');
		await expect(page.getByRole('alert').locator('b')).toHaveCount(0);
	}
	await expect(page.getByRole('heading', { name: 'Good' }).first()).toBeVisible();
	const big = Buffer.concat([Buffer.from(await pdf(1)), Buffer.alloc(51 * 1024 * 1024)]);
	const cookies = (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join('; ');
	const response = await fetch(`${page.url()}/papers?name=Big.pdf`, {
		method: 'POST',
		body: big,
		headers: { origin: server.origin, cookie: cookies }
	});
	expect([response.status, (await response.json()).code]).toEqual([413, 'file-too-large']);
	// every finding leads to its place
	await page.getByRole('button', { name: /before this can go/ }).click();
	await page.getByRole('button', { name: 'Add somebody who signs.' }).click();
	await page.getByRole('button', { name: 'Who signs first' }).click();
	await page.getByLabel('E-mail').fill('gwen at home');
	await expect(page.getByText("That can't be an e-mail address yet.")).toBeVisible();
	await page.getByRole('button', { name: 'Send…' }).click();
	await page.getByRole('button', { name: /can't be an e-mail address/ }).click();
	await expect(page.getByLabel('E-mail', { exact: true })).toBeFocused();
	await expect(page.getByLabel('E-mail', { exact: true })).toHaveValue('gwen at home');
});

test('a draft open in two tabs: the second is told, and loses nothing', async ({ page, context }) => {
	await signIn(page, server);
	await page.getByRole('button', { name: 'New packet' }).click();
	await page.waitForURL(/\/bench\/.{20}/);
	const second = await context.newPage();
	await second.goto(page.url());
	await ready(second);
	await page.getByLabel('Title', { exact: true }).fill('From the first tab');
	await expect(page.getByText(/draft, saved/)).toBeVisible();
	await page.waitForTimeout(900);
	await second.getByLabel('Title', { exact: true }).fill('From the second tab');
	await expect(second.getByRole('alert')).toContainText('changed in another tab');
	await expect(second.getByLabel('Title', { exact: true })).toHaveValue('From the second tab');
	await second.getByRole('button', { name: 'Keep what I have here' }).click();
	await expect(second.getByRole('alert')).toHaveCount(0);
	await page.reload();
	await expect(page.getByLabel('Title', { exact: true })).toHaveValue('From the second tab');
});

test('what is typed while the connection is away is kept and saved when it is back', async ({ page, context }) => {
	await signIn(page, server);
	await page.getByRole('button', { name: 'New packet' }).click();
	await expect(page.getByLabel('Title', { exact: true })).toBeVisible();
	await context.setOffline(true);
	await page.getByLabel('Title', { exact: true }).fill('Typed in a tunnel');
	await expect(page.getByRole('alert')).toContainText('kept in this tab');
	await context.setOffline(false);
	await expect(page.getByText(/draft, saved/)).toBeVisible();
	await page.reload();
	await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Typed in a tunnel');
});

test('an address that bounced is corrected on the Desk, in place', async ({ page }) => {
	await signIn(page, server);
	const card = page.locator('li', { hasText: 'm.lindqvst@post.example' });
	await card.getByRole('button', { name: 'Put the address right' }).click();
	await card.getByLabel('New address').fill('maren.l@post.example');
	await card.getByRole('button', { name: 'Send it there' }).click();
	await expect(card).toHaveCount(0);
	await page.goto(await linkFromMail(page, server, 'maren.l@post.example'));
	await expect(page.getByRole('heading', { name: 'What is asked of you' })).toBeVisible();
});

test('records are found, an organisation is changed and seen by signers, the clock moves', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/records`);
	await ready(page);
	await page.getByLabel('Search records').fill('παππα');
	await page.getByRole('button', { name: 'Search' }).click();
	await expect(page.getByRole('row')).toHaveCount(2);
	await page.goto(`${server.origin}/settings`);
	await ready(page);
	await page.getByLabel('Name').first().fill('Brindlevale Players');
	await page.getByLabel('Colour').fill('#ffff00');
	await page.getByRole('button', { name: 'Save' }).click();
	await expect(page.getByRole('alert')).toContainText('White letters');
	await expect(page.getByLabel('Name').first()).toHaveValue('Brindlevale Players');
	await page.getByLabel('Colour').fill('#5b2a49');
	const logo = await sharp({ create: { width: 80, height: 80, channels: 3, background: '#5b2a49' } })
		.png()
		.toBuffer();
	await page.getByLabel('Logo').setInputFiles({ name: 'logo.png', mimeType: 'image/png', buffer: logo });
	await page.getByRole('button', { name: 'Save' }).click();
	await expect(page.getByText('Saved.')).toBeVisible();
	await page.goto(await linkFromMail(page, server, 't.marlow@post.example'));
	await expect(page.getByRole('img', { name: 'Brindlevale' })).toBeVisible();
	await page.goto(`${server.origin}/desk`);
	await expect(page.getByRole('row', { name: /Hall hire, Corn Exchange/ })).toBeVisible();
	await page.goto(`${server.origin}/stand-ins`);
	await page.getByRole('button', { name: '3 days on' }).click();
	await expect(async () => {
		await page.goto(`${server.origin}/records?q=corn`);
		await expect(page.getByRole('row', { name: /Hall hire, Corn Exchange/ })).toContainText('expired', {
			timeout: 500
		});
	}).toPass();
});

test('a wrong password says so and keeps the address; too many are stopped', async ({ page }) => {
	await page.goto(`${server.origin}/sign-in`);
	await ready(page);
	for (let i = 0; i < 11; i++) {
		await page.getByLabel('E-mail').fill('tamsin@brindlevale.example');
		await page.getByLabel('Password').fill(`wrong ${i}`);
		await page.getByRole('button', { name: 'Sign in' }).click();
		await expect(page.getByRole('alert')).toContainText(i < 10 ? 'do not go together' : 'Too many tries');
		await expect(page.getByLabel('E-mail', { exact: true })).toHaveValue('tamsin@brindlevale.example');
	}
});
