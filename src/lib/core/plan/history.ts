/** Undo and redo over whole values: cheap, since edits share what they don't change. */
export interface History<T> {
	past: { name: string; value: T }[];
	now: T;
	future: { name: string; value: T }[];
}

const MOST = 500;

export function begin<T>(now: T): History<T> {
	return { past: [], now, future: [] };
}

/**
 * The history after a change. Changes of the same `name` that follow each other within one `burst`
 * (typing a word, holding an arrow) are one step.
 */
export function changed<T>(h: History<T>, name: string, value: T, burst: boolean): History<T> {
	if (value === h.now) return h;
	if (burst && h.past[h.past.length - 1]?.name === name && h.future.length === 0) return { ...h, now: value };
	return { past: [...h.past, { name, value: h.now }].slice(-MOST), now: value, future: [] };
}

export function undone<T>(h: History<T>): History<T> {
	const last = h.past[h.past.length - 1];
	return last
		? { past: h.past.slice(0, -1), now: last.value, future: [{ name: last.name, value: h.now }, ...h.future] }
		: h;
}

export function redone<T>(h: History<T>): History<T> {
	const next = h.future[0];
	return next
		? { past: [...h.past, { name: next.name, value: h.now }], now: next.value, future: h.future.slice(1) }
		: h;
}
