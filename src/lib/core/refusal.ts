/**
 * A refusal is an expected "no": a value, never an exception.
 * `code` is stable and for programs, `say` is one sentence for a person, `at` is the path of what is wrong.
 */
export interface Refusal {
	refused: true;
	code: string;
	say: string;
	at?: string;
}

export function refuse(code: string, say: string, at?: string): Refusal {
	return at === undefined ? { refused: true, code, say } : { refused: true, code, say, at };
}

export function isRefusal(value: unknown): value is Refusal {
	return typeof value === 'object' && value !== null && (value as Refusal).refused === true;
}
