/**
 * A wait: from when something was somebody's turn until it ended, or until now. Everything that Pace says comes from these.
 * @see core/pace/README.md
 */
export interface Wait {
	/** how long, in days of 24 hours; until now where it is still open */
	days: number;
	/** how it ended; null: it is still open, and counts for as long as it has lasted */
	end: End | null;
	/** so many alike; without it, one */
	n?: number;
}

/** How a wait can end: done, or so that it can't be done any more. */
export const ENDS = ['done', 'declined', 'expired', 'withdrawn'] as const;
export type End = (typeof ENDS)[number];

/** Waits at one length of time: how many ended, by how, how many were still open there, how many had lasted at least so long. */
export interface Moment {
	days: number;
	atRisk: number;
	ended: Partial<Record<End, number>>;
	open: number;
}

/**
 * Waits in the order of their length. What is open at a length was still at risk there: it leaves after those that ended at it.
 * Lengths below 0 (a clock that was set back) count as 0; those that are no number are left out.
 */
export function inOrder(waits: Iterable<Wait>): Moment[] {
	const at = new Map<number, Moment>();
	let all = 0;
	for (const { days, end, n = 1 } of waits) {
		if (Number.isNaN(days) || n <= 0) continue;
		const length = Math.max(0, days);
		let moment = at.get(length);
		if (!moment) at.set(length, (moment = { days: length, atRisk: 0, ended: {}, open: 0 }));
		if (end === null) moment.open += n;
		else moment.ended[end] = (moment.ended[end] ?? 0) + n;
		all += n;
	}
	const moments = [...at.values()].sort((a, b) => a.days - b.days);
	for (const moment of moments) {
		moment.atRisk = all;
		all -= moment.open + endedIn(moment);
	}
	return moments;
}

/** How many ended at that length, by whatever of these. */
export function endedIn(moment: Moment, by: readonly End[] = ENDS): number {
	return by.reduce((sum, end) => sum + (moment.ended[end] ?? 0), 0);
}
