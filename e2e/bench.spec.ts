import { expect, test, type Locator, type Page } from '@playwright/test';
import { FORMS } from '../demo/forms';
import { pdf } from './kit/pdfs';
import { emptyBench, linkFromMail, ready, Server } from './kit/server';
import { choose, fromMenu, typeDay } from './kit/parts';
import { clean } from './kit/axe';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('accounts').start();
});
test.afterAll(() => server.stop());

const form = async (name: string) => Buffer.from((await FORMS.find((f) => f.name === name)!.make()).bytes);

/** A new packet with a document, and people on its route. */
async function bench(page: Page, name: string, bytes: Uint8Array, people: [string, string, string?][] = []) {
	await emptyBench(page, server);
	await page
		.getByLabel('Add documents')
		.setInputFiles({ name: `${name}.pdf`, mimeType: 'application/pdf', buffer: Buffer.from(bytes) });
	await page.locator('canvas[data-drawn=yes]').first().waitFor();
	for (const [who, email, job] of people) {
		await page.getByRole('button', { name: /Who signs first|Somebody next/ }).click();
		await page.getByLabel('Name', { exact: true }).fill(who);
		await page.getByLabel('E-mail').fill(email);
		if (job) await page.getByLabel('Job title').fill(job);
	}
	await page.keyboard.press('Escape');
	await page.keyboard.press('Escape');
}
const MAREN: [string, string, string?] = ['Maren Lindqvist', 'maren@post.example', 'Borrower'];
const TAMSIN: [string, string, string?] = ['Tamsin Okoro', 'tamsin@brindlevale.example', 'Lender'];

const fields = (page: Page) => page.locator('[data-field]');
const sheet = (page: Page) => page.locator('[data-sheet]').first();
const inspector = (page: Page) => page.getByLabel('Inspector');
const undoName = (page: Page) => page.getByRole('button', { name: /^Undo/ }).getAttribute('aria-label');

async function place(page: Page, letter: string, x: number, y: number) {
	await page.keyboard.press('Escape');
	await page.keyboard.press(letter);
	await sheet(page).click({ position: { x, y } });
	await page.keyboard.press('Escape');
}

async function drag(page: Page, what: Locator, dx: number, dy: number, keys: string[] = []) {
	const box = (await what.boundingBox())!;
	const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
	await page.mouse.move(x, y);
	for (const key of keys) await page.keyboard.down(key);
	await page.mouse.down();
	for (let i = 1; i <= 4; i++) await page.mouse.move(x + (dx * i) / 4, y + (dy * i) / 4);
	await page.waitForTimeout(60);
	const guides = await page.locator('[data-guide]').count();
	await page.mouse.up();
	for (const key of keys) await page.keyboard.up(key);
	return guides;
}

test('sixty fields for four people on six pages, by keyboard; undo is named and survives a reload', async ({
	page
}) => {
	await bench(page, 'Hall hire', await pdf(6), [
		MAREN,
		TAMSIN,
		['Gwen Aldous', 'gwen@post.example'],
		['Ruben Vasquez-Lind', 'ruben@brindlevale.example']
	]);
	const status = page.getByLabel('Tray');
	for (const [i, name] of ['Maren Lindqvist', 'Tamsin Okoro', 'Gwen Aldous', 'Ruben Vasquez-Lind'].entries()) {
		await page.keyboard.press(String(i + 1));
		await expect(status).toContainText(name);
		await page.keyboard.press('i');
		await page.keyboard.press('Enter');
		await page.keyboard.press('Escape');
		// initials on all pages in one step
		await page.keyboard.press('Control+d');
		await page.getByRole('textbox', { name: 'Pages' }).fill('all');
		await page.keyboard.press('Enter');
		await expect(page.getByRole('dialog')).toBeHidden();
		for (const letter of ['s', 'd', 'n', 't', 'u', 'y', 'e', 'o', 'j']) {
			await page.keyboard.press(letter);
			await page.keyboard.press('Enter');
		}
		await page.keyboard.press('Escape');
	}
	await page.keyboard.press('Control+l');
	await expect(page.getByText('60 of 60')).toBeVisible();
	await page.keyboard.press('Escape');
	await page.keyboard.press('Control+a');
	await page.keyboard.press('ArrowRight');
	expect(await undoName(page)).toBe('Undo: move 60 fields');
	await expect(page.getByText(/draft, saved/)).toBeVisible();
	await page.reload();
	await ready(page);
	await expect.poll(() => undoName(page)).toBe('Undo: move 60 fields');
	await page.keyboard.press('Control+z');
	await page.keyboard.press('Control+z');
	expect(await page.getByRole('button', { name: /^Redo/ }).getAttribute('aria-label')).toBe('Redo: place job title');
	await page.keyboard.press('Control+l');
	await expect(page.getByText('59 of 59')).toBeVisible();
	await page.keyboard.press('Control+y');
	await expect(page.getByText('60 of 60')).toBeVisible();
});

test('by mouse: from the tray, with guides, by handles, a band, copies, to another page', async ({ page }) => {
	await bench(page, 'Instrument loan', await form('Instrument loan'), [MAREN]);
	await page.getByRole('button', { name: 'Hide' }).click();
	// dragged from the tray to its place
	const key = (await page.getByRole('button', { name: 'T text' }).boundingBox())!;
	const paper = (await sheet(page).boundingBox())!;
	await page.mouse.move(key.x + 20, key.y + 10);
	await page.mouse.down();
	await page.mouse.move(paper.x + 200, paper.y + 520, { steps: 5 });
	await page.mouse.up();
	await expect(fields(page)).toHaveCount(1);
	const box = async (i = 0) => (await fields(page).nth(i).boundingBox())!;
	const first = await box();
	expect(Math.abs(first.x + first.width / 2 - paper.x - 200)).toBeLessThan(8);
	expect(await page.getByRole('button', { name: 'T text' }).getAttribute('aria-pressed')).toBe('false');

	// onto the line behind "Loan from": it stands on it, and guides say so
	const line = { x: 107.4 + 50, y: 178 };
	const target = { x: paper.x + 92 * 1.075 + 6, y: paper.y + line.y * 1.075 - 2 };
	const guides = await drag(page, fields(page).first(), target.x - first.x, target.y - first.y - first.height);
	expect(guides).toBeGreaterThan(0);
	const moved = await box();
	expect(moved.y + moved.height).toBeCloseTo(paper.y + line.y * 1.075, 0);
	expect(await undoName(page)).toBe('Undo: move a field');
	// Ctrl lets it stand anywhere
	await drag(page, fields(page).first(), 0, 203, ['Control']);
	expect((await box()).y).toBeCloseTo(moved.y + 203, 0);

	// by its right handle: only the right side moves
	const before = await box();
	await drag(page, page.locator('[data-handle="1 0"]'), 37, 40, ['Control']);
	const wider = await box();
	expect([wider.x, wider.y, wider.height]).toEqual([before.x, before.y, before.height]);
	expect(wider.width - before.width).toBeCloseTo(37, 0);

	// Alt leaves a copy; a band round both chooses both; Shift takes one out again
	await drag(page, fields(page).first(), 0, 60, ['Alt']);
	await expect(fields(page)).toHaveCount(2);
	await page.keyboard.press('Escape');
	const top = await box();
	await page.mouse.move(top.x - 15, top.y - 15);
	await page.mouse.down();
	await page.mouse.move(top.x + 260, top.y + 110, { steps: 3 });
	await page.mouse.up();
	await expect(page.locator('[data-field][aria-pressed=true]')).toHaveCount(2);
	await fields(page)
		.first()
		.click({ modifiers: ['Shift'] });
	await expect(page.locator('[data-field][aria-pressed=true]')).toHaveCount(1);

	// aligned and made alike
	await page.keyboard.press('Control+a');
	await drag(page, fields(page).first(), 31, 0, ['Control']);
	await page.keyboard.press('Escape');
	await fields(page).nth(1).click();
	await drag(page, fields(page).nth(1), 40, 0, ['Control']);
	await page.keyboard.press('Control+a');
	await page.getByRole('button', { name: 'Align: left edges in line' }).click();
	expect((await box(0)).x).toBeCloseTo((await box(1)).x, 1);
	expect(await undoName(page)).toBe('Undo: align 2 fields');
	// exact, in the unit that is wished
	await page.keyboard.press('Escape');
	await fields(page).first().click();
	await choose(page.getByLabel('Unit'), 'points');
	await page.getByLabel('From left').fill('72');
	await page.getByLabel('From left').press('Tab');
	expect((await box()).x).toBeCloseTo(paper.x + 72 * 1.075, 0);
	await choose(page.getByLabel('Unit'), 'inches');
	await expect(page.getByLabel('From left')).toHaveValue('1');
});

test('cut and pasted on another page and in another packet, whose people are asked about', async ({ page }) => {
	await bench(page, 'Rota', await pdf(2), [MAREN]);
	await place(page, 't', 200, 300);
	await page.keyboard.press('Control+c');
	await page.getByRole('button', { name: 'Go to Rota, page 2' }).click();
	await page.keyboard.press('Control+v');
	await expect(inspector(page)).toContainText('page 2');
	await page.keyboard.press('Control+z');
	// dragged onto the next page
	await page.getByRole('button', { name: 'Go to Rota, page 1' }).click();
	for (let i = 0; i < 4; i++) await page.getByRole('button', { name: 'Smaller' }).click();
	const two = (await page.locator('[data-sheet]').nth(1).boundingBox())!;
	const at = (await fields(page).first().boundingBox())!;
	await drag(page, fields(page).first(), 0, two.y + 100 - at.y, ['Control']);
	await expect(inspector(page)).toContainText('page 2');
	await page.keyboard.press('Control+x');
	await expect(fields(page)).toHaveCount(0);

	await bench(page, 'Other', await pdf(1), [TAMSIN]);
	await page.keyboard.press('Control+v');
	await expect(page.getByRole('dialog')).toContainText('Whose are these fields here?');
	await choose(page.getByLabel('What was Maren Lindqvist’s'), 'Tamsin Okoro');
	await page.getByRole('button', { name: 'Place them' }).click();
	await expect(fields(page)).toHaveCount(1);
	await expect(page.getByLabel('Answered by')).not.toHaveText('nobody yet');
});

test('by touch: placed with a tap, dragged with a finger', async ({ browser }) => {
	const context = await browser.newContext({ viewport: { width: 1100, height: 800 }, hasTouch: true, locale: 'en-GB' });
	const page = await context.newPage();
	await bench(page, 'Tablet', await pdf(1), [MAREN]);
	await page.getByRole('button', { name: 'S signature' }).tap();
	await sheet(page).tap({ position: { x: 200, y: 300 } });
	await page.getByRole('button', { name: 'S signature' }).tap();
	await expect(fields(page)).toHaveCount(1);
	const box = (await fields(page).first().boundingBox())!;
	const touch = await context.newCDPSession(page);
	const point = (x: number, y: number) => [{ x: box.x + 60 + x, y: box.y + 15 + y }];
	await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: point(0, 0) });
	for (let i = 1; i <= 5; i++)
		await touch.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: point(i * 12, i * 16) });
	await page.waitForTimeout(60);
	await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
	await expect.poll(async () => Math.round((await fields(page).first().boundingBox())!.y - box.y)).toBeGreaterThan(70);
	await context.close();
});

test('found places: one by Enter, a page’s, all; whose they are; a form’s own fields', async ({ page }) => {
	await bench(page, 'Loan', await form('Instrument loan'), [TAMSIN, MAREN]);
	await expect(page.getByRole('group', { name: 'Found places' })).toContainText('20 found');
	await expect(fields(page)).toHaveCount(0);
	await page.keyboard.press('.');
	await expect(page.locator('[data-found]:focus')).toHaveAttribute(
		'aria-label',
		/Found: text, Borrower’s name, for Maren Lindqvist, as the page says/
	);
	await page.keyboard.press('Enter');
	await expect(fields(page)).toHaveCount(1);
	await expect(page.getByRole('group', { name: 'Found places' })).toContainText('19 found');
	await expect(page.getByLabel(/^Key/)).toHaveValue('borrower_s_name');
	await page.getByRole('button', { name: 'Take this page’s' }).click();
	await expect(fields(page)).toHaveCount(20);
	expect(await undoName(page)).toBe('Undo: take 19 found places');
	await expect(page.locator('[data-field][aria-label^="signature, Signed, Tamsin"]')).toHaveCount(1);
	await expect(page.locator('[data-field][aria-label^="signature, Signed, Maren"]')).toHaveCount(1);
	// the block of the first signer once more for the second, and given to somebody else in one step
	await page.locator('[data-field][aria-label^="signature, Signed, Tamsin"]').click();
	await choose(page.getByLabel('Copy for another person'), 'Maren Lindqvist');
	await expect(page.locator('[data-field][aria-label^="signature, Signed, Maren"]')).toHaveCount(2);
	await choose(page.getByLabel('Answered by'), 'Tamsin Okoro');
	await expect(page.locator('[data-field][aria-label^="signature, Signed, Tamsin"]')).toHaveCount(2);

	await bench(page, 'Claim', await form('Form with fields of its own'), [MAREN]);
	await expect(page.getByText(/form fields/)).toBeVisible();
	await page.getByRole('button', { name: 'Take all' }).click();
	// the form speaks of a claimant, whom this packet doesn't have
	await page.getByRole('button', { name: 'Take all as it is' }).click();
	await page.getByRole('button', { name: 'List', exact: true }).click();
	await expect(page.getByText('7 of 7')).toBeVisible();
	await page.getByRole('button', { name: 'Go to town' }).click();
	await expect(page.getByLabel(/^Value \d/)).toHaveCount(2);
	await expect(page.getByLabel('Value 2', { exact: true })).toHaveValue('Brindlevale');
});

test('a text is found on the pages, and a field placed at each', async ({ page }) => {
	await bench(page, 'Book', await pdf(5), [MAREN]);
	await page.keyboard.press('Control+f');
	await page.getByLabel('Text to find').fill('hello WORLD');
	await expect(page.getByText('5 finds')).toBeVisible();
	await page.keyboard.press('Enter');
	await page.keyboard.press('Enter');
	await expect(page.getByText(/at 2: Hello world 2/)).toBeVisible();
	await choose(page.getByLabel('Where to place it'), 'below it');
	await page.getByRole('button', { name: 'Place at all 5' }).click();
	expect(await undoName(page)).toBe('Undo: place initials at 5 finds');
	await page.keyboard.press('Control+l');
	await expect(page.locator('[data-row]')).toHaveCount(5);
	// the list does what the pages do: sort, filter, edit many, go there
	await page.getByRole('columnheader', { name: 'Page' }).getByRole('button').click();
	await expect(page.locator('[data-row]').first().getByRole('button')).toHaveText('5');
	await page.locator('[data-row]').first().getByRole('textbox').fill('Last page');
	await page.locator('[data-row]').first().getByRole('textbox').press('Enter');
	await page.getByPlaceholder('Label or key').fill('last');
	await expect(page.getByText('1 of 5')).toBeVisible();
	await page.getByPlaceholder('Label or key').fill('');
	await page.getByLabel('Choose all that are listed').check();
	await inspector(page).getByLabel('must be answered').uncheck();
	await expect(page.locator('[data-row] input[aria-label$="must be answered"]:checked')).toHaveCount(0);
	expect(await undoName(page)).toBe('Undo: needed of 5 fields');
	await page.getByRole('button', { name: 'Go to Last page on page 5' }).click();
	await expect(page.locator('[data-field]:focus')).toHaveAttribute('aria-label', /Last page/);
});

test('rules: put together or written, refused while typed, live in the rehearsal, the same when signed', async ({
	page
}) => {
	test.slow();
	await bench(page, 'Engagement', await pdf(1), [MAREN]);
	await place(page, 's', 150, 650);
	await page.getByLabel('for me to fill in').check();
	await place(page, 'u', 150, 200);
	await page.getByLabel('Label').fill('Fee');
	await page.getByLabel(/^Key/).fill('fee');
	await choose(page.getByLabel('Currency'), 'EUR');
	await page.getByLabel('for me to fill in').uncheck();
	await place(page, 'u', 150, 250);
	await page.getByLabel('Label').fill('Nights');
	await page.getByLabel(/^Key/).fill('nights');
	await page.getByLabel('Decimals').fill('0');
	await place(page, 'c', 150, 300);
	const rule = page.getByRole('combobox', { name: 'Rule' });
	// the place of what is wrong is marked
	await rule.fill('fee * night');
	await expect(inspector(page)).toContainText('There is no field with the key “night”. Is “nights” meant?');
	await expect(inspector(page).locator('mark')).toHaveText('night');
	await expect(page.getByRole('button', { name: /before this can go/ })).toBeVisible();
	// completed by key, with the present result beside it
	await rule.press('End');
	await expect(page.getByRole('option', { name: /nights/ })).toBeVisible();
	await rule.press('Enter');
	await expect(rule).toHaveValue('fee * nights');
	await choose(page.getByLabel('Currency'), 'EUR');
	await expect(inspector(page)).toContainText('gives €57,600.00 with fee 240, nights 240');
	await rule.fill('computed + 1');
	await expect(inspector(page)).toContainText('computed → computed');
	await rule.fill('x + '.repeat(3000));
	await expect(inspector(page)).toContainText(
		'A rule may have 2,000 characters; this has 12,000. What stood here before is kept.'
	);
	await rule.fill('fee * nights');
	// a condition put together without typing
	await place(page, 't', 150, 400);
	await page.getByLabel('Label').fill('Where they sleep');
	await choose(page.getByRole('combobox', { name: 'Shown', exact: true }), 'when another answer is …');
	await choose(page.getByLabel('Shown: which answer'), 'nights');
	await choose(page.getByLabel('Shown: how'), 'is more than');
	await page.getByLabel('Shown: value').fill('1');
	await page.getByLabel('Shown: value').press('Tab');

	// the sender's own answer is missing: preflight leads to it
	await page.keyboard.press('Escape');
	await page.getByRole('button', { name: /1 thing before this can go/ }).click();
	await page.getByRole('button', { name: /“Fee” on page 1 is yours to fill in/ }).click();
	await page.getByLabel('Inspector').getByRole('textbox', { name: 'Fee' }).fill('240');
	await expect(page.getByRole('button', { name: /Ready to go/ })).toBeVisible();

	// rehearsed at a phone's width
	await page.getByRole('button', { name: 'Rehearse' }).click();
	await page.getByRole('radio', { name: 'Phone' }).click();
	const inside = page.frameLocator('iframe');
	await inside.locator('canvas[data-drawn=yes]').first().waitFor();
	expect(await inside.locator('body').evaluate((body) => body.clientWidth)).toBe(390);
	await expect(inside.locator('[data-todo]')).toHaveCount(2);
	await inside.locator('[data-todo]', { hasText: 'Nights' }).getByRole('button').click();
	await inside.getByRole('textbox', { name: 'Nights' }).fill('2.5');
	await expect(inside.getByRole('alert').filter({ hasText: 'Whole numbers only' })).toBeVisible();
	await inside.getByRole('textbox', { name: 'Nights' }).fill('3');
	await expect(inside.locator('[data-todo]', { hasText: 'Where they sleep' })).toBeVisible();
	await expect(inside.locator('[data-sheet], .relative').getByText('€720.00').first()).toBeVisible();
	await page.getByRole('radio', { name: 'Desk', exact: true }).click();
	await page.getByRole('button', { name: 'From the beginning' }).click();
	await ready(inside);
	await inside.getByRole('button', { name: 'Fill in sample answers' }).click();
	await expect(inside.locator('#todo')).toContainText('all done');
	await inside.getByRole('button', { name: 'Sign as Maren Lindqvist' }).click();
	await expect(inside.getByRole('heading', { name: 'Maren Lindqvist is through' })).toBeVisible();
	await page.getByRole('button', { name: 'Close' }).click();
	await page.goto(`${server.origin}/stand-ins?to=maren@post.example`);
	await expect(page.getByText('To sign: Engagement')).toHaveCount(0);
	await page.goBack();
	await ready(page);

	// and so it goes
	await page.getByRole('button', { name: 'Send…' }).click();
	await page.getByRole('button', { name: 'Send now' }).click();
	await page.waitForURL('**/packets/*');
	await page.goto(await linkFromMail(page, server, 'maren@post.example', 'Engagement'));
	await ready(page);
	await page.getByLabel('I agree').check();
	await page.getByRole('button', { name: /Go to the document/ }).click();
	await page.locator('canvas[data-drawn=yes]').first().waitFor();
	await expect(page.locator('[data-todo]')).toHaveCount(2);
	await page.locator('[data-todo]', { hasText: 'Nights' }).getByRole('button').click();
	await page.getByRole('textbox', { name: 'Nights' }).fill('2');
	await page.locator('[data-todo]', { hasText: 'Where they sleep' }).getByRole('button').click();
	await page.getByRole('textbox', { name: 'Where they sleep' }).fill('With the Aldouses');
	await page.locator('[data-todo]', { hasText: 'Signature' }).getByRole('button').click();
	await page.getByRole('button', { name: /handwriting 1/ }).click();
	await page.getByRole('button', { name: 'Sign as Maren Lindqvist' }).click();
	await page.getByRole('link', { name: /^Engagement P-/ }).waitFor();
	await expect(page.getByText('€480.00').first()).toBeAttached();
});

test('every kind is asked for on the page in its own way, and a file goes along', async ({ page }) => {
	await bench(page, 'Kinds', await pdf(1), [MAREN]);
	for (const [i, letter] of [...'sneojtuyl'].entries())
		await place(page, letter, 150 + 330 * (i % 2), 80 + 40 * Math.floor(i / 2));
	await page.getByLabel('Help').fill('As your contract says');
	await page.getByRole('button', { name: 'all as lines' }).click();
	await page.getByLabel('One a line').fill('st = Staunton\nbr = Brindlevale');
	await page.getByLabel('One a line').press('Tab');
	await page.keyboard.press('Escape');
	// two buttons of one group, with texts
	await page.keyboard.press('p');
	await sheet(page).click({ position: { x: 100, y: 330 } });
	await sheet(page).click({ position: { x: 200, y: 330 } });
	await page.keyboard.press('Escape');
	await expect(page.locator('[data-field][aria-label^="pick one"]')).toHaveCount(2);
	await page.keyboard.press('Escape');
	await place(page, 'b', 100, 370);
	await page.getByLabel('Label').fill('I take the bus');
	await place(page, 'a', 250, 410);
	await place(page, 'w', 450, 410);
	await page.getByLabel('What it says').fill('Bring the instrument’s papers.');
	await place(page, 'x', 150, 60);
	await place(page, 'g', 450, 500);
	const picker = page.getByLabel(/Picture: /);
	await picker.setInputFiles({ name: 'stamp.png', mimeType: 'image/png', buffer: Buffer.from('no picture at all') });
	await expect(inspector(page)).toContainText(
		'That is not a picture that can be read. Use a PNG or JPEG. Everything else is kept.'
	);
	const red = await page.screenshot({ clip: { x: 0, y: 0, width: 60, height: 40 } });
	await picker.setInputFiles({ name: 'stamp.png', mimeType: 'image/png', buffer: red });
	await expect(page.locator('[data-field] img')).toBeVisible();
	await page.keyboard.press('Escape');
	await page.keyboard.press('Escape');
	await expect(page.getByRole('button', { name: /Ready to go/ })).toBeVisible();
	await page.getByRole('button', { name: 'Send…' }).click();
	await page.getByRole('button', { name: 'Send now' }).click();
	await page.waitForURL('**/packets/*');
	const packet = page.url();

	await page.goto(await linkFromMail(page, server, 'maren@post.example', 'Kinds'));
	await ready(page);
	await page.getByLabel('I agree').check();
	await page.getByRole('button', { name: /Go to the document/ }).click();
	await page.locator('canvas[data-drawn=yes]').first().waitFor();
	const open = (label: string) =>
		page.locator('[data-todo]').filter({ hasText: label }).getByRole('button').first().click();
	await open('Signature');
	await page.getByRole('button', { name: /handwriting 2/ }).click();
	await open('Organisation');
	await page.getByRole('textbox', { name: 'Organisation' }).fill('Lindqvist Quartet');
	await open('Text');
	await page.getByRole('textbox', { name: 'Text' }).fill('Two rooms');
	await open('Number');
	await page.getByRole('textbox', { name: 'Number' }).fill('twelve');
	await expect(page.getByText('That is not a number. Write it like 1,234.5.')).toBeVisible();
	await page.getByRole('textbox', { name: 'Number' }).fill('1,200');
	await open('Date');
	await typeDay(page, 'Date', '2026-12-24');
	await open('Choice list');
	await expect(page.getByText('As your contract says')).toBeVisible();
	await choose(page.getByRole('combobox', { name: 'Choice list' }), 'Brindlevale');
	// groups by their places on the page
	await page.locator('button[data-place]').filter({ hasText: 'Pick one' }).nth(1).click();
	await page.locator('button[data-place]').filter({ hasText: 'I take the bus' }).click();
	await expect(page.locator('[data-todo]', { hasText: 'Pick one' })).toContainText('option_2');
	await open('Attachment');
	const file = page.getByLabel('Attachment:');
	await file.setInputFiles({ name: 'notes.pdf', mimeType: 'application/pdf', buffer: Buffer.from('only words') });
	await expect(page.getByText(/Allowed: PDF, DOCX, PNG or JPEG/)).toBeVisible();
	await file.setInputFiles({ name: 'Insurance.pdf', mimeType: 'application/pdf', buffer: Buffer.from(await pdf(1)) });
	await expect(page.locator('[data-todo]', { hasText: 'Attachment' })).toContainText('Insurance.pdf');
	await expect(page.locator('#todo')).toContainText('all done');
	await page.getByRole('button', { name: 'Sign as Maren Lindqvist' }).click();
	await page.getByRole('link', { name: /Insurance/ }).waitFor();

	await page.goto(packet);
	await expect(page.getByRole('link', { name: 'Insurance.pdf' })).toBeVisible();
	const csv = await (await page.request.get(`${packet}/copies/answers-csv`)).text();
	for (const said of [
		'Number,number,Maren Lindqvist,1200,"1,200"',
		'2026-12-24,24 December 2026',
		'br,Brindlevale',
		'Insurance.pdf',
		'option_2'
	])
		expect(csv).toContain(said);
});

test('what can’t be is said, and nothing is lost', async ({ page }) => {
	await bench(page, 'Odd', await pdf(2), [MAREN]);
	await place(page, 's', 200, 300);
	await place(page, 't', 200, 400);
	await page.getByLabel(/^Key/).fill('my key');
	await expect(inspector(page)).toContainText('“my_key” would do.');
	await page.getByLabel(/^Key/).fill('my_key');
	await choose(page.getByRole('combobox', { name: 'Must be', exact: true }), 'a pattern of my own');
	await page.getByLabel(/^Pattern/).fill('(a+)+$(');
	await expect(inspector(page)).toContainText('can’t be read as a regular expression');
	await page.getByLabel(/^Pattern/).fill('(a+)+$');
	await expect(inspector(page)).not.toContainText('can’t be read');
	await page.keyboard.press('Escape');
	await page.keyboard.press('Control+d');
	await page.getByRole('textbox', { name: 'Pages' }).fill('7 to 9');
	await page.getByRole('button', { name: 'Repeat', exact: true }).click();
	await expect(
		page.getByText('Write the pages as “all”, “odd”, “even” or “3-7, 9”; this document has 2.')
	).toBeVisible();
	await page.getByRole('button', { name: 'Not now' }).click();
	// a document goes with its fields, and comes back with them
	await fromMenu(page.getByRole('button', { name: 'More to do with Odd' }), 'Take out');
	await expect(page.getByText('Drop the document here')).toBeVisible();
	await page.keyboard.press('Control+z');
	await expect(fields(page)).toHaveCount(2);
	// over each other: worth a look, cured in one press
	await fields(page).nth(1).click();
	await drag(page, fields(page).nth(1), 0, -105, ['Control']);
	await page.getByRole('button', { name: /1 worth a look/ }).click();
	await page.getByRole('button', { name: 'Move it below' }).click();
	await expect(page.getByRole('button', { name: 'Ready to go' })).toBeVisible();
});

test('axe finds nothing on the Bench in any of its parts; at 200 % all is reached', async ({ page }) => {
	test.slow();
	await bench(page, 'Loan', await form('Instrument loan'), [TAMSIN, MAREN]);
	await clean(page, 'found places', { frameless: true, placed: true });
	await page.getByRole('button', { name: 'Take all' }).click();
	await clean(page, 'many chosen', { frameless: true, placed: true });
	for (const letter of ['t', 'u', 'y', 'l', 'p', 'b', 'a', 'c', 'w', 'g']) {
		await page.keyboard.press('Escape');
		await page.keyboard.press('Escape');
		await place(page, letter, 500, 40);
		await clean(page, `inspector of ${letter}`, { frameless: true, placed: true });
	}
	await choose(page.getByRole('combobox', { name: 'Shown', exact: true }), 'by a rule I write');
	await page.getByRole('combobox', { name: 'Rule' }).fill('va');
	await clean(page, 'rule', { frameless: true, placed: true });
	await page.keyboard.press('Escape');
	await page.keyboard.press('Escape');
	await page.keyboard.press('Escape');
	await page.keyboard.press('Control+l');
	await clean(page, 'list', { frameless: true, placed: true });
	await page.getByRole('button', { name: /before this can go/ }).click();
	await clean(page, 'preflight', { frameless: true, placed: true });
	await page.keyboard.press('?');
	await clean(page, 'keys', { frameless: true, placed: true });
	await page.keyboard.press('Escape');
	await page.getByRole('button', { name: 'Rehearse' }).click();
	await clean(page, 'rehearsal', { frameless: true, placed: true });
	const src = (await page.locator('iframe').getAttribute('src'))!;
	await page.getByRole('button', { name: 'Close' }).click();
	// a screen of 1280 at 200 %: everything can be scrolled to
	await page.setViewportSize({ width: 640, height: 400 });
	for (const name of ['Send…', 'More to do with Loan', 'X strike', 'S signature', 'Larger']) {
		const button = page.getByRole('button', { name }).first();
		if (name === 'More to do with Loan') await page.getByRole('button', { name: 'Papers', exact: true }).click();
		await button.scrollIntoViewIfNeeded();
		await expect(button).toBeInViewport();
	}
	await page.setViewportSize({ width: 1280, height: 800 });
	await page.goto(server.origin + src);
	await ready(page);
	await clean(page, 'rehearsal, inside', { frameless: true });
});
