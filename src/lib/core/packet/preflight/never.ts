import { groupOptions, kindOf, optionsOf, parsedRule, questionOfKey, usesOf } from '../../field';
import { holds, isFault, type Node, type RuleValue } from '../../rule';
import type { Plan } from '../plan';

/** More combinations than this are not tried: then the rule is believed. */
const MOST = 2000;

/**
 * Whether a rule can never hold, whatever is answered. Certain where all its keys have a few possible answers (lists,
 * groups, yes or no), which are all tried; a rule over free answers is believed.
 */
export function neverHolds(plan: Plan, source: string): boolean {
	const node = parsedRule(source);
	if (isFault(node)) return false;
	const keys = usesOf(source);
	const domains = keys.map((key) => possible(plan, key));
	const name = JSON.stringify([source, domains]);
	let never = tried.get(name);
	if (never === undefined) {
		if (tried.size > 1000) tried.clear();
		tried.set(name, (never = tryAll(source, node, keys, domains)));
	}
	return never;
}

/** What came of trying a rule, by the rule and what its keys can be: the same few stand at every key press. */
const tried = new Map<string, boolean>();

function tryAll(source: string, node: Node, keys: string[], domains: (RuleValue[] | null)[]): boolean {
	let combinations = 1;
	for (const domain of domains) {
		if (domain === null) return false;
		combinations *= domain.length;
		if (combinations > MOST) return false;
	}
	for (let n = 0; n < combinations; n++) {
		let rest = n;
		const values: Record<string, RuleValue> = {};
		keys.forEach((key, i) => {
			const domain = domains[i]!;
			values[key] = domain[rest % domain.length]!;
			rest = Math.floor(rest / domain.length);
		});
		// "today" can be any day, so a rule that hangs on it alone is believed
		if (/\btoday\b/.test(source) || holds(node, { today: '2026-01-01', value: (key) => values[key] ?? null }))
			return false;
	}
	return true;
}

/** Every value a key can have, no answer included; null where there is no end to them. */
function possible(plan: Plan, key: string): RuleValue[] | null {
	const question = questionOfKey(plan.fields, key);
	if (!question) return null;
	const first = question[0]!;
	switch (first.kind) {
		case 'choice':
			return [null, ...optionsOf(first).map((o) => o.value)];
		case 'pick-one':
			return [null, ...groupOptions(question).map((o) => o.value)];
		case 'ticks': {
			const values = groupOptions(question).map((o) => o.value);
			if (values.length === 1) return [false, true];
			return values.length > 8
				? null
				: Array.from({ length: 2 ** values.length }, (_, bits) => values.filter((_v, i) => bits & (1 << i)));
		}
		default:
			return kindOf(first.kind).signs ? [null, true] : null;
	}
}
