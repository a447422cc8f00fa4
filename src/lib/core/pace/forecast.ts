import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { expected, FEW, type Alike, type Expected } from './likeness';

/** A stop that is open, or still to come. */
export interface StopAhead {
	/** somebody's each, with waits like it: the narrowest kind first, the whole office last */
	parts: readonly (readonly Alike[])[];
	/** one of them is enough */
	anyOne?: boolean;
	/** how often it was opened where it could be: 1 where its rule is sure to hold, or it has none */
	opens: number;
}

/** Days from now between which something will be: five and ninety-five of a hundred, a quarter and three quarters, and the middle. */
export interface Spread {
	early: number | null;
	quarter: number | null;
	middle: number | null;
	threeQuarters: number | null;
	/** null: later than anything that the records hold */
	late: number | null;
}

export interface Forecast {
	/** how many of its own kind it rests on: of the stop that has the fewest */
	restsOn: number;
	/** so few, also of the whole office, that nothing can be said */
	tooFew: boolean;
	/** when each stop will be over, if it gets so far; null where it is not sure to open */
	stops: (Spread | null)[];
	/** when all of it will be done, if it is */
	whole: Spread;
	/** of a hundred cases like this, the share that is declined or withdrawn */
	endsBadly: number;
	/** the share that is not done by its last day; null where it has none */
	late: number | null;
	/** the days after which each case was done, in order; those that ended badly are not among them */
	cases: readonly number[];
}

const CASES = 1000;
/** the same forecast from the same records, always */
const SEED = 20_26;

/**
 * When a packet will be done: its stops one after the other, drawn {@link CASES} times from waits like theirs.
 * @param stops those that are not over, in their order; the first is the one that is open
 * @param limit days until its last moment, null where it has none
 */
export function forecast(stops: readonly StopAhead[], limit: number | null): Forecast {
	const ahead = stops.map(({ parts, ...stop }) => ({
		...stop,
		parts: parts.map(expected)
	}));
	const all = ahead.flatMap((stop) => stop.parts);
	const random = xoroshiro128plus(SEED);
	const next = () => (random.next() >>> 0) / 2 ** 32;
	const ends: number[][] = ahead.map(() => []);
	const whole: number[] = [];
	let bad = 0;
	let late = 0;
	for (let i = 0; i < CASES; i++) {
		let days = 0;
		let fine = true;
		for (const [s, stop] of ahead.entries()) {
			if (next() >= stop.opens) continue;
			const took = runStop(stop, next);
			fine = took !== null;
			if (took === null) break;
			days += took;
			ends[s]!.push(days);
		}
		if (!fine) bad += 1;
		else whole.push(days);
		if (limit !== null && (!fine || days > limit)) late += 1;
	}
	return {
		restsOn: all.length === 0 ? 0 : Math.min(...all.map((one) => one.restsOn)),
		tooFew: all.some((one) => one.atMost < FEW),
		stops: ahead.map((stop, s) => (stop.opens < 1 ? null : spreadOf(ends[s]!))),
		whole: spreadOf(whole),
		endsBadly: bad / CASES,
		late: limit === null ? null : late / CASES,
		cases: whole.sort((a, b) => a - b)
	};
}

/** One case of a stop, in days: all of its parts, or the first of them; whoever declines ends it (null), unless another can do it. */
function runStop(stop: { parts: readonly Expected[]; anyOne?: boolean }, next: () => number): number | null {
	let first = Infinity;
	let last = 0;
	let good = 0;
	for (const part of stop.parts) {
		const { days, end } = part.draw(next(), next());
		if (end !== 'done') continue;
		good += 1;
		first = Math.min(first, days);
		last = Math.max(last, days);
	}
	if (stop.anyOne) return good > 0 ? first : null;
	return good === stop.parts.length ? last : null;
}

function spreadOf(days: number[]): Spread {
	const sorted = days.toSorted((a, b) => a - b);
	const at = (share: number): number | null => {
		const value = sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
		return value === undefined || value === Infinity ? null : value;
	};
	return { early: at(0.05), quarter: at(0.25), middle: at(0.5), threeQuarters: at(0.75), late: at(0.95) };
}
