import { cutText } from '../../core/clean-text';
import { inUtf8, relationshipsIn, shutOff } from './outside';
import { strFromU8, strToU8, zipSync } from 'fflate';
import { DOMParser } from 'linkedom';
import { refuse, type Refusal } from '../../core/refusal';
import { unfold } from '../unfold';

/** A Word document unfolded (ECMA-376-2): its parts by name, and which of them is the text. */
export interface WordPackage {
	parts: Map<string, Uint8Array>;
	main: string;
}

const MOST = { bytes: 200 * 1024 * 1024, parts: 5000 };

const NONE = refuse('not-a-docx', 'This is not a Word document that can be read. Save it anew, or as PDF.');

/**
 * Unfolds a DOCX without believing what it says of its own sizes. Refuses `not-a-docx`, `docx-too-heavy` (a bomb),
 * `docx-external` (parts that lie elsewhere).
 */
export function unfolded(bytes: Uint8Array): WordPackage | Refusal {
	const parts = unfold(bytes, MOST);
	if (parts === 'broken') return NONE;
	if (parts === 'heavy')
		return refuse('docx-too-heavy', 'The Word document unfolds to more than is permitted. Save it anew, or as PDF.');
	if (!inUtf8(parts)) return NONE;
	const outside = shutOff(parts);
	if (outside !== null)
		return refuse(
			'docx-external',
			`The Word document takes parts from elsewhere (${cutText(outside, 80)}), which Pellum does not fetch. Save it with its pictures inside.`
		);
	const main = mainPart(parts);
	return main ? { parts, main } : NONE;
}

/** The document folded up again. */
export function folded({ parts }: WordPackage): Uint8Array {
	return zipSync(Object.fromEntries(parts), { level: 1 });
}

/** A part as text; '' where there is none. */
export function textOfPart({ parts }: WordPackage, name: string): string {
	const part = parts.get(name);
	return part ? strFromU8(part) : '';
}

/** A part's elements, to be looked at and changed. */
export function parsed(xml: string): Document {
	return new DOMParser().parseFromString(xml, 'text/xml') as unknown as Document;
}

export function put(word: WordPackage, name: string, document: Document): void {
	word.parts.set(name, strToU8(document.toString()));
}

/** The part that the text names by a kind of relationship (numbering, styles …), by its whole name. */
export function relatedPart(word: WordPackage, kind: string): string | null {
	const slash = word.main.lastIndexOf('/') + 1;
	const [folder, file] = [word.main.slice(0, slash), word.main.slice(slash)];
	for (const relation of relations(word.parts, `${folder}_rels/${file}.rels`))
		if (relation.kind.endsWith(`/${kind}`)) return inFolder(folder, relation.target);
	return null;
}

function inFolder(folder: string, target: string): string {
	return target.startsWith('/') ? target.slice(1) : `${folder}${target}`;
}

function mainPart(parts: Map<string, Uint8Array>): string | null {
	const named = relations(parts, '_rels/.rels').find((one) => one.kind.endsWith('/officeDocument'));
	const main = named ? inFolder('', named.target) : 'word/document.xml';
	return parts.has(main) ? main : null;
}

function relations(parts: Map<string, Uint8Array>, name: string): { kind: string; target: string }[] {
	const part = parts.get(name);
	if (!part) return [];
	return relationshipsIn(parsed(strFromU8(part))).map((one) => ({
		kind: one.getAttribute('Type') ?? '',
		target: one.getAttribute('Target') ?? ''
	}));
}
