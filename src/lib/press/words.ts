import type { WrappedPdfiumModule } from '@embedpdf/pdfium';
import type { PrintedWord } from '../core/page';
import { heap, type Raw } from './pdfium-memory';

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
}

/** Letters that are written from right to left. */
const FROM_RIGHT = /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u;
/** Letters and figures that are written from left to right. */
const FROM_LEFT =
	/[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Nd}]/u;
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
	const words: PrintedWord[] = [];
	let word: Open | null = null;
	const close = () => {
		if (word) words.push(printed(word));
		word = null;
	};
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
	for (let i = 0; i < count; i++) {
		const code = raw.FPDFText_GetUnicode(text, i);
		if (isBlank(code)) {
			if (word && FROM_RIGHT.test(word.text) && raw.FPDFText_IsGenerated(text, i)) gap = true;
			else close();
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
		if (
			word &&
			(gap || !followsPlainly(word, box)) &&
			!follows(word, box, letter, gap, () => [directionOf(word!.at), directionOf(i)])
		)
			close();
		gap = false;
		word = word ? grown(word, letter, box, i) : { text: letter, ...box, last: box, at: i, tall: box.top - box.bottom };
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
	return (
		gap > -0.35 * (last.right - last.left) - 0.5 &&
		gap < allowed(Math.max(tall, box.top - box.bottom)) &&
		box.bottom <= last.top + 0.1 * tall &&
		box.top >= last.bottom - 0.1 * tall
	);
}

/** PDFium writes a space where a gap is meant as one; what is left may be as wide as this. */
const allowed = (tall: number): number => 0.3 * (tall + 4);

function follows(
	word: Open,
	box: Box,
	letter: string,
	gap: boolean,
	directions: () => [[number, number], [number, number]]
): boolean {
	const [was, now] = directions();
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
		return level && back < (gap ? 0.2 : 0.7) * high && back > -3 * high;
	}
	if (gap) return false;
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
	word.text += letter;
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

/** So many single letters at even distances are words set wide. */
const LEAST_SPACED = 4;

/** Words that are set with wide spaces between their letters, put together: even gaps are within a word, wider ones between two. */
function unspaced(words: PrintedWord[]): PrintedWord[] {
	const all: PrintedWord[] = [];
	for (let i = 0; i < words.length;) {
		let to = i + 1;
		while (to < words.length && isSpacedAfter(words[to - 1]!, words[to]!)) to += 1;
		all.push(...(to - i >= LEAST_SPACED ? togetherOf(words.slice(i, to)) : words.slice(i, to)));
		i = to;
	}
	return all;
}

function isSpacedAfter(before: PrintedWord, word: PrintedWord): boolean {
	if (before.text.length > 2 || word.text.length > 2) return false;
	const single = (one: PrintedWord) => /^\p{L}\p{M}*$/u.test(one.text) && FROM_LEFT.test(one.text);
	const gap = word.x - before.x - before.width;
	const level = Math.abs(word.y - before.y) < 0.4 * Math.max(word.height, before.height);
	return single(before) && single(word) && level && gap > 0 && gap < 3 * Math.max(word.height, before.height);
}

function togetherOf(letters: PrintedWord[]): PrintedWord[] {
	const gapBefore = (i: number) => letters[i]!.x - letters[i - 1]!.x - letters[i - 1]!.width;
	const gaps = letters.slice(1).map((_, i) => gapBefore(i + 1));
	const usual = [...gaps].sort((a, b) => a - b)[Math.floor(gaps.length / 3)]!;
	const words: PrintedWord[] = [];
	letters.forEach((letter, i) => {
		const word = words[words.length - 1];
		if (!word || gapBefore(i) > 1.7 * usual + 1) words.push({ ...letter });
		else {
			word.text += letter.text;
			word.width = round(letter.x + letter.width - word.x);
			word.height = round(Math.max(word.y + word.height, letter.y + letter.height) - Math.min(word.y, letter.y));
			word.y = Math.min(word.y, letter.y);
		}
	});
	// what falls apart again was no word set wide, but letters that stand by themselves
	return words.every((word) => [...word.text].length > 1) ? words : letters;
}

function printed(word: Open): PrintedWord {
	return {
		text: word.text,
		x: round(word.left),
		y: round(word.bottom),
		width: round(word.right - word.left),
		height: round(word.top - word.bottom)
	};
}

function round(points: number): number {
	return Math.round(points * 100) / 100;
}
