import { expect, test, type Page } from '@playwright/test';
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { clean } from './kit/axe';
import { drafted, sends, takesPart } from './kit/draft';
import { answered } from './kit/parts';
import { linkFromMail, phone, ready, Server, signIn } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('demo').start();
});
test.afterAll(() => server.stop());

/** From one's own page into the room. */
async function intoRoom(page: Page, name = 'Go into the room'): Promise<void> {
	await page.getByRole('link', { name }).first().click();
	await page.waitForURL('**/room');
	await ready(page);
	await page.getByRole('button', { name }).click();
}

test('the lost bow is sworn before the notary: at 390 px by whoever declares, at 1280 px by the notary', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/stand-ins/notary`);
	await ready(page);
	await clean(page, 'the notaries');
	await page.getByRole('link', { name: 'Statutory declaration of a lost bow' }).click();
	await page.waitForURL('**/packets/*');
	await ready(page);
	const packet = page.url();
	const session = page.getByRole('region', { name: 'Before the notary Isolde Marchbank' });
	await expect(session.getByRole('listitem').filter({ hasText: 'Saskia Ferrand' })).toContainText('identity shown');
	await expect(session).toContainText('fee £40, paid to the notary');
	await session.getByRole('button', { name: 'Set another time…' }).click();
	await session.getByRole('combobox', { name: 'Minutes' }).click();
	await page.getByRole('option', { name: '45' }).click();
	await session.getByRole('button', { name: 'Set it, and write to everybody' }).click();
	await expect(session).toContainText('45 minutes');
	await clean(page, 'a packet before a notary');

	const saskia = await phone(browser);
	await saskia.goto(await linkFromMail(page, server, 's.ferrand@post.example', 'Appointment'));
	await ready(saskia);
	await expect(saskia.getByText('Fee: £40. It is paid to the notary, not here.')).toBeVisible();
	await saskia.getByRole('checkbox', { name: 'I agree' }).check();
	await saskia.getByRole('button', { name: 'Go to the documents' }).click();
	await intoRoom(saskia);
	await expect(saskia.getByText('The notary is not here yet.')).toBeVisible();
	expect(await saskia.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
	await clean(saskia, 'the room at 390 px');
	const calendar = await saskia.request.get(`${saskia.url()}/calendar`);
	expect(await calendar.text()).toContain('BEGIN:VEVENT');

	const isolde = await takesPart(browser, await linkFromMail(page, server, 'marchbank@notary.example'));
	await intoRoom(isolde);
	await isolde.getByRole('button', { name: 'Begin the session' }).click();
	await isolde.getByRole('textbox', { name: 'Words to everyone in the room' }).fill('Good morning, Ms Ferrand.');
	await isolde.getByRole('button', { name: 'Say it' }).click();
	await expect(saskia.getByText('Good morning, Ms Ferrand.')).toBeVisible();
	await expect(saskia.getByText('Wait until the notary has confirmed who you are.')).toBeVisible();
	await expect(isolde.getByText(/^Showed who they are by pictures of a document \(identity card\)/)).toBeVisible();
	await clean(isolde, 'the notary’s desk');
	await isolde.getByRole('button', { name: 'Confirm Saskia Ferrand' }).click();

	// the oath, a place that was missing, and only then the signature
	await expect(saskia.getByText('I solemnly and sincerely declare')).toBeVisible();
	await clean(saskia, 'the oath');
	await answered(saskia, () => saskia.getByRole('button', { name: 'I have said it, and I mean it' }).click());
	await expect(saskia.getByText('Wait until the notary asks you to sign.')).toBeVisible();
	await isolde.getByRole('button', { name: 'A place is missing… for Saskia Ferrand' }).click();
	await isolde.getByRole('combobox', { name: 'What is missing' }).click();
	await isolde.getByRole('option', { name: 'initials' }).click();
	await isolde
		.locator('[data-seen]')
		.first()
		.click({ position: { x: 420, y: 560 } });
	await isolde.getByRole('spinbutton', { name: 'Points from the left' }).fill('380');
	await isolde.getByRole('spinbutton', { name: 'Points from below' }).fill('300');
	await isolde.getByRole('button', { name: 'Place it' }).click();
	// it goes on another day, and what was done stands
	await isolde.getByRole('button', { name: 'Go on another day…' }).click();
	const why = isolde.getByRole('combobox', { name: 'Why it goes on another day' });
	await why.fill('the conn');
	await expect(isolde.getByRole('option')).toHaveText(['The connection is too bad']);
	// what stands there whole is offered no more, and lies over nothing
	await why.fill('The connection is too bad');
	await expect(isolde.getByRole('option')).toHaveCount(0);
	await isolde.getByRole('button', { name: 'Go on another day', exact: true }).click();
	await expect(saskia.getByText('The session goes on another day.')).toBeVisible();
	await isolde.getByRole('button', { name: 'Go on with the session' }).click();
	await saskia.getByRole('button', { name: 'See yourself' }).click();
	await expect(saskia.getByText('No camera can be used here.')).toBeVisible();
	await isolde.getByRole('button', { name: 'Ask to sign Saskia Ferrand' }).click();
	await saskia.getByRole('link', { name: 'Sign now' }).click();
	await saskia.waitForURL(/\/s\/[\w-]{43}$/);
	await ready(saskia);
	await saskia.getByRole('textbox', { name: 'Where it was last seen' }).fill('Town Hall, Oldmere');
	// her own page, on which she signs, keeps her in the room
	await saskia.waitForRequest((request) => request.url().endsWith('/room/now'));
	const finish = saskia.getByRole('button', { name: 'Sign as Saskia Ferrand' });
	for (let step = 0; step < 4 && !(await finish.isVisible()); step++) {
		await saskia.getByRole('button', { name: /^Next: / }).click();
		const hand = saskia.getByRole('button', { name: /, handwriting 1$/ });
		await hand.or(finish).first().waitFor();
		if (await hand.count()) await hand.first().click();
	}
	await finish.click();
	await saskia.getByRole('heading', { name: 'Signed' }).waitFor();

	// what is wrong is said before anything is final
	await saskia.getByRole('link', { name: 'Go into the room' }).click();
	await saskia.waitForURL('**/room');
	await ready(saskia);
	const act = isolde.getByRole('textbox', { name: /^The act/ });
	await expect(act).toHaveValue(/took the oath/);
	await act.fill((await act.inputValue()).replace('Harrow Wells', 'Harrow Well'));
	await isolde.getByRole('button', { name: 'Draw it up, and show it' }).click();
	await expect(saskia.getByText('Page 2 of 2')).toBeVisible();
	await saskia.getByRole('button', { name: 'Something is wrong' }).click();
	await saskia.getByRole('textbox', { name: 'What is wrong?' }).fill('It is Harrow Wells.');
	await saskia.getByRole('button', { name: 'Say it' }).first().click();
	await expect(isolde.getByText('Says that something is wrong: It is Harrow Wells.')).toBeVisible();
	await expect(isolde.getByRole('button', { name: 'Sign with your certificate' })).toBeDisabled();
	await act.fill((await act.inputValue()).replace('Harrow Well ', 'Harrow Wells '));
	await isolde.getByRole('button', { name: 'Draw it up anew' }).click();
	await expect(saskia.locator('blockquote').filter({ hasText: 'At Harrow Wells on' })).toBeVisible();
	await clean(saskia, 'the result');
	await saskia.getByRole('button', { name: 'It is right' }).click();
	await isolde.getByRole('button', { name: 'Sign with your certificate' }).click();
	await expect(isolde.getByText('The act is done, or the packet has ended.')).toBeVisible();
	await expect(saskia.getByText('The session is over.')).toBeVisible();

	// sealed: both signatures are valid for a tool that is not ours
	await page.goto(packet);
	await ready(page);
	await expect(page.getByRole('heading', { name: 'Sealed copies' })).toBeVisible();
	await expect(session.getByRole('listitem').filter({ hasText: 'Saskia Ferrand' })).toContainText('sealed');
	const copy = await page.request.get(`${packet}/copies/paper`);
	const file = path.join(server.folder, 'sworn.pdf');
	writeFileSync(file, await copy.body());
	const says = spawnSync('pdfsig', [file], { encoding: 'utf8', cwd: tmpdir() }).stdout;
	expect(says.match(/Signature Validation: Signature is Valid\./g)).toHaveLength(2);
	expect(says).toContain('Isolde Marchbank notary');

	// and the journal has it
	await page.goto(`${server.origin}/stand-ins/notary`);
	await ready(page);
	await page.getByRole('link', { name: 'Isolde Marchbank' }).click();
	await page.waitForURL('**/stand-ins/notary/*');
	await ready(page);
	await expect(page.getByText('2. sworn statement, done')).toBeVisible();
	await clean(page, 'a notary');
	const csv = await page.request.get(`${page.url()}/journal/csv`);
	expect(await csv.text()).toContain('Statutory declaration of a lost bow');
	const pdf = await page.request.get(`${page.url()}/journal/pdf`);
	expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
});

test('a notary is added and chosen on the Bench; the stand-in plays, and whoever signs reads Arabic', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/stand-ins/notary/new`);
	await ready(page);
	await page.getByLabel('Name').fill('Theodora Lunn');
	await page.getByLabel('E-mail').fill('lunn@notary.example');
	await page.getByLabel('Number of the commission').fill('NP 6120');
	await page.getByLabel('Jurisdiction').fill('Scotland');
	await page.getByLabel('Where the acts are done').fill('Leith');
	for (const [label, day] of [
		['Commission from', '01012020'],
		['until', '31122019']
	] as const) {
		await page
			.getByRole('spinbutton', { name: new RegExp(`day, ${label}|${label}.*day`, 'i') })
			.first()
			.click();
		await page.keyboard.type(day);
	}
	await page.getByRole('button', { name: 'Add the notary' }).click();
	await expect(page.getByRole('alert').filter({ hasText: 'ends before it begins' })).toBeVisible();
	await expect(page.getByLabel('Name')).toHaveValue('Theodora Lunn');
	await page
		.getByRole('spinbutton', { name: /year.*until|until.*year/i })
		.first()
		.click();
	await page.keyboard.type('2099');
	await page.getByRole('button', { name: 'Add the notary' }).click();
	await page.getByRole('img', { name: 'The seal of Theodora Lunn' }).waitFor();
	await page.goto(`${server.origin}/stand-ins/notary`);
	await ready(page);
	const lunn = page.getByRole('region', { name: 'Theodora Lunn' });
	await lunn.getByRole('button', { name: /^Let the stand-in play/ }).click();
	await expect(lunn.getByText('The stand-in plays them.')).toBeVisible();

	await drafted(page, server, {
		title: 'Signature to be seen',
		stops: [['amal', 'lunn:approves']],
		people: { amal: { name: 'Amal', locale: 'ar' } }
	});
	await page.getByRole('button', { name: /^Lunn approves/ }).click();
	await page.getByRole('combobox', { name: 'Duty' }).click();
	await page.getByRole('option', { name: 'notarises' }).click();
	await page.getByRole('combobox', { name: 'Notary' }).click();
	await page.getByRole('option', { name: /Theodora Lunn/ }).click();
	await page.getByRole('combobox', { name: 'Act' }).click();
	await page.getByRole('option', { name: 'witnessed signature' }).click();
	await expect(page.getByText('the notary sees them sign.')).toBeVisible();
	await sends(page);
	const packet = page.url();

	const amal = await phone(browser);
	await amal.goto(await linkFromMail(page, server, 'amal@post.example'));
	await ready(amal);
	await amal.getByRole('checkbox').check();
	await amal.locator('main button.primary').click();
	await intoRoom(amal, 'الدخول إلى الغرفة');
	await amal.getByRole('link', { name: 'التوقيع الآن' }).waitFor();
	await clean(amal, 'the room in Arabic');
	expect(await amal.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
	await expect(amal.locator('.signing')).toHaveAttribute('dir', 'rtl');
	await amal.getByRole('link', { name: 'التوقيع الآن' }).click();
	await amal.waitForURL(/\/s\/[\w-]{43}$/);
	await ready(amal);
	const hand = amal.getByRole('button', { name: /Amal/ });
	await hand.first().waitFor();
	await amal.locator('section button.primary.large').last().click();
	await amal.locator('section').getByRole('button', { name: /Amal/ }).first().click();
	await amal.locator('section button.primary.large').last().click();
	await amal.getByRole('link', { name: 'الدخول إلى الغرفة' }).click();
	await amal.waitForURL('**/room');
	await answered(amal, () => amal.getByRole('button', { name: 'صحيح' }).click());
	await page.goto(packet);
	await ready(page);
	await expect(page.getByRole('heading', { name: 'Sealed copies' })).toBeVisible();
});

test('on the notary’s device: handed to whoever swears, and handed back', async ({ page, browser }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/stand-ins/notary`);
	await ready(page);
	const commission = await page.getByRole('link', { name: 'Isolde Marchbank' }).getAttribute('href');
	await drafted(page, server, {
		title: 'A sworn word',
		stops: [['gwen', 'isolde:notarises']],
		people: {
			gwen: { name: 'Gwen', email: '', deliver: 'in person', hostedBy: 'isolde' },
			isolde: {
				name: 'Isolde Marchbank',
				email: 'marchbank@notary.example',
				notary: { act: 'sworn statement', commission: commission!.split('/').at(-1)! }
			}
		}
	});
	await sends(page);
	const packet = page.url();
	const link = await linkFromMail(page, server, 'marchbank@notary.example', 'A sworn word');
	const device = await takesPart(browser, link);
	await intoRoom(device);
	await device.getByRole('button', { name: 'Begin the session' }).click();
	await device.getByRole('combobox', { name: 'How you know that it is Gwen' }).click();
	await device.getByRole('option', { name: 'known to me personally' }).click();
	await device.getByRole('button', { name: 'Confirm Gwen' }).click();
	const hand = async () => {
		await device.getByRole('button', { name: 'Hand them the device' }).click();
		await device.waitForURL(/\/s\/[\w-]{43}$/);
		await ready(device);
	};
	await hand();
	await device.getByRole('checkbox', { name: 'I agree' }).check();
	await device.getByRole('button', { name: 'Go to the documents' }).click();
	await device.getByRole('link', { name: 'Go into the room' }).first().click();
	await answered(device, () => device.getByRole('button', { name: 'I have said it, and I mean it' }).click());
	await device.goto(`${link}/room`);
	await ready(device);
	await device.getByRole('button', { name: 'Ask to sign Gwen' }).click();
	await hand();
	await device.getByRole('button', { name: 'Gwen, handwriting 1' }).click();
	await device.getByRole('button', { name: 'Sign as Gwen' }).click();
	await device.getByRole('link', { name: /Isolde Marchbank/ }).click();
	await device.waitForURL('**/room');
	await ready(device);
	await device.getByRole('radio', { name: /^where I point/ }).click();
	await device.getByRole('spinbutton', { name: 'Points from the left' }).fill('80');
	await device.getByRole('spinbutton', { name: 'Points from below' }).fill('400');
	await device.getByRole('spinbutton', { name: 'Points from below' }).press('Tab');
	await device.getByRole('button', { name: 'Draw it up, and show it' }).click();
	await expect(device.getByText('Waits for Gwen to approve it.')).toBeVisible();
	await hand();
	await device.getByRole('link', { name: 'Go into the room' }).first().click();
	await device.getByRole('button', { name: 'It is right' }).click();
	await expect(device.getByText('You have approved it.')).toBeVisible();
	await device.goto(`${link}/room`);
	await ready(device);
	await device.getByRole('button', { name: 'Sign with your certificate' }).click();
	await expect(device.getByText('The act is done')).toBeVisible();
	await page.goto(packet);
	await ready(page);
	await expect(page.getByRole('heading', { name: 'Sealed copies' })).toBeVisible();
});
