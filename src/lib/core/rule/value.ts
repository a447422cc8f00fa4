import { Decimal } from 'decimal.js';

/** Decimals as rules reckon with them: 40 digits, and sizes that no agreement reaches, so that nothing runs away. */
export const Dec = Decimal.clone({ precision: 40, maxE: 60, minE: -60, toExpNeg: -60, toExpPos: 60 });
export type Dec = Decimal;

/** What a rule can give. `list` is what several ticked boxes give; `truth` is yes or no. */
export type RuleType = 'number' | 'text' | 'date' | 'truth' | 'list';

/** A calendar day, ISO 8601 (`2026-12-02`), without time or zone. */
export interface Day {
	day: string;
}

/** A value in a rule; null is "no value", which an unanswered field has and a division by zero gives. */
export type RuleValue = Dec | string | Day | boolean | string[] | null;

export const isDay = (value: RuleValue): value is Day => typeof value === 'object' && value !== null && 'day' in value;
export const isNumber = (value: RuleValue): value is Dec => value instanceof Decimal;

/** A number from its plain decimal notation (`-1234.50`); null where it is none, or is out of all proportion. */
export function decimal(text: string): Dec | null {
	if (!/^-?\d{1,30}(\.\d{1,30})?$/.test(text)) return null;
	return new Dec(text);
}

/** A day from ISO 8601; null where the calendar has no such day. */
export function dayOf(text: string): Day | null {
	const parts = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
	if (!parts) return null;
	const [year, month, day] = parts.slice(1).map(Number) as [number, number, number];
	const date = new Date(Date.UTC(year, month - 1, day));
	date.setUTCFullYear(year);
	return date.getUTCMonth() === month - 1 && date.getUTCDate() === day ? { day: text } : null;
}

/** A value as plain text: numbers without needless noughts, days as ISO 8601, yes or no. Empty for no value. */
export function asText(value: RuleValue): string {
	if (value === null) return '';
	if (typeof value === 'string') return value;
	if (typeof value === 'boolean') return value ? 'yes' : 'no';
	if (Array.isArray(value)) return value.join(', ');
	return isDay(value) ? value.day : value.toFixed();
}
