import { expect, test, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { drawnDocument } from '../demo/identity/drawn';
import { photographed } from '../demo/identity/photographed';
import type { Specimen } from '../demo/identity/specimens';
import { clean } from './kit/axe';
import { BROWSER } from './kit/browser';
import { drafted, sends, signsAs, takesPart } from './kit/draft';
import { linkFromMail, phone, ready, Server, signIn } from './kit/server';

// a camera that shows a moving picture of nothing
test.use({
	launchOptions: {
		...BROWSER,
		args: [...BROWSER.args, '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream']
	}
});

const server = new Server();
test.beforeAll(async () => {
	await server.seed('accounts').start();
});
test.afterAll(() => server.stop());

const CARD: Specimen = {
	kind: 'identity card',
	surname: 'Adeyemi',
	given: 'Joris',
	number: 'UT8841203',
	born: '1990-04-17',
	expires: '2031-04-16',
	sex: 'M'
};

async function pictures(change: Partial<Specimen> = {}) {
	const { front, back } = await drawnDocument({ ...CARD, ...change });
	const file = async (side: 'front' | 'back', turn: number) => ({
		name: `${side}.jpg`,
		mimeType: 'image/jpeg',
		buffer: Buffer.from(await photographed(side === 'front' ? front : back!, { turn }))
	});
	return { front: await file('front', 4), back: await file('back', 3) };
}

async function takes(
	page: Page,
	side: 'The front' | 'The back',
	file: { name: string; mimeType: string; buffer: Buffer }
) {
	const part = page.getByRole('region', { name: side });
	await part.locator('input[type=file]').setInputFiles(file);
	await expect(part.getByRole('status')).not.toBeEmpty();
	return part.getByRole('status');
}

/** Hands both sides in, and waits until they have been looked at. */
async function shows(page: Page, card: Awaited<ReturnType<typeof pictures>>) {
	await expect(await takes(page, 'The front', card.front)).toHaveText('This picture is good.');
	await expect(await takes(page, 'The back', card.back)).toHaveText('This picture is good.');
	await page.getByRole('button', { name: 'Hand in', exact: true }).click();
}

const IDENTITY = {
	document: { kinds: ['passport' as const, 'identity card' as const], countries: [], bothSides: true, holder: false },
	tries: 2
};

test('who fails as often as is allowed is held; the office looks, releases, and they go on', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	await drafted(page, server, {
		title: 'Loan of a viola',
		stops: [['joris']],
		people: { joris: { name: 'Joris Adeyemi', identity: IDENTITY } }
	});
	await sends(page);
	const packet = page.url();
	const joris = await phone(browser);
	await joris.goto(await linkFromMail(page, server, 'joris@post.example'));
	await ready(joris);
	await joris.getByRole('heading', { name: 'First, show who you are' }).waitFor();
	await expect(joris.getByText('Loan of a viola.pdf')).toHaveCount(0);
	await joris.getByRole('radio', { name: 'Identity card' }).click();
	await clean(joris, 'what is to be shown');
	expect(await joris.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);

	// by the camera, with an outline to lay the document into
	const side = joris.getByRole('region', { name: 'The front' });
	await side.getByRole('button', { name: 'Use the camera' }).click();
	await expect(side.getByText('Lay the document inside the outline.')).toBeVisible();
	await side.getByRole('button', { name: 'Take the picture' }).click();
	await expect(side.getByRole('status')).toContainText(/No document can be made out|Too small/);
	await expect(side.getByRole('button', { name: 'Take it again' })).toBeVisible();

	// judged at once, in words, before it is handed in
	const blurred = Buffer.from(await photographed((await drawnDocument(CARD)).front, { blur: 7 }));
	const said = await takes(joris, 'The front', { name: 'soft.jpg', mimeType: 'image/jpeg', buffer: blurred });
	await expect(said).toContainText('Blurred. Hold still until it is sharp.');
	await expect(joris.getByRole('button', { name: 'Hand in', exact: true })).toBeDisabled();

	const old = await pictures({ expires: '2019-04-16' });
	await shows(joris, old);
	await expect(joris.getByRole('alert').filter({ hasText: 'The document has expired.' })).toContainText(
		'You can try once more.'
	);
	await joris.getByRole('radio', { name: 'Identity card' }).click();
	await shows(joris, old);
	await joris.getByRole('heading', { name: 'Under review' }).waitFor();

	await page.goto(`${server.origin}/desk`);
	const card = page.getByRole('listitem').filter({ hasText: 'Joris Adeyemi could not show who they are' });
	await card.getByRole('link', { name: 'Look at it' }).click();
	await page.getByRole('link', { name: 'Look at it' }).click();
	await page.waitForURL('**/identity/*');
	await ready(page);
	await expect(page.getByRole('row', { name: /Expires does not hold 2019-04-16/ })).toBeVisible();
	await expect(page.getByRole('img')).toHaveCount(0);
	await page.getByRole('button', { name: 'Show the pictures' }).click();
	const front = page.getByRole('img', { name: 'Front, as it was handed in' });
	await expect.poll(() => front.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(800);
	await page.getByRole('button', { name: 'Larger: Front' }).click();
	await page.getByRole('button', { name: 'Turn: Front' }).click();
	await clean(page, 'looking at it');
	const coming = page.waitForEvent('download');
	await page.getByRole('button', { name: 'All pictures as a ZIP' }).click();
	const zip = unzipSync(new Uint8Array(readFileSync((await (await coming).path())!)));
	expect(Object.keys(zip).sort()).toEqual(['1-back.jpg', '1-front.jpg', '2-back.jpg', '2-front.jpg', 'checks.csv']);

	await page.getByRole('button', { name: 'Refuse' }).click();
	await expect(page.getByRole('alert')).toContainText('Say why, for the record.');
	await page.getByLabel('A note for the record').fill('His new card is on its way; I rang him.');
	await page.getByRole('button', { name: 'Release: they go on' }).click();
	await expect(page.getByText('Nobody waits here for a judgement.')).toBeVisible();

	await signsAs(
		await takesPart(browser, await linkFromMail(page, server, 'joris@post.example'), { phone: true }),
		'Joris Adeyemi'
	);
	await page.goto(packet);
	const main = page.getByRole('main');
	await expect(main).toContainText('The pictures that Joris Adeyemi handed in were looked at.');
	await expect(main).toContainText('Joris Adeyemi was let through: His new card is on its way; I rang him.');
});

test('asked for on the Bench by keys: a document and a question; shown at a desk, the page goes on', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	await drafted(page, server, {
		title: 'Loan of a bow',
		stops: [['joris']],
		people: { joris: { name: 'Joris Adeyemi' } }
	});
	await page.getByRole('button', { name: /^Joris Adeyemi signs/ }).click();
	await page.getByRole('button', { name: 'Shows who they are' }).press('Enter');
	await page.getByRole('switch', { name: 'Shows an identity document' }).press('Space');
	await page.getByRole('checkbox', { name: 'passport' }).press('Space');
	await page.getByRole('switch', { name: 'Answers what we know of them' }).press('Space');
	await expect(page.getByText('1 thing before this can go')).toBeVisible();
	await page.getByLabel('A question').fill('Which instrument was lent before?');
	await page.getByLabel('The right answer').fill('Viola d’amore');
	await page.getByLabel('The right answer').press('Enter');
	await expect(page.getByText('answer set')).toBeVisible();
	await expect(page.getByRole('button', { name: 'Ready to go' })).toBeVisible();
	await clean(page, 'what is asked of somebody', { placed: true });
	await sends(page);

	const joris = await (await browser.newContext({ locale: 'en-GB' })).newPage();
	await joris.goto(await linkFromMail(page, server, 'joris@post.example', 'Loan of a bow'));
	await ready(joris);
	await shows(joris, await pictures());
	await joris.getByLabel('Which instrument was lent before?').fill('Violin');
	await joris.getByRole('button', { name: 'Go on' }).click();
	await expect(joris.getByRole('alert')).toContainText('That is not what is known here. You can try 2 more times.');
	await joris.getByLabel('Which instrument was lent before?').fill('viola damore');
	await joris.getByRole('button', { name: 'Go on' }).click();
	await joris.getByRole('checkbox', { name: 'I agree' }).waitFor();
});

test('what the office permits, and how the ID desk answers, are set on their screens', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/settings/identity`);
	await ready(page);
	await page.getByLabel('Not asked again for so many days at most').fill('30');
	await page.getByRole('radio', { name: 'two, who must agree' }).click();
	await page.getByLabel('Pictures are deleted so many days after the end').fill('14');
	await page.getByRole('button', { name: 'Save' }).click();
	await expect(page.getByText('Saved.')).toBeVisible();
	await clean(page, 'what the office permits');
	await page.goto(`${server.origin}/stand-ins`);
	await ready(page);
	await page.getByRole('combobox', { name: 'It answers' }).click();
	await page.getByRole('option', { name: 'not at all' }).click();
	await page.getByRole('button', { name: 'Set how the ID desk answers' }).click();
	const kept = (key: string) =>
		server.reading((db) => db.prepare('SELECT value FROM meta WHERE key = ?').pluck().get(key) as string | undefined);
	await expect.poll(() => kept('id-desk')).toBe('down');
	expect(JSON.parse(kept('identity')!)).toEqual({ known: 30, judges: 2, keep: 14, lettersOff: 1 });
});
