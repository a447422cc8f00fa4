import type { TSchema } from '@sinclair/typebox';
import type { Refusal } from '../refusal';
import type { Field, KindName } from '../packet/plan';
import type { RuleType, RuleValue, RuleWorld } from '../rule';
import type { Answer } from './answer';

/** What a kind may know when it fills in: the person whose field it is, the moment, the place. */
export interface FieldContext {
	person: { name: string; email: string; organisation?: string; jobTitle?: string };
	/** ISO 8601 in UTC */
	now: string;
	/** IANA time zone of the organisation */
	zone: string;
	/** BCP 47; how numbers and dates are written in this packet */
	locale: string;
}

/** What a kind may know when it checks: all fields that ask the same question, and the other answers by rule. */
export interface CheckContext {
	question: Field[];
	locale: string;
	world: RuleWorld;
}

/** How the answer is asked for, on the Bench and on the signing page. */
export type Control = 'mark' | 'line' | 'lines' | 'number' | 'date' | 'list' | 'pick' | 'ticks' | 'file' | 'none';

/** How a field is drawn when it has no answer of its own to draw, or in which form it draws its answer. */
export type Drawn = 'mark' | 'text' | 'letters' | 'pick' | 'tick' | 'image' | 'strike';

/**
 * One kind of field. Everything Pellum knows about a kind is behind this interface, one file a kind, so that
 * adding one is: write the file, list it in `kinds/index.ts`.
 */
export interface FieldKind {
	/** stable name, used in data */
	kind: KindName;
	/** what people read */
	name: string;
	/** the key that picks it from the tray */
	letter: string;
	/** size in points of a newly placed one, as shown */
	size: { width: number; height: number };
	/** JSON Schema of `field.settings`; unknown settings are refused */
	settings: TSchema;
	/** JSON Schema of the answer as it comes over the border */
	answer: TSchema;
	/**
	 * 'person': asked of the person. 'finishing': put in by Pellum at the moment they finish. 'rule': computed.
	 * 'nobody': it shows what the sender put there.
	 */
	filledBy: 'person' | 'finishing' | 'rule' | 'nobody';
	/** the duties for which it counts as "something to sign" */
	signs: boolean;
	/** several fields with one key are one question, each with a value of its own */
	grouped: boolean;
	control(field: Field): Control;
	drawn(field: Field): Drawn;
	/** the type that rules see; null for kinds that have nothing to say to a rule */
	ruleType(question: Field[]): RuleType | null;
	/** the answer as a rule sees it */
	value(question: Field[], answer: Answer): RuleValue;
	/** what a rule sees while there is no answer: no value, but a box that isn't ticked is a no */
	unanswered(question: Field[]): RuleValue;
	/** what the field holds before the person has answered, if anything; for 'finishing' kinds, the answer itself */
	prefill(field: Field, context: FieldContext, question: Field[]): Answer | null;
	/** null where the answer will do. The border has already checked its shape. */
	check(field: Field, answer: Answer, context: CheckContext): Refusal | null;
	/** the answer in words, for lists, the record and data; '' where it has none */
	shown(field: Field, answer: Answer, locale: string): string;
	/** what somebody typed, as an answer: the inverse of `shown` where that is possible at all */
	read(field: Field, typed: string, locale: string): Answer | Refusal;
	/** the answer for data, typed: numbers in plain decimal notation, days in ISO 8601 */
	data(answer: Answer): string | string[];
	/** an answer that will do, to try things out with */
	sample(field: Field, context: FieldContext, question: Field[]): Answer | null;
}

type Given<A extends Answer> = Pick<
	FieldKind,
	'kind' | 'name' | 'letter' | 'size' | 'settings' | 'answer' | 'filledBy'
> &
	Partial<Pick<FieldKind, 'signs' | 'grouped' | 'control' | 'drawn' | 'ruleType' | 'sample' | 'unanswered'>> & {
		is(answer: Answer): answer is A;
		prefill?(field: Field, context: FieldContext, question: Field[]): A | null;
		check?(field: Field, answer: A, context: CheckContext): Refusal | null;
		shown?(field: Field, answer: A, locale: string): string;
		read?(field: Field, typed: string, locale: string): A | Refusal;
		value?(question: Field[], answer: A): RuleValue;
		data?(answer: A): string | string[];
		/** said when the answer is of another kind altogether */
		wrong: Refusal;
	};

/** A kind under its own, narrow answer type; the rest of the code sees every kind as {@link FieldKind}. */
export function defineKind<A extends Answer>(given: Given<A>): FieldKind {
	return {
		signs: false,
		grouped: false,
		control: () => 'line',
		drawn: () => 'text',
		ruleType: () => 'text',
		sample: () => null,
		unanswered: () => null,
		...given,
		prefill: (field, context, question) => given.prefill?.(field, context, question) ?? null,
		read: (field, typed, locale) => given.read?.(field, typed, locale) ?? given.wrong,
		value: (question, answer) => (given.is(answer) ? (given.value?.(question, answer) ?? null) : null),
		data: (answer) => (given.is(answer) ? (given.data?.(answer) ?? '') : ''),
		check: (field, answer, context) =>
			given.is(answer) ? (given.check?.(field, answer, context) ?? null) : given.wrong,
		shown: (field, answer, locale) => (given.is(answer) ? (given.shown?.(field, answer, locale) ?? '') : '')
	};
}

/** Settings of a kind: nothing but what it names. */
export const closed = { additionalProperties: false } as const;
