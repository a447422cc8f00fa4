import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { hallHire } from '../demo/documents';
import { printedPages } from '../demo/paper/pages';
import { scanned, type Pen, type Scan } from '../demo/paper/scanned';
import type { SheetOut } from '../src/lib/core/paper';
import { clean } from './kit/axe';
import { drafted, sends, signsAs, takesPart } from './kit/draft';
import { linkFromMail, phone, ready, Server, signIn } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('accounts').start();
});
test.afterAll(() => server.stop());

const A4 = { width: 595.28, height: 841.89 };

/** A page as somebody's telephone has it. */
const photo = async (page: Uint8Array, name: string, pens: Pen[], scan: Partial<Scan> = {}) => ({
	name,
	mimeType: 'image/jpeg',
	buffer: Buffer.from(await scanned(page, A4, pens, { by: 'phone', dpi: 165, turn: 1.5, aside: 0.08, ...scan }))
});

/** What went out last, as the server keeps it. */
const sheetsOut = () =>
	JSON.parse(
		server.reading((db) => db.prepare('SELECT sheets FROM paper_outs ORDER BY at DESC LIMIT 1').pluck().get() as string)
	) as SheetOut[];

test('signed in ink at 390 px: fetched, changed by hand, asked for again, taken; the office signs on the scanned page', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/settings/paper`);
	await ready(page);
	await page.getByRole('checkbox', { name: 'People may be let sign on paper' }).check();
	await page.getByLabel('Where it may be sent by post').fill('3 Mill Lane');
	await page.getByRole('button', { name: 'Save' }).click();
	await expect(page.getByText('Saved.')).toBeVisible();
	await clean(page, 'the settings of paper');

	const letter = await hallHire('the Parish Hall', 'GBP 340.00', false);
	await drafted(page, server, {
		title: 'Hall hire, Parish',
		bytes: letter.bytes,
		stops: [['noel'], ['tamsin']],
		people: { noel: { name: 'Noel Hartigan' } }
	});
	await page.getByRole('button', { name: /^Noel Hartigan signs/ }).click();
	await page.getByRole('switch', { name: 'May sign on paper' }).press('Space');
	await sends(page);
	const packet = page.url();

	const noel = await phone(browser);
	await noel.goto(await linkFromMail(page, server, 'noel@post.example'));
	await ready(noel);
	await noel.getByRole('button', { name: 'Sign on paper' }).click();
	await expect(noel.getByRole('listitem')).toHaveCount(4);
	await clean(noel, 'signing on paper');
	expect(await noel.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
	const coming = noel.waitForEvent('download');
	await noel.getByRole('button', { name: 'Fetch the PDF' }).click();
	const file = new Uint8Array(readFileSync((await (await coming).path())!));
	await noel.getByRole('heading', { name: 'Bring it back' }).waitFor();
	const sheets = sheetsOut();
	const printed = await printedPages(file, sheets.length);
	const place = sheets[0]!.places[0]!;
	const signs: Pen = { ...place, does: 'signs' };
	const word = sheets[0]!.words.find((one) => one.text === 'hour')!;

	// what is no page is said, the wrong picture taken out again, and the same link leads back here
	const files = noel.locator('input[type=file][multiple]');
	await files.setInputFiles({ name: 'film.mp4', mimeType: 'video/mp4', buffer: Buffer.from('no picture at all') });
	await expect(noel.getByRole('alert')).toContainText('neither a picture nor a PDF');
	await files.setInputFiles(await photo(printed[1]!, 'two.jpg', []));
	await expect(noel.getByText('Page 2 of 2')).toBeVisible();
	await expect(noel.getByText('Still missing: page 1.')).toBeVisible();
	await noel.getByRole('button', { name: /Take it out.*two.jpg/ }).click();
	await expect(noel.getByText('Page 2 of 2')).toHaveCount(0);
	await noel.reload();
	await ready(noel);
	await files.setInputFiles([
		await photo(printed[1]!, 'two.jpg', []),
		await photo(printed[0]!, 'one.jpg', [signs, { ...word, does: 'strikes' }])
	]);
	await expect(noel.getByText('Page 1 of 2')).toBeVisible();
	await noel.getByRole('button', { name: 'Hand the pages in' }).click();
	await expect(noel.getByText('What you brought back is being looked at.')).toBeVisible();

	// the Desk leads to it; both pictures are there, the struck word marked; page 1 is wanted again
	await page.goto(`${server.origin}/desk`);
	await ready(page);
	const card = page.getByRole('listitem').filter({ hasText: 'Noel Hartigan brought it back on paper' });
	await card.getByRole('link', { name: 'Look at it' }).click();
	await page.waitForURL('**/paper/*');
	await ready(page);
	await expect(page.getByRole('button', { name: /^Page 1 “hour” (was written over|reads)/ })).toBeVisible();
	for (const side of ['as it went out', 'as it came back']) {
		const picture = page.getByRole('img', { name: `Page 1, ${side}` });
		await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(1000);
	}
	await clean(page, 'looking at paper');
	await expect(page.getByRole('checkbox', { name: 'page 1' })).toBeChecked();
	await expect(page.getByRole('checkbox', { name: 'page 2' })).not.toBeChecked();
	await page.getByLabel('A word to them').fill('The hour stays, please.');
	await page.getByRole('button', { name: 'Ask again' }).press('Enter');
	await expect(page.getByText('Pages are wanted again.')).toBeVisible();

	await noel.goto(await linkFromMail(page, server, 'noel@post.example', 'Pages wanted again'));
	await ready(noel);
	await expect(noel.getByText('Wanted again: page 1.')).toBeVisible();
	await expect(noel.getByText('The hour stays, please.')).toBeVisible();
	await files.setInputFiles(await photo(printed[0]!, 'again.jpg', [signs], { seed: 5 }));
	await noel.getByRole('button', { name: 'Hand the pages in' }).click();
	await expect(noel.getByText('What you brought back is being looked at.')).toBeVisible();

	await page.goto(packet);
	await expect(page.getByText('It has come back, and nothing is in doubt.')).toBeVisible();
	await page.getByRole('link', { name: /Look at it.*Noel Hartigan/ }).click();
	await page.waitForURL('**/paper/*');
	await ready(page);
	await page.getByRole('button', { name: 'Accept', exact: true }).press('Enter');
	await expect(page.getByText('It was taken for the document.')).toBeVisible();

	// whoever comes next has the scanned pages before them, to be read and signed
	const tamsin = await takesPart(browser, await linkFromMail(page, server, 'tamsin@post.example', 'Hall hire'));
	await tamsin.getByRole('button', { name: 'Read as text' }).click();
	await expect(tamsin.getByRole('main')).toContainText('an hour before the lorry');
	await tamsin.getByRole('button', { name: 'See the pages' }).click();
	await signsAs(tamsin, 'Tamsin');
	await page.goto(packet);
	const main = page.getByRole('main');
	await expect(main).toContainText('The paper of Noel Hartigan was taken for the document');
	await expect(main).toContainText('asked for page 1 on paper again: words changed (page 1)');
});

test('by post: the office prints it for them, takes in what came back, and what is certain goes on by itself', async ({
	page
}) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/settings/paper`);
	await ready(page);
	await page.getByRole('checkbox', { name: /^What is surely right goes on by itself/ }).check();
	await page.getByRole('button', { name: 'Save' }).click();
	await expect(page.getByText('Saved.')).toBeVisible();
	const letter = await hallHire('the Chapel', 'GBP 90.00', false);
	await drafted(page, server, {
		title: 'Hall hire, Chapel',
		bytes: letter.bytes,
		stops: [['gwen']],
		people: { gwen: { name: 'Gwen Aldous', ink: true } }
	});
	await sends(page);
	await page.getByRole('link', { name: /By post….*Gwen Aldous/ }).click();
	await page.waitForURL('**/paper/*');
	await ready(page);
	const coming = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Fetch the PDF for them' }).click();
	const file = new Uint8Array(readFileSync((await (await coming).path())!));
	await page.reload();
	await ready(page);
	const sheets = sheetsOut();
	const printed = await printedPages(file, sheets.length);
	const place = sheets[0]!.places[0]!;
	await page
		.locator('input[type=file][multiple]')
		.setInputFiles([
			await photo(printed[0]!, 'a.jpg', [{ ...place, does: 'signs' }], { by: 'scanner', dpi: 150 }),
			await photo(printed[1]!, 'b.jpg', [], { by: 'scanner', dpi: 150, turn: 180 })
		]);
	await expect(page.getByText('Page 2 of 2')).toBeVisible();
	await page.getByRole('button', { name: 'Hand the pages in' }).click();
	await expect(page.getByText('It was taken for the document.')).toBeVisible();
	await page.getByRole('link', { name: 'Hall hire, Chapel' }).click();
	await expect(page.getByRole('main')).toContainText('What came back on paper from Gwen Aldous was taken in');
});
