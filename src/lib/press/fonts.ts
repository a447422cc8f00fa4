import fontkit from '@cantoo/fontkit';
import type { PDFDocument, PDFFont } from '@cantoo/pdf-lib';
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

/** The faces embedded in one document, each once and only as much of it as is used. */
export class FontSet {
	private embedded = new Map<Face, PDFFont>();

	constructor(private doc: PDFDocument) {
		doc.registerFontkit(fontkit as unknown as Parameters<PDFDocument['registerFontkit']>[0]);
	}

	async get(face: Face): Promise<PDFFont> {
		let font = this.embedded.get(face);
		if (!font) {
			font = await this.doc.embedFont(packageBytes(FILES[face]), { subset: true });
			this.embedded.set(face, font);
		}
		return font;
	}

	/** Text cut into runs with their fonts and its width in points at size 1. Throws on a letter no face has. */
	async set(text: string, face: Face): Promise<{ runs: { font: PDFFont; text: string }[]; width: number }> {
		const { runs, missing } = runsOf(text, face);
		if (missing.length > 0) throw new Error(`no font has ${missing.join(' ')}`);
		let width = 0;
		const set: { font: PDFFont; text: string }[] = [];
		for (const run of runs) {
			const font = await this.get(run.face);
			width += font.widthOfTextAtSize(run.text, 1);
			set.push({ font, text: run.text });
		}
		return { runs: set, width };
	}
}
