import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';

/**
 * docs/house.svg, drawn from the imports themselves: `npx tsx scripts/draw-house.ts`. `house.test.ts` compares the two, so that the
 * picture can't go stale.
 */
const LIB = 'src/lib';

/** The rooms of each storey, from the top; core's under the parts of the work. */
const CORE_PARTS: Record<string, string[]> = {
	prepare: ['plan', 'template', 'field', 'rule', 'page', 'picture', 'sheet', 'intake'],
	run: ['packet', 'route', 'calendar', 'icalendar', 'access', 'pace'],
	prove: ['audit', 'identity', 'paper', 'notary', 'amend', 'keeping']
};
const STOREYS = ['routes', 'ui', 'server', 'press', 'words', 'core'] as const;
type Storey = (typeof STOREYS)[number];

function files(folder: string): string[] {
	return readdirSync(folder).flatMap((name) => {
		const file = path.join(folder, name);
		if (statSync(file).isDirectory()) return files(file);
		return /\.(ts|svelte)$/.test(name) && !/\.test\.ts$/.test(name) ? [file] : [];
	});
}
const storeyOf = (file: string): Storey | null =>
	STOREYS.find((one) => file.startsWith(one === 'routes' ? 'src/routes/' : `${LIB}/${one}/`)) ?? null;
const roomsIn = (storey: string): string[] =>
	readdirSync(`${LIB}/${storey}`)
		.filter((name) => statSync(`${LIB}/${storey}/${name}`).isDirectory())
		.sort();

/** Which storey imports from which other one. */
function arrows(): Set<string> {
	const found = new Set<string>();
	for (const file of [...files(LIB), ...files('src/routes')]) {
		const from = storeyOf(file);
		if (!from) continue;
		for (const [, spec] of readFileSync(file, 'utf8').matchAll(/(?:from|import\()\s*'([^']+)'/g)) {
			const target = spec!.startsWith('$lib/')
				? `${LIB}/${spec!.slice(5)}/`
				: spec!.startsWith('.')
					? `${path.normalize(path.join(path.dirname(file), spec!))}/`
					: null;
			const to = target && storeyOf(target);
			if (to && to !== from) found.add(`${from} ${to}`);
		}
	}
	return found;
}

const WIDTH = 980;
const escape = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

/** The house as SVG: a storey a band, its rooms as words, and what it calls below. */
export function drawHouse(): string {
	const calls = arrows();
	const below = (from: string) =>
		[...calls]
			.filter((pair) => pair.startsWith(`${from} `))
			.map((pair) => pair.split(' ')[1]!)
			.sort();
	const bands: { name: string; lines: string[]; calls: string[] }[] = STOREYS.map((name) => ({
		name,
		lines:
			name === 'routes'
				? ['pages and answers, thin: what comes in crosses a schema, what goes out is a view']
				: name === 'core'
					? [
							...Object.entries(CORE_PARTS).map(([part, rooms]) => `${part}: ${rooms.join(', ')}`),
							...((rest) => (rest.length > 0 ? [`besides: ${rest.join(', ')}`] : []))(
								roomsIn('core').filter((room) => !Object.values(CORE_PARTS).flat().includes(room))
							)
						]
					: name === 'words'
						? ['fifteen languages, letters, the record in words']
						: wrapped(roomsIn(name)),
		calls: below(name)
	}));
	let y = 16;
	const drawn = bands.map(({ name, lines, calls: down }) => {
		const height = 34 + Math.max(lines.length, 1) * 20;
		const band = [
			`<rect x="16" y="${y}" width="${WIDTH - 32}" height="${height}" rx="3" fill="#fffefa" stroke="#8a8f86"/>`,
			`<text x="32" y="${y + 24}" font-weight="700" font-size="16" fill="#14525c">${name}</text>`,
			...lines.map(
				(line, i) => `<text x="130" y="${y + 24 + i * 20}" font-size="14" fill="#20262b">${escape(line)}</text>`
			),
			`<text x="130" y="${y + height - 10}" font-size="12" fill="#5d646a">${down.length > 0 ? `calls ${escape(down.join(', '))}` : 'calls nobody'}</text>`
		];
		y += height + 10;
		return band.join('\n');
	});
	return `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${y + 6}" viewBox="0 0 ${WIDTH} ${y + 6}" font-family="Atkinson Hyperlegible Next, sans-serif" role="img" aria-label="The rooms of Pellum, and which calls which">
<rect width="${WIDTH}" height="${y + 6}" fill="#f4f2ec"/>
${drawn.join('\n')}
</svg>
`;
}

function wrapped(words: string[], most = 100): string[] {
	const lines: string[] = [];
	for (const word of words) {
		const last = lines[lines.length - 1];
		if (last !== undefined && `${last}, ${word}`.length <= most) lines[lines.length - 1] = `${last}, ${word}`;
		else lines.push(word);
	}
	return lines;
}

if (process.argv[1]?.endsWith('draw-house.ts')) writeFileSync('docs/house.svg', drawHouse());
