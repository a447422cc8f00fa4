import type { TSchema } from '@sinclair/typebox';
import type { Refusal } from '../refusal';
import type { Field } from '../packet/plan';
import type { Answer } from './answer';

/** What a kind may know when it fills in or checks: the person whose field it is, the moment, the place. */
export interface FieldContext {
	person: { name: string; email: string };
	/** ISO 8601 in UTC */
	now: string;
	/** IANA time zone of the organisation */
	zone: string;
	locale: string;
}

/**
 * One kind of field. Everything Pellum knows about a kind is behind this interface, one file a kind, so that
 * adding one is: write the file, list it in `kinds/index.ts`.
 */
export interface FieldKind {
	/** stable name, used in data */
	kind: string;
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
	/** 'person': asked of the person. 'finishing': put in by Pellum at the moment they finish. */
	filledBy: 'person' | 'finishing';
	/** the duties for which it counts as "something to sign" */
	signs: boolean;
	/** what the field holds before the person has answered, if anything; for 'finishing' kinds, the answer itself */
	prefill(field: Field, context: FieldContext): Answer | null;
	/** null where the answer will do. The border has already checked its shape. */
	check(field: Field, answer: Answer): Refusal | null;
	/** the answer in words, for lists, the record and data; '' where it has none */
	shown(field: Field, answer: Answer): string;
}

/** A kind under its own, narrow answer type; the rest of the code sees every kind as {@link FieldKind}. */
export function defineKind<A extends Answer>(
	kind: Omit<FieldKind, 'prefill' | 'check' | 'shown'> & {
		is(answer: Answer): answer is A;
		prefill(field: Field, context: FieldContext): A | null;
		check(field: Field, answer: A): Refusal | null;
		shown(field: Field, answer: A): string;
		/** said when the answer is of another kind altogether */
		wrong: Refusal;
	}
): FieldKind {
	return {
		...kind,
		check: (field, answer) => (kind.is(answer) ? kind.check(field, answer) : kind.wrong),
		shown: (field, answer) => (kind.is(answer) ? kind.shown(field, answer) : '')
	};
}
