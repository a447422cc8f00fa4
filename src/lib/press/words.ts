import type { WrappedPdfiumModule } from '@embedpdf/pdfium';
import type { PrintedWord } from '../core/page';
import { heap, type Raw } from './pdfium-memory';
import { FROM_LEFT, round, unspaced, WIDE, type Piece } from './spaced-words';

/** A letter's box in user space: points, origin bottom left. */
interface Box {
	left: number;
	right: number;
	bottom: number;
	top: number;
}

/** A word being put together: its box, the box of its last letter, and which letter of the page that was. */
interface Open extends Box {
	text: string;
	last: Box;
	at: number;
	/** the height of its tallest letter across its writing direction, which tells how wide a gap may be */
	tall: number;
	/** how many letters its last sign stands for */
	sign: number;
	/** the widest gap between two of its letters */
	widest: number;
	/** before it no blank is printed: only a gap tells it from the word before */
	loose: boolean;
}

/** Letters that are written from right to left. */
const FROM_RIGHT = /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u;
const BLANK_RUN = /^[_.…]{3,}$/u;
const IDEOGRAPH = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}、-〟]/u;
/** One letter for several (U+FB00–FB06), and Arabic as its letters are drawn (U+FB50–FDFF, FE70–FEFC), to plain letters. */
const DRAWN_FORM = /[\ufb00-\ufb06\ufb1d-\ufdff\ufe70-\ufefc]/u;

/**
 * Words of a page and where they stand, in user space before the crop box is taken off. Letters are put together along
 * their own writing direction, so that turned pages and turned text read like any other; right-to-left words come in
 * the order in which they are read, as PDFium gives them.
 */
export function readWords(m: WrappedPdfiumModule, page: number): PrintedWord[] {
	const raw = m.pdfium.wasmExports as unknown as Raw;
	const text = raw.FPDFText_LoadPage(page);
	if (!text) return [];
	const at = raw.malloc(32);
	const words: Piece[] = [];
	let word: Open | null = null;
	const close = () => {
		if (word && !(BLANK_RUN.test(word.text) && isWhite(word.at))) words.push(printed(word));
		word = null;
	};
	/** Underscores set in white mark no blank that anybody sees. */
	const isWhite = (i: number): boolean =>
		raw.FPDFText_GetFillColor(text, i, at, at + 4, at + 8, at + 12) !== 0 &&
		heap(m)
			.HEAP32.subarray(at >> 2, (at >> 2) + 3)
			.every((part) => part > 250);
	/** The direction in which a letter is written: right, up, left or down where it is not slanted. */
	const directionOf = (i: number): [number, number] => {
		if (!raw.FPDFText_GetMatrix(text, i, at)) return [1, 0];
		const [a, b] = heap(m).HEAPF32.subarray(at >> 2, (at >> 2) + 2) as unknown as [number, number];
		const length = Math.hypot(a, b);
		return length > 0 ? [a / length, b / length] : [1, 0];
	};
	const count = raw.FPDFText_CountChars(text);
	/** a blank that isn't printed, but that PDFium takes a gap for */
	let gap = false;
	let loose = false;
	/** where blanks are printed, gaps that are none are often only letters drawn in parts */
	let blanksPrinted = false;
	for (let i = 0; i < count && !blanksPrinted; i++)
		blanksPrinted = raw.FPDFText_GetUnicode(text, i) === 0x20 && !raw.FPDFText_IsGenerated(text, i);
	for (let i = 0; i < count; i++) {
		const code = raw.FPDFText_GetUnicode(text, i);
		if (isBlank(code)) {
			if (raw.FPDFText_IsGenerated(text, i)) gap = loose = true;
			else {
				close();
				gap = loose = false;
			}
			continue;
		}
		if (!raw.FPDFText_GetCharBox(text, i, at, at + 8, at + 16, at + 24)) continue;
		const floats = heap(m).HEAPF64;
		const box: Box = {
			left: floats[at >> 3]!,
			right: floats[(at >> 3) + 1]!,
			bottom: floats[(at >> 3) + 2]!,
			top: floats[(at >> 3) + 3]!
		};
		const letter = letterOf(code);
		if (word && !(!gap && !isRaised(word, box, letter) && followsPlainly(word, box))) {
			const blank = gap ? (blanksPrinted ? 'unlikely' : 'likely') : 'none';
			const goesOn =
				!isRaised(word, box, letter) && follows(word, box, letter, blank, directionOf(word.at), directionOf(i));
			if (!goesOn) close();
		}
		word = word
			? grown(word, letter, box, i)
			: { text: letter, ...box, last: box, at: i, tall: box.top - box.bottom, widest: 0, loose, sign: 1 };
		gap = loose = false;
	}
	close();
	raw.free(at);
	raw.FPDFText_ClosePage(text);
	return unspaced(words.filter((one) => one.text !== ''));
}

/** White space; what a face gives no letter for is none, and takes its room. */
function isBlank(code: number): boolean {
	return (
		code === 0x20 ||
		(code >= 9 && code <= 13) ||
		code === 0xa0 ||
		(code > 0x1000 && /\s/u.test(String.fromCharCode(code)))
	);
}

/** The letter of a code; '' for what is none. A hyphen at a line's end comes as U+0002. */
function letterOf(code: number): string {
	if (code > 0x20 && code < 0x7f) return String.fromCharCode(code);
	if (code === 2 || code === 0xfffe) return '-';
	if (code < 0x20 || code > 0x10ffff || (code >= 0xd800 && code <= 0xdfff)) return '';
	const letter = String.fromCodePoint(code);
	if (/[\u00ad\u200b\ufeff]/u.test(letter)) return '';
	return DRAWN_FORM.test(letter) ? letter.normalize('NFKC') : letter;
}

/** The usual case, told without asking for the direction: level text from left to right. */
function followsPlainly({ last, tall }: Open, box: Box): boolean {
	const gap = box.left - last.right;
	// letters that are set as one sign ("ffi") share its box
	if (isSameBox(box, last)) return true;
	return (
		gap > -0.35 * (last.right - last.left) - 0.5 &&
		gap < allowed(Math.max(tall, box.top - box.bottom)) &&
		box.bottom <= last.top + 0.1 * tall &&
		box.top >= last.bottom - 0.1 * tall
	);
}

function isSameBox(a: Box, b: Box): boolean {
	return a.left === b.left && a.right === b.right && a.bottom === b.bottom && a.top === b.top;
}

/** A small figure that stands higher or lower than the letter beside it: the mark of a footnote, an index. */
function isRaised({ text, last, tall }: Open, box: Box, letter: string): boolean {
	const before = text[text.length - 1] ?? '';
	const [high, wasHigh] = [box.top - box.bottom, last.top - last.bottom];
	const off = Math.abs(box.bottom - last.bottom) > 0.22 * Math.max(tall, high);
	if (!off) return false;
	if (isFigure(letter)) return /\p{L}/u.test(before) && !HANGING.test(before) && high < 0.85 * tall;
	return isFigure(before) && /\p{L}/u.test(letter) && !HANGING.test(letter) && wasHigh < 0.85 * high;
}

const isFigure = (letter: string): boolean => letter >= '0' && letter <= '9';
const HANGING = /[gjpqyçşţ,;]/;

/** PDFium writes a space where a gap is meant as one; what is left may be as wide as this. */
const allowed = (tall: number): number => 0.3 * (tall + 4);

function follows(
	word: Open,
	box: Box,
	letter: string,
	blank: 'none' | 'unlikely' | 'likely',
	was: [number, number],
	now: [number, number]
): boolean {
	if (was[0] * now[0] + was[1] * now[1] < 0.97) return false;
	const whole = along(word, now);
	const before = along(word.last, now);
	const next = along(box, now);
	const tall = Math.max(before.high - before.low, next.high - next.low);
	if (FROM_RIGHT.test(letter) && FROM_RIGHT.test(word.text)) {
		// letters are often drawn in parts, of which only the dots carry the letter: blanks tell words apart, hardly gaps
		const high = Math.max(whole.high - whole.low, tall);
		const back = whole.from - next.to;
		const level = next.low < whole.high + 0.5 * high && next.high > whole.low - 0.5 * high;
		return level && back < (blank === 'likely' ? 0.2 : 0.7) * high && back > -3 * high;
	}
	if (blank !== 'none' && next.from - before.to > most(word, tall, blank, now)) return false;
	if (next.low <= before.high + 0.1 * tall && next.high >= before.low - 0.1 * tall) {
		// marks over a letter stand within it
		if (/\p{M}/u.test(letter)) return next.from < before.to + 1 && next.to > before.from - 1;
		const onward = next.from - before.to;
		if (onward > -0.35 * (before.to - before.from) - 0.5 && onward < allowed(tall)) return true;
		// what has no direction of its own goes on in that of the line
		const back = before.from - next.to;
		const fromRight = !FROM_LEFT.test(letter) && !FROM_LEFT.test(word.text);
		return fromRight && back > -0.5 * (before.to - before.from) - 1.5 && back < allowed(tall);
	}
	// set in columns from top to bottom
	const below = before.low - next.high;
	return (
		IDEOGRAPH.test(letter) &&
		IDEOGRAPH.test(word.text) &&
		Math.abs(before.from + before.to - next.from - next.to) < tall &&
		below > -0.3 * tall &&
		below < 0.6 * tall
	);
}

/**
 * How wide a gap may be that PDFium takes for a blank and that is within a word all the same: no wider than those between
 * the letters before it, where these are set wide; hardly wider than none otherwise. In turned text it often errs.
 */
function most({ widest }: Open, tall: number, blank: 'unlikely' | 'likely', [x]: [number, number]): number {
	if (widest > WIDE * tall) return 1.4 * widest;
	if (blank === 'likely') return 0.1 * tall;
	return Math.abs(x) > 0.9 ? 0.25 * tall : allowed(tall);
}

/** A box as seen along a direction: from where to where, and how low and high. */
function along({ left, right, bottom, top }: Box, [x, y]: [number, number]) {
	const corners = [left * x + bottom * y, left * x + top * y, right * x + bottom * y, right * x + top * y];
	const across = [bottom * x - left * y, top * x - left * y, bottom * x - right * y, top * x - right * y];
	return {
		from: Math.min(...corners),
		to: Math.max(...corners),
		low: Math.min(...across),
		high: Math.max(...across)
	};
}

function grown(word: Open, letter: string, box: Box, at: number): Open {
	const sameSign = isSameBox(word.last, box);
	word.sign = sameSign ? word.sign + 1 : 1;
	// PDFium turns right-to-left lines round letter by letter, also those that are set as one sign
	const before =
		sameSign && FROM_RIGHT.test(letter) ? word.text.length - (word.sign - 1) * letter.length : word.text.length;
	word.text = word.text.slice(0, before) + letter + word.text.slice(before);
	word.widest = Math.max(word.widest, box.left - word.last.right);
	word.left = Math.min(word.left, box.left);
	word.right = Math.max(word.right, box.right);
	word.bottom = Math.min(word.bottom, box.bottom);
	word.top = Math.max(word.top, box.top);
	word.tall = Math.max(word.tall, box.top - box.bottom);
	// a mark over a letter is not where the next one goes on from
	if (letter < '\u0300' || !/\p{M}/u.test(letter)) {
		word.last = box;
		word.at = at;
	}
	return word;
}

function printed(word: Open): Piece {
	return {
		widest: word.widest,
		loose: word.loose,
		text: word.text,
		x: round(word.left),
		y: round(word.bottom),
		width: round(word.right - word.left),
		height: round(word.top - word.bottom)
	};
}
