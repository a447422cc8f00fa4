import { questionOfKey } from '../field';
import { ASKED, type Field, type Option, type Plan } from '../packet/plan';
import type { Intake, Item, Question } from './schema';

/** Nowhere on a page. */
const NOWHERE = { x: 0, y: 0, width: 0, height: 0 };

/** A question of an intake's own as fields of its plan: one, or for a group one for each of its options. */
function fieldsFor(id: string, question: Question, person: string): Field[] {
	const { kind, key, label, help, required, settings } = question;
	const base: Omit<Field, 'id' | 'settings'> = {
		kind,
		person,
		paper: ASKED,
		page: 0,
		rect: NOWHERE,
		label,
		key,
		required: kind !== 'computed' && required,
		...(help && { help })
	};
	if (kind !== 'pick-one' && kind !== 'ticks') return [{ ...base, id: `q-${id}`, settings }];
	const { options, ...rest } = settings;
	return (Array.isArray(options) ? (options as Option[]) : []).map(({ value, text }, i) => ({
		...base,
		id: `q-${id}-${i}`,
		settings: { ...rest, value, text }
	}));
}

const known = new WeakMap<Intake, WeakMap<Plan, Plan>>();

/**
 * The plan that an intake asks about: its template's, with the questions of its own as fields that stand on no page. The same for
 * the same two values, since all that is known of a plan's fields is remembered by their list.
 */
export function askedPlan(template: Plan, intake: Intake): Plan {
	let plans = known.get(intake);
	if (!plans) known.set(intake, (plans = new WeakMap()));
	let plan = plans.get(template);
	if (!plan) {
		const own = intake.pages.flatMap((page) =>
			page.items.flatMap((item) => (item.is === 'question' ? fieldsFor(item.id, item.question, intake.starter) : []))
		);
		plans.set(template, (plan = own.length === 0 ? template : { ...template, fields: [...template.fields, ...own] }));
	}
	return plan;
}

/** The key under which an item asks; null for one that asks nothing of this kind. */
export function keyOf(item: Item): string | null {
	return item.is === 'field' ? item.key : item.is === 'question' ? item.question.key : null;
}

/** The fields of the starter's that an item asks about; none where they have no such key. */
export function fieldsOfItem(plan: Plan, intake: Pick<Intake, 'starter'>, item: Item): Field[] {
	const key = keyOf(item);
	const question = (key !== null && questionOfKey(plan.fields, key)) || [];
	return question.filter((field) => field.person === intake.starter);
}
