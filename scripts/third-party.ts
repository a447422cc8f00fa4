import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { format, resolveConfig } from 'prettier';

/**
 * npm run third-party: writes docs/third-party.md and what Settings → About shows, from the lock file: all that ships with Pellum
 * and under which licence. A test compares both with the lock file.
 */
export interface Part {
	name: string;
	version: string;
	licence: string;
}

/** What lies within packages under a licence of its own. */
const WITHIN: Part[] = [
	{ name: 'PDFium, in @embedpdf/pdfium', version: '', licence: 'BSD-3-Clause AND Apache-2.0' },
	{ name: 'qpdf, in @neslinesli93/qpdf-wasm', version: '', licence: 'Apache-2.0' },
	{ name: 'SQLite, in better-sqlite3', version: '', licence: 'public domain' },
	{ name: 'libvips and its libraries, in sharp', version: '', licence: 'LGPL-3.0-or-later' },
	{ name: 'Tesseract, in tesseract.js-core', version: '', licence: 'Apache-2.0' }
];

/** Packages whose own description leaves the licence out; read in their LICENSE files. */
const READ: Record<string, string> = { 'png-js': 'MIT', 'svelte-toolbelt': 'MIT' };

interface Lock {
	packages: Record<string, { version?: string; license?: string; dev?: boolean; devOptional?: boolean }>;
}

/** Every package that is installed to run Pellum, by name, each version once; what its packages bring along comes first. */
export function thirdParty(lock: Lock): Part[] {
	const parts = Object.entries(lock.packages)
		.filter(([place, { dev, devOptional }]) => place !== '' && !dev && !devOptional)
		.map(([place, { version = '', license }]): Part => {
			const name = place.slice(place.lastIndexOf('node_modules/') + 'node_modules/'.length);
			return { name, version, licence: license ?? READ[name] ?? '' };
		})
		.sort((a, b) => (a.name + a.version < b.name + b.version ? -1 : 1));
	const once = parts.filter((part, i) => part.name !== parts[i - 1]?.name || part.version !== parts[i - 1]?.version);
	return [...WITHIN, ...once];
}

export function asMarkdown(parts: Part[]): string {
	return [
		'# What ships with Pellum',
		'',
		'Written by `npm run third-party` from the lock file; fonts and data are packages as well. The licences’ texts lie in the packages.',
		'',
		'| what | version | licence |',
		'| --- | --- | --- |',
		...parts.map(({ name, version, licence }) => `| ${name} | ${version} | ${licence} |`),
		''
	].join('\n');
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
	const parts = thirdParty(JSON.parse(readFileSync('package-lock.json', 'utf8')) as Lock);
	const pretty = async (file: string, text: string) =>
		writeFileSync(file, await format(text, { ...(await resolveConfig(file)), filepath: file }));
	await pretty('docs/third-party.md', asMarkdown(parts));
	await pretty('src/lib/third-party.json', JSON.stringify(parts));
}
