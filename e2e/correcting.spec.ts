import { expect, test, type Page } from '@playwright/test';
import { clean } from './kit/axe';
import { answered, choose } from './kit/parts';
import { drafted, field, sends, signsAs, takesPart } from './kit/draft';
import { pdf } from './kit/pdfs';
import { linkFromMail, ready, Server, signIn } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('accounts').start();
});
test.afterAll(() => server.stop());

const MAREN = 'maren@post.example';
const TAMSIN = 'tamsin@post.example';
const route = (page: Page) => page.getByRole('list', { name: 'Route' });
const on = (page: Page, name: string) => route(page).getByRole('button', { name: new RegExp(`^${name}`) });

/** Opens the correction of the packet whose page is open. */
async function correcting(page: Page) {
	await page.getByRole('button', { name: /Put right…|Go on putting it right/ }).click();
	await page.waitForURL('**/bench/*');
	await ready(page);
	await page.locator('canvas[data-drawn=yes]').first().waitFor();
}
async function sendsIt(page: Page) {
	await page.getByRole('button', { name: 'Send changes…' }).click();
	await page.getByRole('button', { name: 'Send the changes', exact: true }).click();
	await page.waitForURL('**/packets/*');
}

test('a packet that is out: what is finished stays, a stop comes in before, and who had opened it is told', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	await drafted(page, server, {
		title: 'Engagement',
		stops: [['maren'], ['tamsin']],
		fields: [
			field('place', 'text', 'tamsin', { label: 'Place of work' }),
			field('extra', 'text', 'tamsin', { label: 'Extra', required: false })
		]
	});
	await sends(page);
	const packet = page.url();
	const first = await takesPart(browser, await linkFromMail(page, server, MAREN));
	await signsAs(first, 'Maren');
	const link = await linkFromMail(page, server, TAMSIN);
	const tamsin = await takesPart(browser, link);
	const place = tamsin.getByRole('textbox', { name: 'Place of work' });
	const toPlace = () => tamsin.locator('[data-todo=place]').getByRole('button').first().click();
	await toPlace();
	await place.fill('Oldmere');
	await expect(tamsin.getByText(/^Saved/)).toBeVisible();

	await page.goto(packet);
	await correcting(page);
	await expect(page.getByText('Shut to signers')).toBeVisible();
	await clean(page, 'correcting on the Bench');
	// what Maren has finished is locked, and says so
	await expect(on(page, 'Maren')).toContainText('has signed');
	await on(page, 'Maren').click();
	await expect(page.getByText('Maren has signed; that part stays as it is.')).toBeVisible();
	await expect(page.locator('#person-name')).toBeDisabled();
	await on(page, 'Maren').focus();
	await page.keyboard.press('Alt+ArrowRight');
	await expect(page.getByText('Maren has signed; the route up to there stays as it is.')).toBeVisible();

	// meanwhile Tamsin goes on typing: it is kept, and the door is shut
	await place.fill('Oldmere Hall');
	await expect(tamsin.getByRole('heading', { name: 'Being put right' })).toBeVisible();
	await clean(tamsin, 'shut for a correction');

	// a field more for Tamsin, one fewer; Kit comes before her
	await page.locator('[data-field=extra]').click();
	await page.keyboard.press('Delete');
	await page.getByRole('button', { name: 'Somebody next' }).click();
	await page.locator('#person-name').fill('Kit');
	await page.locator('#person-email').fill('kit@post.example');
	await choose(page.getByLabel('Duty'), 'approves');
	await on(page, 'Kit').focus();
	await page.keyboard.press('Alt+ArrowLeft');
	await page.getByRole('button', { name: 'Send changes…' }).click();
	const sheet = page.getByRole('dialog');
	await expect(sheet).toContainText('Kit was added.');
	await expect(sheet).toContainText('Fields taken away from Tamsin: “Extra”.');
	await clean(page, 'what the correction changes');
	await sheet.getByRole('button', { name: 'Send the changes' }).click();
	await page.waitForURL('**/packets/*');
	await expect(page.getByText(/It was put right and opened to signers again\. Kit was added\./).first()).toBeVisible();

	// Tamsin waits, and her link says so
	await tamsin.reload();
	await expect(tamsin.getByRole('heading', { name: 'Not yet your turn' })).toBeVisible();
	const kit = await takesPart(browser, await linkFromMail(page, server, 'kit@post.example'));
	await signsAs(kit, 'Kit', 'Approve');
	await tamsin.reload();
	await tamsin.getByRole('checkbox', { name: 'I agree' }).check();
	await tamsin.getByRole('button', { name: 'Go to the documents' }).click();
	const told = tamsin.getByRole('alert').filter({ hasText: 'Put right since you opened it' });
	await expect(told).toContainText('What is asked of you is different.');
	await clean(tamsin, 'told of a correction');
	await told.getByRole('button', { name: 'Go on' }).click();
	await expect(told).toBeHidden();
	await toPlace();
	await expect(place).toHaveValue('Oldmere Hall');
	await tamsin.locator('[data-todo=tamsin-sig]').getByRole('button').first().click();
	await signsAs(tamsin, 'Tamsin');
	await page.goto(packet);
	await expect(page.getByText('Everyone has finished')).toBeVisible();
});

test('told at the next click: the page that was open can’t finish on what it no longer shows', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	await drafted(page, server, { title: 'Consent', stops: [['ida']] });
	await sends(page);
	const packet = page.url();
	const ida = await takesPart(browser, await linkFromMail(page, server, 'ida@post.example'), { phone: true });
	await page.goto(packet);
	await correcting(page);
	await on(page, 'Ida').click();
	await page.locator('[data-field=ida-sig]').click();
	await page.getByLabel('Label').fill('Your name in full');
	await sendsIt(page);
	await ida.getByRole('button', { name: 'Ida, handwriting 1' }).click();
	// what she enters is kept, and she is told
	const told = ida.getByRole('alert').filter({ hasText: 'Put right since you opened it' });
	await expect(told).toBeVisible();
	await told.getByRole('button', { name: 'Go on' }).click();
	await expect(told).toBeHidden();
	await signsAs(ida, 'Ida');
});

test('left alone it opens by itself; gone on with, what was changed is still there; an exchange is the organisation’s to permit', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	await drafted(page, server, { title: 'Loan', stops: [['bo'], ['tamsin']] });
	await sends(page);
	const packet = page.url();
	const link = await linkFromMail(page, server, 'bo@post.example');
	await page.goto(packet);
	await correcting(page);
	await on(page, 'Tamsin').click();
	await page.locator('#person-name').fill('Tamsin Okoro');
	await expect(page.getByText(/· saved /)).toBeVisible();
	// documents stay as they were sent
	await expect(page.getByRole('button', { name: 'Exchange' })).toHaveCount(0);
	await page.goto(`${server.origin}/desk`);
	await expect(page.getByText('shut, being put right')).toBeVisible();
	await expect(page.getByText('Being put right: Loan')).toBeVisible();
	await page.goto(packet);
	await expect(page.getByRole('heading', { name: 'Being put right' })).toBeVisible();
	// half an hour goes by
	await page.goto(`${server.origin}/stand-ins`);
	await answered(page, () => page.getByRole('button', { name: 'An hour on' }).click());
	await page.goto(packet);
	await expect(page.getByRole('heading', { name: 'Put right, not sent yet' })).toBeVisible();
	await clean(page, 'a correction that was left');
	const bo = await takesPart(browser, link);
	await signsAs(bo, 'Bo');
	await page.goto(packet);
	await correcting(page);
	await expect(on(page, 'Tamsin Okoro')).toBeVisible();
	await page.getByRole('button', { name: 'Leave it as it was' }).click();
	await page.waitForURL('**/packets/*');
	await expect(page.getByText('It was opened to signers again, unchanged.').first()).toBeVisible();
	await expect(page.getByText('Tamsin Okoro')).toHaveCount(0);
});

test('a new version: whoever had opened the one before sees struck and new words, before they sign', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	const letter = (fee: string) => pdf(2, { text: `The fee is ${fee} for the evening.` });
	await drafted(page, server, { title: 'Fee before', stops: [['wren']], bytes: await letter('400 pounds') });
	await sends(page);
	const follows = page.url().split('/').at(-1)!;
	await takesPart(browser, await linkFromMail(page, server, 'wren@post.example', 'Fee before'));
	const next = { title: 'Fee now', stops: [['wren']], bytes: await letter('450 euros'), more: { follows } };
	await drafted(page, server, next);
	await sends(page);
	const wren = await takesPart(browser, await linkFromMail(page, server, 'wren@post.example', 'Fee now'), {
		phone: true
	});
	const changed = wren.getByRole('region', { name: 'The documents are different.' });
	await expect(changed.getByRole('deletion').first()).toHaveText('400 pounds');
	await expect(changed.getByRole('insertion').first()).toHaveText('450 euros');
	await expect(changed).toContainText('Fee now, page 2 of 2');
	await clean(wren, 'a new version of what was opened');
	await signsAs(wren, 'Wren');
});
