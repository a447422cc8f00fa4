import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { clean } from './kit/axe';
import { drafted, field } from './kit/draft';
import { choose } from './kit/parts';
import { ready, Server, signIn } from './kit/server';
import { engagement } from '../demo/documents';
import { csv, stewards } from '../demo/stewards';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('accounts').start();
});
test.afterAll(() => server.stop());

/** A template with a steward and a shift, opened beside the list of templates. */
async function templated(page: Page, title: string, bytes?: Uint8Array): Promise<void> {
	await drafted(page, server, {
		title,
		...(bytes && { bytes }),
		stops: [['steward']],
		fields: [field('shift', 'text', 'sender', { key: 'shift', label: 'Shift', required: false })]
	});
	await page.getByRole('button', { name: 'Keep as template' }).click();
	await page.waitForURL('**/bench/*');
	await ready(page);
	await page.getByRole('button', { name: 'Put in use…' }).click();
	await page.getByRole('dialog').getByRole('button', { name: 'Put in use' }).click();
	await page.waitForURL('**/templates?id=*');
}

test('64 stewards from a sheet: filtered, judged before anything goes, sent once, the sheet comes back', async ({
	page
}) => {
	await signIn(page, server);
	await templated(page, 'Steward handbook');
	await page.getByLabel('From a sheet…').setInputFiles({
		name: 'stewards.csv',
		mimeType: 'text/csv',
		buffer: readFileSync('demo/sheets/stewards-64.csv')
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
	await expect(page.getByRole('button', { name: 'Nothing to send' })).toBeVisible();
	await expect(chip(/^Gone 54/)).toBeVisible();
	await chip(/^Gone 54/).click();
	await expect(page.getByRole('link', { name: 'out' }).first()).toBeVisible();
	const download = page.waitForEvent('download');
	await page.getByRole('link', { name: 'The sheet back' }).click();
	expect((await download).suggestedFilename()).toBe('stewards.csv');
	// a newer sheet: only the new one goes
	await page.getByLabel('A newer sheet').setInputFiles({
		name: 'more.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from(csv([...stewards(), ['Somebody New', 'new@post.example', 'confirmed']]))
	});
	await page.getByRole('button', { name: 'Take it in' }).click();
	await expect(chip(/^Ready 2/)).toBeVisible();
	// it stands open: of the next sheet what is ready goes by itself, and the rest is on the Desk
	await page.getByRole('button', { name: 'Let it stand open', exact: true }).click();
	await expect(page.getByText('It stands open: each sheet that comes is judged')).toBeVisible();
	await page.getByLabel('A newer sheet').setInputFiles({
		name: 'next.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from(csv([...stewards(), ['Newer Still', 'newer@post.example', 'confirmed']]))
	});
	await page.getByRole('button', { name: 'Take it in' }).click();
	await expect(chip(/^Gone 5[567]/)).toBeVisible();
	await expect(page.getByText(/Of its newest sheet these wait for you: 4 faulty/)).toBeVisible();
	await clean(page, 'a batch that stands open');
	await page.goto(`${server.origin}/desk`);
	await expect(page.getByText('stands open, and something came that can’t go by itself')).toBeVisible();
	await page.getByRole('link', { name: 'Look at its rows' }).click();
	await page.getByRole('button', { name: 'Seen' }).click();
	await expect(page.getByText(/Of its newest sheet/)).toHaveCount(0);
	await page.getByRole('link', { name: 'Batches' }).click();
	await expect(page.getByRole('row', { name: /stewards\.csv/ })).toContainText('5');
	await clean(page, 'batches');
});

test('1,000 from a workbook: a cell put right in place, one tried, sent, paused, killed in the middle; nobody gets two; reminded', async ({
	page
}) => {
	await signIn(page, server);
	await templated(page, 'Winter stewards');
	const blank = page.waitForEvent('download');
	await page.getByRole('link', { name: 'A sheet to fill in' }).click();
	expect((await blank).suggestedFilename()).toBe('Winter stewards.xlsx');
	await page.getByLabel('From a sheet…').setInputFiles('demo/sheets/stewards-1000.xlsx');
	await page.waitForURL('**/batches/*');
	await ready(page);
	await expect(page.getByText('the headings stand in line 3')).toBeVisible();
	// two columns make the name
	await expect(page.getByLabel('Steward: name', { exact: true })).toHaveText('First name');
	await expect(page.getByLabel('Steward: name: and then')).toHaveText('and Surname');
	const faulty = page.getByRole('navigation', { name: 'Rows' }).getByRole('link', { name: 'Faulty 1' });
	await faulty.click();
	const cell = page.getByRole('textbox', { name: 'Mail (private), row 421' });
	await expect(cell).toHaveValue('steward418@post');
	await clean(page, 'a faulty cell');
	await cell.fill('steward418@post.example');
	await cell.press('Enter');
	await expect(page.getByRole('button', { name: 'Send 1000…' })).toBeVisible();
	// a value for every row
	await choose(page.getByLabel('Shift', { exact: false }).first(), 'no column');
	// the link is pressed while the value is being kept: the form's answer comes before the page that was pressed
	await page.route(/columns$/, async (route) => {
		await page.waitForTimeout(1000);
		await route.continue();
	});
	await page.route(/data\.json.show=ready/, async (route) => {
		await page.waitForTimeout(2000);
		await route.continue();
	});
	await page.getByLabel('Shift: for every row').fill('both');
	await page.getByLabel('Shift: for every row').press('Tab');
	await page
		.getByRole('navigation', { name: 'Rows' })
		.getByRole('link', { name: /^Ready/ })
		.click();
	const kept = () => server.reading((db) => db.prepare('SELECT count(*) FROM drafts').pluck().get());
	const drafts = kept();
	await page.getByRole('link', { name: 'Rehearse row 4', exact: true }).click();
	const turn = page.frameLocator('iframe');
	await ready(turn);
	await turn.getByRole('button', { name: 'Fill in sample answers' }).click();
	await turn.getByRole('button', { name: /^Sign as .*Steward No. 1/ }).click();
	await expect(turn.getByText('Nothing has been sent.')).toBeVisible();
	await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
	await page.waitForURL(/batches\/[^/]+$/);
	await ready(page);
	expect(kept()).toBe(drafts);
	await page.getByRole('button', { name: 'Send 1000…' }).click();
	await page.getByRole('button', { name: 'Send 1000 now' }).click();
	await page.getByRole('button', { name: 'Pause' }).click();
	await expect(page.getByText('paused.')).toBeVisible();
	const id = page.url().split('/').at(-1)!.split('?')[0]!;
	const sent = () =>
		server.reading((db) =>
			db.prepare<[string], number>('SELECT count(*) FROM batch_packets WHERE batch = ?').pluck().get(id)!
		);
	const before = sent();
	await page.getByRole('button', { name: 'Go on' }).click();
	await expect.poll(sent).toBeGreaterThan(before + 100);
	await server.kill();
	await server.start();
	await expect.poll(sent, { timeout: 200_000 }).toBe(1000);
	await page.reload();
	await ready(page);
	const twice = server.reading((db) =>
		db
			.prepare<[], number>(
				"SELECT count(*) FROM (SELECT 1 FROM packet_people WHERE email LIKE 'steward%' GROUP BY email HAVING count(*) > 1)"
			)
			.pluck()
			.get()
	);
	expect(twice).toBe(0);
	// one line among what is out, whose packets stand nowhere else on the Desk
	await page.goto(`${server.origin}/desk`);
	await ready(page);
	const line = page.getByRole('region', { name: 'Batches' }).getByRole('listitem').filter({ hasText: 'stewards-1000' });
	await expect(line).toContainText('0 have, 1000 haven’t');
	await expect(page.getByRole('grid', { name: 'Packets that are out' })).not.toContainText('Winter stewards');
	await page.goto(`${server.origin}/desk?batch=${id}`);
	await ready(page);
	await expect(page.getByRole('grid', { name: 'Packets that are out' })).toContainText('Winter stewards');
	await expect(page.getByRole('link', { name: 'Of stewards-1000.xlsx' })).toHaveAttribute('aria-current', 'true');
	await clean(page, 'the Desk with a batch');
	await line.getByRole('link', { name: 'stewards-1000.xlsx' }).click();
	await page.waitForURL('**/batches/*');
	await ready(page);
	await expect(page.getByText('1000 haven’t')).toBeVisible();
	await expect(page.getByRole('link', { name: 'Haven’t 1000' })).toHaveAttribute('aria-current', 'true');
	await expect(page.getByText('200 of 1000')).toBeVisible();
	await page.getByRole('button', { name: 'Withdraw what is left…' }).click();
	await page.getByRole('dialog').getByLabel('Reason').fill('Only a rehearsal');
	await clean(page, 'how a batch stands');
	await page.getByRole('button', { name: 'Keep it out' }).click();
	await page.getByRole('button', { name: 'Remind the 1000 who haven’t' }).click();
	await expect(page.getByText('1000 are reminded')).toBeVisible();
	const download = page.waitForEvent('download');
	await page.getByRole('link', { name: 'The sheet back' }).click();
	expect((await download).suggestedFilename()).toBe('stewards-1000.xlsx');
});

test('rows with documents of their own: laid under the template’s fields, looked at where in doubt, sent', async ({
	page
}) => {
	await signIn(page, server);
	const tour = 'the winter tour in the northern towns and the two days of recording that follow it at Staunton';
	await templated(
		page,
		'Stage door key',
		(await engagement('the musician', 'viola', 'the winter tour', 'GBP 180.00')).bytes
	);
	await page.getByLabel('From a sheet…').setInputFiles({
		name: 'keys.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from(
			csv([
				['Name', 'E-mail', 'Document'],
				['Ida Wren', 'ida@post.example', 'Ida.pdf']
			])
		)
	});
	await page.waitForURL('**/batches/*');
	await ready(page);
	await expect(page.getByRole('button', { name: 'Send 1…' })).toBeVisible();
	await page.getByLabel('Documents of the rows').setInputFiles([
		{
			name: 'Ida.pdf',
			mimeType: 'application/pdf',
			buffer: Buffer.from((await engagement('Ida Wren', 'viola', tour, 'GBP 180.00')).bytes)
		},
		{ name: 'Nobody.pdf', mimeType: 'application/pdf', buffer: Buffer.from('no PDF') }
	]);
	await expect(page.getByText('1 in doubt, 1 not taken')).toBeVisible();
	await expect(page.getByRole('button', { name: 'Nothing to send' })).toBeVisible();
	await clean(page, 'documents of rows');
	await page.getByRole('button', { name: 'Take Ida.pdf as it lies' }).click();
	await page.getByRole('link', { name: 'Rehearse row 2', exact: true }).click();
	await expect(
		page
			.frameLocator('iframe')
			.getByRole('heading', { name: /Stage door key/ })
			.first()
	).toBeVisible();
	await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
	await page.waitForURL(/batches\/[^/]+$/);
	await page.getByRole('button', { name: 'Send 1…' }).click();
	await page.getByRole('button', { name: 'Send 1 now' }).click();
	await expect(page.getByRole('link', { name: 'out', exact: true })).toBeVisible();
	const named = (name: string) =>
		server.reading((db) =>
			db
				.prepare('SELECT count(*) FROM plans WHERE json LIKE ?')
				.pluck()
				.get(`%"name":"${name}"%"title":"Stage door key"%`)
		);
	expect(named('Ida')).toBe(1);
});
