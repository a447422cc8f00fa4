import { readdirSync, readFileSync } from 'node:fs';
import { expect, it } from 'vitest';

/** What only parts hold: bare controls, and the packages behind them. */
const SIGNS = {
	select: /<select\b/,
	date: /type="(date|time|datetime-local)"|'date' \? 'date'/,
	file: /type="file"/,
	package: /from '(bits-ui|@tanstack\/|svelte-dnd-action|svelte-sonner|@internationalized\/)/,
	mark: /<details\b/
};

const files = readdirSync('src', { recursive: true, encoding: 'utf8' })
	.filter((file) => file.endsWith('.svelte') && !file.startsWith('lib/ui/parts/'))
	.map((file) => ({ name: file.replace(/^lib\//, ''), text: readFileSync(`src/${file}`, 'utf8') }));

it.each(Object.entries(SIGNS))('no screen has a bare %s of its own', (_what, sign) => {
	expect(files.filter(({ text }) => sign.test(text)).map(({ name }) => name)).toEqual([]);
});
