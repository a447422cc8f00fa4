import {
	concatTransformationMatrix,
	PDFDocument,
	popGraphicsState,
	pushGraphicsState,
	rgb,
	setCharacterSqueeze,
	setTextRenderingMode,
	TextRenderingMode,
	type PDFPage
} from '@cantoo/pdf-lib';
import { shownSize, uprightMatrix } from '../../core/page';
import type { SheetWord } from '../../core/paper';
import { pageBox } from '../box';
import { drawSet, FontSet, unprintable } from '../fonts';

export interface InkedJob {
	paper: Uint8Array;
	/** a picture for each page that came back (JPEG, in the page's own frame), with the words that were read on it */
	pages: { page: number; jpeg: Uint8Array; words: SheetWord[] }[];
}

/**
 * The document with its scanned pages in the place of those that went out, each of the same size and turn; what was read on them lies
 * over them unseen, so that they can be searched and read aloud (text rendering mode 3, ISO 32000-2 §9.3.6).
 */
export async function inkedPaper({ paper, pages }: InkedJob): Promise<Uint8Array> {
	const before = await PDFDocument.load(paper, { updateMetadata: false, parseSpeed: Infinity });
	const doc = await PDFDocument.create({ updateMetadata: false });
	const fonts = new FontSet(doc);
	for (const [number, old] of before.getPages().entries()) {
		const scanned = pages.find((one) => one.page === number);
		if (!scanned) {
			doc.addPage((await doc.copyPages(before, [number]))[0]!);
			continue;
		}
		const box = { ...pageBox(old), x: 0, y: 0 };
		const page = doc.addPage([box.width, box.height]);
		page.setRotation(old.getRotation());
		const { width, height } = shownSize(box);
		page.pushOperators(pushGraphicsState(), concatTransformationMatrix(...uprightMatrix(box, box)));
		page.drawImage(await doc.embedJpg(scanned.jpeg), { x: 0, y: 0, width, height });
		for (const word of scanned.words) await unseen(page, fonts, word, height);
		page.pushOperators(popGraphicsState());
	}
	return new Uint8Array(await doc.save({ useObjectStreams: false }));
}

/** A word where it was read, as wide as it was; letters that no face has are left out. */
async function unseen(page: PDFPage, fonts: FontSet, word: SheetWord, high: number): Promise<void> {
	const missing = new Set(unprintable(word.text));
	const text = [...word.text].filter((letter) => !missing.has(letter)).join('');
	if (text === '') return;
	const set = await fonts.set(text, 'sans');
	const size = Math.max(1, word.height);
	const squeeze = set.width > 0 ? Math.min(400, Math.max(20, (100 * word.width) / (set.width * size))) : 100;
	page.pushOperators(
		pushGraphicsState(),
		setTextRenderingMode(TextRenderingMode.Invisible),
		setCharacterSqueeze(squeeze)
	);
	drawSet(page, set, word.left, high - word.top - word.height, size, rgb(0, 0, 0));
	page.pushOperators(popGraphicsState());
}
