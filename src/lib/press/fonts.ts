import fontkit from '@cantoo/fontkit';
import {
	beginText,
	endText,
	PDFHexString,
	setFillingColor,
	setFontAndSize,
	setTextMatrix,
	showText,
	type Color,
	type PDFDocument,
	type PDFFont,
	type PDFName,
	type PDFPage
} from '@cantoo/pdf-lib';
import bidiFactory from 'bidi-js';
import { packageBytes, packageFile } from './assets';

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
	literata: '@expo-google-fonts/literata/400Regular_Italic/Literata_400Regular_Italic.ttf',
	bad: '@expo-google-fonts/bad-script/400Regular/BadScript_400Regular.ttf',
	kalam: '@expo-google-fonts/kalam/400Regular/Kalam_400Regular.ttf',
	sacramento: '@expo-google-fonts/sacramento/400Regular/Sacramento_400Regular.ttf',
	arabic: '@expo-google-fonts/noto-sans-arabic/400Regular/NotoSansArabic_400Regular.ttf',
	hebrew: '@expo-google-fonts/noto-sans-hebrew/400Regular/NotoSansHebrew_400Regular.ttf',
	devanagari: '@expo-google-fonts/noto-sans-devanagari/400Regular/NotoSansDevanagari_400Regular.ttf',
	japanese: '@expo-google-fonts/noto-sans-jp/400Regular/NotoSansJP_400Regular.ttf',
	chinese: '@expo-google-fonts/noto-sans-sc/400Regular/NotoSansSC_400Regular.ttf',
	korean: '@expo-google-fonts/noto-sans-kr/400Regular/NotoSansKR_400Regular.ttf'
} as const;
export type Face = keyof typeof FILES;

/** Where a letter is looked for when the wanted face has none. */
const FALLBACK: Face[] = [
	'sans',
	'armenian',
	'georgian',
	'arabic',
	'hebrew',
	'devanagari',
	'japanese',
	'chinese',
	'korean'
];

const sets = new Map<Face, Set<number>>();

function letters(face: Face): Set<number> {
	let set = sets.get(face);
	if (!set) {
		set = new Set((fontkit.create(packageBytes(FILES[face])) as unknown as { characterSet: number[] }).characterSet);
		sets.set(face, set);
	}
	return set;
}

/** Where a face's TTF lies. */
export function faceFile(face: Face): string {
	return packageFile(FILES[face]);
}

/** The TTF itself, for pages that show the same hand. */
export function faceBytes(face: Face): Buffer {
	return packageBytes(FILES[face]);
}

/** A piece of text that one face can draw in full, all of it in one direction. */
export interface Run {
	face: Face;
	text: string;
}

const directions = bidiFactory();

/**
 * Cuts text into runs in the order in which they stand on the line from left to right (Unicode Standard Annex #9); within
 * a run the letters are in reading order, and the face turns them. A letter that no face has is named, never replaced.
 * Line ends are the caller's to take out.
 */
export function runsOf(text: string, wanted: Face): { runs: Run[]; missing: string[] } {
	const whole = text.normalize('NFC');
	const { levels } = directions.getEmbeddingLevels(whole);
	const runs: (Run & { level: number })[] = [];
	const missing = new Set<string>();
	let at = 0;
	for (const letter of whole) {
		const code = letter.codePointAt(0)!;
		const level = levels[at]!;
		at += letter.length;
		// marks of direction have been heeded, and are nothing to draw
		if (code < 0x20 || UNSEEN.test(letter)) continue;
		const last = runs[runs.length - 1];
		// what joins letters, or keeps them apart, is only for a face that knows it
		if (JOINERS.test(letter) && !(last && letters(last.face).has(code))) continue;
		// the face in use goes on as long as it can, so that a word isn't torn for the sake of a comma
		const face = letters(wanted).has(code)
			? wanted
			: last && letters(last.face).has(code)
				? last.face
				: FALLBACK.find((f) => letters(f).has(code));
		if (!face) missing.add(letter);
		else if (last?.face === face && last.level === level) last.text += turned(letter, level);
		else runs.push({ face, text: turned(letter, level), level });
	}
	return { runs: inSight(runs), missing: [...missing] };
}

const JOINERS = /[\u200c\u200d]/u;
const UNSEEN = /[\u061c\u200b\u200e\u200f\u202a-\u202e\u2060\u2066-\u2069]/u;

/** Brackets face the other way where one reads from right to left. */
function turned(letter: string, level: number): string {
	return level % 2 === 1 ? (directions.getMirroredCharacter(letter) ?? letter) : letter;
}

/** Runs as they stand on the line: from the highest level down, every stretch at it or above is turned round (UAX #9, L2). */
function inSight(runs: (Run & { level: number })[]): Run[] {
	const line = [...runs];
	for (let level = Math.max(0, ...line.map((r) => r.level)); level > 0; level--)
		for (let from = 0; from < line.length; from++) {
			let to = from;
			while (to < line.length && line[to]!.level >= level) to += 1;
			if (to > from) line.splice(from, to - from, ...line.slice(from, to).reverse());
			from = to;
		}
	return line.map(({ face, text, level }) => ({
		face,
		// a face turns what is of a script that runs from right to left; what is of none, such as “ (”, is turned here
		text: level % 2 === 1 && !/[\p{Script=Arabic}\p{Script=Hebrew}]/u.test(text) ? [...text].reverse().join('') : text
	}));
}

/** Whether a text is read from right to left. */
export function isRightToLeft(text: string): boolean {
	return directions.getEmbeddingLevels(text).paragraphs[0]?.level === 1;
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

/** Text cut into pieces, each encoded in its font, with its place from where the text begins; in points at size 1. */
export interface SetText {
	pieces: { font: PDFFont; hex: PDFHexString; x: number; y: number }[];
	width: number;
}

/** Scripts whose marks and dots stand where the face says, not one after the other (GPOS). */
const PLACED: readonly Face[] = ['arabic', 'hebrew', 'devanagari'];

interface Layout {
	positions: { xAdvance: number; xOffset: number; yOffset: number }[];
}

/** A run whose every glyph has its own place. The subset's codes are two bytes each, in the order of the layout. */
function placed(font: PDFFont, text: string, x: number): SetText {
	const { font: face } = (
		font as unknown as { embedder: { font: { unitsPerEm: number; layout(text: string): Layout } } }
	).embedder;
	const codes = font.encodeText(text).asString().match(/.{4}/g) ?? [];
	const pieces: SetText['pieces'] = [];
	let pen = x;
	face.layout(text).positions.forEach(({ xAdvance, xOffset, yOffset }, i) => {
		const unit = 1 / face.unitsPerEm;
		pieces.push({ font, hex: PDFHexString.of(codes[i]!), x: pen + xOffset * unit, y: yOffset * unit });
		pen += xAdvance * unit;
	});
	return { pieces, width: pen - x };
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
		const set: SetText = { pieces: [], width: 0 };
		for (const run of runs) {
			const font = await this.get(run.face);
			const next = PLACED.includes(run.face)
				? placed(font, run.text, set.width)
				: {
						pieces: [{ font, hex: font.encodeText(run.text), x: set.width, y: 0 }],
						width: font.widthOfTextAtSize(run.text, 1)
					};
			set.pieces.push(...next.pieces);
			set.width += next.width;
		}
		this.texts.set(key, set);
		return set;
	}
}

/** Draws a text that has been set, from x, y (points) on. */
export function drawSet(page: PDFPage, { pieces }: SetText, x: number, y: number, size: number, colour: Color): void {
	for (const { font, hex, x: right, y: up } of pieces)
		page.pushOperators(
			beginText(),
			setFillingColor(colour),
			setFontAndSize(fontKey(page, font), size),
			setTextMatrix(1, 0, 0, 1, x + right * size, y + up * size),
			showText(hex),
			endText()
		);
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
