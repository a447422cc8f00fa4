import { expect, test, type FrameLocator, type Page } from '@playwright/test';
import { createServer, type Server as HttpServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { clean } from './kit/axe';
import { choose, fromMenu, typeDay } from './kit/parts';
import { ready, Server, signIn } from './kit/server';

const server = new Server();
let around: HttpServer;
test.beforeAll(async () => {
	await server.seed('demo').start();
	// a website of somebody's, on another origin
	around = createServer((request, answer) => {
		const slug = new URL(request.url!, 'http://x').searchParams.get('slug');
		answer.setHeader('Content-Type', 'text/html');
		answer.end(`<!doctype html><html lang="en"><title>A website</title><h1>Hire our hall</h1><ol id="told"></ol>
			<iframe src="${server.origin}/i/${slug}#county=brint" title="Hire" style="width:100%;border:0" height="500"></iframe>
			<script>addEventListener('message', (e) => { if (e.data.pellum !== 'height') told.append(Object.assign(document.createElement('li'), { textContent: e.data.pellum })) })</script>
			<script src="${server.origin}/frame.js"></script></html>`);
	});
	await new Promise<void>((listening) => around.listen(0, '127.0.0.1', listening));
});
test.afterAll(async () => {
	around.close();
	await server.stop();
});

const slugOf = (heading: string) =>
	server.reading((db) =>
		db.prepare<[string], string>("SELECT slug FROM intakes WHERE setting ->> '$.heading' = ?").pluck().get(heading)!
	);
/** The last letter to somebody, once it has come. */
async function letterTo(to: string, subject: RegExp): Promise<string> {
	let text = '';
	await expect
		.poll(() => {
			const letters = server.reading((db) =>
				db
					.prepare<[string], { subject: string; text: string }>(
						'SELECT subject, text FROM mailbox WHERE recipient = ? ORDER BY id DESC'
					)
					.all(to)
			);
			text = letters.find((letter) => subject.test(letter.subject))?.text ?? '';
			return text;
		})
		.not.toBe('');
	return text;
}
async function arrive(page: Page, address: string) {
	await page.goto(address);
	await ready(page);
}
async function begin(page: Page, name: string, email: string) {
	await page.getByLabel('Name').first().fill(name);
	await page.getByLabel('E-mail').first().fill(email);
	await page.getByRole('button', { name: 'Begin' }).click();
}
const goOn = (page: Page) => page.getByRole('button', { name: 'Go on', exact: true }).click();
/** Has a code sent; the letter with it, once it is another one than before. */
async function codeLetter(page: Page, email: string, before = ''): Promise<string> {
	await page.getByRole('button', { name: 'Send me a code' }).click();
	let letter = '';
	await expect.poll(async () => (letter = await letterTo(email, /^Your code/))).not.toBe(before);
	return letter;
}
/** Proves the address by the code in the letter. */
async function prove(page: Page, email: string, before = '') {
	const code = /\b(\d{6})\b/.exec(await codeLetter(page, email, before))![1]!;
	const there = page.getByRole('region', { name: 'Confirm your e-mail address' });
	await there.getByLabel('Code').fill(code);
	await there.getByRole('button', { name: 'Go on' }).click();
}
async function confirm(page: Page, email: string) {
	await prove(page, email);
	await expect(page.getByText('Your address is confirmed.')).toBeVisible();
}
/** Agrees, answers what is left, and signs. */
async function sign(page: Page, name: string) {
	await page.waitForURL(/\/s\//);
	await ready(page);
	await page.getByLabel('I agree').click();
	await page.getByRole('button', { name: 'Go to the documents' }).click();
	await page.getByRole('button', { name: /handwriting 1/ }).click();
	await page.getByRole('button', { name: `Sign as ${name}` }).click();
	await expect(page.getByRole('heading', { name: 'Signed' })).toBeVisible();
}

/** From the county on: alone is no way, so both hire it; up to the document. */
async function hire(there: Page | FrameLocator, page: Page, at: (who: string) => string) {
	const goOn = () => there.getByRole('button', { name: 'Go on', exact: true }).click();
	await there.getByRole('combobox', { name: 'Hired' }).click();
	await there.getByRole('option', { name: 'Alone' }).click();
	await expect(there.getByText('both must take part')).toBeVisible();
	await expect(there.getByRole('button', { name: 'Go on', exact: true })).toBeDisabled();
	await there.getByRole('combobox', { name: 'Hired' }).click();
	await there.getByRole('option', { name: 'With spouse' }).click();
	await goOn();
	await there.getByLabel('Name').fill('Owen Aldous');
	await there.getByLabel('E-mail').fill(at('owen'));
	await goOn();
	await there.getByRole('spinbutton').first().focus();
	await page.keyboard.type('16012027');
	await goOn();
	await there.getByRole('button', { name: 'Send me a code' }).click();
	const code = /\b(\d{6})\b/.exec(await letterTo(at('gwen'), /^Your code/))![1]!;
	await there.getByLabel('Code').fill(code);
	await there.getByRole('region', { name: 'Confirm' }).getByRole('button', { name: 'Go on' }).click();
	await there.getByRole('button', { name: 'Go to the document' }).click();
}

for (const [where, width] of [
	['on a phone', 390],
	['at a desk', 1280]
] as const)
	test.describe(where, () => {
		test.use({ viewport: { width, height: 800 } });
		/** An address of their own at each width. */
		const at = (who: string) => `${who}.${width}@post.example`;

		test('an expense claim: sums as one types, back and forth without loss, the section leader named, finance last', async ({
			page
		}) => {
			const address = `${server.origin}/i/${slugOf('Touring expense claim')}`;
			await arrive(page, address);
			await expect(page.getByText('3 pages of questions')).toBeVisible();
			await clean(page, 'the first view of an intake');
			// what fills in the field that nobody sees begins nothing
			const begun = () => server.reading((db) => db.prepare('SELECT count(*) FROM cases').pluck().get());
			const before = begun();
			const data = { language: 'en', website: 'http://spam.example' };
			expect((await page.request.post(`${address}/begin`, { data, headers: { origin: server.origin } })).status()).toBe(
				429
			);
			expect(begun()).toBe(before);
			// what is missing is said at once, and nothing is begun
			await page.getByRole('button', { name: 'Begin' }).click();
			await expect(page.getByText('Write your name in full.')).toBeVisible();
			await begin(page, 'Solveig Aas', at('s.aas'));
			await page.getByLabel('Section').fill('Horns');
			await page.getByLabel('IBAN').fill('GB33 BUKB 2020 1555 5555 55');
			await goOn(page);
			await expect(page.getByRole('heading', { name: 'What you paid' })).toBeFocused();
			await typeDay(page, 'Date', '2026-10-12');
			await page.getByLabel('Journey').fill('Oldmere and back');
			await page.getByLabel('Amount', { exact: true }).fill('12.40');
			// another line comes once there is one
			await typeDay(page.locator('[data-asks="date_2"]'), 'Date', '2026-10-13');
			await page.getByLabel('Journey').nth(1).fill('Ferry');
			await page.getByLabel('Amount', { exact: true }).nth(1).fill('7.05');
			await page.getByLabel('Amount', { exact: true }).nth(1).press('Tab');
			await expect(page.getByLabel('In all')).toHaveText('£19.45');
			await clean(page, 'a page of questions');
			await choose(page.getByRole('combobox', { name: 'Language' }), 'Deutsch');
			await expect(page.getByLabel('In all')).toHaveText('19,45 £');
			await choose(page.getByRole('combobox', { name: 'Sprache' }), 'English');
			await expect(page.getByLabel('In all')).toHaveText('£19.45');
			// gone and come back, in another tab of the same browser: all is there
			await page.waitForTimeout(1000);
			await arrive(page, address);
			await expect(page.getByLabel('In all')).toHaveText('£19.45');
			await page.getByRole('button', { name: 'Go back' }).click();
			await expect(page.getByLabel('Section')).toHaveValue('Horns');
			await goOn(page);
			await goOn(page);
			// the office's own finance officer can't be the section leader too
			await page.getByLabel('Name').fill('Ruben');
			await page.getByLabel('E-mail').fill('RUBEN@brindlevale.example');
			await goOn(page);
			await expect(page.getByRole('button', { name: 'Go to the document' })).toBeDisabled();
			await clean(page, 'the end of an intake');
			await confirm(page, at('s.aas'));
			await page.getByRole('button', { name: 'Go to the document' }).click();
			await expect(page.getByRole('alert').filter({ hasText: 'takes part here already' })).toBeVisible();
			await page.getByLabel('Name').fill('Lucia Marchetti');
			await page.getByLabel('E-mail').fill(at('l.marchetti'));
			await goOn(page);
			await page.getByRole('button', { name: 'Go to the document' }).click();
			await sign(page, 'Solveig Aas');
			await letterTo(at('l.marchetti'), /Touring expense claim/);
			await expect(page.getByText('After you')).toContainText('Lucia Marchetti approves');
		});

		test('youth consent prepared by a band leader: the player sees it, changes the birthday, and names a guardian', async ({
			page,
			browser
		}) => {
			await arrive(page, `${server.origin}/i/${slugOf('Youth player consent')}`);
			await page.getByRole('radio', { name: 'For somebody else' }).click();
			await page.getByLabel('Name').nth(1).fill('Ines Tarrant');
			await page.getByLabel('E-mail').nth(1).fill(at('i.tarrant'));
			await begin(page, 'Bram Oyelaran', at('b.oyelaran'));
			await typeDay(page, 'Date of birth', '2001-03-02');
			// the letter with the code leads back here: opened in this browser before the code is given, all is still there
			await page.getByRole('button', { name: 'Save for later' }).click();
			const letter = await codeLetter(page, at('b.oyelaran'));
			await arrive(page, /http\S+\/i\/\S+/.exec(letter)![0]);
			await expect(page.getByRole('group', { name: 'Date of birth' })).toContainText('2001');
			await page.getByRole('button', { name: 'Save for later' }).click();
			await clean(page, 'an intake that is saved for later');
			await prove(page, at('b.oyelaran'), letter);
			await expect(page.getByText('Saved. The link in your message leads back here.')).toBeVisible();
			await page.getByLabel('Instrument').fill('Horn');
			// of age: nobody is asked for a guardian
			await goOn(page);
			await expect(page.getByRole('heading', { name: 'Send to: Ines Tarrant' })).toBeVisible();
			await expect(page.getByText('Your address is confirmed.')).toBeVisible();
			await page.getByRole('button', { name: 'Send to: Ines Tarrant' }).click();
			await expect(page.getByRole('heading', { name: 'Sent to: Ines Tarrant' })).toBeVisible();

			const link = /http\S+\/s\/\S+/.exec(await letterTo(at('i.tarrant'), /^To sign/))![0];
			const player = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
			await arrive(player, link);
			await player.getByLabel('I agree').click();
			await player.getByRole('button', { name: 'Go to the documents' }).click();
			const birthday = player.locator('[data-todo]').filter({ hasText: 'Date of birth' });
			await expect(birthday).toContainText('2001');
			await birthday.getByRole('button').first().click();
			await typeDay(birthday, 'Date of birth', '2012-03-02');
			// now custody is asked, and a guardian is to be named
			const custody = player.locator('[data-todo]').filter({ hasText: 'Who has custody' });
			await custody.getByRole('button').first().click();
			await choose(custody.getByRole('combobox'), 'One of them');
			await player.locator('[data-todo]').filter({ hasText: 'Signature' }).getByRole('button').first().click();
			await player.getByRole('button', { name: /handwriting 1/ }).click();
			const guardian = player.getByRole('group', { name: 'Who takes this part: Guardian?' });
			await guardian.getByLabel('Name').fill('Henrik Tarrant');
			await guardian.getByLabel('E-mail').fill(at('h.tarrant'));
			await expect(player.getByRole('group', { name: /Second guardian/ })).toHaveCount(0);
			await player.getByRole('button', { name: 'Sign as Ines Tarrant' }).click();
			await expect(player.getByRole('heading', { name: 'Signed' })).toBeVisible();
			await letterTo(at('h.tarrant'), /^To sign/);
			await player.context().close();
		});

		test('hall hire: a rule closes a way, the couple sign one after the other', async ({ page }) => {
			await arrive(page, `${server.origin}/i/${slugOf('Hire the rehearsal hall')}`);
			await begin(page, 'Gwen Aldous', at('gwen'));
			await choose(page.getByRole('combobox', { name: 'County of residence' }), 'Brint');
			await hire(page, page, at);
			await sign(page, 'Gwen Aldous');
			await letterTo(at('owen'), /^To sign/);
		});
	});

test('hall hire within a page of another origin: a rule closes a way, the frame is as high as what is in it, and is told of what happens', async ({
	page,
	browser
}) => {
	const slug = slugOf('Hire the rehearsal hall');
	const { port } = around.address() as AddressInfo;
	const site = `http://127.0.0.1:${port}/?slug=${slug}`;
	// an origin that isn't listed shows nothing
	await page.goto(site);
	expect(await page.frames()[1]!.evaluate(() => document.body.textContent)).not.toContain('Brindlevale');

	const office = await (await browser.newContext()).newPage();
	await signIn(office, server);
	await arrive(office, `${server.origin}/intakes`);
	await office.getByRole('link', { name: 'Hire the rehearsal hall' }).click();
	await office.getByRole('tab', { name: 'On a website' }).click();
	await office.getByLabel('Origins that may show it').fill(`http://127.0.0.1:${port}`);
	await office.getByLabel('Origins that may show it').press('Tab');
	await expect(office.getByText('<iframe')).toBeVisible();
	await clean(office, 'an intake on a website');
	await office.getByRole('button', { name: 'Put the changes in use' }).click();
	await expect(office.getByText('Visitors see it as it is now')).toBeVisible();
	await expect(office.getByRole('button', { name: 'Put the changes in use' })).toHaveCount(0);

	await page.goto(site);
	const frame = page.frameLocator('iframe');
	await ready(frame);
	await frame.getByLabel('Name').fill('Gwen Aldous');
	await expect.poll(async () => Number(await page.locator('iframe').getAttribute('height'))).not.toBe(500);
	await frame.getByLabel('E-mail').fill('gwen@post.example');
	await frame.getByRole('button', { name: 'Begin' }).click();
	await expect(page.locator('#told')).toHaveText('started');
	// the link around it has told the county
	await expect(frame.getByRole('combobox', { name: 'County of residence' })).toHaveText(/Brint/);
	await hire(frame, page, (who) => `${who}@post.example`);
	// she signs within the same frame
	await frame.getByLabel('I agree').click();
	await frame.getByRole('button', { name: 'Go to the documents' }).click();
	await frame.getByRole('button', { name: /handwriting 1/ }).click();
	await frame.getByRole('button', { name: 'Sign as Gwen Aldous' }).click();
	await expect(frame.getByRole('heading', { name: 'Signed' })).toBeVisible();
	await expect(page.locator('#told li')).toHaveText(['started', 'handed in', 'finished']);
	await letterTo('owen@post.example', /^To sign/);
	// no other page of Pellum, nor another packet's, can be shown there
	const desk = await fetch(`${server.origin}/sign-in`);
	expect(desk.headers.get('x-frame-options')).toBe('DENY');
	await office.context().close();
});

test('the office makes one: pages and questions by hand and by keys, undone and done again; all ways drawn, faults told, opened, closed', async ({
	page
}) => {
	const keptVersion = () =>
		server.reading((db) =>
			db
				.prepare(
					"SELECT setting ->> '$.version' FROM intakes WHERE setting ->> '$.heading' = 'Steward handbook receipt'"
				)
				.pluck()
				.get()
		);
	await signIn(page, server);
	await arrive(page, `${server.origin}/intakes`);
	await clean(page, 'the list of intakes');
	const make = async () => {
		await page.getByRole('combobox', { name: 'A page of its own for the template' }).fill('Steward');
		await page.getByRole('option', { name: 'Steward handbook receipt' }).click();
		await page.getByRole('button', { name: 'Make it' }).click();
		await expect(page.getByRole('heading', { name: 'Steward handbook receipt' })).toBeVisible();
	};
	// one made by mistake is thrown away again
	await make();
	await ready(page);
	await page.getByRole('button', { name: 'Throw it away' }).click();
	await clean(page, 'an intake thrown away', { frameless: true });
	await page.getByRole('button', { name: 'Throw it away now' }).click();
	await page.waitForURL('**/intakes');
	await expect(page.getByRole('row').filter({ hasText: 'Steward handbook receipt' })).toHaveCount(0);
	await make();
	await page.getByRole('button', { name: 'A page', exact: true }).click();
	await page.getByLabel('Title of the page').fill('About you');
	await fromMenu(page.getByRole('button', { name: 'Add…' }), 'A question of its own');
	await page.getByRole('textbox', { name: 'Question' }).fill('Shift');
	await choose(page.getByRole('combobox', { name: 'Kind' }), 'one of a list');
	await expect(
		page
			.getByRole('button', { name: '“Shift” has nothing to choose from.' })
			.or(page.getByText('“Shift” has nothing to choose from.').first())
	).toBeVisible();
	await page.getByLabel('To choose from, a line each').fill('Early\nLate');
	await page.getByLabel('To choose from, a line each').press('Tab');
	await page.getByRole('button', { name: 'A page', exact: true }).click();
	await page.getByLabel('Title of the page').fill('Late ones');
	await choose(page.getByRole('combobox', { name: 'This page comes' }), 'when another answer is …');
	await choose(page.getByRole('combobox', { name: 'This page comes: value' }), 'Late');
	await page
		.getByRole('radio', { name: 'All ways through' })
		.or(page.getByRole('button', { name: 'All ways through' }))
		.click();
	await expect(page.getByText('From About you to Late ones')).toBeAttached();
	await expect(page.getByText(/ways were tried, with every answer/)).toBeVisible();
	// a rule that speaks, and one that turns in a circle is told
	await page.getByRole('button', { name: 'A rule', exact: true }).click();
	await page.getByLabel('It says').fill('Late stewards get a lift home.');
	await choose(page.getByRole('combobox', { name: 'When' }), 'when another answer is …');
	await page.getByRole('button', { name: 'Late ones' }).click();
	await page.getByRole('button', { name: 'Another way by rule' }).click();
	await page.getByRole('combobox', { name: 'where' }).fill('shift = "late"');
	await choose(page.getByRole('combobox', { name: 'goes on to' }), 'About you');
	await expect(page.getByRole('button', { name: /before it can open/ })).toBeVisible();
	await expect(page.getByRole('button', { name: 'Open it' })).toBeDisabled();
	await page.locator('h1').click();
	await page.keyboard.press('Control+z');
	await expect(page.getByRole('button', { name: /before it can open/ })).toHaveCount(0);
	await page.keyboard.press('Control+Shift+z');
	await expect(page.getByRole('button', { name: /before it can open/ })).toBeVisible();
	await page.getByRole('button', { name: 'Take off', exact: true }).click();
	await expect(page.getByRole('button', { name: /before it can open/ })).toHaveCount(0);
	await clean(page, 'an intake being made');
	// pages put in order by keys
	const handle = page.getByRole('list', { name: 'Pages of questions' }).getByRole('listitem').nth(1);
	await handle.focus();
	await page.keyboard.press('Enter');
	await page.keyboard.press('ArrowUp');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('list', { name: 'Pages of questions' }).getByRole('listitem').first()).toContainText(
		'Late ones'
	);
	await page.getByRole('button', { name: 'Undo' }).click();
	await expect(page.getByRole('list', { name: 'Pages of questions' }).getByRole('listitem').first()).toContainText(
		'About you'
	);
	// beside, as its visitor has it, in their language
	await page.getByRole('radio', { name: 'As the visitor sees it' }).click();
	const beside = page.frameLocator('iframe');
	await ready(beside);
	await beside.getByRole('combobox', { name: 'Language' }).click();
	await beside.getByRole('option', { name: 'Deutsch' }).click();
	await expect(beside.getByRole('button', { name: 'Beginnen' })).toBeVisible();
	await page.getByRole('tab', { name: 'Who may start' }).click();
	await clean(page, 'who may start');
	await page.getByRole('combobox', { name: 'Version of the template' }).click();
	await page.getByRole('option', { name: /^1, of / }).click();
	await expect.poll(() => keptVersion()).toBe(1);
	await page.getByRole('button', { name: 'Undo' }).click();
	await expect.poll(() => keptVersion()).toBe(null);
	await page.getByLabel('The sentence while it is closed').fill('Stewards are full for this year.');
	await page.getByRole('tab', { name: 'What follows' }).click();
	await fromMenu(page.getByRole('button', { name: 'Add…' }), 'A row in a sheet');
	await fromMenu(page.getByRole('button', { name: 'Add…' }), 'Another template is started');
	await choose(page.getByRole('combobox', { name: 'Template' }), 'Youth player consent');
	await choose(page.getByRole('combobox', { name: 'Player is' }), 'Steward');
	// what lies half under the bar at the top is judged as small as what is seen of it
	await page.evaluate(() => window.scrollTo(0, 0));
	await clean(page, 'what follows');
	await page.getByRole('button', { name: 'Open it' }).click();
	await expect(page.getByText('Visitors see it as it is now')).toBeVisible();
	await page.getByRole('tab', { name: 'Cases' }).click();
	await expect(page.getByText('Nobody has begun yet.')).toBeVisible();
	await page.getByRole('tab', { name: 'On a website' }).click();
	const address = (await page.getByRole('link', { name: /\/i\// }).textContent())!;
	const [download] = await Promise.all([
		page.waitForEvent('download'),
		page.getByRole('link', { name: 'PNG' }).click()
	]);
	expect(download.suggestedFilename()).toBe('Code.png');
	await page.getByRole('button', { name: 'Close it' }).click();
	await expect(page.getByRole('button', { name: 'Open it again' })).toBeVisible();
	await arrive(page, address);
	await expect(page.getByText('Stewards are full for this year.')).toBeVisible();
	await clean(page, 'an intake that is closed');
	// in a language of the visitor's
	await choose(page.getByRole('combobox', { name: 'Language' }), 'Deutsch');
	await expect(page.getByRole('heading', { name: 'Zurzeit geschlossen' })).toBeVisible();
});

test('cases in the office: how each stands, where people stop, answers by key; what is stuck is taken over', async ({
	page
}) => {
	await signIn(page, server);
	await arrive(page, `${server.origin}/intakes`);
	await page.getByRole('link', { name: 'Touring expense claim' }).click();
	await page.getByRole('tab', { name: /Cases/ }).click();
	await expect(page.getByRole('row').filter({ hasText: 'Aurelio Dube' })).toContainText('signed by the first');
	await page.getByText('As a table').click();
	await expect(page.getByRole('row', { name: 'What you paid 2', exact: true })).toBeVisible();
	await clean(page, 'the cases of an intake');
	const [sheet] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'CSV' }).click()]);
	expect(sheet.suggestedFilename()).toBe('Touring expense claim.csv');
	// somebody has proved their address and gone
	server.writing((db) =>
		db
			.prepare(
				"UPDATE cases SET proved_at = begun_at, email = 'noor@post.example', visitor = 'Noor van Dalen', entered = ? WHERE page = 'you'"
			)
			.run(
				JSON.stringify({
					starting: { visitor: { name: 'Noor van Dalen', email: 'noor@post.example' }, prepares: null, named: {} },
					answers: {}
				})
			)
	);
	await page.reload();
	await ready(page);
	await page.getByRole('tab', { name: /Cases/ }).click();
	await page.getByRole('row').filter({ hasText: 'Noor van Dalen' }).getByRole('button', { name: 'Take over' }).click();
	await page.waitForURL(/\/i\/[^/]+\/[\w-]{43}/);
	await ready(page);
	await expect(page.getByRole('heading', { name: 'Where you play' })).toBeVisible();
	// its packet tells where it came from
	await arrive(page, `${server.origin}/intakes`);
	await page.getByRole('link', { name: 'Touring expense claim' }).click();
	await page.getByRole('tab', { name: /Cases/ }).click();
	await page.getByRole('row').filter({ hasText: 'Aurelio Dube' }).getByRole('link').click();
	await expect(page.getByText('through the intake “Touring expense claim”').first()).toBeVisible();
	// and so does the row of whoever takes part
	const email = server.reading((db) =>
		db.prepare("SELECT email FROM cases WHERE visitor = 'Aurelio Dube'").pluck().get()
	) as string;
	await arrive(page, `${server.origin}/people?address=${encodeURIComponent(email)}`);
	await expect(page.getByRole('row').filter({ hasText: 'through the intake “Touring expense claim”' })).toHaveCount(1);
	await clean(page, 'what somebody takes part in');
});
