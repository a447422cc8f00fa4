import { addDays, addMonths, differenceInCalendarDays, differenceInMonths, differenceInYears } from 'date-fns';
import { asText, dayOf, Dec, decimal, isNumber, type Day, type RuleType, type RuleValue } from './value';

/** What a parameter takes: one type, or any. */
export type Takes = RuleType | 'any';

/** A function of the rule language. `run` gets values of the types it takes, or no value where it says so. */
export interface RuleFunction {
	takes: Takes[];
	/** the last parameter may come again and again */
	more?: boolean;
	/** how many may be left out at the end */
	optional?: number;
	gives: RuleType | ((args: RuleType[]) => RuleType);
	/** one line for the editor */
	does: string;
	/** also called when an argument has no value; otherwise that gives no value at once */
	lenient?: boolean;
	run(args: RuleValue[], today: string): RuleValue;
}

/** Longest text a rule makes; beyond it there is no value, so that joined texts can't grow without end. */
export const LONGEST_TEXT = 10_000;

const numbers = (args: RuleValue[]): Dec[] => args.flatMap((a) => (isNumber(a) ? [a] : []));
const bounded = (text: string): string | null => (text.length > LONGEST_TEXT ? null : text);
const date = (value: RuleValue): Date => new Date(`${(value as Day).day}T12:00:00`);
const iso = (d: Date): Day | null =>
	dayOf(
		`${String(d.getFullYear()).padStart(4, '0')}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}`
	);
const whole = (value: RuleValue): number => {
	const n = (value as Dec).trunc().toNumber();
	return Math.abs(n) <= 1_000_000 ? n : Number.NaN;
};
const places = (value: RuleValue | undefined): number => {
	const n = value === undefined || value === null ? 0 : whole(value);
	return Math.min(10, Math.max(0, Number.isNaN(n) ? 0 : n));
};
const isEmpty = (value: RuleValue): boolean =>
	value === null || value === '' || (Array.isArray(value) && value.length === 0);
const text = (does: string, run: (t: string) => RuleValue, gives: RuleType = 'text'): RuleFunction => ({
	takes: ['text'],
	gives,
	does,
	run: ([t]) => run(t as string)
});
const rounding = (does: string, way: 0 | 1 | 2 | 3 | 4): RuleFunction => ({
	takes: ['number', 'number'],
	optional: 1,
	gives: 'number',
	does,
	run: ([n, to]) => (n as Dec).toDecimalPlaces(places(to), way)
});
const span = (does: string, between: (from: Date, to: Date) => number): RuleFunction => ({
	takes: ['date', 'date'],
	gives: 'number',
	does,
	run: ([from, to]) => new Dec(between(date(from!), date(to!)))
});
const later = (does: string, move: (d: Date, n: number) => Date): RuleFunction => ({
	takes: ['date', 'number'],
	gives: 'date',
	does,
	run: ([from, n]) => {
		const by = whole(n!);
		return Number.isNaN(by) ? null : iso(move(date(from!), by));
	}
});
const part = (does: string, from: number, to: number): RuleFunction => ({
	takes: ['date'],
	gives: 'number',
	does,
	run: ([d]) => new Dec((d as Day).day.slice(from, to))
});

/** Every function there is. Names are lower case; `docs/rules.md` shows each with a worked result. */
export const FUNCTIONS: Record<string, RuleFunction> = {
	if: {
		takes: ['truth', 'any', 'any'],
		optional: 1,
		gives: (args) => args[1]!,
		does: 'the second where the first holds, else the third',
		lenient: true,
		run: ([when, then, otherwise]) => (when === true ? then! : (otherwise ?? null))
	},
	and: {
		takes: ['truth', 'truth'],
		more: true,
		gives: 'truth',
		does: 'whether all hold',
		lenient: true,
		run: (args) => (args.includes(false) ? false : args.includes(null) ? null : true)
	},
	or: {
		takes: ['truth', 'truth'],
		more: true,
		gives: 'truth',
		does: 'whether any holds',
		lenient: true,
		run: (args) => (args.includes(true) ? true : args.includes(null) ? null : false)
	},
	not: { takes: ['truth'], gives: 'truth', does: 'the opposite', run: ([t]) => !t },
	sum: {
		takes: ['number'],
		more: true,
		gives: 'number',
		does: 'all added up; empty ones are skipped',
		lenient: true,
		run: (args) => (numbers(args).length === 0 ? null : Dec.sum(...numbers(args)))
	},
	min: {
		takes: ['number'],
		more: true,
		gives: 'number',
		does: 'the least of those that are there',
		lenient: true,
		run: (args) => (numbers(args).length === 0 ? null : Dec.min(...numbers(args)))
	},
	max: {
		takes: ['number'],
		more: true,
		gives: 'number',
		does: 'the most of those that are there',
		lenient: true,
		run: (args) => (numbers(args).length === 0 ? null : Dec.max(...numbers(args)))
	},
	round: rounding('rounded, halves away from nought; the second says to how many decimals', 4),
	floor: rounding('rounded down', 3),
	ceil: rounding('rounded up', 2),
	abs: { takes: ['number'], gives: 'number', does: 'without its sign', run: ([n]) => (n as Dec).abs() },
	count: {
		takes: ['any'],
		more: true,
		gives: 'number',
		does: 'how many are there; ticked boxes count each',
		lenient: true,
		run: (args) =>
			new Dec(args.reduce<number>((n, a) => n + (Array.isArray(a) ? a.length : isEmpty(a) || a === false ? 0 : 1), 0))
	},
	today: {
		takes: [],
		gives: 'date',
		does: 'the day it is, in the organisation’s zone',
		run: (_, today) => ({ day: today })
	},
	date: {
		takes: ['text'],
		gives: 'date',
		does: 'a day from its notation, year-month-day',
		run: ([t]) => dayOf(t as string)
	},
	days: span('nights from the first day to the second', (from, to) => differenceInCalendarDays(to, from)),
	months: span('whole months from the first day to the second', (from, to) => differenceInMonths(to, from)),
	years: span('whole years from the first day to the second', (from, to) => differenceInYears(to, from)),
	age: {
		takes: ['date', 'date'],
		optional: 1,
		gives: 'number',
		does: 'years of age on the second day, or today',
		run: ([born, on], today) => new Dec(differenceInYears(date(on ?? { day: today }), date(born!)))
	},
	add_days: later('the day so many days later', addDays),
	add_months: later('the day so many months later; the last of the month where it is too short', addMonths),
	year: part('the year of a day', 0, 4),
	month: part('the month of a day, 1 to 12', 5, 7),
	day: part('the day of the month', 8, 10),
	contains: {
		takes: ['any', 'text'],
		gives: 'truth',
		does: 'whether a text has another in it, or whether a box is among those ticked',
		run: ([all, one]) =>
			Array.isArray(all)
				? all.includes(one as string)
				: asText(all!)
						.toLowerCase()
						.includes((one as string).toLowerCase())
	},
	starts: {
		takes: ['text', 'text'],
		gives: 'truth',
		does: 'whether a text begins with another',
		run: ([all, one]) => (all as string).toLowerCase().startsWith((one as string).toLowerCase())
	},
	empty: {
		takes: ['any'],
		gives: 'truth',
		does: 'whether there is no answer',
		lenient: true,
		run: ([v]) => isEmpty(v!)
	},
	join: {
		takes: ['any'],
		more: true,
		gives: 'text',
		does: 'put together as one text',
		lenient: true,
		run: (args) => bounded(args.map(asText).join(''))
	},
	upper: text('in capitals', (t) => bounded(t.toUpperCase())),
	lower: text('in small letters', (t) => bounded(t.toLowerCase())),
	trim: text('without blanks at its ends', (t) => t.trim()),
	length: text('how many characters', (t) => new Dec([...t].length), 'number'),
	number: text('a text as a number', (t) => decimal(t.trim()), 'number'),
	text: { takes: ['any'], gives: 'text', does: 'anything as a text', run: ([v]) => asText(v!) }
};
