import { bare } from './stream';

/** How well a document agrees with a known one. */
export interface Likeness {
	id: string;
	/** how much of what sets the known one apart is found here, 0 to 1 */
	share: number;
	/** the same with how much of what is known here the known one accounts for: what they are ranked by, 0 to 1 */
	rank: number;
	/** over how much of the known one what is found is spread, 0 to 1: parts that were borrowed stand together */
	spread: number;
}

/** Below the first it is none of them, below the second a person is asked. */
export const LIKENESS = { none: 0.2, ask: 0.4, apart: 0.08, spread: 0.6 };

/** A document is looked at in so many parts to see where what is found stands; a part that has this share counts. */
const PARTS = 12;
const FOUND_IN_PART = 0.08;

/** What to make of the best answers: take the first, ask which, or none of them. */
export type Verdict = 'sure' | 'ask' | 'none';

const RUN = 3;

/**
 * Knows documents by their words alone: runs of three words, each weighing the more the fewer documents have it. How like
 * a known one is, is how much of it is found in the one asked about, so parts added don't count against it; which of
 * several is the likest also goes by how much of what is asked about it explains, or short ones would be found everywhere.
 */
export class Recogniser {
	/** runs by number: which documents have them */
	private readonly holders = new Map<number, number[]>();
	private readonly ids: string[] = [];
	private readonly runs: Int32Array[] = [];
	/** what all runs of a document weigh together; null: to be counted anew */
	private whole: Float64Array | null = null;

	/** Takes a document up under an id; the one it had before is forgotten. */
	add(id: string, words: readonly string[]): void {
		this.remove((known) => known === id);
		const index = this.ids.push(id) - 1;
		const runs = Int32Array.from(runsOf(words));
		this.runs.push(runs);
		for (const run of runs) {
			const holders = this.holders.get(run);
			if (holders) holders.push(index);
			else this.holders.set(run, [index]);
		}
		this.whole = null;
	}

	/** Forgets the documents whose ids are meant; the others need not be read again. */
	remove(meant: (id: string) => boolean): void {
		this.ids.forEach((id, index) => {
			if (id === '' || !meant(id)) return;
			for (const run of this.runs[index]!) {
				const left = this.holders.get(run)!.filter((holder) => holder !== index);
				if (left.length > 0) this.holders.set(run, left);
				else this.holders.delete(run);
			}
			this.runs[index] = new Int32Array(0);
			this.ids[index] = '';
		});
		this.whole = null;
	}

	/** The most alike, best first, at most `most`. A document of fewer than three words is like none. */
	ask(words: readonly string[], most = 5): Likeness[] {
		const whole = (this.whole ??= this.weigh());
		const found = new Float64Array(this.ids.length);
		let known = 0;
		const asked = runsOf(words);
		for (const run of asked) {
			const holders = this.holders.get(run);
			if (!holders) continue;
			const weight = this.weight(holders.length);
			known += weight;
			for (const holder of holders) found[holder]! += weight;
		}
		return this.ids
			.map((id, i) => ({ id, i, share: whole[i] === 0 ? 0 : found[i]! / whole[i]! }))
			.filter((one) => one.share > 0.05)
			.map(({ id, i, share }) => ({ id, i, share, rank: Math.sqrt((share * found[i]!) / known) }))
			.sort((a, b) => b.rank - a.rank)
			.slice(0, most)
			.map(({ id, i, share, rank }) => ({ id, share, rank, spread: spreadOf(this.runs[i]!, asked) }));
	}

	private weigh(): Float64Array {
		return Float64Array.from(this.runs, (runs) =>
			runs.reduce((sum, run) => sum + this.weight(this.holders.get(run)!.length), 0)
		);
	}

	private weight(holders: number): number {
		return Math.log(1 + this.ids.length / holders);
	}
}

/** What the answers come to. */
export function verdictOf(answers: readonly Likeness[]): Verdict {
	const [first, second] = answers;
	if (!first || first.share < LIKENESS.none) return 'none';
	const close = second !== undefined && first.rank - second.rank < LIKENESS.apart;
	return first.share < LIKENESS.ask || first.spread < LIKENESS.spread || close ? 'ask' : 'sure';
}

/** In how many of a document's parts something of what was asked about stands, as a share. */
function spreadOf(runs: Int32Array, asked: Set<number>): number {
	const parts = Math.max(1, Math.min(PARTS, Math.floor(runs.length / 8)));
	let told = 0;
	for (let part = 0; part < parts; part++) {
		const [from, to] = [Math.floor((part * runs.length) / parts), Math.floor(((part + 1) * runs.length) / parts)];
		let found = 0;
		for (let i = from; i < to; i++) if (asked.has(runs[i]!)) found += 1;
		if (found >= FOUND_IN_PART * (to - from) && found > 0) told += 1;
	}
	return told / parts;
}

/** The different runs of three words of a text, as numbers (FNV-1a, 32 bits). */
function runsOf(words: readonly string[]): Set<number> {
	const plain = words.map(bare).filter((word) => word !== '');
	const runs = new Set<number>();
	for (let i = 0; i + RUN <= plain.length; i++) {
		let hash = 0x811c9dc5;
		for (let k = i; k < i + RUN; k++) {
			const word = plain[k]!;
			for (let c = 0; c < word.length; c++) hash = Math.imul(hash ^ word.charCodeAt(c), 0x01000193);
			hash = Math.imul(hash ^ 0x20, 0x01000193);
		}
		runs.add(hash);
	}
	return runs;
}
