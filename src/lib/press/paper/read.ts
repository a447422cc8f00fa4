import sharp from 'sharp';
import { laidGrey, matchWords, type Known, type Matched, type ReadWordAt, type SheetOut } from '../../core/paper';
import {
	boxThrough,
	cornersOf,
	evenLight,
	projected,
	projection,
	whole,
	type Corners,
	type Grey,
	type Projection
} from '../../core/picture';
import { readPicture, type ReadPicture } from '../ocr';
import type { FlatSheet } from './flat';

/** Which of the pages that went out a picture is of, and where that page lies in it. */
export interface SheetTold {
	/** its place among all pages that went out, from 0; null where it is none of them */
	number: number | null;
	/** told by its code, or by its words */
	by: 'code' | 'words' | null;
	/** of the page's words, how many stand where they should, 0 to 1; null of a page that has too few */
	share: number | null;
	/** from the page (points) into the picture (pixels) */
	way: Projection | null;
	read: ReadWordAt[];
	/** the picture, turned if it had to be (JPEG) */
	picture: Uint8Array;
	/** pixels to the inch of the page */
	dots: number;
}

/** Pictures are read at this width: 200 to the inch of A4. */
const READ_AT = 1654;
/** A page of which fewer words were found than this is read again as its code says that it lies. */
const READ_AGAIN = 0.6;
/** Of a page's words, so many must stand where they should for it to be told by them alone. */
const TOLD = 0.35;

/**
 * Reads a sheet and lays its words over those of the pages.
 * @param code which page its code says it is, from 0; null where it has none of ours
 */
export async function tellSheet(
	flat: Pick<FlatSheet, 'picture' | 'edges'>,
	sheets: readonly SheetOut[],
	code: { number: number; corners: Corners | null } | null,
	languages: string
): Promise<SheetTold> {
	const turns = code === null ? [0, 180, 90, 270] : [0];
	let best: SheetTold | null = null;
	for (const turn of turns) {
		const picture =
			turn === 0
				? flat.picture
				: new Uint8Array(await sharp(flat.picture).rotate(turn).jpeg({ quality: 90 }).toBuffer());
		const told = await toldUpright(picture, sheets, code, flat.edges, languages);
		if (!best || (told.share ?? 0) > (best.share ?? 0)) best = told;
		if (code !== null || (best.share ?? 0) >= TOLD) break;
	}
	return best!;
}

async function toldUpright(
	picture: Uint8Array,
	sheets: readonly SheetOut[],
	code: { number: number; corners: Corners | null } | null,
	edges: boolean,
	languages: string
): Promise<SheetTold> {
	const { width = 1, height = 1 } = await sharp(picture).metadata();
	const scale = READ_AT / width;
	const { data, info } = await sharp(picture)
		.greyscale()
		.resize({ width: READ_AT })
		.raw()
		.toBuffer({ resolveWithObject: true });
	const even = evenLight({ width: info.width, height: info.height, data: new Uint8Array(data) });
	let read = wordsOf(await readPicture(await pngOf(even), languages), scale);
	let best: { number: number; matched: Matched } | null = null;
	for (const [number, sheet] of sheets.entries()) {
		if (code !== null && number !== code.number) continue;
		const matched = matchWords(
			sheet.words,
			read,
			knownIn(sheet, code?.corners ?? null, edges ? { width, height } : null)
		);
		if (matched && (!best || matched.share > best.matched.share)) best = { number, matched };
	}
	if (code && best && best.matched.share < READ_AGAIN) {
		// askew, a page is read badly: once more as it lies by its code
		const { way } = best.matched;
		const sheet = sheets[code.number]!;
		const fine = READ_AT / sheet.width;
		const laid = laidGrey(even, scaled(way, scale), sheet, fine);
		const again = wordsOf(await readPicture(await pngOf(laid), languages), fine).map((word) => ({
			...word,
			...boxThrough(way, word)
		}));
		const matched = matchWords(sheet.words, again, knownIn(sheet, code.corners, edges ? { width, height } : null));
		if (matched && matched.share > best.matched.share) {
			best = { number: code.number, matched };
			read = again;
		}
	}
	// a letterhead is on many papers: of what is read, too, much must be the page's
	const readable = read.filter((word) => word.sure >= 60 && /[\p{L}\p{N}]{3}/u.test(word.text)).length;
	const isIt = best !== null && best.matched.share >= TOLD && best.matched.found >= TOLD * readable;
	const number = code?.number ?? (isIt ? best!.number : null);
	const base = { read, picture, share: best?.matched.share ?? null };
	if (number === null) return { ...base, number, by: null, way: null, dots: 0 };
	const sheet = sheets[number]!;
	// a page with next to no words lies as its sheet does
	const way = best?.matched.way ?? projection(whole(sheet), whole({ width, height }))!;
	return { ...base, number, by: code === null ? 'words' : 'code', way, dots: dotsOf(way, sheet) };
}

async function pngOf({ width, height, data }: Grey): Promise<Uint8Array> {
	const image = sharp(data, { raw: { width, height, channels: 1 } }).withMetadata({ density: 200 });
	return new Uint8Array(await image.png({ compressionLevel: 2 }).toBuffer());
}

/** The same way into a picture that is so much larger. */
const scaled = ([a, b, c, d, e, f, g, h]: Projection, by: number): Projection => [
	a * by,
	b * by,
	c * by,
	d * by,
	e * by,
	f * by,
	g,
	h
];

/** The corners of the code, and of the sheet where the picture is nothing but it. */
function knownIn(sheet: SheetOut, code: Corners | null, picture: { width: number; height: number } | null): Known[] {
	// a sheet that was made smaller to have room for its code ends elsewhere
	const inside = sheet.code !== null && sheet.code.left + sheet.code.width <= sheet.width;
	return [
		...(code && sheet.code ? pairs(cornersOf(sheet.code), code) : []),
		...(picture && inside ? pairs(whole(sheet), whole(picture)) : [])
	];
}

const pairs = (from: Corners, to: Corners): Known[] => from.map((one, i): Known => [one, to[i]!]);

function wordsOf({ words }: ReadPicture, scale: number): ReadWordAt[] {
	return words.map(({ text, left, top, width, height, sure }) => ({
		text,
		sure,
		left: left / scale,
		top: top / scale,
		width: width / scale,
		height: height / scale
	}));
}

/** How many pixels of the picture an inch of the page's middle takes. */
function dotsOf(way: Projection, { width, height }: SheetOut): number {
	const a = projected(way, { x: width / 2 - 36, y: height / 2 });
	const b = projected(way, { x: width / 2 + 36, y: height / 2 });
	return Math.round(Math.hypot(b.x - a.x, b.y - a.y));
}
