import { stepBegins } from './lengths';
import { endedIn, inOrder, type End, type Moment, type Wait } from './waits';

/** Fewer that have ended are too few to say anything from. */
export const FEW = 8;
/** From this share on of what is like it being over, a wait is called unusually long. */
export const UNUSUAL = 0.75;

/** When a wait ends, and how; `days` from now, Infinity: later than any before it, so that nobody can say. */
export interface Drawn {
	days: number;
	end: End;
}

/** How waits of one kind end, ready to be drawn from: the share that is over, from knot to knot as a straight line from 0 on. */
export interface Curve {
	/** in days, in order */
	at: number[];
	/** share over by then; the last one is below 1 */
	over: number[];
	/** what ends before it, after the knot before */
	moments: Moment[];
	/** how that ends, where it always ended alike there */
	sole: (End | null)[];
	ended: number;
}

/**
 * The share that is over. Of n that ended the next one is the longest once in n + 1 times, whatever the law they follow, and the quickest
 * as often; so there is room for one that is longer than all that were seen, and between two of them (and before the first) lies as much
 * as one of them counts. Lengths are counted in steps: what is at the end of one lies somewhere in it.
 *
 * That a time limit ended a wait says only that it would have been longer: this packet has a limit of its own. So 'expired' counts as
 * open until then here, and not in what is shown as how waits end.
 */
export function curveOf(waits: readonly Wait[]): Curve {
	const seen = inOrder(waits.map(unlimited)).filter((moment) => endedIn(moment) > 0);
	const ended = seen.reduce((sum, moment) => sum + endedIn(moment), 0);
	const curve: Curve = { at: [], over: [], moments: [], sole: [], ended };
	let left = 1;
	let before = 0;
	for (const moment of seen) {
		const lower = ((1 - left) * ended) / (ended + 1);
		left *= 1 - endedIn(moment) / moment.atRisk;
		const upper = ((1 - left) * ended) / (ended + 1);
		const begins = Math.max(before, stepBegins(moment.days));
		// the first of those that ended here may have ended at any time since the moment before
		const first = moment.days > before ? (begins - before) / (moment.days - before) : 0;
		const ends = Object.keys(moment.ended) as End[];
		for (const [at, over] of [
			[begins, lower + ((upper - lower) / Math.max(1, endedIn(moment))) * first],
			[moment.days, upper]
		] as const) {
			curve.at.push(at);
			curve.over.push(over);
			curve.moments.push(moment);
			curve.sole.push(ends.length === 1 ? ends[0]! : null);
		}
		before = moment.days;
	}
	return curve;
}

/** What is still to come of waits like these, for one that has lasted a while already. */
export interface Expected {
	/** how many of its own kind have ended: what it rests on first; 0 where it has no kind of its own */
	restsOn: number;
	/** of the kind that has the most */
	atMost: number;
	/** the share of waits like it that were over by now */
	overBy: number;
	/** @param u even between 0 and 1, and a second one for how it ends */
	draw(u: number, v: number): Drawn;
}

/** Waits of one kind, and how long this one has been waited for in the way that they are counted. */
export interface Alike {
	curve: Curve;
	/** days */
	waited: number;
	/** of its own place in its own template, not of the whole office */
	own?: boolean;
}

/**
 * What like waits say of one that has lasted a while: those of the narrowest kind count the more the more of them there are (n of
 * n + {@link FEW}), the next wider kind for that share of the rest, the widest for what is left; each only from what was still open after
 * so long. A kind of which nothing was ever open so long tells nothing of how much longer: the wider ones do, as long as there is one.
 * @param like the narrowest kind first, the whole office last
 */
export function expected(like: readonly Alike[]): Expected {
	const all = like.map(({ curve, waited }) => ({ curve, waited, from: overBy(curve, waited) }));
	const tells = all.filter(({ curve, from }) => from < (curve.over.at(-1) ?? 0));
	const kinds = weighed(tells.length > 0 ? tells : all).map((kind) => ({
		...kind,
		odds: kind.weight * (1 - kind.from)
	}));
	const sum = kinds.reduce((total, { odds }) => total + odds, 0);
	const seen = weighed(all);
	const weights = seen.reduce((total, { weight }) => total + weight, 0);
	return {
		restsOn: Math.max(0, ...like.map(({ own, curve }) => (own ? curve.ended : 0))),
		atMost: Math.max(0, ...like.map(({ curve }) => curve.ended)),
		overBy: weights > 0 ? seen.reduce((total, { weight, from }) => total + weight * from, 0) / weights : 0,
		draw(u, v) {
			let at = u * sum;
			for (const { curve, waited, from, odds } of kinds) {
				at -= odds;
				if (at >= 0) continue;
				// what is left of u within this kind is even again
				const level = from + (1 + at / odds) * (1 - from);
				const i = firstAbove(curve.over, level);
				const moment = curve.moments[i];
				if (!moment) return NEVER;
				const [low, begins] = [curve.over[i - 1] ?? 0, curve.at[i - 1] ?? 0];
				const days = begins + ((level - low) / (curve.over[i]! - low)) * (curve.at[i]! - begins);
				return { days: Math.max(0, days - waited), end: curve.sole[i] ?? endAt(moment, v) };
			}
			return NEVER;
		}
	};
}

/** Each kind with what it counts: more the more of them have ended, the wider ones for what is left, the widest for all that is. */
function weighed<T extends { curve: Curve }>(kinds: readonly T[]): (T & { weight: number })[] {
	let left = 1;
	return kinds.map((kind, i) => {
		const { ended } = kind.curve;
		const weight = i === kinds.length - 1 ? left : (left * ended) / (ended + FEW);
		left -= weight;
		return { ...kind, weight: ended > 0 ? weight : 0 };
	});
}

/** Longer than any before it. */
const NEVER: Drawn = { days: Infinity, end: 'done' };

const unlimited = (wait: Wait): Wait => (wait.end === 'expired' ? { ...wait, end: null } : wait);

function overBy({ at, over }: Curve, days: number): number {
	const next = firstAbove(at, days);
	const [low, begins] = [over[next - 1] ?? 0, at[next - 1] ?? 0];
	return next === at.length ? low : low + ((over[next]! - low) * (days - begins)) / (at[next]! - begins);
}

/** The first whose value is greater, by halves; the length of the list where there is none. */
function firstAbove(sorted: readonly number[], level: number): number {
	let low = 0;
	let high = sorted.length;
	while (low < high) {
		const middle = (low + high) >> 1;
		if (sorted[middle]! > level) high = middle;
		else low = middle + 1;
	}
	return low;
}

function endAt(moment: Moment, v: number): End {
	let left = v * endedIn(moment);
	for (const [end, n] of Object.entries(moment.ended) as [End, number][]) if ((left -= n) < 0) return end;
	return 'done';
}
