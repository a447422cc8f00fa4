import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { authority } from './kit/authority';
import { clean } from './kit/axe';
import { ready, Server, signIn } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('demo').start();
});
test.afterAll(() => server.stop());

test('a certificate of one’s own is tried and used; a key is withdrawn; copies get another time-stamp by another method', async ({
	page
}) => {
	const trust = authority();
	await signIn(page, server);
	await page.goto(`${server.origin}/settings/keys`);
	await ready(page);
	await clean(page, 'keys');
	const given = (lists: Uint8Array[]) =>
		Promise.all([
			page.locator('input[name=file]').setInputFiles({
				name: 'seal.p12',
				mimeType: 'application/x-pkcs12',
				buffer: Buffer.from(trust.p12())
			}),
			page
				.locator('input[name=more]')
				.first()
				.setInputFiles(
					lists.map((list, n) => ({
						name: `list-${n}.crl`,
						mimeType: 'application/pkix-crl',
						buffer: Buffer.from(list)
					}))
				)
		]);
	await given(trust.lists());
	await page.getByLabel('Its password').fill('viola');
	await page.getByRole('button', { name: 'Try it' }).click();
	await expect(page.getByText('The password does not open it.')).toBeVisible();
	await page.getByLabel('Its password').fill('cello');
	await page.getByRole('button', { name: 'Try it' }).click();
	await expect(page.getByText('A sheet that was sealed with it is genuine.')).toBeVisible();
	await expect(page.getByText('issued by Tarrow Trust seals, by Tarrow Trust root')).toBeVisible();
	await clean(page, 'a certificate that was tried');
	await page.getByRole('button', { name: 'Seal with it from now on' }).click();
	await expect(page.getByText('It seals from now on')).toBeVisible();
	await expect(page.getByRole('listitem').filter({ hasText: 'from Tarrow Trust seals' })).toContainText('in use');

	await page.getByRole('button', { name: /^Withdraw the sealing key/ }).click();
	await page.getByRole('radio', { name: 'it is used no more' }).click();
	await page.getByLabel('What happened').fill('The contract with them has ended.');
	await clean(page, 'a key is withdrawn', { part: '[role=dialog]' });
	await page.getByRole('button', { name: 'Withdraw it' }).click();
	await expect(page.getByText('ask whoever issued it to withdraw it too')).toBeVisible();
	await expect(page.getByRole('listitem').filter({ hasText: 'from Tarrow Trust seals' })).toContainText('withdrawn');

	await expect(page.getByText('None wants another time-stamp now.')).toBeVisible();
	const soon = new Date(Date.now() + 200 * 86_400_000).toISOString().slice(0, 10);
	const [year, month, day] = soon.split('-') as [string, string, string];
	const methods = page.locator('section[aria-labelledby=methods]');
	for (const [part, value] of [
		['day', day],
		['month', month],
		['year', year]
	] as const)
		await methods.locator(`[data-segment=${part}]`).pressSequentially(value);
	await methods.getByLabel('Why').fill('It has been broken.');
	await methods.getByRole('button', { name: 'Keep it so' }).click();
	await expect(page.getByText(`not relied on from ${soon} on`)).toBeVisible();
	await expect(page.getByText(/packets want another time-stamp/)).toBeVisible();
	await page.getByRole('button', { name: 'Set them now' }).click();
	await expect(page.getByText('They are being set.')).toBeVisible();

	// they are set one after the other, in the order of their packets
	await page.goto(`${server.origin}/records?sort=sent&turned=yes`);
	await ready(page);
	const links = await page.getByRole('row').locator('a[href^="/packets/"]').all();
	const all = await Promise.all(links.map((link) => link.getAttribute('href')));
	await page.goto(server.origin + all.map(String).sort()[0]!);
	await expect(async () => {
		await page.reload();
		await expect(page.getByText(/The copies got another time-stamp/).first()).toBeVisible({ timeout: 1000 });
	}).toPass({ timeout: 90_000 });
	const got = page.waitForEvent('download');
	await page.getByRole('link', { name: 'Evidence sheet' }).click();
	const buffer = await readFile(await (await got).path());
	await page.goto(`${server.origin}/verify`);
	await ready(page);
	await page.locator('input[name=file]').setInputFiles({ name: 'sheet.pdf', mimeType: 'application/pdf', buffer });
	await page.getByRole('button', { name: 'Judge it' }).click();
	await expect(page.getByRole('heading', { name: 'Genuine' })).toBeVisible();
	await expect(page.getByText('Stamped again')).toBeVisible();
	await expect(page.getByText('Each time-stamp was covered by the next')).toBeVisible();
});
