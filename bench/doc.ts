import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { table, type Figure } from './measure';

const FILE = 'docs/bench.md';

/**
 * Writes what was measured into docs/bench.md, each part between its marks, with the commit it was measured on: words and
 * figures of one page can't grow apart. Refuses (throws) where the code has changes that no commit has.
 */
export function writeDoc(parts: Record<string, Figure[]>): void {
	let text = readFileSync(FILE, 'utf8');
	const put = (name: string, what: string) => {
		const [begin, end] = [`<!-- measured: ${name} -->`, '<!-- end -->'];
		const from = text.indexOf(begin);
		const to = text.indexOf(end, from);
		if (from < 0 || to < 0) throw new Error(`${FILE} has no place for “${name}”`);
		text = `${text.slice(0, from + begin.length)}\n\n${what}\n\n${text.slice(to)}`;
	};
	for (const [name, figures] of Object.entries(parts)) put(name, table(figures));
	const day = new Date().toISOString().slice(0, 10);
	put('on', `Measured on commit ${commit()}, ${day}, on two cores with Node.js ${process.versions.node}.`);
	writeFileSync(FILE, text);
	spawnSync('node_modules/.bin/prettier', ['--write', '--log-level', 'warn', FILE], { stdio: 'inherit' });
}

function commit(): string {
	const git = (...list: string[]) => spawnSync('git', list, { encoding: 'utf8' }).stdout.trim();
	const changed = git('status', '--porcelain', '--', 'src', 'bench', 'package-lock.json');
	if (changed !== '') throw new Error(`Commit first; the figures would be of code that no commit has:\n${changed}`);
	return git('rev-parse', '--short', 'HEAD');
}

/** Looked at before an hour of measuring, not after it. */
export const mayWriteDoc = (): void => void commit();
