import { Z95, type Bounded } from './survival';
import { endedIn, ENDS, inOrder, type End, type Wait } from './waits';

/** After so many days: the share of waits that have ended in this way. */
export interface EndStep extends Bounded {
	days: number;
}

/** For each way of ending, the share that has ended so after so many days. */
export type Ends = Record<End, EndStep[]>;

/**
 * How waits end, each way beside the others: what was declined can't be done any more, and is not counted as if it were still to come
 * (the cumulative incidence of Aalen and Johansen 1978). Variance by the delta method, as Marubini and Valsecchi (1995) §10.2 write it;
 * bounds on the log(−log) scale.
 * @returns for each way a step at each length at which one ended so
 */
export function endsOf(waits: Iterable<Wait>): Ends {
	const moments = inOrder(waits).filter((moment) => endedIn(moment) > 0);
	let left = 1;
	/** share not over just before each moment */
	const before = moments.map((moment) => {
		const was = left;
		left *= 1 - endedIn(moment) / moment.atRisk;
		return was;
	});
	const one = (end: End): EndStep[] => {
		const steps: EndStep[] = [];
		const past: Past[] = [];
		let share = 0;
		moments.forEach((moment, i) => {
			const n = moment.atRisk;
			const mine = moment.ended[end] ?? 0;
			share += (before[i]! * mine) / n;
			past.push({ n, all: endedIn(moment), mine, before: before[i]!, share });
			if (mine > 0) steps.push({ days: moment.days, share, ...boundsOf(share, varianceOf(past)) });
		});
		return steps;
	};
	return Object.fromEntries(ENDS.map((end) => [end, one(end)])) as Ends;
}

interface Past {
	n: number;
	all: number;
	mine: number;
	before: number;
	share: number;
}

function varianceOf(past: readonly Past[]): number {
	const now = past.at(-1)!.share;
	return past.reduce((sum, { n, all, mine, before, share }) => {
		const rest = now - share;
		const ended = all === n ? 0 : (rest * rest * all) / (n * (n - all));
		return sum + ended + (before * before * mine * (n - mine)) / n ** 3 - (2 * rest * before * mine) / (n * n);
	}, 0);
}

function boundsOf(share: number, variance: number): { low: number; high: number } {
	if (share <= 0 || share >= 1) return { low: share, high: share };
	const spread = (Z95 * Math.sqrt(Math.max(0, variance))) / (share * Math.log(share));
	return { low: share ** Math.exp(-spread), high: share ** Math.exp(spread) };
}

/** The share that has ended in that way after so many days. */
export function shareEnded(steps: readonly EndStep[], days: number): number {
	return steps.findLast((step) => step.days <= days)?.share ?? 0;
}
