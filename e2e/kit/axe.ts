import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/**
 * axe finds nothing on the page as it stands.
 * @param where is said when it does
 * @param rules those only, instead of all
 * @param part what is looked at, as a selector
 * @param placed lets what lies on a page be nearer than 24 px to its neighbour (WCAG 2.2, 2.5.8: essential, as pins on a map
 *   are): it lies where the document's own lines are
 * @param frameless leaves frames out: a message stands in one that may run no scripts, axe's neither
 */
export async function clean(
	page: Page,
	where: string,
	{
		rules,
		part = 'html',
		frameless = false,
		placed = false
	}: { rules?: string[]; part?: string; frameless?: boolean; placed?: boolean } = {}
): Promise<void> {
	// what fails is all that is asked for, and nothing is gathered on a page of its own: a third of the work
	const axe = new AxeBuilder({ page }).include(part).setLegacyMode(true);
	axe.options({ resultTypes: ['violations'], iframes: !frameless });
	if (rules) axe.withRules(rules);
	else axe.withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa', 'best-practice']);
	const { violations } = await axe.analyze();
	const near = (v: (typeof violations)[number], html: string) =>
		placed && v.id === 'target-size' && /^<[^>]* data-(found|field)=/.test(html);
	const found = violations.map((v) => ({ id: v.id, nodes: v.nodes.filter((n) => !near(v, n.html)) }));
	expect(
		found
			.filter((v) => v.nodes.length > 0)
			.map((v) => `${where}: ${v.id} at ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)
	).toEqual([]);
}
