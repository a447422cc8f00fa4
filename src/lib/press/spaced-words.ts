import type { PrintedWord } from '../core/page';

/** A finished word, with what tells whether it is a piece of one that is set wide. */
export type Piece = PrintedWord & { widest: number; loose: boolean };

/** Letters and figures that are written from left to right. */
export const FROM_LEFT =
	/[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Nd}]/u;
/** Gaps between letters wider than this share of their height are set wide. */
export const WIDE = 0.14;

/** So many pieces in a row that only gaps tell apart may be words set wide. */
const LEAST_SPACED = 4;

/** Words that are set with wide spaces between their letters, put together: even gaps are within a word, wider ones between two. */
export function unspaced(pieces: Piece[]): PrintedWord[] {
	const all: PrintedWord[] = [];
	const plain = ({ text, x, y, width, height }: Piece): PrintedWord => ({ text, x, y, width, height });
	for (let i = 0; i < pieces.length;) {
		let to = i + 1;
		while (to < pieces.length && isSpacedAfter(pieces[to - 1]!, pieces[to]!)) to += 1;
		all.push(...(to - i >= LEAST_SPACED ? togetherOf(pieces.slice(i, to)) : pieces.slice(i, to)).map(plain));
		i = to;
	}
	return all;
}

/** Whether a piece may go on with the one before: short, on its line, behind a gap and no printed blank, or single letters. */
function isSpacedAfter(before: Piece, piece: Piece): boolean {
	if (before.text.length > 24 || piece.text.length > 24) return false;
	const single = (one: Piece) => one.text.length <= 2 && /^\p{L}\p{M}*$/u.test(one.text);
	if (!piece.loose && !(single(before) && single(piece))) return false;
	if (!FROM_LEFT.test(before.text) || !FROM_LEFT.test(piece.text)) return false;
	const tall = Math.max(piece.height, before.height);
	const gap = piece.x - before.x - before.width;
	return Math.abs(piece.y - before.y) < 0.4 * tall && gap > 0 && gap < 3 * tall;
}

function togetherOf(pieces: Piece[]): Piece[] {
	const gapBefore = (i: number) => pieces[i]!.x - pieces[i - 1]!.x - pieces[i - 1]!.width;
	const gaps = pieces.slice(1).map((_, i) => gapBefore(i + 1));
	const tall = Math.max(...pieces.map((one) => one.height));
	const within = middle(pieces.filter((one) => one.text.length > 1).map((one) => one.widest));
	const single = pieces.every((one) => [...one.text].length === 1);
	// letters that stand close in their words are not set wide: their gaps are blanks
	if (!single && within < WIDE * tall) return pieces;
	const usual = single ? [...gaps].sort((a, b) => a - b)[Math.floor(gaps.length / 3)]! : within;
	const most = single ? 1.7 * usual + 1 : 1.5 * usual + 0.3;
	const words: Piece[] = [];
	pieces.forEach((piece, i) => {
		const word = words[words.length - 1];
		if (!word || gapBefore(i) > most) words.push({ ...piece });
		else {
			word.text += piece.text;
			word.width = round(piece.x + piece.width - word.x);
			word.height = round(Math.max(word.y + word.height, piece.y + piece.height) - Math.min(word.y, piece.y));
			word.y = Math.min(word.y, piece.y);
		}
	});
	// what falls apart again was no word set wide, but letters that stand by themselves
	return !single || words.every((word) => [...word.text].length > 1) ? words : pieces;
}

function middle(numbers: number[]): number {
	return [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)] ?? 0;
}

/** To the hundredth of a point. */
export function round(points: number): number {
	return Math.round(points * 100) / 100;
}
