import type { Locator, Page } from '@playwright/test';

/** Chooses from a list that opens, by the words that stand in it. */
export async function choose(field: Locator, words: string): Promise<void> {
	await field.click();
	await field.page().getByRole('option', { name: words, exact: true }).click();
}

/** Presses an entry of a menu. */
export async function fromMenu(button: Locator, words: string | RegExp): Promise<void> {
	await button.click();
	await button.page().getByRole('menuitem', { name: words }).click();
}

/** Types a day part by part, as British readers write it. */
export async function typeDay(scope: Page | Locator, label: string, day: string): Promise<void> {
	await scope
		.getByRole('spinbutton', { name: new RegExp(label) })
		.first()
		.focus();
	const [year, month, date] = day.split('-');
	await ('keyboard' in scope ? scope : scope.page()).keyboard.type(`${date}${month}${year}`);
}

/** Takes something up with the mouse and lets it go over something else. */
export async function drag(
	from: Locator,
	to: Locator,
	at: { x: number; y: number } = { x: 0.5, y: 0.5 }
): Promise<void> {
	const mouse = from.page().mouse;
	const centre = async (one: Locator, x = 0.5, y = 0.5) => {
		const box = (await one.boundingBox())!;
		return [box.x + box.width * x, box.y + box.height * y] as const;
	};
	// beside its middle, where a control may stand
	await mouse.move(...(await centre(from, 0.25)));
	await mouse.down();
	const [x, y] = await centre(from, 0.25);
	await mouse.move(x + 8, y + 8, { steps: 4 });
	// places between stops open once something is in hand
	await from.page().waitForTimeout(150);
	await mouse.move(...(await centre(to, at.x, at.y)), { steps: 12 });
	await from.page().waitForTimeout(400);
	await mouse.up();
	await from.page().waitForTimeout(300);
}

/** Brings a row of a long list into view, of which only those near the view are drawn, and presses its link. */
export async function pressInList(page: Page, name: string): Promise<void> {
	const link = page.getByRole('link', { name });
	await page.locator('tr[data-row]').first().hover();
	for (let i = 0; i < 40 && (await link.count()) === 0; i++) {
		await page.mouse.wheel(0, 300);
		await page.waitForTimeout(100);
	}
	await link.click();
}

/** Does what the server is asked to do, and waits for its answer: whoever leaves the page before may have asked for nothing. */
export async function answered(page: Page, act: () => Promise<void>, about = /./): Promise<void> {
	const answer = page.waitForResponse(
		(response) => response.request().method() !== 'GET' && about.test(response.request().postData() ?? '.')
	);
	await act();
	await answer;
}
