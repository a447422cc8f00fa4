import type { Plan } from '../packet';
import type { History } from './history';

/**
 * The history in a form that can be put away. Plans of neighbouring steps share nearly everything, so each step is kept
 * as what differs from the one after it: several hundred steps of a large plan stay small.
 */
export interface KeptHistory {
	past: { name: string; back: Delta }[];
	future: { name: string; on: Delta }[];
}

/** What turns one plan into another: whole values for most, changed items for lists of things with ids. */
export interface Delta {
	set: Partial<Plan>;
	lists: Partial<Record<ListName, { order: string[]; changed: { id: string }[] }>>;
	gone: string[];
}

const LISTS = ['papers', 'attachments', 'people', 'stops', 'fields'] as const;
type ListName = (typeof LISTS)[number];

export function delta(from: Plan, to: Plan): Delta {
	const found: Delta = { set: {}, lists: {}, gone: [] };
	for (const name of Object.keys({ ...from, ...to }) as (keyof Plan)[]) {
		if (from[name] === to[name]) continue;
		if (to[name] === undefined) found.gone.push(name);
		else if (isList(name)) {
			const before = new Map(from[name].map((item) => [item.id, item]));
			found.lists[name] = {
				order: to[name].map((item) => item.id),
				changed: to[name].filter((item) => before.get(item.id) !== item)
			};
		} else Object.assign(found.set, { [name]: to[name] });
	}
	return found;
}

/** The plan that a delta leads to. The inverse of {@link delta}: `applied(a, delta(a, b))` equals b. */
export function applied(from: Plan, by: Delta): Plan {
	const to: Plan = { ...from, ...by.set };
	for (const name of by.gone) delete to[name as keyof Plan];
	for (const [name, list] of Object.entries(by.lists) as [ListName, NonNullable<Delta['lists'][ListName]>][]) {
		const items = new Map<string, { id: string }>(from[name].map((item) => [item.id, item]));
		for (const item of list.changed) items.set(item.id, item);
		Object.assign(to, { [name]: list.order.map((id) => items.get(id)!) });
	}
	return to;
}

function isList(name: keyof Plan): name is ListName {
	return (LISTS as readonly string[]).includes(name);
}

const told = new WeakMap<Plan, { to: Plan; by: Delta }>();

/** The difference, told once: of several hundred steps only the last is new. */
function knownDelta(from: Plan, to: Plan): Delta {
	let known = told.get(from);
	if (known?.to !== to) told.set(from, (known = { to, by: delta(from, to) }));
	return known.by;
}

export function keptOf(history: History<Plan>): KeptHistory {
	const after = [...history.past.map((step) => step.value), history.now];
	const before = [history.now, ...history.future.map((step) => step.value)];
	return {
		past: history.past.map((step, i) => ({ name: step.name, back: knownDelta(after[i + 1]!, step.value) })),
		future: history.future.map((step, i) => ({ name: step.name, on: knownDelta(before[i]!, step.value) }))
	};
}

/** The history again, round the plan that is there now. */
export function historyOf(kept: KeptHistory, now: Plan): History<Plan> {
	const past: History<Plan>['past'] = [];
	let at = now;
	for (const step of [...kept.past].reverse()) {
		at = applied(at, step.back);
		past.unshift({ name: step.name, value: at });
	}
	const future: History<Plan>['future'] = [];
	at = now;
	for (const step of kept.future) {
		at = applied(at, step.on);
		future.push({ name: step.name, value: at });
	}
	return { past, now, future };
}
