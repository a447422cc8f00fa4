import { kindOf } from '../../field';
import { ASKED, type Field, type Plan } from '../plan';

/** One thing to put right before a plan can be sent, with its place. */
export interface Finding {
	code: string;
	say: string;
	/** what to go to: the title, the papers, the letter to all, a person, a field */
	place:
		| { what: 'title' | 'papers' | 'people' | 'message' }
		| { what: 'person'; id: string }
		| { what: 'field'; id: string };
	/** worth a look, but it may go all the same */
	mild?: true;
	/** what puts it right in one press, where there is such a thing */
	cure?: { say: string; plan: (plan: Plan) => Plan };
}

/** A finding about a field, whose place goes without saying. */
export type Fault = Omit<Finding, 'place'>;

export const called = (field: Field): string => `“${field.label || kindOf(field.kind).name}”`;
export const at = (field: Field): string =>
	field.paper === ASKED ? called(field) : `${called(field)} on page ${field.page + 1}`;

export function withSay(field: Field, code: string, say: string | null): Fault | null {
	return say === null ? null : { code, say: `${at(field)}: ${say}` };
}

/** A cure that changes some fields and leaves all else. */
export function cure(say: string, ids: string[], change: (field: Field) => Field): NonNullable<Finding['cure']> {
	return { say, plan: (plan) => ({ ...plan, fields: plan.fields.map((f) => (ids.includes(f.id) ? change(f) : f)) }) };
}

export function pageOf(plan: Plan, field: Field) {
	return plan.papers.find((p) => p.id === field.paper)?.pages[field.page];
}
