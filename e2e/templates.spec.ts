import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { engagement } from '../demo/documents';
import { docx } from '../demo/word';
import { pdf } from './kit/pdfs';
import { linkFromMail, ready, Server, signIn } from './kit/server';
import { answered, choose, drag, fromMenu } from './kit/parts';
import { clean } from './kit/axe';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('demo').start();
});
test.afterAll(() => server.stop());

const file = (name: string, bytes: Uint8Array, mimeType = 'application/pdf') => ({
	name,
	mimeType,
	buffer: Buffer.from(bytes)
});
const canvas = (page: Page) => page.locator('canvas[data-drawn=yes]').first();
const notes = (page: Page) => page.getByRole('main');

async function newPacket(page: Page) {
	await page.goto(`${server.origin}/desk`);
	await ready(page);
	await page.getByRole('button', { name: 'New packet' }).click();
	await page.waitForURL('**/bench/*');
	await ready(page);
}

async function role(page: Page, name: string, more: { person?: [string, string]; optional?: boolean } = {}) {
	await page.getByRole('button', { name: /First role|Next role/ }).click();
	await page.getByLabel('Role').fill(name);
	if (more.optional) await page.getByLabel('may stay empty').check();
	if (more.person) {
		await page.getByLabel('Always this person').fill(more.person[0]);
		await page.getByLabel('E-mail').fill(more.person[1]);
	}
	await page.keyboard.press('Escape');
}

/** Places a signature for whoever is chosen on the route. */
async function sign(page: Page, who: string, x: number, y: number) {
	await page
		.getByRole('list', { name: 'Route' })
		.getByRole('button', { name: new RegExp(`^${who}`) })
		.click();
	await page.getByRole('heading', { level: 1 }).click();
	await page.keyboard.press('s');
	await page.locator('[data-sheet]').first().click({ position: { x, y } });
	await page.keyboard.press('Escape');
}

async function putInUse(page: Page, note: string) {
	await page.getByRole('button', { name: 'Put in use…' }).click();
	await page.getByLabel('What is new in it').fill(note);
	await page.getByRole('button', { name: 'Put in use', exact: true }).click();
	await page.waitForURL('**/templates?id=*');
}

/** Signs as the newest message to that address asks, without looking at the pages. */
async function signsByMail(page: Page, to: string, name: string) {
	const link = await linkFromMail(page, server, to);
	const html = await (await page.request.get(link)).text();
	const headers = { origin: server.origin, 'content-type': 'application/json' };
	await page.request.post(`${link}/consent`, { headers, data: {} });
	// the page shows everybody's fields; only one's own is taken
	for (const [, field] of html.matchAll(/id:"([^"]+)",key:"[^"]*",kind:"signature"/g)) {
		const data = { answers: { [field!]: { way: 'typed', text: name, hand: 'caveat' } } };
		if ((await page.request.post(`${link}/finish`, { headers, data })).ok()) return;
	}
	throw new Error(`${to} could not sign`);
}

test('two roles in an order, kept as a template, used at once, signed by both', async ({ page }) => {
	await signIn(page, server);
	await page.getByRole('link', { name: 'Templates', exact: true }).click();
	await page.getByRole('button', { name: 'New template' }).click();
	await page.waitForURL('**/bench/*');
	await ready(page);
	await page.getByLabel('Add documents').setInputFiles(file('Key receipt.pdf', await pdf(1)));
	await canvas(page).waitFor();
	await role(page, 'Key holder');
	await role(page, 'Key keeper', { person: ['Tamsin Okoro', 'tamsin@brindlevale.example'] });
	await page.getByRole('list', { name: 'Route' }).getByRole('button', { name: 'Tamsin Okoro' }).click();
	await page.getByLabel('the name', { exact: true }).uncheck();
	await page.getByLabel('the address', { exact: true }).uncheck();
	await sign(page, 'Key holder', 200, 300);
	await sign(page, 'Tamsin Okoro', 420, 300);
	await page.getByRole('heading', { level: 1 }).getByRole('button').click();
	await page.getByLabel('Message to everyone').fill('For {key holder.name}, ');
	await choose(page.getByLabel('Value to put into the letter to everyone'), 'title');
	await page.getByLabel('the letters').uncheck();
	await page.getByRole('button', { name: 'Keep this text' }).click();
	await page.getByLabel('Title of the saved text').fill('Keys');
	await page.getByRole('button', { name: 'Keep', exact: true }).click();
	await expect(page.getByText('Kept as “Keys”.')).toBeVisible();
	await putInUse(page, 'first');
	await page.getByText('Description, folder, who may use it').click();
	await page.getByLabel('Description', { exact: true }).fill('Keys of the stage door');
	await choose(page.getByLabel('Who may use it'), 'the whole office');
	await page.getByRole('button', { name: 'Keep', exact: true }).click();
	await expect(page.getByText('Keys of the stage door').first()).toBeVisible();
	// what lies half under the bar at the top is judged as small as what is seen of it
	await page.evaluate(() => window.scrollTo(0, 0));
	await clean(page, 'templates');

	await page.getByRole('complementary').getByRole('link', { name: 'Use' }).click();
	await page.getByRole('heading', { name: 'Key receipt' }).waitFor();
	await ready(page);
	await expect(page.getByText('2 things before this can go')).toBeVisible();
	await expect(page.getByText('Set by the template: Tamsin Okoro signs as Key keeper.')).toBeVisible();
	await page.getByLabel('Name').fill('Gwen Aldous');
	await page.getByLabel('E-mail').fill('gwen@post.example');
	await clean(page, 'use');
	await page.getByRole('button', { name: 'Send now' }).click();
	await page.waitForURL('**/packets/*');
	const packet = page.url();
	await expect(page.getByRole('link', { name: 'Key receipt' })).toBeVisible();
	await linkFromMail(page, server, 'gwen@post.example', 'Key receipt');
	await expect(page.frameLocator('iframe').getByText('For Gwen Aldous, Key receipt')).toBeVisible();
	await signsByMail(page, 'gwen@post.example', 'Gwen Aldous');
	await signsByMail(page, 'tamsin@brindlevale.example', 'Tamsin Okoro');
	await page.goto(packet);
	await expect(page.getByRole('link', { name: 'Evidence sheet' })).toBeVisible();

	// used by another preparer, on the Bench: what is locked is plain, and the server keeps it too
	await page.goto(`${server.origin}/sign-in`);
	await page.context().clearCookies();
	await signIn(page, server, 'tamsin');
	await page.getByRole('button', { name: 'Find or do' }).click();
	await page.getByRole('combobox', { name: 'Find or do' }).fill('key receipt');
	await page.getByRole('option', { name: 'Use Key receipt' }).click();
	await page.getByRole('button', { name: 'Prepare on the Bench' }).click();
	await page.waitForURL('**/bench/*');
	await ready(page);
	await page.getByRole('heading', { level: 1 }).getByRole('button').click();
	await expect(page.getByText('Message to everyone set by the template')).toBeVisible();
	await page.getByRole('list', { name: 'Route' }).getByRole('button', { name: 'Tamsin Okoro' }).click();
	await expect(page.getByLabel('E-mail')).toHaveAttribute('readonly');
});

test('a letter written anew gets its fields by itself; what is unsure is walked through; the document is exchanged', async ({
	page
}) => {
	await signIn(page, server);
	await newPacket(page);
	const letter = await engagement(
		'Noor van Dalen',
		'double bass',
		'the winter tour in the northern towns and the two days of recording that follow it at Staunton',
		'GBP 240.00'
	);
	await page.getByLabel('Add documents').setInputFiles(file('Noor.pdf', letter.bytes));
	await expect(page.getByText(/This looks like Guest musician engagement: 9\d % of its wording/)).toBeVisible();
	await page.getByRole('button', { name: 'Fit Guest musician engagement' }).click();
	const dialog = page.getByRole('dialog');
	await expect(dialog.getByText('7 of 8 fields placed surely')).toBeVisible();
	await expect(dialog.getByRole('button', { name: 'Lay the fields down' })).toBeDisabled();
	await dialog.locator('canvas[data-drawn=yes]').first().waitFor();
	await clean(page, 'fit', { part: '[role=dialog]' });
	// the initials went along with their foot to page 2: Enter says that this is right
	await expect(dialog.getByRole('button', { name: /Initials/ })).toContainText('it moved from page 1 to page 2');
	await page.keyboard.press('Enter');
	await expect(dialog.getByText('All looked at')).toBeVisible();
	await dialog.getByRole('button', { name: 'Lay the fields down' }).click();
	await expect(page.getByText('2 things before this can go')).toBeVisible();
	await page.getByRole('button', { name: 'Go to Noor, page 2' }).click();
	const note = page.locator('[data-field]', { hasText: 'Anything we should know' });
	const [x, y] = [letter.places['musician.note']!.rect.x, letter.places['musician.note']!.rect.y];
	await note.click();
	await choose(page.getByLabel('Unit'), 'points');
	expect(Math.abs(Number(await page.getByLabel('From left').inputValue()) - x)).toBeLessThan(3);
	expect(Math.abs(842 - y - 18 - Number(await page.getByLabel('From top').inputValue()))).toBeLessThan(3);

	// its landmarks are seen; a phrase is marked on the page, and stands but once
	await expect(page.locator('[data-landmark]').first()).toBeVisible();
	await choose(page.getByLabel('Pinned to', { exact: true }), 'a phrase…');
	const words = (await page.locator('[data-landmark]').last().boundingBox())!;
	await page.mouse.move(words.x - 3, words.y - 3);
	await page.mouse.down();
	await page.mouse.move(words.x + 130, words.y + 12, { steps: 4 });
	await page.mouse.up();
	await expect(page.getByLabel('Phrase')).toHaveValue(/Anything we should/);
	await page.getByLabel('Phrase').fill('of');
	await page.getByLabel('Phrase').press('Tab');
	await expect(page.getByText(/“of” stands \d+ times/)).toBeVisible();
	await choose(page.getByLabel('Pinned to', { exact: true }), 'the page');
	await page.keyboard.press('Escape');

	await page.getByRole('list', { name: 'Route' }).getByRole('button', { name: 'Guest musician' }).click();
	await page.getByLabel('Name', { exact: true }).fill('Noor van Dalen');
	await page.getByLabel('E-mail').fill('noor@post.example');
	await page.getByText('A letter of their own').click();
	await page.getByLabel('Message to Noor van Dalen').fill('Only for you, {guest musician.given name}.');
	await expect(page.getByText(/Ready to go/)).toBeVisible();

	// once more another version, a scan this time: said so, nothing placed unasked, and left as it was
	await page
		.getByLabel('Another version')
		.setInputFiles([], {})
		.catch(() => undefined);
	const scan = await sharp({ create: { width: 700, height: 990, channels: 3, background: '#fff' } })
		.jpeg()
		.toBuffer();
	const chooser = page.waitForEvent('filechooser');
	await fromMenu(page.getByRole('button', { name: 'More to do with Noor' }), 'Exchange…');
	await (await chooser).setFiles([file('scan 1.jpg', scan, 'image/jpeg'), file('scan 2.jpg', scan, 'image/jpeg')]);
	await expect(dialog.getByText('1 of 8 fields placed surely')).toBeVisible();
	await expect(dialog.getByText(/no words to go by/).first()).toBeVisible();
	await dialog.getByRole('button', { name: 'Leave it', exact: true }).click();
	await page.getByRole('button', { name: 'Send…' }).click();
	await page.getByRole('button', { name: 'Send now' }).click();
	await page.waitForURL('**/packets/*');
	await expect(page.getByRole('link', { name: 'Guest musician engagement' })).toBeVisible();
});

test('quick from a template: recent ones at hand, from a person’s page, a value asked once', async ({ page }) => {
	await signIn(page, server);
	await fromMenu(page.getByLabel('Begin from a template'), /^Recording release/);
	await page.waitForURL('**/use');
	await page.getByRole('button', { name: 'Find or do' }).click();
	await page.getByRole('combobox', { name: 'Find or do' }).fill('tess marlow');
	await page.getByRole('option', { name: /t.marlow@post.example/ }).click();
	await page.getByRole('heading', { name: 'Tess Marlow' }).waitFor();
	await clean(page, 'person');
	await page.getByRole('link', { name: 'Steward handbook receipt' }).click();
	await page.waitForURL('**/use?*');
	await ready(page);
	await expect(page.getByLabel('Name')).toHaveValue('Tess Marlow');
	await expect(page.getByText('The message stays as the template has it.')).toBeVisible();
	await page.getByLabel('E-mail').fill('not an address');
	await expect(page.getByText("“not an address” can't be an e-mail address.")).toBeVisible();
	await expect(page.getByRole('button', { name: 'Send now' })).toBeDisabled();
	await page.getByLabel('E-mail').fill('tess@post.example');
	await page.getByRole('button', { name: 'Send now' }).click();
	await page.waitForURL('**/packets/*');
	await fromMenu(page.getByRole('button', { name: 'More to do' }), 'Keep as template');
	await page.waitForURL('**/bench/*');
	await expect(page.getByRole('button', { name: 'Put in use…' })).toBeVisible();
});

test('made for two it serves for one; several documents in an order; pages turned and left out', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/templates`);
	await page.getByRole('button', { name: 'New template' }).click();
	await page.waitForURL('**/bench/*');
	await ready(page);
	await page
		.getByLabel('Add documents')
		.setInputFiles([file('Terms.pdf', await pdf(3)), file('Schedule.pdf', await pdf(1, { text: 'Other' }))]);
	await expect(page.getByText('Papers · 2')).toBeVisible();
	await fromMenu(page.getByRole('button', { name: 'More to do with Schedule' }), 'Move up');
	await expect(page.getByRole('region', { name: 'Papers' }).getByRole('heading').first()).toHaveText('Schedule');
	await page.getByRole('button', { name: 'Undo: move a document' }).click();
	await role(page, 'Lender');
	await role(page, 'Second lender', { optional: true });
	await role(page, 'Company manager', { person: ['Tamsin Okoro', 'tamsin@brindlevale.example'] });
	await sign(page, 'Lender', 200, 200);
	await sign(page, 'Second lender', 200, 300);
	await sign(page, 'Tamsin Okoro', 420, 200);
	await page.getByRole('button', { name: 'Leave page 2 of Terms out' }).click();
	await expect(page.getByRole('button', { name: /Go to Terms, page/ })).toHaveCount(2);
	await page.getByRole('button', { name: 'Turn page 2 of Terms' }).click();
	await expect(page.getByRole('button', { name: 'Undo: turn a page' })).toBeVisible();
	await drag(
		page.getByRole('button', { name: 'Go to Terms, page 2' }),
		page.getByRole('button', { name: 'Go to Terms, page 1' })
	);
	await expect(page.getByRole('button', { name: 'Undo: move a page' })).toBeVisible();
	await page.getByRole('button', { name: 'Undo: move a page' }).click();
	await page.getByRole('heading', { level: 1 }).getByRole('button').click();
	await page.getByLabel('Days to complete').fill('5');
	await page.getByLabel('Days to complete').press('Tab');
	await putInUse(page, '');
	await page.getByRole('complementary').getByRole('link', { name: 'Use' }).click();
	await ready(page);
	await page.getByLabel('nobody this time').check();
	await page.getByLabel('Name').fill('Hester Quill');
	await page.getByLabel('E-mail').fill('hester@post.example');
	await expect(page.getByText('Ends 5 days after sending. “Terms”, “Schedule” are signed.')).toBeVisible();
	await page.getByRole('button', { name: 'Send now' }).click();
	await page.waitForURL('**/packets/*');
	await expect(page.getByRole('img', { name: /Terms, page 2 of 2/ })).toBeVisible();
	await expect(page.getByText('Second lender')).toHaveCount(0);
});

test('two templates become one packet: one person, one order, what differs is settled', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/templates`);
	await ready(page);
	await page.getByLabel('Choose Guest musician engagement').check();
	await page.getByLabel('Choose Recording release').check();
	await page.getByRole('button', { name: 'Join 2 as one packet…' }).click();
	await page.getByRole('heading', { name: 'Join “' }).waitFor();
	await ready(page);
	const stops = page.getByRole('list', { name: 'Stops of the packet' }).locator('> li');
	await expect(stops).toHaveCount(5);
	await clean(page, 'join');
	for (let i = 0; i < 2; i++) await fromMenu(page.getByRole('button', { name: 'Move Company manager' }), 'Earlier');
	await expect(
		page.getByText('In “Guest musician engagement” Guest musician comes before Company manager; here not.')
	).toBeVisible();
	await expect(page.getByRole('button', { name: 'Join and go to the Bench' })).toBeDisabled();
	await page.getByRole('button', { name: 'Guest musician first' }).click();
	await expect(page.getByText('Nothing left to settle')).toBeVisible();
	await page.getByRole('button', { name: 'Join and go to the Bench' }).click();
	await page.waitForURL('**/bench/*');
	await ready(page);
	await expect(page.getByText('Papers · 2')).toBeVisible();
	await page.getByRole('list', { name: 'Route' }).getByRole('button', { name: 'Guest musician' }).click();
	await page.getByLabel('Name', { exact: true }).fill('Maren Lindqvist');
	await page.getByLabel('E-mail').fill('maren@post.example');
	await expect(page.getByText(/Ready to go/)).toBeVisible();
	await page.getByRole('button', { name: 'Send…' }).click();
	await page.getByRole('button', { name: 'Send now' }).click();
	await page.waitForURL('**/packets/*');
	await expect(page.getByRole('link', { name: 'Recording release' })).toBeVisible();
});

test('Word, pictures and markers: what is marked yellow is said, markers become fields and are covered', async ({
	page
}) => {
	await signIn(page, server);
	await newPacket(page);
	await page.getByRole('button', { name: 'Who signs first' }).click();
	await page.getByLabel('Name', { exact: true }).fill('Maren');
	await page.getByLabel('E-mail').fill('maren@post.example');
	const word = docx([
		'Letter to Maren',
		[{ text: 'The fee is ' }, { text: 'to be agreed', yellow: true }],
		'Sign here ::maren.signature:: and ::marn.text:: there'
	]);
	await page
		.getByLabel('Add documents')
		.setInputFiles(
			file('Letter.docx', word, 'application/vnd.openxmlformats-officedocument.wordprocessingml.document')
		);
	await expect(notes(page)).toContainText('“Letter”: taken in the plain way');
	await expect(notes(page)).toContainText('1 marker of “Letter” became fields.');
	await expect(notes(page)).toContainText('names a role “marn”, which is not here. Did you mean “Maren”?');
	await expect(page.locator('[data-field]')).toHaveCount(1);
	await page.getByRole('button', { name: /Ready to go, \d+ worth a look/ }).click();
	await expect(page.getByText('“to be agreed” is marked yellow in “Letter”: still to write?')).toBeVisible();
	const picture = await sharp({ create: { width: 600, height: 800, channels: 3, background: '#ccd' } })
		.png()
		.toBuffer();
	await page
		.getByLabel('Add documents')
		.setInputFiles([file('a.png', picture, 'image/png'), file('b.png', picture, 'image/png')]);
	await expect(page.getByRole('button', { name: /Go to a, page/ })).toHaveCount(2);
	await page
		.getByLabel('Add documents')
		.setInputFiles(file('bomb.docx', docx(['x'], [], { 'word/media/a': new Uint8Array(205 * 1024 * 1024) })));
	await expect(page.getByRole('alert').filter({ hasText: 'unfolds to more than is permitted' })).toContainText(
		'Everything else is kept.'
	);
	await page.getByRole('button', { name: 'Send…' }).click();
	await page.getByRole('button', { name: 'Send now' }).click();
	await page.waitForURL('**/packets/*');
	const original = await page.getByRole('link', { name: 'Letter.docx' }).getAttribute('href');
	expect((await (await page.request.get(server.origin + original)).body()).equals(Buffer.from(word))).toBe(true);
});

test('the claimant names who comes next, who gets it and signs; the office comes last', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/templates`);
	await page.getByRole('button', { name: 'New template' }).click();
	await page.waitForURL('**/bench/*');
	await ready(page);
	await page.getByLabel('Add documents').setInputFiles(file('Claim.pdf', await pdf(1)));
	await canvas(page).waitFor();
	await role(page, 'Claimant');
	await role(page, 'Section leader');
	await page.getByRole('list', { name: 'Route' }).getByRole('button', { name: 'Section leader' }).click();
	await choose(page.getByLabel('Named by'), 'Claimant, on finishing');
	await sign(page, 'Claimant', 200, 200);
	await sign(page, 'Section leader', 200, 320);
	await putInUse(page, '');
	await page.getByRole('complementary').getByRole('link', { name: 'Use' }).click();
	await ready(page);
	await page.getByLabel('Name').fill('Kit Osei');
	await page.getByLabel('E-mail').fill('kit@post.example');
	await page.getByRole('button', { name: 'Send now' }).click();
	await page.waitForURL('**/packets/*');
	const packet = page.url();
	await page.goto(await linkFromMail(page, server, 'kit@post.example', 'Claim'));
	await ready(page);
	await page.getByLabel('I agree').check();
	await page.getByRole('button', { name: /Go to the document/ }).click();
	await canvas(page).waitFor();
	await page.getByRole('button', { name: /Kit Osei, handwriting 2/ }).click();
	const finish = page.getByRole('button', { name: 'Sign as Kit Osei' });
	await expect(finish).toBeDisabled();
	await clean(page, 'naming the next');
	await page
		.getByRole('group', { name: 'Who takes this part: Section leader' })
		.getByLabel('Name')
		.fill('Lucia Marchetti');
	await page
		.getByRole('group', { name: 'Who takes this part: Section leader' })
		.getByLabel('E-mail')
		.fill('kit@post.example');
	await finish.click();
	await expect(page.getByText('You can’t name yourself here.')).toBeVisible();
	await page
		.getByRole('group', { name: 'Who takes this part: Section leader' })
		.getByLabel('E-mail')
		.fill('lucia@post.example');
	await finish.click();
	await expect(page.getByText('Lucia Marchetti signs')).toBeVisible();
	await signsByMail(page, 'lucia@post.example', 'Lucia Marchetti');
	await page.goto(packet);
	await expect(page.getByText('Lucia Marchetti, lucia@post.example, was named as Section leader.')).toBeVisible();
	await expect(page.getByRole('link', { name: 'Evidence sheet' })).toBeVisible();
	expect(server.run('scripts/check-data.ts')).toMatchObject({ status: 0 });
});

test('by hand: versions back, duplicate and bin; files pasted and dragged; pins for many; a fit put right; joining by dragging', async ({
	page
}) => {
	test.slow();
	await signIn(page, server);
	const preview = page.getByRole('complementary', { name: 'Template' });
	await page.goto(`${server.origin}/templates`);
	await ready(page);
	await page.getByRole('link', { name: 'Section rota swap', exact: true }).click();
	await preview.getByRole('heading', { name: 'Section rota swap' }).waitFor();
	await preview.getByRole('button', { name: 'Change' }).click();
	await page.waitForURL('**/bench/*');
	await ready(page);
	await page.getByLabel('Title', { exact: true }).fill('Rota swap, new');
	await putInUse(page, 'another title');
	await preview.getByText('Versions, 2').click();
	await preview.getByRole('button', { name: 'Bring back' }).click();
	await preview.getByText('Version 1 again').waitFor();
	await preview.getByRole('button', { name: 'Bin' }).click();
	await expect(page.getByRole('link', { name: 'Use Section rota swap' })).toHaveCount(0);
	await page.getByRole('link', { name: 'Bin', exact: true }).click();
	await page.getByRole('link', { name: 'Section rota swap', exact: true }).click();
	await answered(page, () => preview.getByRole('button', { name: 'Take out of the bin' }).click());
	await page.goto(`${server.origin}/templates`);
	await ready(page);
	await expect(page.getByRole('link', { name: 'Use Section rota swap' })).toBeVisible();
	await page.getByRole('link', { name: 'Instrument loan agreement', exact: true }).click();
	await preview.getByRole('heading', { name: 'Instrument loan agreement' }).waitFor();
	await preview.getByRole('button', { name: 'Duplicate' }).click();
	await page.waitForURL('**/bench/*');
	await ready(page);
	await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Instrument loan agreement, copy');

	// all fields of a page pinned in one step, undone in one
	await canvas(page).waitFor();
	await page
		.getByRole('button', { name: /Go to Instrument loan agreement, page [4-9]/ })
		.last()
		.click();
	await page.locator('[data-field]').first().click();
	await page
		.locator('[data-field]')
		.nth(1)
		.click({ modifiers: ['Shift'] });
	await choose(page.getByLabel('Pinned to', { exact: true }), 'the page');
	await expect(page.getByRole('button', { name: 'Undo: pin 2 fields' })).toBeVisible();
	await page.keyboard.press('Escape');

	// a file is pasted; it is dragged before the other; a saved text is taken
	const bytes = [...(await pdf(1, { text: 'Pasted' }))];
	await page.evaluate((all) => {
		const data = new DataTransfer();
		data.items.add(new File([new Uint8Array(all)], 'Pasted.pdf', { type: 'application/pdf' }));
		window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data }));
	}, bytes);
	const papers = page.getByRole('region', { name: 'Papers' });
	await expect(papers.getByRole('heading', { name: 'Pasted' })).toBeVisible();
	// high enough for both to be in view, since dragging by hand can't scroll here
	await page.setViewportSize({ width: 1280, height: 2400 });
	await drag(papers.getByRole('heading', { name: 'Pasted' }), papers.getByRole('heading').first());
	await page.setViewportSize({ width: 1280, height: 800 });
	await expect(papers.getByRole('heading').first()).toHaveText('Pasted');
	await page.getByRole('heading', { level: 1 }).getByRole('button').click();
	const message = page.getByRole('textbox', { name: 'Message to everyone' });
	await message.fill('For you');
	await page.getByRole('button', { name: 'Keep this text' }).click();
	await page.getByLabel('Title of the saved text').fill('Loans');
	await page.getByRole('button', { name: 'Keep', exact: true }).click();
	await message.fill('');
	await choose(page.getByLabel('Saved text for the letter to everyone'), 'Loans');
	await expect(message).toHaveValue('For you');

	// a fit put right by hand: pressed to another place, moved by keys, another left out
	const again = page.waitForEvent('filechooser');
	await fromMenu(page.getByRole('button', { name: 'More to do with Instrument loan agreement' }), 'Exchange…');
	await (await again).setFiles(file('New loan.pdf', await pdf(3)));
	const dialog = page.getByRole('dialog');
	await expect(dialog.getByRole('button', { name: 'Lay the fields down' })).toBeVisible();
	await dialog.locator('[data-new-page="0"] canvas[data-drawn=yes]').waitFor();
	await dialog.locator('[data-new-page="0"] canvas').click({ position: { x: 200, y: 300 } });
	await expect(dialog.locator('[data-fit="0"]')).toContainText('right');
	await dialog.locator('[data-fit="0"]').focus();
	const place = async () => (await dialog.locator('[data-new-page] [data-fit-box="at"]').boundingBox())!;
	const before = await place();
	await page.keyboard.press('Alt+Shift+ArrowRight');
	expect(Math.abs((await place()).x - before.x - 7.8)).toBeLessThan(1.5);
	for (let i = 1; i < (await dialog.locator('[data-fit]').count()); i++) {
		await dialog.locator(`[data-fit="${i}"]`).focus();
		await page.keyboard.press('Delete');
	}
	await dialog.getByRole('button', { name: 'Lay the fields down' }).click();
	await expect(page.getByRole('button', { name: /^Undo: fit \d+ fields/ })).toBeVisible();
	await page.getByRole('button', { name: 'Go to New loan, page 1' }).click();
	await expect(page.locator('[data-field]')).toHaveCount(1);

	// joining: somebody dragged to another stop, and that undone
	await page.goto(`${server.origin}/templates`);
	await ready(page);
	await page.getByLabel('Choose Hall hire agreement').check();
	await page.getByLabel('Choose Recording release').check();
	await page.getByRole('button', { name: 'Join 2 as one packet…' }).click();
	await page.getByRole('heading', { name: 'Join “' }).waitFor();
	await ready(page);
	const stops = page.getByRole('list', { name: 'Stops of the packet' }).locator('> li');
	const count = await stops.count();
	await drag(page.getByRole('group', { name: 'Guest musician' }), page.getByRole('group', { name: 'Hall keeper' }));
	await expect(stops).toHaveCount(count - 1);
	await page.keyboard.press('Control+z');
	await expect(stops).toHaveCount(count);
});
