import { groupOptions, kindOf, type Question } from '../../field';
import type { Field } from '../plan';
import { at, cure, type Fault } from './finding';

/** Settings of the single button in a group; all others are the question's. */
const OWN = ['value', 'text', 'outline', 'ticked'];

/** What twins must share, so that an answer to one is good for all. */
function shared(field: Field): string {
	const checks = Object.entries(field.settings).filter(([name]) => !OWN.includes(name));
	return JSON.stringify([field.kind, checks.sort()]);
}

/** What is wrong among the fields of one question: other kinds or checks, or several people where it must be one. */
export function twinsFault(question: Question): Fault | null {
	const first = question[0]!;
	const others = question.slice(1);
	const kind = kindOf(first.kind);
	if (others.some((f) => shared(f) !== shared(first)))
		return {
			code: 'twins-differ',
			say: `The fields with the key “${first.key}” differ in kind or checks, so one answer can’t be good for all.`,
			cure: cure(
				'Make them like the first',
				others.map((f) => f.id),
				(f) => ({
					...f,
					kind: first.kind,
					required: first.required,
					settings: { ...first.settings, ...(kind.grouped && keep(f.settings, OWN)) }
				})
			)
		};
	if ((kind.signs || kind.filledBy === 'finishing' || kind.grouped) && others.some((f) => f.person !== first.person))
		return {
			code: 'twins-of-several',
			say: `The fields with the key “${first.key}” belong to several people, but ${kind.grouped ? 'a group is one person’s' : 'each must give their own'}.`,
			cure: kind.grouped
				? cure(
						'Give all to the first',
						others.map((f) => f.id),
						(f) => ({ ...f, person: first.person })
					)
				: cure(
						'Part them',
						others.filter((f) => f.person !== first.person).map((f) => f.id),
						(f) => ({ ...f, key: '' })
					)
		};
	return null;
}

function keep(settings: Field['settings'], names: string[]): Field['settings'] {
	return Object.fromEntries(Object.entries(settings).filter(([name]) => names.includes(name)));
}

/** A group that can’t be answered as it is wanted. */
export function groupFault(question: Question): Fault | null {
	const first = question[0]!;
	if (!kindOf(first.kind).grouped) return null;
	const options = groupOptions(question).length;
	if (first.kind === 'pick-one' && options < 2)
		return {
			code: 'group-short',
			say: `${at(first)} leaves nothing to pick: the group needs a second button with a value of its own.`
		};
	const { least = 0, most } = first.settings as { least?: number; most?: number };
	if (least > options)
		return {
			code: 'group-short',
			say: `${at(first)} wants ${least} ticks, but the group has ${options} ${options === 1 ? 'box' : 'boxes'}.`,
			cure: cure(
				`Ask for ${options}`,
				question.map((f) => f.id),
				(f) => ({ ...f, settings: { ...f.settings, least: options } })
			)
		};
	return most !== undefined && most < least
		? { code: 'group-short', say: `${at(first)} wants ${least} ticks at least, but ${most} at most.` }
		: null;
}
