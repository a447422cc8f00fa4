import { readdirSync, readFileSync } from 'node:fs';
import { expect, it } from 'vitest';

/** What only parts hold: bare controls, and the packages behind them. */
const SIGNS = {
	select: /<select\b/,
	date: /type="(date|time|datetime-local)"|'date' \? 'date'/,
	file: /type="file"/,
	package: /from '(bits-ui|@tanstack\/|svelte-dnd-action|svelte-sonner|@internationalized\/)/,
	mark: /<details\b/,
	list: /<datalist\b/
};

const files = readdirSync('src', { recursive: true, encoding: 'utf8' })
	.filter((file) => file.endsWith('.svelte') && !file.startsWith('lib/ui/parts/'))
	.map((file) => ({ name: file.replace(/^lib\//, ''), text: readFileSync(`src/${file}`, 'utf8') }));

/** the signing page's own boxes are the browser's: it has to be light */
const SIGNING = /^ui\/signing\//;
it('no screen of the office has a bare box to tick or a round one', () => {
	const bare = files.filter(({ name, text }) => !SIGNING.test(name) && /type="(checkbox|radio)"/.test(text));
	expect(bare.map(({ name }) => name)).toEqual([]);
});

it.each(Object.entries(SIGNS))('no screen has a bare %s of its own', (_what, sign) => {
	expect(files.filter(({ text }) => sign.test(text)).map(({ name }) => name)).toEqual([]);
});

it('a button that closes a dialog never sends the form it stands in', () => {
	const closing = readdirSync('src/lib/ui/parts', { encoding: 'utf8' })
		.filter((file) => file.endsWith('.svelte'))
		.flatMap((file) => readFileSync(`src/lib/ui/parts/${file}`, 'utf8').match(/<\w+\.Close\b[^>]*>/g) ?? []);
	expect(closing.length).toBeGreaterThan(0);
	for (const one of closing) expect(one).toContain('type="button"');
});
