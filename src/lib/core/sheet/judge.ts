import { cutText } from '../clean-text';
import { kindOf, live, type Answers } from '../field';
import { isAddress, isPhone, localeOf, type Plan } from '../packet';
import { isRefusal } from '../refusal';
import type { Given } from '../template';
import { passing } from './filter';
import type { Sheet } from './sheet';
import { targetsOf, type Mapping, type Target } from './targets';

/** What the sender has settled about a sheet. Rows are told by their place, from 0. */
export interface Setting {
	mapping: Mapping;
	/** a rule over the columns, in the language of rules; '' lets all pass */
	filter: string;
	/** rows that were taken out by hand */
	without: number[];
	/** rows of which the same address stands in another one, and which are the ones meant */
	chosen: number[];
}

/** What becomes of a row. */
export type Verdict =
	/** `own`: it is the sender's own, which is permitted, and said */
	| { is: 'ready'; given: Given; own: boolean }
	| { is: 'left out'; why: 'filter' | 'by hand' | 'another' }
	/** `column`: the cell it is about; null where no column brings it */
	| { is: 'faulty'; column: number | null; say: string }
	/** the same address stands in these rows as well: which one is meant */
	| { is: 'twice'; rows: number[] }
	/** it went before, as this packet */
	| { is: 'gone'; packet: string };

/** What is known besides the sheet: the sender's address, the day, and which addresses have had theirs. */
export interface Facts {
	own: string;
	/** ISO 8601 */
	today: string;
	/** packets that went from this batch before, by whose they are ({@link whoOf}) */
	gone: ReadonlyMap<string, string>;
}

/** Judges every row of a sheet for a template, before anything goes; nothing is left for the sending to find out. */
export function judged(plan: Plan, sheet: Sheet, setting: Setting, facts: Facts): Verdict[] {
	const targets = targetsOf(plan);
	const who = whoOf(targets, sheet, setting.mapping);
	const passes = passing(sheet, setting.filter, facts.today);
	const now = live(plan, plan.answers ?? {}, facts.today);
	const [without, chosen] = [new Set(setting.without), new Set(setting.chosen)];
	const verdicts = sheet.rows.map((row, n): Verdict => {
		if (!passes[n]) return { is: 'left out', why: 'filter' };
		if (without.has(n)) return { is: 'left out', why: 'by hand' };
		const packet = facts.gone.get(who[n]!);
		if (packet !== undefined) return { is: 'gone', packet };
		const given: Given = { people: {}, answers: {} };
		for (const target of targets) {
			const column = setting.mapping[target.id];
			const cell = column === undefined ? '' : (row[column] ?? '');
			const say = fill(given, target, cell, plan, now);
			if (say !== null) return { is: 'faulty', column: column ?? null, say };
		}
		return { is: 'ready', given, own: who[n] === facts.own.toLowerCase() };
	});
	const ready = new Map<string, number[]>();
	verdicts.forEach((verdict, n) => {
		if (verdict.is === 'ready') ready.set(who[n]!, [...(ready.get(who[n]!) ?? []), n]);
	});
	return verdicts.map((verdict, n): Verdict => {
		const rows = ready.get(who[n]!) ?? [];
		if (verdict.is !== 'ready' || rows.length === 1) return verdict;
		const meant = rows.find((i) => chosen.has(i));
		if (meant === undefined) return { is: 'twice', rows: rows.filter((i) => i !== n) };
		return meant === n ? verdict : { is: 'left out', why: 'another' };
	});
}

/**
 * Whose each row is, so that the same one is known again: by the address, else by the number, else by the whole row. Small
 * letters.
 */
export function whoOf(targets: readonly Target[], sheet: Sheet, mapping: Mapping): string[] {
	const columns = (['email', 'phone'] as const).flatMap((part) => {
		const target = targets.find((one) => one.what === 'person' && one.part === part);
		const column = target && mapping[target.id];
		return column === undefined ? [] : [column];
	});
	return sheet.rows.map((row) => {
		const cell = columns.map((column) => row[column] ?? '').find((one) => one !== '');
		return (cell ?? row.join('\t')).toLowerCase();
	});
}

/** Puts a cell where it belongs; the sentence that says why it won't do, or null. */
function fill(given: Given, target: Target, cell: string, plan: Plan, now: ReturnType<typeof live>): string | null {
	if (target.what === 'title') {
		if (cell !== '') given.title = cutText(cell, 200);
		return null;
	}
	if (target.what === 'answer') {
		if (cell === '') return target.needed ? `“${target.name}” is missing.` : null;
		const field = plan.fields.find((one) => one.id === target.field)!;
		const answer = kindOf(field.kind).read(field, cell, localeOf(plan));
		if (isRefusal(answer)) return answer.say;
		const no = now.check(field, answer);
		if (no) return no.say;
		(given.answers as Answers)[field.id] = answer;
		return null;
	}
	if (cell === '') return target.needed ? `${target.name} is missing.` : null;
	if (target.part === 'email' && !isAddress(cell)) return `“${cell}” can't be an e-mail address.`;
	if (target.part === 'phone' && !isPhone(cell)) return `“${cell}” can't be a telephone number with its country code.`;
	const person = plan.people.find((one) => one.id === target.person)!;
	const before = given.people![target.person] ?? { name: person.name, email: person.email };
	given.people![target.person] = { ...before, [target.part]: cutText(cell, 254) };
	return null;
}
