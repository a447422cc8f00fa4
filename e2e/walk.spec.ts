import { expect, test, type Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import sharp from 'sharp';
import { pdf } from './kit/pdfs';
import { fromMenu } from './kit/parts';
import { linkFromMail, phone, ready, Server, signIn } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('accounts').start();
});
test.afterAll(() => server.stop());

const KINDS = ['S', 'I', 'D', 'N', 'T'];

async function addPerson(page: Page, name: string, email: string) {
	await page.getByRole('button', { name: /Who signs first|Somebody next/ }).click();
	await page.getByLabel('Name', { exact: true }).fill(name);
	await page.getByLabel('E-mail').fill(email);
}

/** Places all five kinds for the person chosen, in a column on the page. */
async function placeAll(page: Page, x: number) {
	const sheet = page.locator('[data-sheet]').first();
	await page.keyboard.press('Escape');
	for (const [i, letter] of KINDS.entries()) {
		await page.keyboard.press(letter);
		await sheet.click({ position: { x, y: 120 + i * 60 } });
	}
	await page.keyboard.press('Escape');
}

async function agree(page: Page, link: string) {
	await page.goto(link);
	await ready(page);
	await expect(page.getByRole('button', { name: /Go to the document/ })).toBeDisabled();
	await page.getByLabel('I agree').check();
	await page.getByRole('button', { name: /Go to the document/ }).click();
	await page.locator('canvas[data-drawn=yes]').first().waitFor();
}

test('a document of her own goes round two people and comes back sealed', async ({ page, browser }) => {
	await signIn(page, server);
	await page.getByRole('button', { name: 'New packet' }).click();
	await page
		.getByLabel('Add documents')
		.setInputFiles({ name: 'Hall hire.pdf', mimeType: 'application/pdf', buffer: Buffer.from(await pdf(2)) });
	await expect(page.getByRole('heading', { name: 'Hall hire' }).first()).toBeVisible();
	await page.locator('canvas[data-drawn=yes]').first().waitFor();
	await expect(page.getByText('1 thing before this can go')).toBeVisible();

	await addPerson(page, 'Gwen Aldous', 'gwen@post.example');
	await placeAll(page, 180);
	await addPerson(page, 'Tamsin Okoro', 'tamsin@brindlevale.example');
	await placeAll(page, 430);
	await expect(page.locator('[data-field]')).toHaveCount(10);

	// undo and redo, and what the inspector says
	await page.keyboard.press('Control+z');
	await expect(page.locator('[data-field]')).toHaveCount(9);
	await page.keyboard.press('Control+y');
	await expect(page.locator('[data-field]')).toHaveCount(10);
	const note = page.getByRole('button', { name: /^text, Text, Gwen Aldous/ });
	await note.click();
	await page.getByLabel('Label').fill('Number of chairs');
	await page.getByLabel('must be answered').uncheck();
	await expect(page.getByRole('button', { name: /Number of chairs, Gwen Aldous/ })).toBeVisible();

	// dragging moves it, and a reload shows what was saved
	const box = (await page.getByRole('button', { name: /Number of chairs/ }).boundingBox())!;
	await page.mouse.move(box.x + 60, box.y + 8);
	await page.mouse.down();
	await page.mouse.move(box.x + 90, box.y + 68, { steps: 4 });
	await page.mouse.up();
	await expect(page.getByText(/draft, saved/)).toBeVisible();
	await page.reload();
	await ready(page);
	const moved = (await page.getByRole('button', { name: /Number of chairs/ }).boundingBox())!;
	expect(Math.abs(moved.x - box.x - 30)).toBeLessThan(2);
	expect(Math.abs(moved.y - box.y - 60)).toBeLessThan(2);

	await expect(page.getByText('Ready to go')).toBeVisible();
	await page.getByRole('button', { name: 'Send…' }).click();
	const sheet = page.getByRole('dialog');
	await expect(sheet).toContainText('Gwen Aldous gets a message at gwen@post.example to sign.');
	await expect(sheet).toContainText('When stop 1 is done');
	await sheet.getByRole('button', { name: 'Send now' }).click();
	await expect(page).toHaveURL(/\/packets\//);
	const packet = page.url();

	// she watches the Desk in one window …
	await page.goto(`${server.origin}/desk`);
	const row = page.getByRole('row', { name: /Hall hire/ });
	await expect(row).toContainText('Gwen Aldous');

	// … while Gwen, on her phone, types one mark and draws the other
	const gwen = await phone(browser);
	await gwen.context().addCookies(await page.context().cookies());
	await agree(gwen, await linkFromMail(gwen, server, 'gwen@post.example'));
	await expect(row).toContainText('opened');
	await gwen.getByRole('button', { name: /Gwen Aldous, handwriting 2/ }).click();
	await gwen.getByRole('button', { name: /^Next: Initials/ }).click();
	await gwen.getByText('Draw it').click();
	const pad = gwen.locator('canvas.touch-none');
	const area = (await pad.boundingBox())!;
	await gwen.mouse.move(area.x + 20, area.y + 30);
	await gwen.mouse.down();
	for (let i = 1; i <= 10; i++) await gwen.mouse.move(area.x + 20 + i * 12, area.y + 30 + (i % 2) * 40);
	await gwen.mouse.up();
	await expect(gwen.getByRole('heading', { name: /To do all done/ })).toBeVisible();
	await expect(gwen.getByText(/Saved .* come back/)).toBeVisible();

	// the same link on another device shows what was entered
	const other = await browser.newPage();
	await other.goto(gwen.url());
	await expect(other.getByRole('heading', { name: /To do all done/ })).toBeVisible();
	await other.close();
	await gwen.getByRole('button', { name: 'Sign as Gwen Aldous' }).click();
	await expect(gwen.getByRole('heading', { name: 'Signed', exact: true })).toBeVisible();

	// the Desk has moved on by itself
	await expect(row).toContainText('Tamsin Okoro');

	// Tamsin signs with a picture
	const tamsin = await browser.newPage();
	await tamsin.context().addCookies(await page.context().cookies());
	await agree(tamsin, await linkFromMail(tamsin, server, 'tamsin@brindlevale.example'));
	const scan = await sharp(
		Buffer.from(
			'<svg xmlns="http://www.w3.org/2000/svg" width="400" height="120"><rect width="400" height="120" fill="white"/><path d="M10 80 C 90 -20 120 140 200 50 S 330 90 390 30" fill="none" stroke="#113" stroke-width="6"/></svg>'
		)
	)
		.png()
		.toBuffer();
	await tamsin.getByText('Picture', { exact: true }).click();
	await tamsin.getByLabel(/photo or scan/).setInputFiles({ name: 'sig.png', mimeType: 'image/png', buffer: scan });
	await tamsin.getByRole('button', { name: 'Use this' }).click();
	await expect(tamsin.getByText('The picture is in place.')).toBeVisible();
	await tamsin.getByRole('button', { name: /^Next: Initials/ }).click();
	await tamsin.getByRole('button', { name: /handwriting 1/ }).click();
	await tamsin.getByRole('button', { name: /^Next: Text/ }).click();
	await tamsin.getByLabel('Text', { exact: true }).fill('Key at the bakery');
	await tamsin.getByRole('button', { name: 'Sign as Tamsin Okoro' }).dblclick();
	await expect(tamsin.getByRole('link', { name: /Evidence sheet/ })).toBeVisible();

	// completed: gone from the Desk, and both files are there
	await expect(row).toHaveCount(0);
	await page.goto(packet);
	const fetched: string[] = [];
	for (const name of ['Hall hire', 'Evidence sheet']) {
		const download = page.waitForEvent('download');
		await page.getByRole('link', { name, exact: true }).click();
		const file = path.join(server.folder, (await download).suggestedFilename());
		await (await download).saveAs(file);
		fetched.push(file);
	}
	for (const file of fetched) {
		expect(server.run('scripts/verify.ts', file)).toMatchObject({ status: 0, out: expect.stringContaining('Genuine') });
		expect(execFileSync('pdfsig', ['-nocert', file], { encoding: 'utf8' })).toContain('Signature is Valid');
		const bytes = readFileSync(file);
		bytes[bytes.length >> 1] = bytes[bytes.length >> 1]! ^ 1;
		writeFileSync(`${file}.changed`, bytes);
		expect(server.run('scripts/verify.ts', `${file}.changed`).status).toBe(1);
	}
	// what was typed stands in the sealed copy, and the record names every step
	expect(execFileSync('pdftotext', [fetched[0]!, '-'], { encoding: 'utf8' })).toContain('Key at the bakery');
	const evidence = execFileSync('pdftotext', ['-layout', fetched[1]!, '-'], { encoding: 'utf8' });
	for (const says of [
		'Gwen Aldous signed.',
		'Tamsin Okoro signed.',
		'agreed to sign electronically',
		'the packet is complete'
	])
		expect(evidence).toContain(says);
	// everyone got both by mail
	for (const to of ['gwen@post.example', 'tamsin@brindlevale.example']) {
		await page.goto(`${server.origin}/stand-ins?to=${to}`);
		await expect(page.getByRole('row').filter({ hasText: 'Done: Hall hire' })).toContainText('2 attached');
	}
	expect(server.run('scripts/check-data.ts')).toMatchObject({ status: 0 });
});

test('prepares, sends and signs by keyboard alone', async ({ page }) => {
	await signIn(page, server);
	await page.getByRole('button', { name: 'New packet' }).focus();
	await page.keyboard.press('Enter');
	await page
		.getByLabel('Add documents')
		.setInputFiles({ name: 'Rota.pdf', mimeType: 'application/pdf', buffer: Buffer.from(await pdf(1)) });
	await page.locator('canvas[data-drawn=yes]').first().waitFor();
	await page.getByRole('button', { name: 'Who signs first' }).focus();
	await page.keyboard.press('Enter');
	await expect(page.getByLabel('Name', { exact: true })).toBeFocused();
	await page.keyboard.type('Bram Oyelaran');
	await page.keyboard.press('Tab');
	await page.keyboard.type('bram@post.example');
	await page.getByRole('button', { name: /Bram Oyelaran/ }).focus();
	for (const letter of ['s', 'n']) {
		await page.keyboard.press(letter);
		await page.keyboard.press('Enter');
	}
	await page.keyboard.press('Escape');
	await expect(page.locator('[data-field]')).toHaveCount(2);
	const name = page.getByRole('button', { name: /^name, / });
	await name.focus();
	const before = (await name.boundingBox())!;
	await page.keyboard.press('Shift+ArrowDown');
	await page.keyboard.press('ArrowRight');
	const after = (await name.boundingBox())!;
	expect(after.y - before.y).toBeCloseTo(10 * 1.075, 0);
	expect(after.x - before.x).toBeCloseTo(1.075, 0);
	await page.getByRole('button', { name: 'Send…' }).focus();
	await page.keyboard.press('Enter');
	await page.getByRole('button', { name: 'Send now' }).focus();
	await page.keyboard.press('Enter');
	await expect(page).toHaveURL(/\/packets\//);

	await page.goto(await linkFromMail(page, server, 'bram@post.example'));
	await ready(page);
	const tabTo = async (label: RegExp) => {
		for (let i = 0; i < 40; i++) {
			await page.keyboard.press('Tab');
			const at = await page.evaluate(() => {
				const e = document.activeElement as HTMLElement & { labels?: NodeListOf<HTMLElement> };
				return e.getAttribute('aria-label') ?? e.labels?.[0]?.textContent ?? e.textContent ?? '';
			});
			if (label.test(at)) return;
		}
		throw new Error(`nothing called ${label} can be reached with Tab`);
	};
	await tabTo(/I agree/);
	await page.keyboard.press('Space');
	await tabTo(/Go to the document/);
	await page.keyboard.press('Enter');
	await page.getByRole('heading', { name: /To do/ }).waitFor();
	await tabTo(/handwriting 1/);
	await page.keyboard.press('Enter');
	await tabTo(/Sign as Bram Oyelaran/);
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: 'Signed', exact: true })).toBeVisible();
});

test('a decline says what it means, needs a reason, and ends it for everyone', async ({ page }) => {
	await signIn(page, server);
	await page.getByRole('button', { name: 'New packet' }).click();
	await page
		.getByLabel('Add documents')
		.setInputFiles({ name: 'Loan.pdf', mimeType: 'application/pdf', buffer: Buffer.from(await pdf(1)) });
	await page.locator('canvas[data-drawn=yes]').first().waitFor();
	await addPerson(page, 'Idris Vaughan', 'idris@post.example');
	await page.keyboard.press('Escape');
	await page.keyboard.press('s');
	await page.locator('[data-sheet]').click({ position: { x: 200, y: 200 } });
	await page.keyboard.press('Escape');
	await page.getByRole('button', { name: 'Send…' }).click();
	await page.getByRole('button', { name: 'Send now' }).click();
	await expect(page).toHaveURL(/\/packets\//);
	const packet = page.url();
	await agree(page, await linkFromMail(page, server, 'idris@post.example'));
	await fromMenu(page.getByRole('button', { name: 'More', exact: true }), 'Decline…');
	await expect(page.getByRole('dialog')).toContainText('This stops it for everyone');
	await page.getByRole('dialog').getByRole('button', { name: 'Decline', exact: true }).click();
	await expect(page.getByRole('alert').filter({ hasText: 'Say in a few words why.' })).toBeVisible();
	await page.getByLabel('Your reason').fill('The cello is not mine to borrow.');
	// going back declines nothing
	await page.getByRole('dialog').getByRole('button', { name: 'Go back', exact: true }).click();
	await expect(page.getByRole('dialog')).toBeHidden();
	await page.reload();
	await fromMenu(page.getByRole('button', { name: 'More', exact: true }), 'Decline…');
	await page.getByLabel('Your reason').fill('The cello is not mine to borrow.');
	await page.getByRole('dialog').getByRole('button', { name: 'Decline', exact: true }).click();
	await expect(page.getByRole('heading', { name: 'This was stopped' })).toBeVisible();
	await page.goto(packet);
	await expect(
		page.getByText('It ended because Idris Vaughan declined: The cello is not mine to borrow.')
	).toBeVisible();
});
