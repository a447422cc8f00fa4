import {
	groupOptions,
	optionsOf,
	parsedRule,
	questionOfKey,
	ruleOfComputed,
	usesOf,
	type Answer,
	type Answers
} from '../field';
import type { Field, Plan } from '../packet/plan';
import { isFault, isNumber, type Node, type RuleValue } from '../rule';
import { fieldsOfItem, keyOf } from './asked';
import { DOCUMENT, type Intake } from './schema';
import { walked } from './walk';

/** So many ways are tried at most; beyond that, so many are drawn evenly from all of them. */
const MOST = 3000;

/** Where a way closes, in a map of the ways. */
export const SHUT = 'shut';

/** All ways through an intake, as far as they were tried. */
export interface Ways {
	/** how often each page was passed */
	passed: Record<string, number>;
	/** from a page, or from the start (''), to a page, the document or {@link SHUT}: how often */
	steps: { from: string; to: string; times: number }[];
	/** pages that no way comes to */
	unreached: string[];
	/** pages that a way comes back to */
	circles: string[];
	/** pages from which no way comes to the document */
	endless: string[];
	/** rules that speak which never do */
	mute: string[];
	tried: number;
	/** whether every combination of answers that rules tell apart was tried */
	all: boolean;
}

/** Tries the ways through an intake with every answer that its rules can tell from another, as preflight tries a rule. */
export function waysThrough(plan: Plan, intake: Intake, today: string): Ways {
	const asked = intake.pages.flatMap((page) => page.items).flatMap((item) => keyOf(item) ?? []);
	const rules = rulesIn(plan, intake);
	const reaches = usesThrough(plan);
	const used = new Set(rules.flatMap(reaches));
	const domains = [...new Set(asked)]
		.filter((key) => used.has(key))
		.flatMap((key) => {
			const fields = (questionOfKey(plan.fields, key) ?? []).filter((field) => field.person === intake.starter);
			const values = fields[0]
				? possible(
						fields,
						rules.filter((rule) => reaches(rule).includes(key)),
						today
					)
				: [];
			return fields[0] && values.length > 0 ? [{ id: fields[0].id, values: [null, ...values] }] : [];
		});
	const combinations = domains.reduce((product, { values }) => Math.min(product * values.length, 1e12), 1);
	const passed: Record<string, number> = Object.fromEntries(intake.pages.map((page) => [page.id, 0]));
	const steps = new Map<string, { from: string; to: string; times: number }>();
	const circles = new Set<string>();
	const ending = new Set<string>();
	const spoken = new Set<string>();
	const tries = Math.min(combinations, MOST);
	let drawn = 7;
	for (let n = 0; n < tries; n++) {
		const answers: Answers = {};
		let rest = n;
		for (const { id, values } of domains) {
			// too many to try all: each answer by itself from a fixed series, so that the same intake is judged the same again
			drawn = (drawn * 1_103_515_245 + 12_345) % 2_147_483_648;
			const value = values[combinations <= MOST ? rest % values.length : Math.floor(drawn / 65_536) % values.length];
			rest = Math.floor(rest / values.length);
			if (value) answers[id] = value;
		}
		const way = walked(plan, intake, answers, today);
		const end = way.closed ? SHUT : (way.circle ?? DOCUMENT);
		if (way.circle !== null) circles.add(way.circle);
		const places = ['', ...way.pages.map(({ page }) => page.id), end];
		for (const { page, says } of way.pages) {
			passed[page.id]! += 1;
			for (const say of says) spoken.add(say.id);
			if (end === DOCUMENT) ending.add(page.id);
		}
		for (let i = 1; i < places.length; i++) {
			const name = `${places[i - 1]} ${places[i]}`;
			const step = steps.get(name) ?? { from: places[i - 1]!, to: places[i]!, times: 0 };
			step.times += 1;
			steps.set(name, step);
		}
	}
	return {
		passed,
		steps: [...steps.values()],
		unreached: intake.pages.filter((page) => passed[page.id] === 0).map((page) => page.id),
		circles: [...circles],
		endless: intake.pages.filter((page) => passed[page.id]! > 0 && !ending.has(page.id)).map((page) => page.id),
		mute: intake.says.filter((say) => !spoken.has(say.id)).map((say) => say.id),
		tried: tries,
		all: combinations <= MOST
	};
}

/** The keys that a rule names, and those by which the computed ones among them are reckoned. */
function usesThrough(plan: Plan): (rule: string) => string[] {
	const computed = new Map(
		plan.fields.flatMap((field) =>
			field.kind === 'computed' && field.key !== '' ? [[field.key, ruleOfComputed(field)] as const] : []
		)
	);
	return (rule) => {
		const found = new Set<string>();
		const add = (source: string): void => {
			for (const key of usesOf(source)) {
				if (found.has(key)) continue;
				found.add(key);
				const inner = computed.get(key);
				if (inner) add(inner);
			}
		};
		add(rule);
		return [...found];
	};
}

/** Every rule that a way depends on, those of the document's questions and of computed ones among them. */
function rulesIn(plan: Plan, intake: Intake): string[] {
	const own = intake.pages.flatMap((page) => [
		page.when,
		...(page.next ?? []).map((one) => one.when),
		...page.items.flatMap((item) => [
			item.when,
			...fieldsOfItem(plan, intake, item).flatMap((field) => [field.showWhen, field.requireWhen])
		])
	]);
	const computed = plan.fields.flatMap((field) =>
		field.kind === 'computed' && typeof field.settings['rule'] === 'string' ? [field.settings['rule']] : []
	);
	return [...own, ...intake.says.map((say) => say.when), ...plan.stops.map((stop) => stop.when), ...computed].filter(
		(rule): rule is string => rule !== undefined && rule !== ''
	);
}

/** Answers to a question that the rules over it could tell apart. */
function possible(question: Field[], rules: string[], today: string): Answer[] {
	const first = question[0]!;
	const literals = rules.flatMap((rule) => {
		const node = parsedRule(rule);
		return isFault(node) ? [] : literalsIn(node);
	});
	const numbers = literals.flatMap((one) => (isNumber(one) ? [one.toNumber()] : []));
	const texts = literals.filter((one): one is string => typeof one === 'string');
	switch (first.kind) {
		case 'choice':
			return optionsOf(first).map((one) => ({ choice: one.value }));
		case 'pick-one':
			return groupOptions(question).map((one) => ({ choice: one.value }));
		case 'ticks': {
			const values = groupOptions(question).map((one) => one.value);
			return [...values.map((one) => [one]), ...(values.length > 1 ? [values] : [])].map((ticks) => ({ ticks }));
		}
		case 'number':
			return unique(numbers.flatMap((n) => [n - 1, n, n + 1])).map((n) => ({ number: String(n) }));
		case 'date': {
			const days = texts.filter((one) => /^\d{4}-\d{2}-\d{2}$/.test(one)).flatMap((day) => around(day, 0, 0));
			const ages = numbers.filter((n) => Number.isInteger(n) && n >= 0 && n < 200);
			const ago = ages.flatMap((n) => [...around(today, n, 0), ...around(today, 0, n)]);
			return unique([...days, ...ago, ...around(today, 0, 0)]).map((day) => ({ day }));
		}
		case 'computed':
		case 'attachment':
			return [];
		default:
			return unique([...texts, 'x']).map((text) => ({ text }));
	}
}

const unique = <T>(list: T[]): T[] => [...new Set(list)];

/** The day so many years and days before another, and those beside it. */
function around(day: string, years: number, days: number): string[] {
	return [-1, 0, 1].map((beside) => {
		const date = new Date(`${day}T00:00:00Z`);
		date.setUTCFullYear(date.getUTCFullYear() - years);
		date.setUTCDate(date.getUTCDate() - days + beside);
		return date.toISOString().slice(0, 10);
	});
}

function literalsIn(node: Node): RuleValue[] {
	switch (node.node) {
		case 'literal':
			return [node.value];
		case 'unary':
			return literalsIn(node.of);
		case 'binary':
			return [...literalsIn(node.left), ...literalsIn(node.right)];
		case 'call':
			return node.args.flatMap(literalsIn);
		default:
			return [];
	}
}
