import { expect, test, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { strFromU8, unzipSync } from 'fflate';
import { verifySealed } from '../src/lib/press/seal/verify';
import { clean } from './kit/axe';
import { openRecord, ready, Server, signIn } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('demo').start();
});
test.afterAll(() => server.stop());

async function choose(page: Page, label: string, option: string): Promise<void> {
	await page.getByRole('combobox', { name: label, exact: true }).click();
	await page.getByRole('option', { name: option, exact: true }).click();
}

test('a rule lets its time be over; what is held stays, what goes leaves a certificate', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/settings/keeping`);
	await ready(page);
	await page.getByLabel('What it is called').fill('Players, at once');
	await choose(page, 'For packets', 'in a folder');
	await choose(page, 'Folder', 'Players');
	await page.getByLabel('Years').fill('0');
	await page.getByRole('checkbox', { name: 'To the end of that year' }).click();
	await page.getByRole('button', { name: 'Add it' }).click();
	await expect(page.getByText('In the folder Players: Until it has ended; then somebody looks at it.')).toBeVisible();
	await clean(page, 'rules of keeping');

	await page.goto(`${server.origin}/records?q=Brightwell`);
	await ready(page);
	await page.getByRole('checkbox', { name: 'Choose Guest engagement, A. Brightwell' }).click();
	await page.getByRole('button', { name: 'Put what is chosen somewhere' }).click();
	await page.getByRole('menuitem', { name: /Under a legal hold/ }).click();
	await page.getByLabel('What it is called').fill('Insurance 12');
	await page.getByLabel('Why').fill('The insurer asks for it.');
	await clean(page, 'a hold is set', { part: '[role=dialog]' });
	await page.getByRole('button', { name: 'Hold them' }).click();
	await expect(page.getByText('They are held.')).toBeVisible();

	await page.goto(`${server.origin}/records/due`);
	await ready(page);
	await expect(page.getByRole('row').filter({ hasText: 'A. Brightwell' })).toContainText('held: Insurance 12');
	await clean(page, 'what is to go');
	const reference = (await page.getByRole('row').filter({ hasText: 'T. Sorley' }).locator('.font-mono').textContent())!;
	for (const name of ['Guest engagement, T. Sorley', 'Guest engagement, A. Brightwell'])
		await page.getByRole('checkbox', { name: `Choose ${name}` }).click();
	await page.getByRole('button', { name: 'Dispose of…' }).click();
	await page.getByLabel('Reason').fill('The season is over.');
	await clean(page, 'disposing of', { part: '[role=dialog]' });
	await page.getByRole('button', { name: 'Dispose of them' }).click();
	await expect(page.getByRole('dialog', { name: 'One stays as it was' })).toContainText(
		'It is under the legal hold “Insurance 12”'
	);
	await page.getByRole('button', { name: 'I see' }).click();
	await expect(page.getByRole('row').filter({ hasText: reference })).toHaveCount(0);

	await page.goto(`${server.origin}/records/gone`);
	await ready(page);
	await clean(page, 'what has gone');
	await expect(page.getByText('The season is over.')).toBeVisible();
	await expect(async () => {
		await page.reload();
		await expect(page.getByRole('link', { name: 'Certificate' })).toBeVisible({ timeout: 500 });
	}).toPass();
	await ready(page);
	const downloading = page.waitForEvent('download');
	await page.getByRole('link', { name: 'Certificate' }).click();
	const download = await downloading;
	expect(download.suggestedFilename()).toBe('Certificate of disposal D-0001.pdf');
	const trust = path.join(server.folder, 'data', 'trust');
	const pems = readdirSync(trust).filter((name) => name.endsWith('.pem'));
	const roots = pems.map((name) => readFileSync(path.join(trust, name), 'utf8'));
	expect(await verifySealed(await readFile(await download.path()), roots)).toMatchObject({
		verdict: 'genuine',
		reference: 'D-0001'
	});
	await page.goto(`${server.origin}/records?q=${reference}`);
	await expect(page.getByText(`Nothing finished has the words “${reference}”.`)).toBeVisible();

	await page.goto(`${server.origin}/records/holds`);
	await ready(page);
	await clean(page, 'legal holds');
	await page.getByRole('button', { name: 'Lift…' }).click();
	await page.getByLabel('Why is it lifted?').fill('Settled.');
	await page.getByRole('button', { name: 'Lift it' }).click();
	await expect(page.getByText(/Lifted by Odile Farrow/)).toBeVisible();
});

test('a packet’s day is changed with a reason; a person is handed all of it, and forgotten but for what stays', async ({
	page
}) => {
	await signIn(page, server);
	await openRecord(page, server, 'Instrument loan, cello no. 9');
	await expect(page.getByText('for as long as nobody bins it')).toBeVisible();
	const email = (await page.locator('body').textContent())!.match(/[\w.]+@(?!brindlevale)[\w.]+\.example/)![0];
	await page.getByRole('button', { name: 'Change…' }).click();
	await page
		.getByRole('button', { name: /^Open the calendar|calendar/i })
		.first()
		.click();
	await page.locator('[data-calendar-day]:not([data-outside-month])').last().click();
	await page.getByLabel('Why').fill('The bow is still out.');
	await page.getByRole('button', { name: 'Keep it until then' }).click();
	await expect(page.getByText(/by Odile Farrow: The bow is still out/).first()).toBeVisible();
	await clean(page, 'how long a packet is kept');

	await page.goto(`${server.origin}/people?address=${email}`);
	await ready(page);
	await clean(page, 'a person');
	const downloading = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Fetch it (ZIP)' }).click();
	const zip = unzipSync(await readFile(await (await downloading).path()));
	expect(JSON.parse(strFromU8(zip['data.json']!))).toMatchObject({ address: email });
	await page.getByRole('button', { name: 'Forget them…' }).click();
	await expect(page.getByRole('dialog')).toContainText('The bow is still out.');
	await page.getByLabel('Why').fill('They have asked for it.');
	await clean(page, 'forgetting a person', { part: '[role=dialog]' });
	await page.getByRole('button', { name: 'Forget them', exact: true }).click();
	await expect(page.getByText('What stays')).toBeVisible();
	await expect(page.getByText(/It may go after/)).toBeVisible();
});

test('anybody has a sealed copy judged without an account, also against a root that they have kept', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	await openRecord(page, server, 'Rota swap, cellos');
	const got = page.waitForEvent('download');
	await page.getByRole('link', { name: 'Evidence sheet' }).click();
	const bytes = await readFile(await (await got).path());
	await page.goto(`${server.origin}/stand-ins/witness`);
	await ready(page);
	await expect(page.getByRole('cell', { name: 'yes' }).first()).toBeVisible();
	await clean(page, 'the witness');
	await page.goto(`${server.origin}/settings/outside`);
	await ready(page);
	await page.getByRole('radio', { name: 'somebody, by mail' }).click();
	await page.getByLabel('Their e-mail address').fill('witness@elsewhere.example');
	await clean(page, 'settings, outside');
	await page.getByRole('button', { name: 'Save' }).click();
	await expect(page.getByText('Saved.')).toBeVisible();

	const stranger = await browser.newPage();
	const judge = async (file: Buffer, root?: Buffer) => {
		await stranger.goto(`${server.origin}/verify`);
		await ready(stranger);
		const pdf = { name: 'sheet <b>.pdf', mimeType: 'application/pdf', buffer: file };
		await stranger.locator('input[name=file]').setInputFiles(pdf);
		if (root) {
			await stranger.getByText('Hold it against a root').click();
			const json = { name: 'root.json', mimeType: 'application/json', buffer: root };
			await stranger.locator('input[name=root]').setInputFiles(json);
		}
		await stranger.getByRole('button', { name: 'Judge it' }).click();
		await stranger.waitForURL('**/verify/page');
	};
	await stranger.goto(`${server.origin}/verify`);
	await ready(stranger);
	await clean(stranger, 'verify');
	const kept = stranger.waitForEvent('download');
	await stranger.locator('a[href^="/verify/root"]').first().click();
	const root = await readFile(await (await kept).path());
	await judge(bytes, root);
	await expect(stranger.getByRole('heading', { name: 'Genuine' })).toBeVisible();
	await expect(stranger.getByText('The record agrees with the root')).toBeVisible();
	await expect(stranger.getByText('byte for byte a copy that this Pellum keeps')).toBeVisible();
	const changed = Buffer.from(bytes);
	changed[changed.length >> 1] = changed[changed.length >> 1]! ^ 1;
	await judge(changed);
	await expect(stranger.getByRole('heading', { name: 'Not genuine' })).toBeVisible();
	await judge(Buffer.from('no PDF at all'));
	await expect(stranger.getByRole('heading', { name: 'Not genuine' })).toBeVisible();
	const file = path.join(server.folder, 'copy.pdf');
	writeFileSync(file, bytes);
	writeFileSync(path.join(server.folder, 'root.json'), root);
	const said = server.run('scripts/verify.ts', file, '--html', '--root', path.join(server.folder, 'root.json'));
	expect(said.status).toBe(0);
	expect(said.out).toContain('<h1>Genuine</h1>');
	expect(said.out).toContain('The record agrees with the root');
	// the page itself runs no script, not even axe: the same one from the command
	await stranger.goto(`${server.origin}/health`);
	await stranger.setContent(said.out);
	await clean(stranger, 'what was judged');
	await stranger.close();
});
