import { folded } from '../folded';
import { fitted, projected, projection, whole, type Projection, type Spot } from '../picture';
import type { ReadWordAt, SheetWord } from './sheet';

/** The words of a picture laid over those of a page: pairs that agree on where the page lies, whatever else was misread. */

export interface Matched {
	/** takes a place on the page (points, as shown) to one in the picture (pixels) */
	way: Projection;
	/** of the page's words that could be told, how many were found where they should be, from 0 to 1 */
	share: number;
	/** how many that are */
	found: number;
}

interface Pair {
	from: Spot;
	to: Spot;
	word: number;
	/** how high the word stands in the picture, in pixels */
	tall: number;
}

/** Words shorter than this stand everywhere. */
const SHORTEST = 3;
/** A word that stands more often than this on either side says little. */
const OFTEN = 6;
const ROUNDS = 400;
/** How far off a known place may lie by the words alone, as a share of the picture. */
const FAR = 0.08;
/** And by all together. */
const FITS = 0.012;
/** So many pairs that agree say where the page lies. */
export const ENOUGH = 6;

/** Letters and numbers alone: a point at a word's end is the first thing to be misread. */
export const bare = (text: string): string => folded(text).replace(/[^\p{L}\p{N}]/gu, '');

const middle = ({ left, top, width, height }: SheetWord): Spot => ({ x: left + width / 2, y: top + height / 2 });

/** A place on the page and in the picture that is known otherwise: a corner of the code, or of the sheet. */
export type Known = readonly [Spot, Spot];

/**
 * Where a page lies in a picture, by their words; null where too few agree. Made by chance that is the same each time.
 * @param known places that must fit as well as words do, so that it holds also where no words stand
 */
export function matchWords(
	printed: readonly SheetWord[],
	read: readonly ReadWordAt[],
	known: readonly Known[] = []
): Matched | null {
	const pairs = pairsOf(printed, read);
	const telling = printed.filter((word) => bare(word.text).length >= SHORTEST).length;
	if (pairs.length < ENOUGH || telling < ENOUGH) return byKnown(pairs, known, telling);
	const rough = roughWay(pairs);
	if (!rough) return byKnown(pairs, known, telling);
	let way: Projection = rough;
	for (const off of [1.6, 1, 0.8]) {
		const words = agreeing(pairs, way, off).map(({ from, to }): Known => [from, to]);
		const better = words.length >= ENOUGH ? fittedWith(words, known, way, read) : null;
		if (!better) return byKnown(pairs, known, telling);
		way = better;
	}
	// words that stand everywhere say nothing of where the page lies, and as much as others of what stands on it
	const found = agreeing(pairsOf(printed, read, Infinity), way, 0.8).length;
	return found < ENOUGH ? byKnown(pairs, known, telling) : { way, found, share: found / telling };
}

/** A page with next to no words lies where its code says, and the few words it has must be near that. */
function byKnown(pairs: Pair[], known: readonly Known[], telling: number): Matched | null {
	const plain = plainFit(known);
	if (!plain) return null;
	const near = agreeing(pairs, plain, 6);
	const way = near.length >= 2 ? fitted([...near.map(({ from, to }): Known => [from, to]), ...known]) : plain;
	return way && { way, found: near.length, share: telling === 0 ? 1 : near.length / telling };
}

/** The plain way (turned, moved, made larger or smaller) that fits best. */
function plainFit(known: readonly Known[]): Projection | null {
	const n = known.length;
	if (n < 4) return null;
	const mean = (of: (one: Known) => number) => known.reduce((sum, one) => sum + of(one), 0) / n;
	const [x, y] = [mean(([from]) => from.x), mean(([from]) => from.y)];
	const [u, v] = [mean(([, to]) => to.x), mean(([, to]) => to.y)];
	let [square, dot, cross] = [0, 0, 0];
	for (const [from, to] of known) {
		const [a, b, c, d] = [from.x - x, from.y - y, to.x - u, to.y - v];
		square += a * a + b * b;
		dot += a * c + b * d;
		cross += a * d - b * c;
	}
	return square < 1e-6 ? null : plainFrom(dot / square, cross / square, { x, y }, { x: u, y: v });
}

/**
 * Words, and of what is known otherwise all that lies about where the words put it, so far or alone, and still does once all is
 * fitted: a folded corner does not.
 */
function fittedWith(
	words: readonly Known[],
	known: readonly Known[],
	far: Projection,
	read: readonly ReadWordAt[]
): Projection | null {
	const size = Math.max(...read.map((word) => Math.max(word.left + word.width, word.top + word.height)));
	const near = (way: Projection | null, [from, to]: Known, off: number): boolean => {
		if (!way) return false;
		const at = projected(way, from);
		return Math.hypot(at.x - to.x, at.y - to.y) < off * size;
	};
	const alone = fitted(words);
	let sure = known.filter((one) => near(far, one, FAR) || near(alone, one, FAR));
	for (;;) {
		const way = fitted([...words, ...sure]);
		const held = sure.filter((one) => near(way, one, FITS));
		if (held.length === sure.length) return way;
		sure = held;
	}
}

function pairsOf(printed: readonly SheetWord[], read: readonly ReadWordAt[], often = OFTEN): Pair[] {
	const byText = new Map<string, ReadWordAt[]>();
	for (const word of read) {
		const text = bare(word.text);
		if (text.length >= SHORTEST) byText.set(text, [...(byText.get(text) ?? []), word]);
	}
	const times = new Map<string, number>();
	for (const word of printed) times.set(bare(word.text), (times.get(bare(word.text)) ?? 0) + 1);
	return printed.flatMap((word, i) => {
		const same = byText.get(bare(word.text)) ?? [];
		if (same.length > often || times.get(bare(word.text))! > often) return [];
		return same.map((other) => ({
			from: middle(word),
			to: middle(other),
			word: i,
			tall: Math.min(other.height, other.width)
		}));
	});
}

/** Pairs that a way takes to where they are, but for so many of their own heights; of several, the nearest. */
function agreeing(pairs: Pair[], way: Projection, off: number): Pair[] {
	const best = new Map<number, { pair: Pair; far: number }>();
	for (const pair of pairs) {
		const at = projected(way, pair.from);
		const far = Math.hypot(at.x - pair.to.x, at.y - pair.to.y);
		if (far > off * Math.max(6, pair.tall)) continue;
		const there = best.get(pair.word);
		if (!there || far < there.far) best.set(pair.word, { pair, far });
	}
	return [...best.values()].map((one) => one.pair);
}

/** The plain way (turned, moved, made larger or smaller) on which most pairs agree: two pairs say one, tried by chance. */
function roughWay(pairs: Pair[]): Projection | null {
	let seed = 7;
	const next = (below: number) => {
		seed = (Math.imul(seed, 1_103_515_245) + 12_345) & 0x7fffffff;
		return seed % below;
	};
	let best: { way: Projection; agree: number } | null = null;
	for (let i = 0; i < ROUNDS; i++) {
		const [one, other] = [pairs[next(pairs.length)]!, pairs[next(pairs.length)]!];
		const way = plainWay(one, other);
		if (!way) continue;
		const agree = agreeing(pairs, way, 2.5).length;
		if (!best || agree > best.agree) best = { way, agree };
	}
	return best && best.agree >= ENOUGH ? best.way : null;
}

function plainWay(one: Pair, other: Pair): Projection | null {
	const [x, y] = [other.from.x - one.from.x, other.from.y - one.from.y];
	const [u, v] = [other.to.x - one.to.x, other.to.y - one.to.y];
	const square = x * x + y * y;
	// two words side by side say little of a page
	if (square < 60 * 60) return null;
	return plainFrom((u * x + v * y) / square, (v * x - u * y) / square, one.from, one.to);
}

/** Turned and made larger or smaller round one place, which lies at another one. */
function plainFrom(cos: number, sin: number, from: Spot, to: Spot): Projection | null {
	const square = whole({ width: 100, height: 100 });
	const turned = ({ x, y }: Spot): Spot => ({
		x: to.x + cos * (x - from.x) - sin * (y - from.y),
		y: to.y + sin * (x - from.x) + cos * (y - from.y)
	});
	const [a, b, c, d] = square;
	return projection(square, [turned(a), turned(b), turned(c), turned(d)]);
}
