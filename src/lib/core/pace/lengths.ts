/**
 * Lengths that waits are counted by: finer where they are short. Up to a day by the hour, up to four days by three hours, up to two weeks
 * by half a day, up to sixty days by the day, up to a year by the week, then by four weeks; some 160 in all.
 */
const STEPS: readonly { upTo: number; days: number }[] = [
	{ upTo: 1, days: 1 / 24 },
	{ upTo: 4, days: 1 / 8 },
	{ upTo: 14, days: 1 / 2 },
	{ upTo: 60, days: 1 },
	{ upTo: 365, days: 7 },
	{ upTo: Infinity, days: 28 }
];

/**
 * The length that so many days are counted as: the end of the step they lie in, so that nothing is said to have been quicker than it was.
 * Below 0 (a clock that was set back) is 0; what is no number stays none.
 */
export function countedAs(days: number): number {
	if (Number.isNaN(days)) return NaN;
	let from = 0;
	for (const { upTo, days: step } of STEPS) {
		// a hair above a step, by the way it was divided, is that step
		if (days <= upTo) return round(Math.min(upTo, from + Math.ceil((Math.max(0, days) - from) / step - 1e-9) * step));
		from = upTo;
	}
	return days;
}

/** Where the step begins that a length is the end of: what is counted as so many days took longer than this. Other lengths are as they are. */
export function stepBegins(counted: number): number {
	// rounded to four digits, it may lie a hair above its own step
	if (!(counted > 0) || countedAs(counted - 6e-5) !== counted) return counted;
	let from = 0;
	for (const { upTo, days: step } of STEPS) {
		if (counted <= upTo) return round(from + Math.floor((counted - from) / step - 1e-3) * step);
		from = upTo;
	}
	return counted;
}

/** Four digits behind the point are nine seconds: the same length is the same number, however it was reckoned. */
const round = (days: number): number => Math.round(days * 10_000) / 10_000;

const DAY = 86_400_000;

/** Days of 24 hours between two moments (ISO 8601); 0 where the second is the earlier one. */
export const daysFrom = (from: string, to: string): number => Math.max(0, (Date.parse(to) - Date.parse(from)) / DAY);
