import { parsed, put, relatedPart, textOfPart, type WordPackage } from './package';

/** Changes that Word has kept track of (ECMA-376-1 §17.13.5), and comments (§17.13.4). */
export interface Tracked {
	changes: number;
	comments: number;
	/** who made the changes */
	by: string[];
}

/** How a document with tracked changes is wanted: all accepted, or as it was before them. */
export type Wanted = 'accepted' | 'before';

const PUT_IN = ['w:ins', 'w:moveTo'];
const TAKEN_OUT = ['w:del', 'w:moveFrom'];
/** Elements that keep how something was formatted before. */
const FORMATTING = [
	'w:rPrChange',
	'w:pPrChange',
	'w:tblPrChange',
	'w:trPrChange',
	'w:tcPrChange',
	'w:sectPrChange',
	'w:tblGridChange',
	'w:tblPrExChange',
	'w:numberingChange'
];
const RANGES = ['w:moveFromRangeStart', 'w:moveFromRangeEnd', 'w:moveToRangeStart', 'w:moveToRangeEnd'];
const COMMENTED = ['w:commentRangeStart', 'w:commentRangeEnd', 'w:commentReference'];

const all = (document: Document, tags: string[]): Element[] =>
	tags.flatMap((tag) => [...document.getElementsByTagName(tag)]);

/** Parts with running text: the main one, heads, feet, notes. */
function textParts({ parts, main }: WordPackage): string[] {
	return [...parts.keys()].filter(
		(name) => name === main || /^word\/(header|footer|footnotes|endnotes)\d*\.xml$/.test(name)
	);
}

/** What is tracked in a document, and how many comments it has. */
export function trackedIn(word: WordPackage): Tracked {
	const by = new Set<string>();
	let changes = 0;
	for (const name of textParts(word)) {
		const xml = textOfPart(word, name);
		for (const [, , rest] of xml.matchAll(/<(w:(?:ins|del|moveTo|moveFrom|\w+PrChange))\s([^>]*)>/g)) {
			changes += 1;
			const author = /w:author="([^"]*)"/.exec(rest!)?.[1];
			if (author) by.add(author);
		}
	}
	const comments = relatedPart(word, 'comments');
	const count = comments ? [...textOfPart(word, comments).matchAll(/<w:comment\s/g)].length : 0;
	return { changes, comments: count, by: [...by].slice(0, 5) };
}

/** Makes the document what it is with all changes accepted, or what it was before them; comments go. In place. */
export function settle(word: WordPackage, wanted: Wanted): void {
	for (const name of textParts(word)) {
		const document = parsed(textOfPart(word, name));
		settleRows(document, wanted);
		settleParagraphs(document, wanted);
		const [kept, dropped] = wanted === 'accepted' ? [PUT_IN, TAKEN_OUT] : [TAKEN_OUT, PUT_IN];
		for (const element of all(document, dropped)) element.remove();
		for (const element of all(document, kept)) element.replaceWith(...element.childNodes);
		for (const element of all(document, FORMATTING)) {
			const before = element.firstElementChild;
			if (wanted === 'before' && before && element.parentElement?.tagName === before.tagName)
				element.parentElement.replaceWith(before);
			else element.remove();
		}
		for (const element of all(document, ['w:delText'])) {
			const text = document.createElement('w:t');
			text.setAttribute('xml:space', 'preserve');
			text.textContent = element.textContent;
			element.replaceWith(text);
		}
		for (const element of all(document, [...RANGES, ...COMMENTED])) element.remove();
		put(word, name, document);
	}
}

/** Rows of tables that came or went. */
function settleRows(document: Document, wanted: Wanted): void {
	for (const properties of all(document, ['w:trPr'])) {
		const goes = properties.querySelector(wanted === 'accepted' ? 'w\\:del' : 'w\\:ins') !== null;
		if (goes) properties.parentElement?.remove();
		else for (const child of [...properties.children]) if (/^w:(ins|del)$/.test(child.tagName)) child.remove();
	}
}

/** A paragraph whose end came or went is one with the next. */
function settleParagraphs(document: Document, wanted: Wanted): void {
	for (const paragraph of all(document, ['w:p'])) {
		const end = paragraph.firstElementChild?.tagName === 'w:pPr' ? paragraph.firstElementChild : null;
		const mark = [...(end?.children ?? [])].find((child) => child.tagName === 'w:rPr');
		const goes = [...(mark?.children ?? [])].some((child) =>
			(wanted === 'accepted' ? TAKEN_OUT : PUT_IN).includes(child.tagName)
		);
		for (const child of [...(mark?.children ?? [])])
			if ([...PUT_IN, ...TAKEN_OUT].includes(child.tagName)) child.remove();
		const next = paragraph.nextElementSibling;
		if (!goes || next?.tagName !== 'w:p') continue;
		const first = next.firstElementChild?.tagName === 'w:pPr' ? next.firstElementChild : null;
		const moved = [...paragraph.childNodes].filter((node) => node !== end);
		if (first) first.after(...moved);
		else next.prepend(...moved);
		paragraph.remove();
	}
}
