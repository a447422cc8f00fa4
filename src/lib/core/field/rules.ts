import type { Field, Plan } from '../packet/plan';
import {
	checkRule,
	findCycle,
	isFault,
	keysOf,
	parseRule,
	type Graph,
	type Node,
	type RuleFault,
	type RuleKeys,
	type RuleType
} from '../rule';
import { kindOf } from './kinds';
import { ruleOfComputed } from './kinds/computed';
import { dateRules } from './kinds/date';
import { questionOfKey, questions } from './questions';

/** A rule of a field: where it stands, and what it must give (undefined: anything). */
export interface FieldRule {
	at: 'showWhen' | 'requireWhen' | 'rule' | 'bound';
	source: string;
	wants?: RuleType;
}

/** Every rule a field has. */
export function rulesOf(field: Field): FieldRule[] {
	const rules: FieldRule[] = [];
	if (field.showWhen) rules.push({ at: 'showWhen', source: field.showWhen, wants: 'truth' });
	if (field.requireWhen) rules.push({ at: 'requireWhen', source: field.requireWhen, wants: 'truth' });
	if (field.kind === 'computed') rules.push({ at: 'rule', source: ruleOfComputed(field) });
	if (field.kind === 'date')
		rules.push(...dateRules(field).map((source): FieldRule => ({ at: 'bound', source, wants: 'date' })));
	return rules;
}

const parsed = new Map<string, Node | RuleFault>();

/** A rule taken apart, remembered: the same few rules are asked for at every key press. */
export function parsedRule(source: string): Node | RuleFault {
	let node = parsed.get(source);
	if (node === undefined) {
		if (parsed.size > 2000) parsed.clear();
		parsed.set(source, (node = parseRule(source)));
	}
	return node;
}

/** The keys a rule names; none where it can't be read. */
export function usesOf(source: string): string[] {
	const node = parsedRule(source);
	return isFault(node) ? [] : keysOf(node);
}

const typesOf = new WeakMap<Field[], RuleKeys>();

/**
 * The type of every key. A computed field has its rule's, which may hang on other computed ones; those that can't be
 * told (faulty, or in a circle) are left out.
 */
export function keyTypes(plan: Plan): RuleKeys {
	const there = typesOf.get(plan.fields);
	if (there) return there;
	const types: RuleKeys = {};
	const open: { key: string; rule: string }[] = [];
	for (const question of questions(plan.fields)) {
		const first = question[0]!;
		if (first.key === '') continue;
		const type = kindOf(first.kind).ruleType(question);
		if (type !== null) types[first.key] = type;
		else if (first.kind === 'computed') open.push({ key: first.key, rule: ruleOfComputed(first) });
	}
	for (let left = open, before = -1; left.length > 0 && left.length !== before;) {
		before = left.length;
		left = left.filter(({ key, rule }) => {
			const checked = checkRule(rule, types);
			if (isFault(checked)) return true;
			types[key] = checked.gives;
			return false;
		});
	}
	typesOf.set(plan.fields, types);
	return types;
}

const graphOf = new WeakMap<Field[], Graph>();

/** Which keys the value under each key hangs on: by its own rule, its bounds, and by whether it is shown at all. */
export function dependencies(plan: Plan): Graph {
	const there = graphOf.get(plan.fields);
	if (there) return there;
	const graph: Graph = {};
	for (const question of questions(plan.fields)) {
		const { key } = question[0]!;
		if (key === '') continue;
		graph[key] = [
			...new Set(
				question.flatMap((field) =>
					rulesOf(field)
						.filter((r) => r.at === 'rule' || r.at === 'showWhen')
						.flatMap((r) => usesOf(r.source))
				)
			)
		];
	}
	graphOf.set(plan.fields, graph);
	return graph;
}

/** What is wrong with a rule as it stands in a plan, circles included; null where nothing is. */
export function ruleFault(plan: Plan, field: Field, rule: FieldRule): RuleFault | null {
	const whole = { from: 0, to: rule.source.length };
	const uses = usesOf(rule.source);
	// a circle is looked for first: inside one, no type can be told
	if (field.key !== '' && (rule.at === 'rule' || rule.at === 'showWhen')) {
		const graph = dependencies(plan);
		// a rule that is just being typed stands in for the one in the plan
		const own = graph[field.key] ?? [];
		const circle = findCycle(
			uses.every((key) => own.includes(key)) ? graph : { ...graph, [field.key]: uses },
			field.key
		);
		if (circle?.includes(field.key)) {
			const at = Math.max(0, rule.source.search(new RegExp(`\\b${circle[1]}\\b`)));
			return {
				fault: true,
				code: 'rule-circle',
				say: `This goes round in a circle: ${circle.join(' → ')}.`,
				from: at,
				to: at + circle[1]!.length
			};
		}
	}
	const types = keyTypes(plan);
	const checked = checkRule(rule.source, types, rule.wants);
	if (!isFault(checked)) {
		if (rule.at === 'rule' && checked.gives === 'list')
			return {
				fault: true,
				code: 'rule-type',
				say: 'A list can’t be shown in a field. Use join(…) or count(…).',
				...whole
			};
		return null;
	}
	const faulty = checked.code === 'rule-key' ? checked.say.match(/“(.+?)”/)?.[1] : undefined;
	if (faulty && questionOfKey(plan.fields, faulty)?.[0]?.kind === 'computed')
		return { ...checked, say: `“${faulty}” can’t be reckoned yet: its own rule is faulty.` };
	return checked;
}
