/**
 * A refusal is an expected "no": a value, never an exception.
 * `code` is stable and for programs, `say` is one sentence for a person, `at` is the path of what is wrong.
 */
export interface Refusal {
	refused: true;
	code: string;
	say: string;
	at?: string;
	/** what the sentence has in it, for saying it in another language */
	values?: Values;
}
/** A list is of things of which one will do. */
export type Value = string | number | string[];
export type Values = Record<string, Value>;

export function refuse(code: string, say: string, at?: string, values?: Values): Refusal {
	return { refused: true, code, say, ...(at !== undefined && { at }), ...(values && { values }) };
}

/** The same, about no place in particular. */
export function refuseWith(code: string, say: string, values: Values): Refusal {
	return refuse(code, say, undefined, values);
}

export function isRefusal(value: unknown): value is Refusal {
	return typeof value === 'object' && value !== null && (value as Refusal).refused === true;
}
