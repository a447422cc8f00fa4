import { expect, test, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { PDFDocument } from '@cantoo/pdf-lib';
import { clean } from './kit/axe';
import { linkFromMail, openRecord, ready, Server, signIn } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('demo').start();
});
test.afterAll(() => server.stop());

/** Somebody's address, as the record of the packet that is open tells it. */
async function addressOf(page: Page, name: string): Promise<string> {
	const found = await page.request.get(`${server.origin}/find?q=${encodeURIComponent(name)}`);
	return /[\w.]+@[\w.]+\.example/.exec(await found.text())![0];
}

/** Signs and initials all that is theirs; the page shows everybody's fields, and only one's own are taken. */
async function signsByMail(page: Page, to: string, name: string): Promise<void> {
	const link = await linkFromMail(page, server, to, 'Amendment 1');
	const html = await (await page.request.get(link)).text();
	const headers = { origin: server.origin, 'content-type': 'application/json' };
	await page.request.post(`${link}/consent`, { headers, data: {} });
	await page.goto(link);
	await ready(page);
	// the page of changes is the first that they see
	await expect(page.locator('canvas, [data-page]').first()).toBeVisible();
	expect(html.indexOf('What is changed')).toBeGreaterThan(0);
	expect(html.indexOf('What is changed')).toBeLessThan(html.indexOf('name:"Instrument loan"'));
	const own = new Map<string, string[]>();
	for (const [, id, person] of html.matchAll(
		/id:"([^"]+)",key:"[^"]*",kind:"(?:signature|initials)".{0,300}?person:"([^"]+)"/gs
	))
		own.set(person!, [...(own.get(person!) ?? []), id!]);
	for (const fields of own.values()) {
		const answers = Object.fromEntries(fields.map((id) => [id, { way: 'typed', text: name, hand: 'caveat' }]));
		if ((await page.request.post(`${link}/finish`, { headers, data: { answers } })).ok()) return;
	}
	throw new Error(`${to} could not sign`);
}

test('a wrong line in a finished agreement is struck, what stands instead is initialled by both, and that holds', async ({
	page
}) => {
	await signIn(page, server);
	await openRecord(page, server, 'Instrument loan, cello no. 9');
	const first = page.url();
	const people = await Promise.all(
		['Wren Castellane', 'Hester Quill'].map(async (name) => [await addressOf(page, name), name] as const)
	);
	await page.getByRole('button', { name: 'Amend…' }).click();
	await clean(page, 'an amendment is begun', { part: '[role=dialog]' });
	await page.getByRole('button', { name: 'Go on to the Bench' }).click();
	await page.waitForURL('**/bench/*');
	await ready(page);
	await expect(page.getByRole('group', { name: 'Amendment' })).toContainText('nothing changed yet');
	await page.getByRole('button', { name: 'Strike words…' }).click();
	// over the end of a line
	await page.getByLabel('Which words').fill('away from heaters, windows and unattended vehicles');
	await expect(page.getByText('In one place.')).toBeVisible();
	await page.getByLabel('What stands instead').fill('in its case');
	await page.getByLabel('What stands instead').press('Enter');
	await expect(page.getByRole('listitem').filter({ hasText: 'in its case' })).toBeVisible();
	// marked with the mouse, where they stand; a band over nothing says so and waits for another
	await page.getByRole('button', { name: 'Mark them on the page' }).click();
	const sheet = (await page.getByRole('img', { name: 'Instrument loan, page 1 of 5' }).boundingBox())!;
	const at = (x: number, y: number) => [sheet.x + sheet.width * x, sheet.y + sheet.height * y] as const;
	await page.mouse.move(...at(0.02, 0.2));
	await page.mouse.down();
	await page.mouse.move(...at(0.05, 0.22), { steps: 3 });
	await page.mouse.up();
	await expect(page.getByText('No words stand there.')).toBeVisible();
	await page.mouse.move(...at(0.105, 0.35));
	await page.mouse.down();
	await page.mouse.move(...at(0.3, 0.375), { steps: 5 });
	await page.mouse.up();
	await expect(page.getByLabel('Which words')).not.toHaveValue('');
	await page.getByLabel('Which words').fill('CELLO no. 9');
	await page.getByLabel('What stands instead').fill('Viola no. 2');
	await page.getByRole('button', { name: 'Strike them there' }).click();
	await expect(page.getByRole('listitem').filter({ hasText: 'Viola no. 2' })).toBeVisible();
	await clean(page, 'words are struck', { part: 'section[aria-label="Strike words"]' });
	await page.getByRole('button', { name: 'Take change 2 back' }).click();
	await expect(page.getByRole('listitem').filter({ hasText: 'Viola no. 2' })).toHaveCount(0);
	await page.getByRole('button', { name: /^Undo/ }).click();
	await expect(page.getByRole('listitem').filter({ hasText: 'Viola no. 2' })).toBeVisible();
	await page.getByRole('button', { name: 'Close the changes' }).click();
	await page.getByRole('button', { name: 'Make the page of changes' }).click();
	await expect(page.getByText('Ready to go')).toBeVisible();
	await clean(page, 'the Bench of an amendment');
	await page.getByRole('button', { name: 'Send…' }).click();
	await page.getByRole('dialog').getByRole('button', { name: /^Send/ }).first().click();
	await page.waitForURL('**/packets/*');
	const second = page.url();
	await ready(page);
	await expect(page.getByRole('navigation', { name: 'Amendments' })).toContainText('agreed first, holds now');
	expect(second).not.toBe(first);

	// another one can't be begun while this is out
	await page.goto(first);
	await ready(page);
	await page.getByRole('button', { name: 'Amend…' }).click();
	await page.getByRole('button', { name: 'Go on to the Bench' }).click();
	await expect(page.getByText(/changes it already and is still out/)).toBeVisible();
	await page.keyboard.press('Escape');
	for (const [to, name] of people) await signsByMail(page, to, name);
	await page.goto(second);
	await ready(page);
	await expect(page.getByRole('link', { name: 'Evidence sheet' })).toBeVisible();
	await expect(async () => {
		await page.goto(first);
		await expect(page.getByText('It lies in the archive.')).toBeVisible({ timeout: 1000 });
	}).toPass();
	await ready(page);
	await expect(page.getByRole('navigation', { name: 'Amendments' })).toContainText('What holds now is');
	await clean(page, 'a packet that was amended');
	const downloading = page.waitForEvent('download');
	await page.getByRole('button', { name: 'More to do with this packet' }).click();
	await page.getByRole('menuitem', { name: 'What holds, as one PDF' }).click();
	const copy = await PDFDocument.load(await readFile(await (await downloading).path()));
	expect(copy.getTitle()).toContain('What holds');
	await page.goto(`${server.origin}/records?q=viola no`);
	await ready(page);
	await expect(page.getByRole('row').nth(1)).toContainText('Amendment 1 to Instrument loan, cello no. 9');
	await expect(page.getByRole('row').nth(1)).toContainText('Instead of “Cello no. 9”');
});
