import { endedIn, inOrder, type Wait } from './waits';

/** A share with its bounds, each from 0 to 1: it lies between them 95 times in a hundred. */
export interface Bounded {
	share: number;
	low: number;
	high: number;
}

/** After so many days: the share of waits that are not over yet. */
export interface Step extends Bounded {
	days: number;
	/** how many had lasted at least so long */
	atRisk: number;
	/** how many ended there */
	ended: number;
	/** Greenwood's, of the share */
	variance: number;
}

/** 95 of a hundred lie within so many standard deviations. */
export const Z95 = 1.959963984540054;

/**
 * The share of waits that are not over after so many days, with those still open counted as far as they go: the product-limit estimate
 * (Kaplan and Meier 1958), its variance by Greenwood (1926), its bounds on the log(−log) scale (Kalbfleisch and Prentice 1980), which
 * never leave 0 to 1.
 * @returns a step at each length at which at least one ended, in order; none where nothing has ended
 */
export function survival(waits: Iterable<Wait>): Step[] {
	const steps: Step[] = [];
	let share = 1;
	let sum = 0;
	for (const moment of inOrder(waits)) {
		const ended = endedIn(moment);
		if (ended === 0) continue;
		const { days, atRisk } = moment;
		share *= 1 - ended / atRisk;
		// the last ones all ended: nothing is left, and nothing is known of how sure that is
		sum += ended === atRisk ? 0 : ended / (atRisk * (atRisk - ended));
		if (ended === atRisk) share = 0;
		steps.push({ days, atRisk, ended, share, variance: share * share * sum, ...boundsOf(share, sum) });
	}
	return steps;
}

/** @param sum Greenwood's: of d / (n (n − d)) over the steps */
function boundsOf(share: number, sum: number): { low: number; high: number } {
	if (share <= 0) return { low: 0, high: 0 };
	const spread = (Z95 * Math.sqrt(sum)) / Math.log(share);
	return { low: share ** Math.exp(-spread), high: share ** Math.exp(spread) };
}

/** What lies a hair above by the way it was multiplied has been reached. */
const HAIR = 1e-9;

/**
 * After how many days that share of waits is over, as the first length at which no more than the rest is left; null where the records do
 * not reach that far.
 * @param over 0.5 for the median
 */
export function quantile(steps: readonly Step[], over: number): number | null {
	return firstBelow(steps, 1 - over, (step) => step.share);
}

/** The bounds of a quantile, where the bounds of the curve cross it (Brookmeyer and Crowley 1982); null: not reached. */
export function quantileBounds(steps: readonly Step[], over: number): { low: number | null; high: number | null } {
	return {
		low: firstBelow(steps, 1 - over, (step) => step.low),
		high: firstBelow(steps, 1 - over, (step) => step.high)
	};
}

function firstBelow(steps: readonly Step[], left: number, value: (step: Step) => number): number | null {
	return steps.find((step) => value(step) <= left + HAIR)?.days ?? null;
}

/** The share that is not over after so many days. */
export function shareLeft(steps: readonly Step[], days: number): number {
	return steps.findLast((step) => step.days <= days)?.share ?? 1;
}
