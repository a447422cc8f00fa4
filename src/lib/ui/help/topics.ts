/** What can be asked about: a page in docs/help each. */
const PAGES = {
	rules: () => import('../../../../docs/help/rules.md?raw'),
	pins: () => import('../../../../docs/help/pins.md?raw'),
	keys: () => import('../../../../docs/help/keys.md?raw'),
	twins: () => import('../../../../docs/help/twins.md?raw'),
	'stops by rule': () => import('../../../../docs/help/stops-by-rule.md?raw')
};
export type Topic = keyof typeof PAGES;

/** A page as HTML. */
export async function drawn(topic: Topic): Promise<string> {
	const [{ default: page }, { marked }] = await Promise.all([PAGES[topic](), import('marked')]);
	return marked.parse(page, { async: false });
}
