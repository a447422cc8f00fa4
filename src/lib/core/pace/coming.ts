/** How many packets will likely be done on a day (ISO 8601); parts of one are as likely as they are large. */
export interface ComingDay {
	day: string;
	n: number;
}

/** So many days ahead are looked at. */
export const NEAR = 28;

/** Every day from the first on, also those on which nothing is likely to come. */
export function eachDay(from: string, rows: readonly ComingDay[]): ComingDay[] {
	const found = new Map(rows.map(({ day, n }) => [day, n]));
	return Array.from({ length: NEAR }, (_, i) => {
		const day = new Date(Date.parse(`${from}T00:00:00Z`) + i * 86_400_000).toISOString().slice(0, 10);
		return { day, n: found.get(day) ?? 0 };
	});
}

/** How many within so many days. */
export const comingWithin = (coming: readonly ComingDay[], days: number): number =>
	coming.slice(0, days).reduce((all, { n }) => all + n, 0);
