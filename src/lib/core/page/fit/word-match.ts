/**
 * Which word of one version of a text is which word of another. Runs of words that stand once in both are matched first
 * (patience), longest runs before shorter ones; what lies between is matched by the fewest insertions and deletions
 * (Myers 1986), where it is short enough for that to mean something.
 */
export type WordMatch = Int32Array;

/** Longest stretch, both sides together, that is compared word by word. */
const SHORT = 1200;

/** For each word of `a` the index of its like in `b`, or -1. Matches never cross. The texts come {@link numbered}. */
export function matchWords({ a, b }: { a: Int32Array; b: Int32Array }): WordMatch {
	const to = new Int32Array(a.length).fill(-1);
	// stretches still to be matched: from and end on both sides
	const open: [number, number, number, number][] = [[0, a.length, 0, b.length]];
	while (open.length > 0) {
		let [a0, a1, b0, b1] = open.pop()!;
		while (a0 < a1 && b0 < b1 && a[a0] === b[b0]) to[a0++] = b0++;
		while (a0 < a1 && b0 < b1 && a[a1 - 1] === b[b1 - 1]) to[--a1] = --b1;
		if (a0 === a1 || b0 === b1) continue;
		const anchors = anchorsIn(a, a0, a1, b, b0, b1);
		if (anchors.length === 0) {
			if (a1 - a0 + (b1 - b0) <= SHORT)
				shortest(a.subarray(a0, a1), b.subarray(b0, b1), (x, y) => (to[a0 + x] = b0 + y));
			continue;
		}
		let [pa, pb] = [a0, b0];
		for (let i = 0; i < anchors.length; i += 2) {
			const [at, there] = [anchors[i]!, anchors[i + 1]!];
			if (at > pa && there > pb) open.push([pa, at, pb, there]);
			to[at] = there;
			[pa, pb] = [at + 1, there + 1];
		}
		open.push([pa, a1, pb, b1]);
	}
	return to;
}

/** Both texts as numbers, the same number for the same word, so that runs are compared without making strings of them. */
export function numbered(before: readonly string[], after: readonly string[]): { a: Int32Array; b: Int32Array } {
	const numbers = new Map<string, number>();
	const number = (word: string) => {
		const known = numbers.get(word);
		if (known !== undefined) return known;
		numbers.set(word, numbers.size);
		return numbers.size - 1;
	};
	return { a: Int32Array.from(before, number), b: Int32Array.from(after, number) };
}

/** Pairs of places where a run begins that stands once on either side, in an order that rises on both. */
function anchorsIn(a: Int32Array, a0: number, a1: number, b: Int32Array, b0: number, b1: number): number[] {
	for (const length of [4, 3, 2, 1]) {
		const pairs = onceInBoth(a, a0, a1, b, b0, b1, length);
		if (pairs.length > 0) return rising(pairs);
	}
	return [];
}

/** Where runs of `length` words begin that stand once on either side: here, there, here, there …, rising on the first side. */
export function onceInBoth(
	a: Int32Array,
	a0: number,
	a1: number,
	b: Int32Array,
	b0: number,
	b1: number,
	length: number
): number[] {
	const there = new Runs(b, b0, b1, length);
	const here = new Runs(a, a0, a1, length);
	const pairs: number[] = [];
	for (let at = a0; at + length <= a1; at++) {
		const run = here.number(at);
		if (here.once(run) !== at) continue;
		const other = there.once(run);
		// two runs may share a number: then they are no pair
		if (other >= 0 && sameRun(a, at, b, other, length)) pairs.push(at, other);
	}
	return pairs;
}

function sameRun(a: Int32Array, i: number, b: Int32Array, j: number, length: number): boolean {
	for (let k = 0; k < length; k++) if (a[i + k] !== b[j + k]) return false;
	return true;
}

const SEVERAL = -2;

/**
 * The runs of `length` words of a text, and which of them stand once. A table in flat arrays, probed one after the other:
 * a document of 300 pages has 150,000 runs, and a Map of them costs more than all the rest of matching.
 */
class Runs {
	private readonly mask: number;
	private readonly numbers: Int32Array;
	/** where the run begins; -1: the place is free; SEVERAL */
	private readonly begins: Int32Array;

	constructor(
		private readonly words: Int32Array,
		from: number,
		end: number,
		private readonly length: number
	) {
		let size = 16;
		while (size < (end - from) * 2) size *= 2;
		this.mask = size - 1;
		this.numbers = new Int32Array(size);
		this.begins = new Int32Array(size).fill(-1);
		for (let i = from; i + length <= end; i++) {
			const run = this.number(i);
			const place = this.place(run);
			this.begins[place] = this.begins[place] === -1 ? i : SEVERAL;
			this.numbers[place] = run;
		}
	}

	/** One number for the run that begins here (FNV-1a over words instead of bytes). */
	number(at: number): number {
		let run = 0x811c9dc5 | 0;
		for (let k = 0; k < this.length; k++) run = Math.imul(run ^ this.words[at + k]!, 0x01000193);
		return run ^ (run >>> 15);
	}

	/** Where the run with this number begins; below 0 where it does not stand exactly once. */
	once(run: number): number {
		return this.begins[this.place(run)]!;
	}

	private place(run: number): number {
		let place = run & this.mask;
		while (this.begins[place] !== -1 && this.numbers[place] !== run) place = (place + 1) & this.mask;
		return place;
	}
}

/** The longest part of the pairs that rises on the second side as well (Fredman 1975). */
function rising(pairs: number[]): number[] {
	const count = pairs.length / 2;
	const ends = new Int32Array(count);
	let length = 0;
	const before = new Int32Array(count).fill(-1);
	for (let i = 0; i < count; i++) {
		const there = pairs[2 * i + 1]!;
		let low = 0;
		let high = length;
		while (low < high) {
			const middle = (low + high) >> 1;
			if (pairs[2 * ends[middle]! + 1]! < there) low = middle + 1;
			else high = middle;
		}
		before[i] = low > 0 ? ends[low - 1]! : -1;
		ends[low] = i;
		if (low === length) length++;
	}
	const chain = new Array<number>(length * 2);
	for (let i = length > 0 ? ends[length - 1]! : -1, n = length - 1; i >= 0; i = before[i]!, n--) {
		chain[2 * n] = pairs[2 * i]!;
		chain[2 * n + 1] = pairs[2 * i + 1]!;
	}
	return chain;
}

/** Matches a short stretch by the fewest insertions and deletions. */
function shortest(a: Int32Array, b: Int32Array, alike: (x: number, y: number) => void): void {
	const [n, m] = [a.length, b.length];
	const most = n + m;
	const reach = new Int32Array(2 * most + 2);
	const steps: Int32Array[] = [];
	for (let d = 0; d <= most; d++) {
		// only the diagonals in use are remembered: 2d + 1 of them
		steps.push(reach.slice(most - d, most + d + 1));
		for (let k = -d; k <= d; k += 2) {
			const down = k === -d || (k !== d && reach[most + k - 1]! < reach[most + k + 1]!);
			let x = down ? reach[most + k + 1]! : reach[most + k - 1]! + 1;
			let y = x - k;
			while (x < n && y < m && a[x] === b[y]) [x, y] = [x + 1, y + 1];
			reach[most + k] = x;
			if (x >= n && y >= m) return walkBack(steps, n, m, alike);
		}
	}
}

/** Goes the way of {@link shortest} backwards and names each pair of words that are alike. */
function walkBack(steps: Int32Array[], n: number, m: number, alike: (x: number, y: number) => void): void {
	let [x, y] = [n, m];
	for (let d = steps.length - 1; d >= 0; d--) {
		const reach = steps[d]!;
		const at = (k: number) => reach[k + d] ?? 0;
		const k = x - y;
		const from = k === -d || (k !== d && at(k - 1) < at(k + 1)) ? k + 1 : k - 1;
		const px = d === 0 ? 0 : at(from);
		const py = d === 0 ? 0 : px - from;
		while (x > px && y > py) alike(--x, --y);
		[x, y] = [px, py];
	}
}
