import { expect, test, type Page } from '@playwright/test';
import { docx } from '../demo/word';
import { FORMS } from '../demo/forms';
import { letterLike } from '../bench/press';
import { clean } from './kit/axe';
import { drafted, sends } from './kit/draft';
import { pictureOf, pictureOfWords } from './kit/pictures';
import { hiddenLayerPdf } from './kit/raw-pdf';
import { emptyBench, linkFromMail, ready, Server, signIn } from './kit/server';
import { readFileSync } from 'node:fs';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('accounts').start();
});
test.afterAll(() => server.stop());

const bench = (page: Page) => emptyBench(page, server);

const add = (page: Page, name: string, bytes: Uint8Array) =>
	page
		.getByLabel('Add documents')
		.setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(bytes) });

const drawn = (page: Page) => page.locator('canvas[data-drawn=yes]').first().waitFor();

test('a page that looks different is shown beside its file, wanted looked at, and accepted by keyboard', async ({
	page
}) => {
	await bench(page);
	await add(page, 'Loan.pdf', hiddenLayerPdf());
	await expect(page.getByText('Page 1 of “Loan” looks different from your file.')).toBeVisible();
	await page.getByRole('button', { name: 'before this can go' }).click();
	await page.getByRole('button', { name: 'Page 1 of “Loan” looks different from your file. Look at it.' }).click();
	const dialog = page.getByRole('dialog');
	for (const name of ['as the file shows it', 'as it was taken in'])
		await expect(dialog.getByRole('img', { name: new RegExp(name) })).toHaveJSProperty('complete', true);
	await expect(dialog.getByRole('status')).toHaveText('1 to look at');
	await clean(page, 'pages that look different', { frameless: true });
	await dialog.press('Enter');
	await expect(dialog).toBeHidden();
	await page.getByRole('button', { name: 'before this can go' }).click();
	await expect(page.getByText('looks different from your file. Look at it.')).toHaveCount(0);
	// what was accepted stays so when one comes back
	await page.reload();
	await drawn(page);
	await page.getByRole('button', { name: 'before this can go' }).click();
	await expect(page.getByText('looks different')).toHaveCount(0);
});

test('a scan can be worked on at once; its words, blanks and straightening come when a machine has read it', async ({
	page
}) => {
	const form = (await FORMS.find((one) => one.name === 'Hall hire application')!.make()).bytes;
	await bench(page);
	await add(page, 'Scan.pdf', await pictureOf(form, 2));
	await expect(page.getByText('A machine reads the pictures in “Scan”')).toBeVisible();
	await drawn(page);
	await page.getByRole('button', { name: 'Who signs first' }).click();
	await page.getByLabel('Name', { exact: true }).fill('Gwen Hartley');
	await page.keyboard.press('Escape');
	await expect(page.getByText(/read by a machine, \d+ % sure/)).toBeVisible({ timeout: 240_000 });
	await expect(page.getByText(/Page 1 is askew by (1\.\d|2(\.\d)?)°/)).toBeVisible();
	await expect(page.getByRole('group', { name: 'Found places' })).toContainText(/\d+ found/);
	expect(await page.locator('[data-found]').count()).toBeGreaterThan(10);
	const before = await page.locator('[data-sheet]').first().getAttribute('data-sheet');
	await page.getByRole('button', { name: 'Put it straight' }).click();
	await expect(page.getByText('A machine reads the pictures in “Scan”')).toBeVisible();
	await expect(page.getByText(/read by a machine/)).toBeVisible({ timeout: 240_000 });
	await expect(page.getByText('is askew')).toHaveCount(0);
	expect(await page.locator('[data-sheet]').first().getAttribute('data-sheet')).toBe(before);
	await page.keyboard.press('Control+z');
	await page.getByRole('button', { name: 'Find…' }).click();
	await page.getByLabel('Text to find').fill('Telephone');
	await expect(page.getByLabel('Find on the pages')).toContainText(/\b1\b/);
});

test('a two-party block is taken in one press: the roles the form names are made, each has its own', async ({
	page
}) => {
	await bench(page);
	await add(page, 'Tenancy.pdf', readFileSync('demo/forms/others/tenancy-of-a-practice-room.pdf'));
	await drawn(page);
	await page.getByRole('button', { name: 'Take all' }).click();
	await expect(page.getByText('The documents name “Landlord” and “Tenant”, and nobody here is that.')).toBeVisible();
	await page.getByRole('button', { name: 'Add all of them, and take all' }).click();
	await expect(page.getByText(/Took 13 places/)).toBeVisible();
	for (const role of ['Landlord', 'Tenant']) {
		await expect(page.locator(`[data-field][aria-label*="signature, Signature, ${role}"]`)).toHaveCount(1);
		await expect(page.locator(`[data-field][aria-label*="signed on"][aria-label*="${role}"]`)).toHaveCount(1);
	}
	// what the page doesn't say is marked, until somebody chooses
	await expect(page.locator('[data-field][aria-label*="doesn’t say whose"]').first()).toBeVisible();
	await page.keyboard.press('Control+z');
	await expect(page.locator('[data-field]')).toHaveCount(0);
});

test('a letter pressed and clicked on a found blank takes its place, size and label, for whoever is chosen', async ({
	page
}) => {
	await bench(page);
	await add(page, 'Tenancy.pdf', readFileSync('demo/forms/others/tenancy-of-a-practice-room.pdf'));
	await drawn(page);
	await page.getByRole('button', { name: 'Who signs first' }).click();
	await page.getByLabel('Name', { exact: true }).fill('Gwen Hartley');
	await page.keyboard.press('Escape');
	const blank = page.locator('[data-found][title^="Address of the room"]');
	const box = (await blank.boundingBox())!;
	const kinds = async () => page.getByRole('toolbar', { name: 'Kinds of field' }).getByRole('button').allTextContents();
	const order = (await kinds()).map((text) => text.trim().slice(0, 1));
	await page.keyboard.press('n');
	await blank.click();
	await page.keyboard.press('Escape');
	const field = page.locator('[data-field]');
	await expect(field).toHaveAttribute('aria-label', /^name, Address of the room, Gwen Hartley/);
	const placed = (await field.boundingBox())!;
	for (const side of ['x', 'y', 'width', 'height'] as const) expect(Math.abs(placed[side] - box[side])).toBeLessThan(3);
	// nothing in the tray moves under the hand
	expect((await kinds()).map((text) => text.trim().slice(0, 1))).toEqual(order);
});

test('long work says how far it is and can be called off; a short file beside it does not wait', async ({ page }) => {
	await bench(page);
	await add(page, 'Long.pdf', await letterLike(700));
	await expect(page.getByText(/Long.*: (waiting its turn|being taken in|page \d+ of 700)/)).toBeVisible();
	const other = await page.context().newPage();
	await other.goto(`${server.origin}/desk`);
	await ready(other);
	await other.getByRole('button', { name: 'New packet' }).click();
	await other.waitForURL('**/bench/*');
	await ready(other);
	await add(other, 'Short.pdf', await letterLike(2));
	// how fast the browser draws is not what is asked: only that the long one is still under way when it has
	await other.locator('canvas[data-drawn=yes]').first().waitFor();
	await page.getByRole('button', { name: 'Call it off' }).click();
	await expect(page.getByText('“Long.pdf” was called off. Nothing of it was added.')).toBeVisible();
	await expect(page.getByText('Drop the document here')).toBeVisible();
});

test('tracked changes of a Word document are said, and taken in as somebody chooses', async ({ page }) => {
	const w = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
	const bytes = docx([], [], {
		'word/document.xml': `<?xml version="1.0"?><w:document ${w}><w:body><w:p><w:r><w:t>The fee is </w:t></w:r><w:ins w:author="Tamsin Okoro"><w:r><w:t>785</w:t></w:r></w:ins></w:p></w:body></w:document>`
	});
	await bench(page);
	await add(page, 'Letter.docx', bytes);
	await expect(page.getByText('1 tracked change by Tamsin Okoro')).toBeVisible();
	await page.getByRole('button', { name: 'As it was before' }).click();
	await drawn(page);
	await expect(page.getByText('as it was before 1 tracked change')).toBeVisible();
});

test('a signer who reads a scan as text is told that a machine has read it', async ({ page }) => {
	await signIn(page, server);
	const bytes = await pictureOfWords(['Agreement on the loan of a violin', 'Signature of the borrower'], 0, 700);
	await drafted(page, server, { title: 'Scanned loan', stops: [['maren']], bytes });
	await expect(page.getByText(/read by a machine/)).toBeVisible({ timeout: 240_000 });
	await sends(page);
	const link = await linkFromMail(page, server, 'maren@post.example');
	await page.goto(link);
	await ready(page);
	await page.getByLabel('I agree').check();
	await page.getByRole('button', { name: 'Go to the document' }).click();
	await page.getByRole('button', { name: 'Read as text' }).click();
	await expect(page.getByText('A machine has read these words from a picture.')).toBeVisible();
	await expect(page.getByRole('article')).toContainText('Agreement on the loan of a violin');
});
