import { expect, test } from '@playwright/test';
import { clean } from './kit/axe';
import { answered, choose } from './kit/parts';
import { ready, Server, signIn } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('demo').start();
});
test.afterAll(() => server.stop());

test('the Desk’s list by keys: walked, opened beside, acted on; filtered, put in order, columns and views kept', async ({
	page
}) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/desk`);
	await ready(page);
	const rows = page.locator('tr[data-row]');
	await rows.first().focus();
	await page.keyboard.press('j');
	await expect(rows.nth(1)).toBeFocused();
	await page.keyboard.press('Enter');
	const beside = page.getByRole('complementary');
	await expect(beside).toContainText('Out for');
	await clean(page, 'the Desk with a packet beside');
	await beside.getByRole('button', { name: /^Nudge/ }).click();
	await expect(page.getByText(/^Nudged/)).toBeVisible();
	expect(page.url()).toContain('/desk');
	await page.keyboard.press('End');
	await beside.getByRole('button', { name: 'Close' }).click();

	// by a folder, and kept as a view
	const before = await rows.count();
	await page.getByRole('button', { name: 'Filter the list' }).click();
	await choose(
		page.getByRole('dialog', { name: 'Filter the list' }).getByRole('combobox', { name: 'Folder' }),
		'Stewards'
	);
	await expect.poll(() => rows.count()).toBeLessThan(before);
	await page.keyboard.press('Escape');
	await page.getByRole('columnheader', { name: 'Packet' }).getByRole('button').click();
	await expect(page.getByRole('columnheader', { name: 'Packet' })).toHaveAttribute('aria-sort', 'ascending');
	await page.getByRole('button', { name: 'Views' }).click();
	await page.getByLabel('Name of this view').fill('Stewards, by name');
	await page.getByRole('button', { name: 'Keep', exact: true }).click();
	await page.getByRole('button', { name: 'Columns' }).click();
	// a view kept brings no column back
	await expect(page.getByRole('columnheader', { name: 'Folder' })).toHaveCount(0);
	await answered(page, () => page.getByRole('checkbox', { name: 'Until' }).click(), /"hidden"/);
	await expect(page.getByRole('columnheader', { name: 'Until' })).toHaveCount(0);
	await page.goto(`${server.origin}/desk`);
	await ready(page);
	await expect(page.getByRole('columnheader', { name: 'Until' })).toHaveCount(0);
	await page.getByRole('button', { name: 'Views' }).click();
	await page.getByRole('button', { name: 'Stewards, by name', exact: true }).click();
	await expect(page).toHaveURL(/folder=Stewards/);
	// the keys of this page, where nobody is typing
	await page.locator('h1').click();
	await page.keyboard.press('?');
	await expect(page.getByRole('dialog', { name: 'Keys of this page' })).toContainText('the next row');
});

test('a press on a link is not lost where something changes before the page has come', async ({ page }) => {
	await page.addInitScript(() => {
		const all: EventTarget[] = [];
		const told = () => all.forEach((one) => one.dispatchEvent(new MessageEvent('packet', { data: '"another"' })));
		class Told extends EventTarget {
			constructor() {
				super();
				all.push(this);
			}
			close() {}
		}
		Object.assign(window, { EventSource: Told, told });
	});
	await signIn(page, server);
	await page.goto(`${server.origin}/desk`);
	await ready(page);
	let asked = 0;
	await page.route('**/desk/__data.json*', (route) => ((asked += 1), route.continue()));
	await page.route('**/records/__data.json*', async (route) => {
		await page.evaluate('told()');
		await page.waitForTimeout(800);
		await route.continue();
	});
	await page.getByRole('navigation').getByRole('link', { name: 'Records' }).first().click();
	await expect(page).toHaveURL(/records$/);
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Records');
	expect(asked).toBe(0);
});

test('rows don’t move under the hand: columns stay as wide while rows come and go, and a press on what has moved holds', async ({
	page
}) => {
	await signIn(page, server);
	const heads = () =>
		page.locator('thead th').evaluateAll((all) => all.map((one) => Math.round(one.getBoundingClientRect().width)));
	const heights = () =>
		page
			.locator('tr[data-row]')
			.evaluateAll((all) => all.map((one) => [(one as HTMLElement).dataset['row']!, one.clientHeight] as const));
	await page.locator('col').first().waitFor({ state: 'attached' });
	const widths = await heads();
	const high = new Map(await heights());
	await page.locator('tr[data-row]').first().hover();
	for (let i = 0; i < 12; i++) {
		await page.mouse.wheel(0, 150);
		await page.waitForTimeout(80);
		expect(await heads()).toEqual(widths);
		for (const [row, height] of await heights()) {
			expect(high.get(row) ?? height).toBe(height);
			high.set(row, height);
		}
	}
	await page.mouse.wheel(0, -4000);
	await expect(page.locator('tr[data-index="2"]')).toBeInViewport();
	const link = page.locator('tr[data-index="2"] a');
	const title = await link.innerText();
	await link.hover();
	await page.mouse.down();
	// as a row that comes above would
	await page.locator('thead tr').evaluate((row) => (row.style.height = '80px'));
	await page.mouse.up();
	await expect(page).toHaveURL(/packets/);
	await expect(page.getByRole('heading', { level: 1 })).toHaveText(title);
});

test('templates are chosen from one to another with Shift, and acted on above', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/templates`);
	await ready(page);
	const boxes = page.locator('tr[data-row]').getByRole('checkbox');
	await boxes.nth(0).click();
	await boxes.nth(3).click({ modifiers: ['Shift'] });
	await expect(page.getByText('4 chosen')).toBeVisible();
	await expect(page.getByRole('button', { name: 'Join 4 as one packet…' })).toBeEnabled();
});

test('settings say what was changed, and take it back', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/settings`);
	await ready(page);
	const box = page.getByRole('checkbox', { name: /how long each page was in view/ });
	const was = await box.getAttribute('aria-checked');
	await box.click();
	await page.getByRole('button', { name: 'Save' }).click();
	await expect(page.getByText('Changed: time in view')).toBeVisible();
	await page.getByRole('button', { name: 'Undo' }).click();
	await expect(page.getByText('As it was before')).toBeVisible();
	await page.reload();
	await ready(page);
	await expect(box).toHaveAttribute('aria-checked', was!);
});

test('what is typed into a search before the page answers stays there', async ({ page }) => {
	await signIn(page, server);
	let release = () => {};
	const held = new Promise<void>((resolve) => (release = resolve));
	await page.route(/_app\/.*\.js$/, async (route) => {
		await held;
		await route.continue();
	});
	await page.goto(`${server.origin}/records`, { waitUntil: 'commit' });
	await page.getByRole('searchbox', { name: 'Search records' }).fill('viola');
	release();
	await ready(page);
	await expect(page.getByRole('searchbox', { name: 'Search records' })).toHaveValue('viola');
});
