import fontkit from '@cantoo/fontkit';
import {
	beginText,
	endText,
	setFillingColor,
	setFontAndSize,
	setTextMatrix,
	showText,
	type Color,
	type PDFDocument,
	type PDFFont,
	type PDFHexString,
	type PDFName,
	type PDFPage
} from '@cantoo/pdf-lib';
import { packageBytes } from './assets';

/** The faces that text is stamped in. TTF, since only that can be subset; all ship in packages. */
const FILES = {
	sans: '@expo-google-fonts/noto-sans/400Regular/NotoSans_400Regular.ttf',
	armenian: '@expo-google-fonts/noto-sans-armenian/400Regular/NotoSansArmenian_400Regular.ttf',
	georgian: '@expo-google-fonts/noto-sans-georgian/400Regular/NotoSansGeorgian_400Regular.ttf',
	serif: '@expo-google-fonts/literata/400Regular/Literata_400Regular.ttf',
	serifBold: '@expo-google-fonts/literata/700Bold/Literata_700Bold.ttf',
	plain: '@expo-google-fonts/atkinson-hyperlegible/400Regular/AtkinsonHyperlegible_400Regular.ttf',
	plainBold: '@expo-google-fonts/atkinson-hyperlegible/700Bold/AtkinsonHyperlegible_700Bold.ttf',
	mono: '@expo-google-fonts/noto-sans-mono/400Regular/NotoSansMono_400Regular.ttf',
	caveat: '@expo-google-fonts/caveat/400Regular/Caveat_400Regular.ttf',
	marck: '@expo-google-fonts/marck-script/400Regular/MarckScript_400Regular.ttf',
	literata: '@expo-google-fonts/literata/400Regular_Italic/Literata_400Regular_Italic.ttf'
} as const;
export type Face = keyof typeof FILES;

/** Where a letter is looked for when the wanted face has none. */
const FALLBACK: Face[] = ['sans', 'armenian', 'georgian'];

const sets = new Map<Face, Set<number>>();

function letters(face: Face): Set<number> {
	let set = sets.get(face);
	if (!set) {
		set = new Set((fontkit.create(packageBytes(FILES[face])) as unknown as { characterSet: number[] }).characterSet);
		sets.set(face, set);
	}
	return set;
}

/** The TTF itself, for pages that show the same hand. */
export function faceBytes(face: Face): Buffer {
	return packageBytes(FILES[face]);
}

/** A piece of text that one face can draw in full. */
export interface Run {
	face: Face;
	text: string;
}

/** Cuts text into runs; a letter that no face has is named, never replaced. Line ends are the caller's to take out. */
export function runsOf(text: string, wanted: Face): { runs: Run[]; missing: string[] } {
	const runs: Run[] = [];
	const missing = new Set<string>();
	for (const letter of text.normalize('NFC')) {
		const code = letter.codePointAt(0)!;
		if (code < 0x20) continue;
		const last = runs[runs.length - 1];
		// the face in use goes on as long as it can, so that a word isn't torn for the sake of a comma
		const face = letters(wanted).has(code)
			? wanted
			: last && letters(last.face).has(code)
				? last.face
				: FALLBACK.find((f) => letters(f).has(code));
		if (!face) missing.add(letter);
		else if (last?.face === face) last.text += letter;
		else runs.push({ face, text: letter });
	}
	return { runs, missing: [...missing] };
}

/** The letters of the text that Pellum can't print; empty when all is well. */
export function unprintable(text: string): string[] {
	return runsOf(text.replace(/\s+/g, ' '), 'sans').missing;
}

/** The text with each letter that no face has written as its code point, for sheets that must always come out. */
export function spelled(text: string, wanted: Face): string {
	const { missing } = runsOf(text, wanted);
	return missing.reduce(
		(t, letter) => t.replaceAll(letter, `[U+${letter.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}]`),
		text
	);
}

/**
 * Fontkit with a memory: opening a face and laying out its glyphs is the dearest part of stamping, and the tables
 * a face has decoded serve every document. What is subset is made anew for each, and so are the glyphs: they
 * remember the letter they were first asked for, and Latin o and Greek omicron are one glyph.
 */
const opened = new WeakMap<Uint8Array, { _glyphs?: object }>();
const rememberingFontkit = {
	create(bytes: Uint8Array) {
		let font = opened.get(bytes);
		if (!font) {
			font = fontkit.create(bytes) as object;
			opened.set(bytes, font);
		}
		font._glyphs = {};
		return font;
	}
};

/** Text cut into runs, each encoded in its font, with widths in points at size 1. */
export interface SetText {
	runs: { font: PDFFont; hex: PDFHexString; width: number }[];
	width: number;
}

/** The faces embedded in one document, each once and only as much of it as is used. */
export class FontSet {
	private embedded = new Map<Face, PDFFont>();
	private texts = new Map<string, SetText>();

	constructor(private doc: PDFDocument) {
		doc.registerFontkit(rememberingFontkit as unknown as Parameters<PDFDocument['registerFontkit']>[0]);
	}

	private async get(face: Face): Promise<PDFFont> {
		let font = this.embedded.get(face);
		if (!font) {
			font = await this.doc.embedFont(packageBytes(FILES[face]), { subset: true });
			this.embedded.set(face, font);
		}
		return font;
	}

	/** Lays a text out once, however often it is drawn. Throws on a letter that no face has. */
	async set(text: string, face: Face): Promise<SetText> {
		const key = `${face} ${text}`;
		const known = this.texts.get(key);
		if (known) return known;
		const { runs, missing } = runsOf(text, face);
		if (missing.length > 0) throw new Error(`no font has ${missing.join(' ')}`);
		const set: SetText = { runs: [], width: 0 };
		for (const run of runs) {
			const font = await this.get(run.face);
			const width = font.widthOfTextAtSize(run.text, 1);
			set.runs.push({ font, hex: font.encodeText(run.text), width });
			set.width += width;
		}
		this.texts.set(key, set);
		return set;
	}
}

/** Draws a text that has been set, from x, y (points) on. */
export function drawSet(page: PDFPage, { runs }: SetText, x: number, y: number, size: number, colour: Color): void {
	let at = x;
	for (const { font, hex, width } of runs) {
		page.pushOperators(
			beginText(),
			setFillingColor(colour),
			setFontAndSize(fontKey(page, font), size),
			setTextMatrix(1, 0, 0, 1, at, y),
			showText(hex),
			endText()
		);
		at += width * size;
	}
}

const keys = new WeakMap<PDFPage, Map<PDFFont, PDFName>>();

/** The name under which a page knows a font, given once a page. */
function fontKey(page: PDFPage, font: PDFFont): PDFName {
	const known = keys.get(page) ?? new Map<PDFFont, PDFName>();
	keys.set(page, known);
	let key = known.get(font);
	if (!key) {
		key = page.node.newFontDictionary(font.name, font.ref);
		known.set(font, key);
	}
	return key;
}
