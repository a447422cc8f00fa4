import { parsed, put, relatedPart, textOfPart, type WordPackage } from './package';

/** One level of a list (ECMA-376-1 §17.9.6). */
interface Level {
	start: number;
	format: string;
	/** `%1.%2`: the numbers of this and the levels above it */
	text: string;
	/** after which level it begins anew, counted from 1; 0: never */
	restart: number | null;
}

/** A list as it is used: its levels and whose counting it shares. */
interface List {
	counts: string;
	levels: Level[];
	/** levels that begin anew where this list is first used */
	anew: Map<number, number>;
}

const DEEPEST = 9;
const value = (parent: Element | undefined, tag: string): string | null =>
	[...(parent?.children ?? [])].find((child) => child.tagName === tag)?.getAttribute('w:val') ?? null;
const child = (parent: Element | undefined | null, tag: string): Element | undefined =>
	[...(parent?.children ?? [])].find((one) => one.tagName === tag);

/**
 * Writes the numbers of numbered paragraphs into their text and takes the numbering off, since the plain way counts each
 * list from 1 and knows no `1.1`. Gives how the paragraphs begin whose number it could not tell. In place.
 */
export function writeNumbers(word: WordPackage): string[] {
	const part = relatedPart(word, 'numbering');
	if (!part) return [];
	const lists = listsOf(parsed(textOfPart(word, part)));
	const byStyle = stylesOf(word);
	const document = parsed(textOfPart(word, word.main));
	const counts = new Map<string, number[]>();
	const used = new Set<string>();
	const untold: string[] = [];
	const tell = (paragraph: Element) => untold.push((paragraph.textContent ?? '').trim().slice(0, 40));
	for (const paragraph of [...document.getElementsByTagName('w:p')]) {
		const properties = child(paragraph, 'w:pPr');
		const own = child(properties, 'w:numPr');
		const style = byStyle.get(value(properties, 'w:pStyle') ?? '');
		const id = value(own, 'w:numId') ?? style?.list ?? null;
		if (id === null || id === '0') continue;
		const list = lists.get(id);
		const at = Math.min(DEEPEST - 1, Number(value(own, 'w:ilvl') ?? style?.level ?? 0) || 0);
		const level = list?.levels[at];
		own?.remove();
		if (!list || !level) {
			tell(paragraph);
			continue;
		}
		const now = counts.get(list.counts) ?? [];
		counts.set(list.counts, now);
		if (!used.has(id)) for (const [deep, start] of list.anew) now[deep] = start - 1;
		used.add(id);
		now[at] = (now[at] ?? level.start - 1) + 1;
		for (let deeper = at + 1; deeper < DEEPEST; deeper++) {
			const restart = list.levels[deeper]?.restart;
			if (restart !== 0 && (restart === null || restart === undefined || at < restart))
				now[deeper] = (list.levels[deeper]?.start ?? 1) - 1;
		}
		const label = labelOf(list, at, now);
		if (label === null) tell(paragraph);
		else if (label !== '') prefix(document, paragraph, properties, `${'\u00a0'.repeat(4 * at)}${label}\u00a0 `);
	}
	put(word, word.main, document);
	return untold;
}

function prefix(document: Document, paragraph: Element, properties: Element | undefined, label: string): void {
	const run = document.createElement('w:r');
	const text = document.createElement('w:t');
	text.setAttribute('xml:space', 'preserve');
	text.textContent = label;
	run.append(text);
	if (properties) properties.after(run);
	else paragraph.prepend(run);
}

/** The number as it is printed; null where its format is unknown. */
function labelOf({ levels }: List, at: number, now: number[]): string | null {
	const { format, text } = levels[at]!;
	if (format === 'none') return '';
	if (format === 'bullet') return '•';
	let known = true;
	const label = text.replace(/%(\d)/g, (_, digit: string) => {
		const level = levels[Number(digit) - 1];
		const number = now[Number(digit) - 1] ?? level?.start ?? 1;
		const said = level ? written(number, level.format) : null;
		if (said === null) known = false;
		return said ?? '';
	});
	return known ? label : null;
}

/** A number in a list's format (§17.18.59); null for those of other scripts, which are rare. */
function written(n: number, format: string): string | null {
	switch (format) {
		case 'decimal':
			return String(n);
		case 'decimalZero':
			return String(n).padStart(2, '0');
		case 'lowerLetter':
		case 'upperLetter': {
			const letter = String.fromCharCode(97 + ((n - 1) % 26)).repeat(Math.floor((n - 1) / 26) + 1);
			return format === 'upperLetter' ? letter.toUpperCase() : letter;
		}
		case 'lowerRoman':
		case 'upperRoman': {
			const numeral = roman(n);
			return format === 'upperRoman' ? numeral.toUpperCase() : numeral;
		}
		case 'none':
			return '';
		default:
			return null;
	}
}

function roman(n: number): string {
	const signs: [number, string][] = [
		[1000, 'm'],
		[900, 'cm'],
		[500, 'd'],
		[400, 'cd'],
		[100, 'c'],
		[90, 'xc'],
		[50, 'l'],
		[40, 'xl'],
		[10, 'x'],
		[9, 'ix'],
		[5, 'v'],
		[4, 'iv'],
		[1, 'i']
	];
	let left = Math.min(n, 4000);
	let text = '';
	for (const [worth, sign] of signs) for (; left >= worth; left -= worth) text += sign;
	return text;
}

function listsOf(numbering: Document): Map<string, List> {
	const kinds = new Map<string, Level[]>();
	for (const kind of numbering.getElementsByTagName('w:abstractNum'))
		kinds.set(kind.getAttribute('w:abstractNumId') ?? '', levelsOf(kind, []));
	const lists = new Map<string, List>();
	for (const num of numbering.getElementsByTagName('w:num')) {
		const counts = value(num, 'w:abstractNumId') ?? '';
		const levels = [...(kinds.get(counts) ?? [])];
		const anew = new Map<number, number>();
		for (const override of [...num.children].filter((one) => one.tagName === 'w:lvlOverride')) {
			const at = Number(override.getAttribute('w:ilvl') ?? 0);
			const start = value(override, 'w:startOverride');
			if (start !== null) anew.set(at, Number(start));
			if (child(override, 'w:lvl')) levelsOf(override, levels).forEach((level, i) => (levels[i] = level));
		}
		lists.set(num.getAttribute('w:numId') ?? '', { counts, levels, anew });
	}
	return lists;
}

function levelsOf(parent: Element, base: Level[]): Level[] {
	const levels = [...base];
	for (const level of [...parent.children].filter((one) => one.tagName === 'w:lvl')) {
		const restart = value(level, 'w:lvlRestart');
		levels[Number(level.getAttribute('w:ilvl') ?? 0)] = {
			start: Number(value(level, 'w:start') ?? 1),
			format: value(level, 'w:numFmt') ?? 'decimal',
			text: value(level, 'w:lvlText') ?? '',
			restart: restart === null ? null : Number(restart)
		};
	}
	return levels;
}

/** Styles that number their paragraphs, those that are based on them as well (§17.7.4). */
function stylesOf(word: WordPackage): Map<string, { list: string; level: number }> {
	const found = new Map<string, { list: string; level: number }>();
	const part = relatedPart(word, 'styles');
	if (!part) return found;
	const styles = [...parsed(textOfPart(word, part)).getElementsByTagName('w:style')];
	for (let round = 0; round < 5; round++)
		for (const style of styles) {
			const id = style.getAttribute('w:styleId') ?? '';
			const numbers = child(child(style, 'w:pPr'), 'w:numPr');
			const base = found.get(value(style, 'w:basedOn') ?? '');
			const list = value(numbers, 'w:numId') ?? base?.list;
			if (list !== undefined) found.set(id, { list, level: Number(value(numbers, 'w:ilvl') ?? base?.level ?? 0) });
		}
	return found;
}
