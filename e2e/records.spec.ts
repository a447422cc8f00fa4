import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { unzipSync } from 'fflate';
import { clean } from './kit/axe';
import { answered } from './kit/parts';
import { openRecord, ready, Server, signIn } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('demo').start();
});
test.afterAll(() => server.stop());

test('what has ended is found by the words of a document, filtered, and kept as a view', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/records`);
	await ready(page);
	await page.getByLabel('Search records').fill('MUTE missing polic');
	await page.getByLabel('Search records').press('Enter');
	const row = page.getByRole('row').filter({ hasText: 'Statutory declaration of a lost practice mute' });
	await expect(row).toContainText('Statutory declaration, page 1:');
	await expect(row.locator('mark')).toHaveText(/mute/);
	await clean(page, 'records that a search has found');
	await page.getByLabel('Search records').fill('Oldmere green');
	await page.getByLabel('Search records').press('Enter');
	await expect(row).toContainText('Answer:');
	await expect(row.locator('mark')).toHaveText('Oldmere,');

	await page.goto(`${server.origin}/records`);
	await ready(page);
	await page.getByRole('button', { name: 'Filter the list' }).click();
	await page.getByRole('combobox', { name: 'How it ended' }).click();
	await page.getByRole('option', { name: 'declined' }).click();
	await expect(page).toHaveURL(/how=declined/);
	await clean(page, 'filtered records');
	await page.keyboard.press('Escape');
	const rows = page.getByRole('row');
	await expect.poll(() => rows.filter({ hasText: 'declined' }).count()).toBeGreaterThan(0);
	await expect(rows.filter({ hasText: 'withdrawn' })).toHaveCount(0);
	await page.getByRole('button', { name: 'Views' }).click();
	await page.getByLabel('Name of this view').fill('Said no');
	await answered(page, () => page.getByRole('button', { name: 'Keep', exact: true }).click());
	await page.goto(`${server.origin}/records`);
	await ready(page);
	await page.getByRole('button', { name: 'Views' }).click();
	await page.getByRole('button', { name: 'Said no', exact: true }).click();
	await expect(page).toHaveURL(/how=declined/);
	await page.getByLabel('Search records').fill('agree');
	await page.getByLabel('Search records').press('Enter');
	await expect(page).toHaveURL(/how=declined/);
});

test('many are chosen, put under a type, out of the way and back, and fetched as one file', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/records`);
	await ready(page);
	const box = (name: string) => page.getByRole('checkbox', { name: `Choose ${name}` }).first();
	const row = (name: string) => page.getByRole('row').filter({ hasText: name });
	await box('Hall hire, Market House').click();
	await box('Rota swap, cellos').click();
	await expect(page.getByText('2 chosen')).toBeVisible();
	await page.getByRole('button', { name: 'Put what is chosen somewhere' }).focus();
	await page.keyboard.press('Enter');
	await page.getByRole('menuitem', { name: 'Name their type…' }).press('Enter');
	await page.getByRole('combobox', { name: 'Type' }).fill('Arrangement');
	await clean(page, 'the type of what is chosen', { part: '[role=dialog]' });
	await page.getByRole('combobox', { name: 'Type' }).press('Enter');
	await expect(row('Rota swap, cellos')).toContainText('Arrangement');
	// they stay chosen, for whatever is done to them next
	await page.getByRole('button', { name: 'Choose none' }).click();
	await page.getByRole('button', { name: 'Type', exact: true }).click();
	await expect(page).toHaveURL(/sort=type/);
	await expect(page.getByRole('row').nth(1)).toContainText('Arrangement');

	await box('Rota swap, cellos').click();
	await page.getByRole('button', { name: 'Put what is chosen somewhere' }).click();
	await page.getByRole('menuitem', { name: 'Archive' }).click();
	await expect(row('Rota swap, cellos')).toHaveCount(0);
	await page
		.getByRole('listitem')
		.filter({ hasText: 'put into the archive' })
		.getByRole('button', { name: 'Undo' })
		.click();
	await expect(row('Rota swap, cellos')).toHaveCount(1);

	await box('Rota swap, cellos').click();
	const downloading = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Download what is chosen' }).click();
	await page.getByRole('menuitem', { name: 'Copies, records and answers (ZIP)' }).click();
	const zip = unzipSync(await readFile(await (await downloading).path()));
	expect(Object.keys(zip).map((name) => name.split('/')[1])).toEqual(
		expect.arrayContaining(['record.json', 'answers.json', expect.stringMatching(/^Evidence sheet P-/)])
	);
});

test('what is out is withdrawn before it goes into the bin; a draft goes there and comes back', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/desk`);
	await ready(page);
	await page.getByRole('grid').getByRole('link').first().click();
	await ready(page);
	const reference = (await page.locator('main .font-mono').first().textContent())!;
	await page.getByRole('button', { name: 'More to do with this packet' }).click();
	await page.getByRole('menuitem', { name: 'Bin…' }).click();
	await clean(page, 'withdrawn and binned', { part: '[role=dialog]' });
	await page.getByLabel('Reason').fill('It went to the wrong player.');
	await page.getByRole('button', { name: 'Withdraw it and put it away' }).click();
	await expect(page.getByText('It lies in the bin.')).toBeVisible();
	await expect(page.getByText('It was withdrawn: It went to the wrong player.').first()).toBeVisible();
	await page.goto(`${server.origin}/records?put=bin`);
	await ready(page);
	await expect(page.getByRole('row').filter({ hasText: reference })).toHaveCount(1);
	await clean(page, 'the bin');
	await page.getByRole('row').filter({ hasText: reference }).getByRole('link').first().click();
	await ready(page);
	await page.getByRole('button', { name: 'More to do with this packet' }).click();
	await page.getByRole('menuitem', { name: /Take back/ }).click();
	await expect(page.getByText('It lies in the bin.')).toHaveCount(0);

	await page.goto(`${server.origin}/desk`);
	await ready(page);
	const card = page
		.getByRole('listitem')
		.filter({ has: page.getByRole('button', { name: 'Bin', exact: true }) })
		.first();
	const address = (await card.getByRole('link', { name: 'Go on' }).getAttribute('href'))!;
	await card.getByRole('button', { name: 'Bin', exact: true }).click();
	await expect(page.locator(`a[href="${address}"]`)).toHaveCount(0);
	await page.goto(`${server.origin}/records?put=bin`);
	await ready(page);
	await page.getByRole('button', { name: 'Take back' }).click();
	await expect(page.getByRole('heading', { name: 'Your drafts in the bin' })).toHaveCount(0);
	await page.goto(`${server.origin}/desk`);
	await expect(page.locator(`a[href="${address}"]`)).toHaveCount(1);
});

test('how files are called and how long the bin keeps is set, and refused where all would be called the same', async ({
	page
}) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/settings/keeping`);
	await ready(page);
	await clean(page, 'settings, keeping');
	await page.getByLabel('How copies are called').fill('same');
	await page.getByRole('button', { name: 'Save' }).first().click();
	await expect(page.getByText('every file would be called the same')).toBeVisible();
	await page.getByLabel('How copies are called').fill('{date} {title}');
	await page.getByRole('button', { name: 'Save' }).first().click();
	await expect(page.getByText('Saved.')).toBeVisible();
	await openRecord(page, server, 'Rota swap, cellos');
	const downloading = page.waitForEvent('download');
	await page.getByRole('link', { name: 'Evidence sheet' }).click();
	const day = server.reading((db) =>
		db
			.prepare<[], string>("SELECT substr(ended_at, 1, 10) FROM packets WHERE title = 'Rota swap, cellos'")
			.pluck()
			.get()
	);
	expect((await downloading).suggestedFilename()).toBe(`${day} Rota swap, cellos Evidence sheet.pdf`);
});

test('two that are chosen are held against each other, word by word', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/records`);
	await ready(page);
	for (const name of [/M\. Adeyemi/, /E\. Lysander/]) await page.getByRole('checkbox', { name }).click();
	await page.getByRole('link', { name: 'Compare' }).click();
	await expect(page.getByRole('heading', { name: 'What differs' })).toBeVisible();
	await expect(page.getByRole('listitem').first().locator('del, ins').first()).toBeVisible();
	await clean(page, 'what differs');
	const struck = await page.locator('del').first().textContent();
	await page.getByRole('link', { name: 'The other way round' }).click();
	await expect(page.locator('ins').first()).toHaveText(struck!);
	await page.goto(`${server.origin}/records/compare?a=nothing&b=nothing`);
	await expect(page.getByText('One of the two is not here any more, or not for you to see.')).toBeVisible();
});
