import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/**
 * axe finds nothing on the page as it stands.
 * @param where is said when it does
 * @param rules those only, instead of all
 * @param part what is looked at, as a selector
 * @param frameless leaves frames out: a message stands in one that may run no scripts, axe's neither
 */
export async function clean(
	page: Page,
	where: string,
	{ rules, part = 'html', frameless = false }: { rules?: string[]; part?: string; frameless?: boolean } = {}
): Promise<void> {
	const axe = new AxeBuilder({ page }).include(part);
	if (rules) axe.withRules(rules);
	else axe.withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa', 'best-practice']);
	if (frameless) axe.options({ iframes: false }).setLegacyMode(true);
	const { violations } = await axe.analyze();
	expect(violations.map((v) => `${where}: ${v.id} at ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual(
		[]
	);
}
