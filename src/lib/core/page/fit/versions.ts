import { matchWords, numbered, onceInBoth, type WordMatch } from './word-match';
import type { Stream } from './stream';

/** Two versions of a document, and which word of the one is which word of the other. */
export class Versions {
	private readonly match: WordMatch;
	/** for each word that begins a run of three which stands once on either side: where that run begins there */
	private readonly unique: Int32Array;
	/** for each page of the old one: the page of the new one on which most of its words are, or -1 */
	readonly pageOf: number[];
	/** the share of a page's words that are on that page, 0 to 1 */
	readonly pageShare: number[];
	private readonly words: { a: Int32Array; b: Int32Array };
	private counted: [Int32Array, Int32Array] | undefined;

	constructor(
		readonly old: Stream,
		readonly next: Stream
	) {
		this.words = numbered(
			old.tokens.map((t) => t.text),
			next.tokens.map((t) => t.text)
		);
		this.match = matchWords(this.words);
		this.unique = new Int32Array(old.tokens.length).fill(-1);
		const { a, b } = this.words;
		const runs = onceInBoth(a, 0, a.length, b, 0, b.length, 3);
		for (let i = 0; i < runs.length; i += 2) this.unique[runs[i]!] = runs[i + 1]!;
		const pages = old.pages.map((_, page) => this.mostly(page));
		this.pageOf = pages.map(({ page }) => page);
		this.pageShare = pages.map(({ share }) => share);
	}

	/** Where a word of the old text is in the new one; -1 where it is gone. A section that moved is found by its runs. */
	to(token: number): number {
		const there = this.match[token]!;
		return there >= 0 ? there : this.byRun(token);
	}

	/** Whether the runs of three that hold this word stand elsewhere than the word was matched to. */
	disputed(token: number): boolean {
		const there = this.match[token]!;
		const run = this.byRun(token);
		return there >= 0 && run >= 0 && run !== there;
	}

	/** Whether this word stands in a run of three that is there once on either side, at the place it was matched to. */
	certain(token: number): boolean {
		const run = this.byRun(token);
		return run >= 0 && (this.match[token]! < 0 || this.match[token] === run);
	}

	/** Share of the words round this one that are still round it in the new text, 0 to 1. */
	context(token: number, reach = 6): number {
		const centre = this.to(token);
		if (centre < 0) return 0;
		let [seen, kept] = [0, 0];
		const end = Math.min(this.old.tokens.length - 1, token + reach);
		for (let i = Math.max(0, token - reach); i <= end; i++) {
			if (i === token) continue;
			seen++;
			const there = this.to(i);
			if (there >= 0 && Math.abs(there - centre) <= reach * 2) kept++;
		}
		return seen === 0 ? 1 : kept / seen;
	}

	/** Share of the old text's words that the new one still has, 0 to 1; 0 where there are no words. */
	get alike(): number {
		return this.match.length === 0 ? 0 : this.match.reduce((n, to) => n + (to >= 0 ? 1 : 0), 0) / this.match.length;
	}

	/** Indexes of the new text's words that the old one has not, and of the old one's that are gone. */
	differing(): { added: number[]; gone: number[] } {
		const known = new Uint8Array(this.next.tokens.length);
		const gone: number[] = [];
		for (let i = 0; i < this.match.length; i++) {
			const there = this.to(i);
			if (there >= 0) known[there] = 1;
			else gone.push(i);
		}
		const added: number[] = [];
		for (let i = 0; i < known.length; i++) if (known[i] === 0) added.push(i);
		return { added, gone };
	}

	/** How often this word stands in the old text, and in the new one. */
	counts(token: number): [number, number] {
		const word = this.words.a[token]!;
		this.counted ??= [countsOf(this.words.a), countsOf(this.words.b)];
		return [this.counted[0][word] ?? 0, this.counted[1][word] ?? 0];
	}

	private byRun(token: number): number {
		for (let back = 0; back < 3; back++) {
			const there = token - back >= 0 ? this.unique[token - back]! : -1;
			if (there >= 0) return there + back;
		}
		return -1;
	}

	private mostly(page: number): { page: number; share: number } {
		const votes = new Int32Array(this.next.pages.length);
		const [from, to] = [this.old.starts[page]!, this.old.starts[page + 1]!];
		for (let i = from; i < to; i++) {
			const there = this.match[i]!;
			if (there >= 0) votes[this.next.tokens[there]!.page]!++;
		}
		const most = votes.reduce((best, n, at) => (n > votes[best]! ? at : best), 0);
		return votes[most]! > 0 ? { page: most, share: votes[most]! / (to - from) } : { page: -1, share: 0 };
	}
}

function countsOf(words: Int32Array): Int32Array {
	const counts = new Int32Array(words.reduce((most, word) => Math.max(most, word), 0) + 1);
	for (const word of words) counts[word]!++;
	return counts;
}
