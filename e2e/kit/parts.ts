import type { Locator } from '@playwright/test';

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
