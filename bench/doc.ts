import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { yardstick } from './yardstick';
import { table, type Figure } from './measure';

const FILES = ['docs/bench.md', 'docs/size.md'];

/**
 * Writes what was measured into docs/bench.md and docs/size.md, each part between its marks, with the commit that part was measured
 * on: words and figures of one page can't grow apart. Refuses (throws), with nothing written, where the code has changes that no
 * commit has, or a part has no place.
 */
export function writeDoc(parts: Record<string, Figure[]>): void {
	const day = new Date().toISOString().slice(0, 10);
	const on = `Measured on commit ${commit()}, ${day}, on two cores with Node.js ${process.versions.node}. ${yardstick()}`;
	const texts = new Map(FILES.map((file) => [file, readFileSync(file, 'utf8')]));
	for (const [name, figures] of Object.entries(parts)) {
		const [file, text] = [...texts].find(([, one]) => one.includes(begins(name))) ?? [];
		if (!file || !text) throw new Error(`No page has a place for “${name}”`);
		const from = text.indexOf(begins(name)) + begins(name).length;
		texts.set(
			file,
			`${text.slice(0, from)}\n\n${on}\n\n${table(figures)}\n\n${text.slice(text.indexOf('<!-- end -->', from))}`
		);
	}
	for (const [file, text] of texts) writeFileSync(file, text);
	spawnSync('node_modules/.bin/prettier', ['--write', '--log-level', 'warn', ...FILES], { stdio: 'inherit' });
}

const begins = (name: string): string => `<!-- measured: ${name} -->`;

function commit(): string {
	const git = (...list: string[]) => spawnSync('git', list, { encoding: 'utf8' }).stdout.trim();
	const changed = git('status', '--porcelain', '--', 'src', 'bench', 'package-lock.json');
	if (changed !== '') throw new Error(`Commit first; the figures would be of code that no commit has:\n${changed}`);
	return git('rev-parse', '--short', 'HEAD');
}

/** Looked at before an hour of measuring, not after it. */
export const mayWriteDoc = (): void => void commit();
