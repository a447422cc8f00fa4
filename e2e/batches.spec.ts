import { expect, test } from '@playwright/test';
import { clean } from './kit/axe';
import { drafted, field } from './kit/draft';
import { ready, Server, signIn } from './kit/server';
import { csv, stewards } from '../demo/stewards';

const server = new Server();
test.beforeAll(async () => {
	test.setTimeout(180_000);
	await server.seed('accounts').start();
});
test.afterAll(() => server.stop());

test('64 stewards from a sheet: filtered, judged before anything goes, sent once, the sheet comes back', async ({
	page
}) => {
	await signIn(page, server);
	await drafted(page, server, {
		title: 'Steward handbook',
		stops: [['steward']],
		fields: [field('shift', 'text', 'sender', { key: 'shift', label: 'Shift', required: false })]
	});
	await page.getByRole('button', { name: 'Keep as template' }).click();
	await page.waitForURL('**/bench/*');
	await ready(page);
	await page.getByRole('button', { name: 'Put in use…' }).click();
	await page.getByRole('dialog').getByRole('button', { name: 'Put in use' }).click();
	await page.waitForURL('**/templates?id=*');
	await page.getByLabel('From a sheet…').setInputFiles({
		name: 'stewards.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from(csv(stewards()))
	});
	await page.waitForURL('**/batches/*');
	await ready(page);
	const chip = (name: RegExp) => page.getByRole('navigation', { name: 'Rows' }).getByRole('link', { name });
	// the columns were matched by their headings
	await expect(page.getByLabel(/: e-mail/)).toHaveText(/mail/i);
	await expect(page.getByRole('button', { name: 'Send 58…' })).toBeVisible();
	await page.getByRole('textbox', { name: 'Only rows where' }).fill('stat = "confirmed"');
	await page.getByRole('button', { name: 'Filter' }).click();
	await expect(page.getByText(/no field with the key “stat”/)).toBeVisible();
	await page.getByRole('textbox', { name: 'Only rows where' }).fill('status = "confirmed"');
	await page.getByRole('button', { name: 'Filter' }).click();
	await expect(page.getByRole('button', { name: 'Send 53…' })).toBeVisible();
	await clean(page, 'a batch');
	await chip(/^Faulty 4/).click();
	await expect(page.getByText("“tess.post.example” can't be an e-mail address.")).toBeVisible();
	await chip(/^Which one\? 2/).click();
	await page.getByRole('button', { name: 'This one, row 53' }).click();
	await expect(page.getByRole('button', { name: 'Send 54…' })).toBeVisible();
	await chip(/^Ready 54/).click();
	await page.getByRole('button', { name: 'Take out, row 2', exact: true }).click();
	await page.getByRole('button', { name: 'Send 53…' }).click();
	await expect(page.getByRole('dialog')).toContainText('One of them is you.');
	await page.getByRole('button', { name: 'Send 53 now' }).click();
	await expect(page.getByRole('button', { name: 'Nothing to send' })).toBeVisible({ timeout: 60_000 });
	await expect(chip(/^Gone 54/)).toBeVisible();
	await chip(/^Gone 54/).click();
	await expect(page.getByRole('link', { name: 'out' }).first()).toBeVisible();
	const download = page.waitForEvent('download');
	await page.getByRole('link', { name: 'The sheet back, as CSV' }).click();
	expect((await download).suggestedFilename()).toBe('stewards.csv');
	// a newer sheet: only the new one goes
	await page.getByLabel('A newer sheet').setInputFiles({
		name: 'more.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from(csv([...stewards(), ['Somebody New', 'new@post.example', 'confirmed']]))
	});
	await page.getByRole('button', { name: 'Take it in' }).click();
	await expect(chip(/^Ready 2/)).toBeVisible();
	await page.getByRole('link', { name: 'Batches' }).click();
	await expect(page.getByRole('row', { name: /stewards\.csv/ })).toContainText('53');
	await clean(page, 'batches');
});
