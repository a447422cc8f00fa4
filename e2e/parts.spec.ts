import { expect, test } from '@playwright/test';
import { clean } from './kit/axe';
import { drafted, sends } from './kit/draft';
import { ready, Server, signIn } from './kit/server';

const server = new Server();
test.use({ contextOptions: { reducedMotion: 'no-preference' } });
test.beforeAll(async () => {
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
		/^Archive…/,
		'Bin…',
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

test('people known by name or address, switches, sheets and choices side by side, by keys alone', async ({ page }) => {
	await signIn(page, server);
	// known, since they have taken part in the packet before
	await drafted(page, server, { title: 'Loan of a cello', stops: [['a'], ['b']] });
	await page.locator('[data-person=a]').click();
	const name = page.getByRole('combobox', { name: 'Name' });
	await name.fill('kit');
	await expect(page.getByRole('option')).toHaveText([/kit\s*kit@post\.example/i]);
	await clean(page, 'people known', { frameless: true });
	await name.press('ArrowDown');
	await name.press('Enter');
	await expect(page.getByLabel('E-mail')).toHaveValue('kit@post.example');
	// whoever is not known is written all the same
	await name.fill('Kitty Nobody');
	await expect(page.getByRole('option')).toHaveCount(0);
	await name.press('Tab');
	await expect(name).toHaveValue('Kitty Nobody');

	await page.getByRole('heading', { level: 1 }).getByRole('button').click();
	const remind = page.getByRole('switch', { name: 'remind whoever it waits for' });
	await remind.focus();
	await page.keyboard.press('Space');
	await expect(page.getByLabel('Days to the first reminder')).toHaveValue('3');
	await page.keyboard.press('Control+z');
	await expect(remind).not.toBeChecked();

	await page.getByRole('button', { name: 'Rehearse' }).click();
	const [first, second] = [page.getByRole('tab').first(), page.getByRole('tab').nth(1)];
	await first.focus();
	await page.keyboard.press('ArrowRight');
	await expect(second).toHaveAttribute('aria-selected', 'true');
	await expect(page.locator('iframe')).toHaveAttribute('src', /person=b/);
	const desk = page.getByRole('radio', { name: 'Desk' });
	await desk.focus();
	await page.keyboard.press('ArrowRight');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('radio', { name: 'Phone' })).toBeChecked();
	await page.keyboard.press('Escape');

	await page.getByRole('button', { name: 'Send…' }).click();
	await page.getByRole('radio', { name: 'now' }).focus();
	await page.keyboard.press('ArrowDown');
	await expect(page.getByRole('radio', { name: 'at a time' })).toBeChecked();
	await expect(page.getByRole('button', { name: 'Let it go then' })).toBeVisible();
	await clean(page, 'when it goes', { frameless: true });
});

test('with a finger at the width of a phone: a list, a menu, a box, a day; no view is wider than that', async ({
	browser
}) => {
	const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, locale: 'en-GB' });
	const page = await context.newPage();
	await signIn(page, server);
	await page.getByRole('button', { name: 'Columns' }).tap();
	await page.getByRole('checkbox', { name: 'Sent by' }).tap();
	await page.keyboard.press('Escape');
	await expect(page.getByRole('columnheader', { name: 'Sent by' })).toBeVisible();
	await page.getByRole('button', { name: 'Filter the list' }).tap();
	await page.getByRole('combobox', { name: 'Waiting' }).tap();
	await page.getByRole('option', { name: '3 days or longer' }).tap();
	await expect(page.getByText('None of the packets that are out is like this.')).toBeVisible();
	await page.getByRole('button', { name: 'No filter' }).tap();
	await page.keyboard.press('Escape');
	await page.getByRole('link', { name: 'Loan of a viola' }).tap();
	await page.getByRole('button', { name: 'Move the deadline…' }).tap();
	await page.getByRole('button', { name: 'Calendar: New last day' }).tap();
	await page.getByRole('button', { name: /30 December 2030/ }).tap();
	await page.getByRole('button', { name: 'Move it' }).tap();
	await expect(page.getByText('to 2030-12-30')).toBeVisible();
	await page.getByRole('button', { name: 'More to do' }).tap();
	await page.getByRole('menuitem', { name: 'Withdraw…' }).tap();
	await expect(page.getByRole('dialog')).toContainText('Withdraw P-');
	await page.getByRole('dialog').getByRole('button', { name: 'Keep it out' }).tap();
	await clean(page, 'a packet at 390');
	// no view is wider than the phone; what is wide scrolls within itself
	const width = () => page.evaluate(() => document.documentElement.scrollWidth);
	expect(await width()).toBeLessThanOrEqual(390);
	await page.getByRole('button', { name: 'Areas' }).tap();
	await page.getByRole('menuitem', { name: 'Templates' }).tap();
	await page.waitForURL('**/templates');
	for (const view of ['templates', 'batches', 'records', 'settings', 'settings/about', 'stand-ins', 'account']) {
		await page.goto(`${server.origin}/${view}`);
		await ready(page);
		expect.soft([view, await width()]).toEqual([view, 390]);
	}
	await context.close();
});
