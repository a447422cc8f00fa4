import { questionOfKey, ruleFault, rulesOf, usesOf } from '../../field';
import { stopOf } from '../../route';
import { EVERYBODY, SENDER, type Field, type Plan } from '../plan';
import { at, cure, type Fault } from './finding';
import { neverHolds } from './never';

/** What is wrong with a field’s rules: faulty, asking too early, or never fulfilled. */
export function ruleFaults(plan: Plan, field: Field): Fault[] {
	const faults: Fault[] = [];
	for (const rule of rulesOf(field)) {
		const wrong = ruleFault(plan, field, rule);
		const off = rule.at === 'showWhen' || rule.at === 'requireWhen' ? rule.at : null;
		const without = off
			? { cure: cure('Take the rule off', [field.id], ({ [off]: _gone, ...rest }) => rest as Field) }
			: {};
		if (wrong) {
			faults.push({ code: wrong.code, say: `${at(field)}: ${wrong.say}`, ...without });
			continue;
		}
		const late = off ? tooEarly(plan, field, usesOf(rule.source)) : null;
		if (late)
			faults.push({
				code: 'rule-too-early',
				say: `${at(field)}: its rule asks for “${late}”, which is answered only later or at the same time.`,
				...without
			});
		else if (rule.at === 'showWhen' && neverHolds(plan, rule.source))
			faults.push({
				code: 'never-shown',
				...(field.required ? {} : { mild: true as const }),
				say: field.required
					? `${at(field)} must be answered, but its rule never lets it be shown.`
					: `${at(field)} can never be shown: nothing fulfils its rule.`,
				...without
			});
	}
	return faults;
}

/** A key whose answer may not be there yet when the field's person has to know whether it is shown. */
function tooEarly(plan: Plan, field: Field, uses: string[], path: string[] = []): string | null {
	if (field.person === null || field.person === EVERYBODY) return null;
	const mine = field.person === SENDER ? -1 : stopOf(plan, field.person);
	for (const key of uses) {
		const question = questionOfKey(plan.fields, key);
		if (!question || path.includes(key)) continue;
		if (question[0]!.kind === 'computed') {
			const deeper = tooEarly(
				plan,
				field,
				question.flatMap((f) => rulesOf(f).flatMap((r) => usesOf(r.source))),
				[...path, key]
			);
			if (deeper) return deeper;
			continue;
		}
		const known = question.some(
			(f) =>
				f.person === field.person ||
				f.person === SENDER ||
				(f.person !== null && stopOf(plan, f.person) >= 0 && stopOf(plan, f.person) < mine)
		);
		if (!known) return key;
	}
	return null;
}
