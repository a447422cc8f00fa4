import { expect, test, type Browser, type Page } from '@playwright/test';
import { engagement } from '../demo/documents';
import { clean } from './kit/axe';
import { drafted, field, sends, takesPart } from './kit/draft';
import { choose } from './kit/parts';
import { linkFromMail, phone, ready, Server, signIn } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('accounts').start();
});
test.afterAll(() => server.stop());

/** Nothing runs over the side of a narrow window. */
const overflow = (page: Page) =>
	page.evaluate('document.documentElement.scrollWidth - document.documentElement.clientWidth');

/** Sends a real letter to one person and gives their link. */
async function letterTo(
	page: Page,
	person: string,
	more: Partial<Parameters<typeof drafted>[2]> = {}
): Promise<string> {
	await signIn(page, server);
	const letter = await engagement('Maren Lindqvist', 'viola', 'the spring tour', 'GBP 185.00');
	await drafted(page, server, {
		title: `Engagement of ${person}`,
		stops: [[person]],
		bytes: letter.bytes,
		fields: [
			field('note', 'text', person, { label: 'Anything we should know', required: false, settings: { several: true } }),
			field('nights', 'number', person, {
				label: 'Nights',
				key: 'nights',
				settings: { least: '1', most: '9', decimals: 0 }
			}),
			field('where', 'text', person, { label: 'Where you stay', showWhen: 'nights > 1' })
		],
		...more
	});
	await sends(page);
	return linkFromMail(page, server, `${person}@post.example`);
}

test('by keyboard alone, as text, at 200 %, with forced colours and a screen reader’s names', async ({
	page,
	browser
}) => {
	const link = await letterTo(page, 'maren');
	// 640 CSS pixels: a window of 1280 at 200 %
	const context = await browser.newContext({
		viewport: { width: 640, height: 400 },
		forcedColors: 'active',
		reducedMotion: 'reduce',
		locale: 'en-GB'
	});
	const reader = await context.newPage();
	await reader.goto(link);
	await ready(reader);
	expect(await overflow(reader)).toBe(0);
	await clean(reader, 'first view');
	const tab = async (name: string | RegExp, role: 'button' | 'checkbox' = 'button') => {
		for (let i = 0; i < 60; i++) {
			await reader.keyboard.press('Tab');
			if (
				await reader
					.getByRole(role, { name })
					.first()
					.evaluate((one) => one === document.activeElement)
					.catch(() => false)
			)
				return;
		}
		throw new Error(`${name} is not reached by Tab`);
	};
	await tab('I agree', 'checkbox');
	await reader.keyboard.press('Space');
	await tab('Go to the documents');
	await reader.keyboard.press('Enter');
	await tab('Read as text');
	await reader.keyboard.press('Enter');
	await expect(reader.getByRole('heading', { name: 'Guest musician engagement' })).toBeVisible();
	// headings stand in their order, the words in sentences, the questions between them
	expect(await reader.getByRole('heading').count()).toBeGreaterThan(5);
	await expect(reader.getByText(/glad to engage you as guest viola for the spring tour/)).toBeVisible();
	await clean(reader, 'as text');
	expect(await overflow(reader)).toBe(0);
	await expect(reader.getByLabel('Where you stay')).toHaveCount(0);
	await reader.getByLabel('Nights', { exact: true }).focus();
	await reader.keyboard.type('12');
	await expect(reader.getByText('At most 9.')).toBeVisible();
	await reader.keyboard.press('Control+A');
	await reader.keyboard.type('3');
	await reader.getByLabel('Where you stay', { exact: true }).focus();
	await reader.keyboard.type('With my aunt');
	await tab(/handwriting 1$/);
	await reader.keyboard.press('Enter');
	await tab('Sign as Maren');
	await reader.keyboard.press('Enter');
	await reader.getByRole('heading', { name: 'Signed', exact: true }).waitFor();
	await page.goto(`${server.origin}/records`);
	await linkFromMail(page, server, 'maren@post.example', 'Done');
});

test('on a phone in Arabic: everything in it, from right to left, nothing over the side', async ({ page, browser }) => {
	const link = await letterTo(page, 'noor', { people: { noor: { name: 'نور الهدى', locale: 'ar' } } });
	const context = await browser.newContext({
		viewport: { width: 360, height: 780 },
		hasTouch: true,
		isMobile: true,
		locale: 'en-GB'
	});
	const small = await context.newPage();
	await small.goto(link);
	await ready(small);
	await expect(small.locator('.signing')).toHaveAttribute('dir', 'rtl');
	await expect(small.getByRole('heading', { name: 'المطلوب منك' })).toBeVisible();
	expect(await overflow(small)).toBe(0);
	await clean(small, 'Arabic, first view');
	await small.getByRole('checkbox').check();
	await small.getByRole('button', { name: 'إلى المستندات' }).click();
	await small.locator('canvas[data-drawn=yes]').first().waitFor();
	await clean(small, 'Arabic, pages');
	expect(await overflow(small)).toBe(0);
	// targets are large enough for a finger
	for (const button of await small.getByRole('button').all()) {
		const box = await button.boundingBox();
		if (box && box.width > 0 && !(await button.getAttribute('data-place')))
			expect(box.height).toBeGreaterThanOrEqual(24);
	}
	await small.getByRole('button', { name: 'مطلوب Nights' }).click();
	await small.getByLabel('Nights', { exact: true }).fill('1.5');
	await expect(small.getByText('أعداد صحيحة فقط.')).toBeVisible();
	await small.getByLabel('Nights', { exact: true }).fill('1');
	await small.getByRole('button', { name: 'مطلوب noor-sig' }).click();
	await small.getByRole('button', { name: 'نور الهدى، خط اليد 1' }).click();
	await small.getByRole('button', { name: 'توقيع: نور الهدى' }).click();
	await small.getByRole('heading', { name: 'تم التوقيع' }).waitFor();
	await linkFromMail(page, server, 'noor@post.example', 'اكتمل');
});

test('the language is the browser’s, then the one chosen on the page, which is kept', async ({ page, browser }) => {
	const link = await letterTo(page, 'lotte');
	const german = await (await browser.newContext({ locale: 'de-AT' })).newPage();
	// letters of other scripts are fetched only when somebody looks for their language
	const faces: string[] = [];
	german.on('request', (request) => void (/noto-sans/.test(request.url()) && faces.push(request.url())));
	await german.goto(link);
	await ready(german);
	await expect(german.getByText('bittet Sie')).toBeVisible();
	await german.waitForLoadState('networkidle');
	expect(faces).toEqual([]);
	await choose(german.getByRole('combobox', { name: 'Sprache' }), 'Українська');
	expect(faces.length).toBeGreaterThan(0);
	await expect(german.getByText('просить вас підписати')).toBeVisible();
	await german.reload();
	await expect(german.getByText('просить вас підписати')).toBeVisible();
});

async function begun(page: Page, browser: Browser, person: string, more: Partial<Parameters<typeof drafted>[2]> = {}) {
	const link = await letterTo(page, person, more);
	return { link, there: await takesPart(browser, link, { phone: true }) };
}

test('begun on a phone, gone on with elsewhere; a lost connection loses nothing; two tabs finish once', async ({
	page,
	browser
}) => {
	const { link, there } = await begun(page, browser, 'kit');
	await there.getByRole('button', { name: /^to do Nights/ }).click();
	await there.getByLabel('Nights', { exact: true }).fill('2');
	await expect(there.getByText(/^Saved/)).toBeVisible();
	await there.context().setOffline(true);
	await there.getByRole('button', { name: /^to do Where you stay/ }).click();
	await there.getByLabel('Where you stay', { exact: true }).fill('At the inn');
	await expect(there.getByText('No connection. What you entered is kept in this tab')).toBeVisible();
	await there.context().setOffline(false);
	await there.getByLabel('Where you stay', { exact: true }).fill('At the inn, room 4');
	await expect(there.getByText(/^Saved/)).toBeVisible();

	const desk = await (await browser.newContext({ locale: 'en-GB' })).newPage();
	await desk.goto(link);
	await ready(desk);
	await desk
		.getByRole('button', { name: /Where you stay/ })
		.first()
		.click();
	await expect(desk.getByLabel('Where you stay', { exact: true })).toHaveValue('At the inn, room 4');
	for (const tab of [there, desk]) {
		await tab
			.getByRole('button', { name: /kit-sig/ })
			.first()
			.click();
		await tab.getByRole('button', { name: 'Kit, handwriting 2' }).click();
	}
	// a double press in one tab, and one in the other
	await there.getByRole('button', { name: 'Sign as Kit' }).dblclick();
	await there.getByRole('heading', { name: 'Signed', exact: true }).waitFor();
	await desk.getByRole('button', { name: 'Sign as Kit' }).click();
	await desk.getByRole('heading', { name: 'Signed', exact: true }).waitFor();
	await page.goto(`${server.origin}/records`);
	await page.getByRole('link', { name: 'Engagement of kit' }).first().click();
	await expect(page.getByRole('row').filter({ hasText: 'Kit signed.' })).toHaveCount(1);
});

test('files by camera, judged by what they are; a signature drawn, from a picture, never one dot; used everywhere', async ({
	page,
	browser
}) => {
	const { there } = await begun(page, browser, 'gwen', {
		fields: [
			field('photo', 'attachment', 'gwen', {
				label: 'Photo of the case',
				settings: { types: 'png,jpeg', megabytes: 5 }
			}),
			field('second', 'signature', 'gwen', { label: 'Second signature' })
		]
	});
	await there.getByRole('button', { name: /^to do Photo of the case/ }).click();
	expect(await there.locator('input[capture=environment]').getAttribute('accept')).toBe('image/*');
	const file = (name: string, bytes: Buffer) => ({ name, mimeType: 'image/png', buffer: bytes });
	await there.getByLabel('Photo of the case:').setInputFiles(file('case.png', Buffer.from('MZ'.padEnd(4000, 'x'))));
	await expect(there.getByText(/That is a program\./)).toBeVisible();
	const sharp = (await import('sharp')).default;
	const picture = await sharp({ create: { width: 300, height: 120, channels: 3, background: '#fdfdfb' } })
		.composite([
			{
				input: Buffer.from(
					'<svg width="300" height="120"><path d="M20 90 C 90 0 160 140 280 40" stroke="#112" stroke-width="7" fill="none"/></svg>'
				)
			}
		])
		.png()
		.toBuffer();
	await there.getByLabel('Photo of the case:').setInputFiles(file('case.png', picture));
	await expect(there.getByText('case.png').first()).toBeVisible();

	await there.getByRole('button', { name: /^to do gwen-sig/ }).click();
	await there.getByText('Draw it', { exact: true }).click();
	const canvas = there.locator('section canvas').first();
	const box = (await canvas.boundingBox())!;
	await there.touchscreen.tap(box.x + 40, box.y + 30);
	await expect(there.getByText(/That is only a dot\./).first()).toBeVisible();
	await expect(there.getByRole('button', { name: 'Sign as Gwen' })).toHaveCount(0);
	await there.getByText('Picture', { exact: true }).click();
	await there.getByLabel('A photo or scan of what you wrote on white paper').setInputFiles(file('sig.png', picture));
	await there.getByRole('button', { name: 'Turn the picture' }).click();
	await there.getByRole('button', { name: 'Use this' }).click();
	await expect(there.getByText('The picture is in place.')).toBeVisible();
	// one press for all of hers
	await expect(there.getByRole('button', { name: 'Sign as Gwen' })).toBeVisible();
	await there.getByRole('button', { name: 'Sign as Gwen' }).click();
	await there.getByRole('heading', { name: 'Signed', exact: true }).waitFor();
});

test('a link that is old, and a page left open overnight, say so and keep what was entered', async ({
	page,
	browser
}) => {
	const { there, link } = await begun(page, browser, 'bram', { more: { days: 2 } });
	await there.getByRole('button', { name: /^to do Nights/ }).click();
	await there.getByLabel('Nights', { exact: true }).fill('1');
	await there.getByRole('button', { name: /^to do bram-sig/ }).click();
	await there.getByRole('button', { name: 'Bram, handwriting 1' }).click();
	await page.request.post(`${server.origin}/stand-ins?/clock`, {
		form: { days: '3' },
		headers: { origin: server.origin }
	});
	await there.getByRole('button', { name: 'Sign as Bram' }).click();
	await expect(there.getByText('The last day is over.').first()).toBeVisible();
	const later = await phone(browser);
	await later.goto(link);
	await expect(
		later.getByText('The last day is over. If it is still wanted, ask the sender for a new invitation.')
	).toBeVisible();
});
