/**
 * Checks that need large tables (telephone numbers, regular expressions in linear time). They are handed in by whoever
 * starts: the server and the Bench at once, the signing page only where a field wants them. Without them a text counts as
 * right, since the server's word is what holds.
 */
export interface Checkers {
	/** whether it is a telephone number, a national one of that country (ISO 3166-1) */
	phone(text: string, country: string): boolean;
	/** a pattern made ready; null where it can't be read */
	pattern(source: string): { matches(text: string): boolean } | null;
}

let known: Checkers | null = null;

export function provide(checkers: Checkers): void {
	known = checkers;
}

export function checkers(): Checkers | null {
	return known;
}
