import { expect, test } from '@playwright/test';
import { clean } from './kit/axe';
import { drafted, sends } from './kit/draft';
import { ready, Server, signIn } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	test.setTimeout(180_000);
	await server.seed('accounts').start();
});
test.afterAll(() => server.stop());

test('one of many is found by typing, by keys alone; what was typed and not chosen is gone', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/settings`);
	await ready(page);
	const zone = page.getByRole('combobox', { name: 'Time zone' });
	await zone.click();
	await zone.fill('nothing at all');
	await expect(page.getByText('Nothing has these letters.')).toBeVisible();
	await zone.press('Escape');
	await expect(zone).toHaveValue('Europe/London');
	await zone.fill('lisb');
	await expect(page.getByRole('option')).toHaveText(['Europe/Lisbon']);
	await clean(page, 'one of many');
	await zone.press('ArrowDown');
	await zone.press('Enter');
	await expect(zone).toHaveValue('Europe/Lisbon');
	await page.getByRole('button', { name: 'Save' }).click();
	await expect(page.getByText('Saved.')).toBeVisible();
	expect(
		server.reading((db) => db.prepare("SELECT value FROM meta WHERE key = 'organisation'").pluck().get())
	).toContain('Europe/Lisbon');
});

test('a packet’s page by keys: a day typed or taken from the calendar, one deed next, the others in a menu', async ({
	page
}) => {
	await signIn(page, server);
	await drafted(page, server, { title: 'Loan of a viola', stops: [['kit']] });
	const duty = page.getByRole('combobox', { name: 'Which days count' });
	// the first letters lead there, as in the browser's own lists
	await duty.focus();
	await duty.press('Enter');
	await page.keyboard.press('w');
	await page.keyboard.press('Enter');
	await expect(duty).toHaveText('working days');
	await sends(page);
	await ready(page);

	await page.getByRole('button', { name: 'Move the deadline…' }).click();
	await page.getByRole('spinbutton', { name: /day/i }).first().focus();
	await page.keyboard.type('24122030');
	await page.getByRole('button', { name: 'Move it' }).click();
	await expect(page.getByText(/The deadline was moved from .* to 2030-12-24/)).toBeVisible();
	await page.getByRole('button', { name: 'Move the deadline…' }).click();
	await page.getByRole('button', { name: 'Calendar: New last day' }).click();
	await clean(page, 'a calendar');
	await page.getByRole('button', { name: /31 December 2030/ }).click();
	await page.getByRole('button', { name: 'Move it' }).click();
	await expect(page.getByText('to 2030-12-31')).toBeVisible();

	const more = page.getByRole('button', { name: 'More to do' });
	await more.focus();
	await more.press('Enter');
	await expect(page.getByRole('menuitem')).toHaveText([
		/^New version…/,
		'Keep as template',
		'Record as JSON',
		'Withdraw…'
	]);
	await clean(page, 'a menu');
	await page.keyboard.press('End');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('dialog')).toContainText('Withdraw P-');
	await page.keyboard.press('Escape');
	await expect(more).toBeVisible();

	// what is for experts stands behind a word
	const digest = page.getByText('Plan, SHA-256');
	await expect(digest).toHaveCount(0);
	await page.getByRole('button', { name: /sent it as/ }).click();
	await expect(digest).toBeVisible();
});
