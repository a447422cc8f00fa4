import { expect, test } from '@playwright/test';
import { clean } from './kit/axe';
import { ready, Server, signIn } from './kit/server';

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
	await page.getByRole('button', { name: 'Keep', exact: true }).click();
	await page.goto(`${server.origin}/records`);
	await ready(page);
	await page.getByRole('button', { name: 'Views' }).click();
	await page.getByRole('button', { name: 'Said no', exact: true }).click();
	await expect(page).toHaveURL(/how=declined/);
	await page.getByLabel('Search records').fill('agree');
	await page.getByLabel('Search records').press('Enter');
	await expect(page).toHaveURL(/how=declined/);
});
