import { strFromU8, strToU8 } from 'fflate';
import { DOMParser } from 'linkedom';

/**
 * What a Word document would fetch from elsewhere when it is opened: told, and shut off, before any program opens it. Parts of
 * a package may be in any encoding of XML and under any prefix (ECMA-376-2 §6.2), so they are decoded and parsed, not searched.
 */

/** Relationships that may point elsewhere: links a reader presses, and the template a document was begun from. Nobody follows them here. */
const HARMLESS = /\/(hyperlink|attachedTemplate)$/i;
/** Parts that are files of their own within the document, which would be opened by their own rules. */
const FOREIGN = /\/(aFChunk|subDocument|frame|oleObject|control|vbaProject|video|audio)$/i;
/** An address with a scheme, or of another machine. */
const ELSEWHERE = /^\s*([a-z][a-z0-9+.-]*:|\/\/|\\\\)/i;
/** Fields that take their text or picture from a file or an address (ECMA-376-1 §17.16.5). */
const FETCHING = /\b(INCLUDEPICTURE|INCLUDETEXT|INCLUDE|IMPORT|LINK|DDE|DDEAUTO|DATABASE|RD)\b/i;
const NOWHERE = 'about:blank';

type Parts = Map<string, Uint8Array>;

/** Writes every part of XML in UTF-8, so that all that read it read the same. False where one can't be decoded. */
export function inUtf8(parts: Parts): boolean {
	for (const [name, part] of parts) {
		if (!/\.(xml|rels|vml)$/i.test(name)) continue;
		const text = decoded(part);
		if (text === null) return false;
		parts.set(name, strToU8(text));
	}
	return true;
}

/** XML as text: by its byte order mark, else as it declares itself (XML 1.0 §4.3.3, appendix F). */
function decoded(part: Uint8Array): string | null {
	const [a, b, c] = part;
	const wide = a === 0xff && b === 0xfe ? 'utf-16le' : a === 0xfe && b === 0xff ? 'utf-16be' : null;
	const bare = a === 0x3c && b === 0 ? 'utf-16le' : a === 0 && b === 0x3c ? 'utf-16be' : null;
	const head = strFromU8(part.subarray(0, 200), true);
	const said =
		a === 0xef && b === 0xbb && c === 0xbf ? 'utf-8' : /^<\?xml[^>]*encoding\s*=\s*["']([^"']+)/.exec(head)?.[1];
	try {
		const text = new TextDecoder(wide ?? bare ?? said ?? 'utf-8', { fatal: true }).decode(part);
		return text.replace(/^(<\?xml[^>]*?)\s+encoding\s*=\s*["'][^"']*["']/, '$1');
	} catch {
		return null;
	}
}

const parsed = (part: Uint8Array): Document =>
	new DOMParser().parseFromString(strFromU8(part), 'text/xml') as unknown as Document;

/** The relationships of a .rels part, whatever their prefix. */
export function relationshipsIn(document: Document): Element[] {
	return [...document.querySelectorAll('*')].filter((one) => /(^|:)relationship$/i.test(one.tagName));
}

/**
 * Shuts off what would be fetched, in place: links lead nowhere, fields keep what they last showed, files within the document are left out.
 * @returns what the document can't be shown without and lies elsewhere; null where there is nothing such
 */
export function shutOff(parts: Parts): string | null {
	for (const [name, part] of [...parts]) {
		if (/\.rels$/i.test(name)) {
			const outside = shutRelations(parts, name, part);
			if (outside !== null) return outside;
		} else if (/\.(xml|vml)$/i.test(name)) {
			const outside = shutFields(parts, name, part);
			if (outside !== null) return outside;
		}
	}
	return null;
}

function shutRelations(parts: Parts, name: string, part: Uint8Array): string | null {
	const document = parsed(part);
	let changed = false;
	for (const one of relationshipsIn(document)) {
		const kind = one.getAttribute('Type') ?? '';
		const target = one.getAttribute('Target') ?? '';
		const mode = one.getAttribute('TargetMode');
		if (FOREIGN.test(kind)) {
			if (/\/(aFChunk|subDocument|frame)$/i.test(kind)) return target || 'another document';
			one.remove();
			changed = true;
		} else if ((mode !== null && mode !== 'Internal') || ELSEWHERE.test(target)) {
			if (!HARMLESS.test(kind)) return target || 'somewhere';
			one.setAttribute('Target', NOWHERE);
			changed = true;
		}
	}
	if (changed) parts.set(name, strToU8(document.toString()));
	return null;
}

/**
 * Fields that would fetch lose their instruction, in place, and stay as they were last shown; an old drawing whose picture lies
 * elsewhere is told. Looked for in the elements, as text may be written in many ways.
 */
function shutFields(parts: Parts, name: string, part: Uint8Array): string | null {
	if (!/instrText|fldSimple|urn:schemas-microsoft-com:vml/i.test(strFromU8(part))) return null;
	const document = parsed(part);
	let changed = false;
	// a field's words may be cut over several runs of its paragraph
	let open: Element[] = [];
	const close = () => {
		if (FETCHING.test(open.map((one) => one.textContent).join(''))) {
			for (const one of open) one.textContent = '';
			changed = true;
		}
		open = [];
	};
	for (const one of document.querySelectorAll('*')) {
		const called = one.tagName.replace(/^.*:/, '').toLowerCase();
		if (called === 'p') close();
		else if (called === 'instrtext') open.push(one);
		for (const { name: full, value } of [...one.attributes]) {
			const attribute = full.replace(/^.*:/, '').toLowerCase();
			if (DRAWN.has(called) && ['src', 'href', 'althref'].includes(attribute) && ELSEWHERE.test(value)) return value;
			if (called !== 'fldsimple' || attribute !== 'instr' || !FETCHING.test(value)) continue;
			one.setAttribute(full, '');
			changed = true;
		}
	}
	close();
	if (changed) parts.set(name, strToU8(document.toString()));
	return null;
}

/** What old drawings (VML) take pictures from. */
const DRAWN = new Set(['imagedata', 'fill', 'stroke', 'image', 'movie']);
