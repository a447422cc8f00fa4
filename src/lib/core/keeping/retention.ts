import { Type, type Static } from '@sinclair/typebox';
import { addYears, endOfYear, formatISO, isValid, parseISO } from 'date-fns';
import { Line } from '../schema';

/**
 * How long something is kept once it has ended, by a rule (ISO 15489-1 §8.5: a disposition authority). Days are whole ones, ISO 8601, as
 * they are where the packet's office is.
 */
export const RetentionRule = Type.Object(
	{
		id: Line(40, { minLength: 1 }),
		/** what people call it: “Engagements, 6 years after the season” */
		name: Line(120, { minLength: 1 }),
		/** for which packets: those of a type, in a folder, or made from a template */
		by: Type.Union([Type.Literal('template'), Type.Literal('type'), Type.Literal('folder')]),
		of: Line(120, { minLength: 1 }),
		years: Type.Integer({ minimum: 0, maximum: 100 }),
		/** from its end, from the end of its term, or from a day among its answers; where there is none of those, from its end */
		from: Type.Union([Type.Literal('end'), Type.Literal('term'), Type.Literal('date')]),
		/** under which key that day was answered */
		key: Line(60),
		/** until the last day of the year in which the years are over */
		yearEnd: Type.Boolean(),
		/** somebody looks at it first; or it goes by itself */
		then: Type.Union([Type.Literal('review'), Type.Literal('dispose')])
	},
	{ additionalProperties: false }
);
export type RetentionRule = Static<typeof RetentionRule>;

/** As much of a packet as the rules ask for. */
export interface KeptFacts {
	/** the day on which it ended; null while it is out: nothing that is out is ever near its end */
	ended: string | null;
	termEnd: string | null;
	type: string;
	folder: string;
	/** the template it was made from; null where there is none */
	template: string | null;
	/** what was answered under a key, as data: days as ISO 8601 */
	answer: (key: string) => string | undefined;
}

/** Until when (its last day), and by which rule. */
export interface Kept {
	until: string;
	rule: RetentionRule;
}

/** What is told most exactly comes first: a template's rule before a type's, that before a folder's. */
const NEAREST = ['template', 'type', 'folder'] as const;

/** The rule for a packet; null where none is for it. Types are the same whatever their capitals. */
export function ruleFor(rules: readonly RetentionRule[], facts: KeptFacts): RetentionRule | null {
	for (const by of NEAREST) {
		const is = facts[by];
		if (!is) continue;
		const found = rules.find(
			(rule) => rule.by === by && (by === 'type' ? rule.of.toLowerCase() === is.toLowerCase() : rule.of === is)
		);
		if (found) return found;
	}
	return null;
}

/** Null while it is out, and where no rule is for it: it is then kept for as long as nobody bins it. */
export function keptUntil(rules: readonly RetentionRule[], facts: KeptFacts): Kept | null {
	if (facts.ended === null) return null;
	const rule = ruleFor(rules, facts);
	if (!rule) return null;
	const begins = beginOf(rule, facts.ended, facts);
	const over = addYears(parseISO(begins), rule.years);
	return { until: formatISO(rule.yearEnd ? endOfYear(over) : over, { representation: 'date' }), rule };
}

function beginOf(rule: RetentionRule, ended: string, facts: KeptFacts): string {
	if (rule.from === 'term') return facts.termEnd ?? ended;
	if (rule.from === 'end') return ended;
	const answered = facts.answer(rule.key) ?? '';
	return /^\d{4}-\d{2}-\d{2}$/.test(answered) && isValid(parseISO(answered)) ? answered : ended;
}

/** A rule in one sentence. @param of what it is for, as people call it */
export function ruleInWords(rule: Omit<RetentionRule, 'id' | 'name'>, of: string): string {
	const years = rule.years === 0 ? 'Until' : rule.years === 1 ? '1 year after' : `${rule.years} years after`;
	const from = { end: 'it has ended', term: 'the end of its term', date: `the day under “${rule.key}”` }[rule.from];
	const to = rule.yearEnd ? ', to the end of that year' : '';
	return `${of}: ${years} ${from}${to}; then ${rule.then === 'review' ? 'somebody looks at it' : 'it goes by itself'}.`;
}
