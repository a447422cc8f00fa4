/** The middle one of some numbers (the upper one of two); 0 where there are none. */
export const median = (numbers: readonly number[]): number =>
	numbers.toSorted((a, b) => a - b)[numbers.length >> 1] ?? 0;
