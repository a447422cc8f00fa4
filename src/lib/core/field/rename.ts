import type { Field } from '../packet/plan';

/** A field whose rules name keys by their new names. Texts in quotes are left as they are. */
export function followKeys(field: Field, keys: ReadonlyMap<string, string>): Field {
	const follow = (rule: string): string => ruleWithKeys(rule, keys);
	const { rule, least, most } = field.settings;
	return {
		...field,
		...(field.showWhen && { showWhen: follow(field.showWhen) }),
		...(field.requireWhen && { requireWhen: follow(field.requireWhen) }),
		settings: {
			...field.settings,
			...(field.kind === 'computed' && typeof rule === 'string' && { rule: follow(rule) }),
			...(field.kind === 'date' && typeof least === 'string' && { least: follow(least) }),
			...(field.kind === 'date' && typeof most === 'string' && { most: follow(most) })
		}
	};
}

/** A rule in which the keys have their new names; what stands in quotes is left alone. */
export function ruleWithKeys(rule: string, keys: ReadonlyMap<string, string>): string {
	return rule.replace(/"(?:[^"\\]|\\.)*"|[A-Za-z_]\w*/g, (word) =>
		word.startsWith('"') ? word : (keys.get(word) ?? word)
	);
}
