import sharp from 'sharp';
import {
	fromShown,
	inPoints,
	readPicture as readLines,
	shownSize,
	slantOf,
	type PageDrawing,
	type PageSize,
	type PictureDrawing,
	type PrintedWord,
	type Turn
} from '../core/page';
import { readPicture, type ReadPicture, type ReadWord } from './ocr';

/** What a machine has read on a page that is a picture. */
export interface ScanReading {
	/** in page space, each with how sure it is of it */
	words: PrintedWord[];
	drawn: PageDrawing;
	/** how sure on the whole, 0 to 100 */
	sure: number;
	/** by how many degrees the rows rise to the right; 0 where they are level */
	lean: number;
	/** by how much the page would have to be turned for its text to stand upright */
	turn: Turn;
}

/** Pixels a point at which pages are read: 200 to the inch. */
export const SCAN_SCALE = 200 / 72;
/** Below this a page is likely to lie on its side, or to be no text at all. */
const UNSURE = 60;
/** Words less sure than this are noise. */
const NOISE = 30;
/** Rows that fall or rise by more than this, as a tangent, were misread. */
const STEEPEST = 0.12;
/** Rows that rise by less than this (degrees) are level. */
const LEVEL = 0.4;

/**
 * Reads a page that is a picture: its words by Tesseract, its lines and squares by their ink. `png`: the page as shown, at
 * {@link SCAN_SCALE}. Words and lines are given where they stand on the page, however it lies.
 */
export async function readScan(png: Uint8Array, page: PageSize, languages: string): Promise<ScanReading> {
	const { picture, upsideDown } = await readEitherWay(png, languages);
	const size = shownSize(page);
	const words = picture.words.filter((word) => word.sure >= NOISE && /[\p{L}\p{N}_.…]/u.test(word.text));
	const slant = picture.turn === 0 ? slantOf(words) : 0;
	const image = sharp(png)
		.rotate(upsideDown ? 180 : 0)
		.greyscale();
	const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
	const lines = readLines(
		{ width: info.width, height: info.height, data: new Uint8Array(data) },
		SCAN_SCALE,
		Math.abs(slant) < STEEPEST ? slant : 0
	);
	/** From the picture that was read, pixels, onto the page as shown and from there into page space. */
	const placed = (box: { left: number; top: number; width: number; height: number }) => {
		const { left, top, width, height } = inPoints(box, SCAN_SCALE);
		return fromShown(
			page,
			upsideDown
				? { left: size.width - left - width, top: size.height - top - height, width, height }
				: { left, top, width, height }
		);
	};
	const drawn: PageDrawing = { lines: [], boxes: [], rings: [], shaded: [] };
	for (const { at, from, to } of lines.level)
		drawn.lines.push(lineOf(placed({ left: from, top: at, width: to - from, height: 0 })));
	for (const { at, from, to } of lines.upright)
		drawn.lines.push(lineOf(placed({ left: at, top: from, width: 0, height: to - from })));
	for (const box of lines.boxes) drawn.boxes.push(rounded(placed(box)));
	const lean = Math.round((-Math.atan(slant) * 1800) / Math.PI) / 10;
	return {
		words: words
			.filter((word) => !isDrawn(word, lines))
			.map((word) => ({ text: word.text, ...rounded(placed(word)), sure: word.sure })),
		drawn,
		sure: picture.sure,
		lean: Math.abs(lean) < LEVEL ? 0 : lean,
		turn: (((upsideDown ? 180 : 0) + picture.turn) % 360) as Turn
	};
}

/** Pages on their side are read as they are; one that stands on its head makes no sense until it is turned. */
async function readEitherWay(
	png: Uint8Array,
	languages: string
): Promise<{ picture: ReadPicture; upsideDown: boolean }> {
	const picture = await readPicture(png, languages);
	if (worth(picture) >= UNSURE) return { picture, upsideDown: false };
	const turned = new Uint8Array(await sharp(png).rotate(180).png().toBuffer());
	const other = await readPicture(turned, languages);
	return worth(other) > worth(picture) + 10 ? { picture: other, upsideDown: true } : { picture, upsideDown: false };
}

/** How sure a reading is of its longer words: those of a page on its head are short and doubtful. */
function worth({ words }: ReadPicture): number {
	const long = words.filter((word) => /^[\p{L}\p{M}]{3,}$/u.test(word.text.replace(/[.,;:]$/, '')));
	if (long.length < 3) return 0;
	const sure = long.reduce((sum, word) => sum + word.sure, 0) / long.length;
	return sure * Math.min(1, (2 * long.length) / Math.max(1, words.length));
}

/** Whether what was taken for a word is a rule or a square that is there as such. */
function isDrawn(word: ReadWord, { level, boxes }: PictureDrawing): boolean {
	const [x, y] = [word.left + word.width / 2, word.top + word.height / 2];
	const near = 4 * SCAN_SCALE;
	if (/^[_.…\-–—=~|]+$/u.test(word.text))
		return level.some((line) => line.from < x && line.to > x && Math.abs(line.at - y) < 3 * near);
	return boxes.some(
		(box) =>
			box.left - near < word.left &&
			box.left + box.width + near > word.left + word.width &&
			box.top < y &&
			box.top + box.height > y
	);
}

function lineOf({ x, y, width, height }: { x: number; y: number; width: number; height: number }) {
	const r = (n: number) => Math.round(n * 100) / 100;
	return { x1: r(x), y1: r(y), x2: r(x + width), y2: r(y + height) };
}

function rounded({ x, y, width, height }: { x: number; y: number; width: number; height: number }) {
	const r = (n: number) => Math.round(n * 100) / 100;
	return { x: r(x), y: r(y), width: r(width), height: r(height) };
}
