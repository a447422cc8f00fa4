import { isBlank, kindOf, live, parsedRule, type Answer, type Answers, type Live } from '../field';
import { localeOf, personIn, type Field, type Plan } from '../packet/plan';
import { isRefusal } from '../refusal';
import { stopOf } from '../route';
import { evaluate, holds, isFault } from '../rule';
import { fieldsOfItem, keyOf } from './asked';
import { DOCUMENT, type Intake, type IntakePage, type Item, type Say } from './schema';

/** One page on somebody's way, with what is asked on it. */
export interface Passed {
	page: IntakePage;
	items: Item[];
	/** roles asked for, by item */
	roles: Record<string, string[]>;
	/** what the rules say here: on the first page at which they hold */
	says: Say[];
}

/** The way of somebody with these answers. */
export interface Way {
	pages: Passed[];
	/** what counts of what was answered: only what was asked on the way, and what a rule forces */
	answers: Answers;
	/** keys that a rule has answered, with the rule that did */
	forced: Record<string, Say>;
	/** the rule that closes this way; the way ends at the page where it holds */
	closed: Say | null;
	/** a page that its own way comes back to: it never ends */
	circle: string | null;
	now: Live;
}

/** Whether a rule holds; one that can't be read never does. No rule always does. */
export function ruleHolds(rule: string | undefined, now: Live): boolean {
	if (!rule) return true;
	const node = parsedRule(rule);
	return !isFault(node) && holds(node, now.world);
}

/**
 * Goes from page to page with what was answered. A page sees only what was asked before it or on it, so that an answer from a way
 * that was left counts for nothing, and what is decided stays decided further on.
 * @param plan the plan that the intake asks about (`askedPlan`)
 * @param known answers that are there before anything is asked, such as a sheet's
 * @param today ISO 8601 day in the office's zone
 */
export function walked(plan: Plan, intake: Intake, answers: Answers, today: string, known: Answers = {}): Way {
	let counts: Answers = { ...known };
	const forced: Way['forced'] = {};
	const pages: Passed[] = [];
	const said = new Set<string>();
	let now = live(plan, counts, today);
	let at = 0;
	while (at < intake.pages.length) {
		const page = intake.pages[at]!;
		if (pages.some((one) => one.page === page))
			return { pages, answers: counts, forced, closed: null, circle: page.id, now };
		if (!ruleHolds(page.when, now)) {
			at += 1;
			continue;
		}
		const given = Object.fromEntries(
			page.items.flatMap((item) =>
				fieldsOfItem(plan, intake, item).flatMap((field) =>
					answers[field.id] === undefined ? [] : [[field.id, answers[field.id]!] as const]
				)
			)
		);
		counts = { ...counts, ...given };
		now = live(plan, counts, today);
		// what a hidden item had as its answer counts for nothing
		const hidden = page.items.filter((item) => !isAsked(plan, intake, item, now));
		for (const item of hidden)
			for (const field of fieldsOfItem(plan, intake, item)) if (known[field.id] === undefined) delete counts[field.id];
		now = live(plan, counts, today);
		const says: Say[] = [];
		for (const say of intake.says) {
			if (!ruleHolds(say.when, now)) continue;
			if (!said.has(say.id)) says.push(say);
			said.add(say.id);
			if (say.forces && force(plan, say.forces, counts)) {
				forced[say.forces.key] = say;
				now = live(plan, counts, today);
			}
		}
		const items = page.items.filter((item) => isAsked(plan, intake, item, now));
		const roles = Object.fromEntries(
			items.flatMap((item) => (item.is === 'people' ? [[item.id, rolesAsked(plan, item.roles, now)] as const] : []))
		);
		pages.push({
			page,
			items: items.filter((item) => item.is !== 'people' || roles[item.id]!.length > 0),
			roles,
			says
		});
		const closed = intake.says.find((say) => say.closes && ruleHolds(say.when, now));
		if (closed) return { pages, answers: counts, forced, closed, circle: null, now };
		const jump = page.next?.find((one) => ruleHolds(one.when, now));
		if (jump?.to === DOCUMENT) break;
		const to = jump ? intake.pages.findIndex((one) => one.id === jump.to) : -1;
		at = to < 0 ? at + 1 : to;
	}
	return { pages, answers: counts, forced, closed: null, circle: null, now };
}

/** Whether an item is there now: by its own rule, and for a question of the document by that one's. */
function isAsked(plan: Plan, intake: Intake, item: Item, now: Live): boolean {
	if (!ruleHolds(item.when, now)) return false;
	if (keyOf(item) === null) return true;
	const fields = fieldsOfItem(plan, intake, item);
	return fields.length > 0 && fields.some((field) => now.shown(field));
}

/** Roles to be named: those whose stop is certain to open by what is answered; one whose rule can't be told yet is named later. */
function rolesAsked(plan: Plan, roles: string[], now: Live): string[] {
	return roles.filter((role) => personIn(plan, role) && stopOpens(plan, role, now) === true);
}

/** Whether the stop of a role opens by the answers there are: yes, no, or null where they do not tell yet. */
export function stopOpens(plan: Plan, role: string, now: Live): boolean | null {
	const when = plan.stops[stopOf(plan, role)]?.when;
	if (!when) return true;
	const node = parsedRule(when);
	if (isFault(node)) return true;
	const value = evaluate(node, now.world);
	return typeof value === 'boolean' ? value : null;
}

/** Puts a forced answer under each field of its key; false where it can't be one. */
function force(plan: Plan, { key, answer }: NonNullable<Say['forces']>, counts: Answers): boolean {
	const fields = plan.fields.filter((field) => field.key === key);
	const wanted = fields[0] && answerAs(fields[0], answer, localeOf(plan));
	if (!wanted || isBlank(wanted)) return false;
	for (const field of fields) counts[field.id] = wanted;
	return true;
}

/** A text as the answer of a field: a value of its list or group, or as it would be typed; null where it can't be read. */
export function answerAs(field: Field, text: string, locale: string): Answer | null {
	if (field.kind === 'choice' || field.kind === 'pick-one') return { choice: text };
	if (field.kind === 'ticks')
		return {
			ticks: text
				.split(',')
				.map((one) => one.trim())
				.filter(Boolean)
		};
	if (field.kind === 'date') return /^\d{4}-\d{2}-\d{2}$/.test(text) ? { day: text } : null;
	if (field.kind === 'number' && /^-?\d+(\.\d+)?$/.test(text)) return { number: text };
	const read = kindOf(field.kind).read(field, text, locale);
	return isRefusal(read) ? null : read;
}
