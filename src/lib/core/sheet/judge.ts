import { cutText } from '../clean-text';
import { dayRead, kindOf, live, type Answers } from '../field';
import { folded } from '../folded';
import { isAddress, isPhone, localeOf, type Plan } from '../packet';
import { foldedAnswer } from '../identity/answers';
import { isRefusal } from '../refusal';
import type { Given } from '../template';
import { documentKey, type RowDocument } from './documents';
import { passing } from './filter';
import { textFrom, type Mapping } from './matching';
import type { Sheet } from './sheet';
import { targetsOf, type Target } from './targets';

/** What the sender has settled about a sheet. Rows are told by their place, from 0. */
export interface Setting {
	mapping: Mapping;
	/** what holds for every row that brings nothing of its own, by the target's id */
	values: Record<string, string>;
	/** a rule over the columns, in the language of rules; '' lets all pass */
	filter: string;
	/** rows that were taken out by hand */
	without: number[];
	/** rows of which the same address stands in another one, and which are the ones meant */
	chosen: number[];
	/** everybody's letter, where the template's is not wanted */
	letter?: { subject: string; message: string };
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
	/** it went before, as this packet; `changed`: what a row says now is not what went */
	| { is: 'gone'; packet: string; changed: string[] };

/** A packet that went from a batch before, with what its row brought. */
export interface Went {
	packet: string;
	/** texts by the target's id */
	brought: Record<string, string>;
}

/** What is known besides the sheet: the sender's address, the day, and which addresses have had theirs. */
export interface Facts {
	own: string;
	/** ISO 8601 */
	today: string;
	/** by whose they are ({@link whoOf}) */
	gone: ReadonlyMap<string, Went>;
	/** documents that rows may have, by {@link documentKey}; without any, rows have none of their own */
	documents?: ReadonlyMap<string, RowDocument>;
}

/** Judges every row of a sheet for a template, before anything goes; nothing is left for the sending to find out. */
export function judged(plan: Plan, sheet: Sheet, setting: Setting, facts: Facts): Verdict[] {
	const targets = targetsOf(plan, facts.documents !== undefined);
	const who = whoOf(targets, sheet, setting.mapping);
	const passes = passing(sheet, setting.filter, facts.today);
	const now = live(plan, plan.answers ?? {}, facts.today);
	const [without, chosen] = [new Set(setting.without), new Set(setting.chosen)];
	const used = targets.filter(({ id, needed }) => needed || setting.mapping[id] || setting.values[id]);
	const verdicts = sheet.rows.map((row, n): Verdict => {
		if (!passes[n]) return { is: 'left out', why: 'filter' };
		if (without.has(n)) return { is: 'left out', why: 'by hand' };
		const went = facts.gone.get(who[n]!);
		if (went !== undefined) {
			const brings = broughtBy(row, targets, setting);
			const changed = targets.filter(({ id }) => id in went.brought && (brings[id] ?? '') !== went.brought[id]);
			return { is: 'gone', packet: went.packet, changed: changed.map(({ name }) => name) };
		}
		const given: Given = { people: {}, answers: {}, ...setting.letter };
		for (const target of used) {
			const source = setting.mapping[target.id];
			const cell = textFrom(row, source) || (setting.values[target.id] ?? '');
			const say = fill(given, target, cell, plan, now, facts.documents);
			if (say !== null) return { is: 'faulty', column: source?.columns[0] ?? null, say };
		}
		const half = halfNamed(given, plan, targets);
		if (half)
			return { is: 'faulty', column: setting.mapping[half.id]?.columns[0] ?? null, say: `${half.name} is missing.` };
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

/** What a row brings, by the target's id: that by which it is known again when it has changed. */
export function broughtBy(
	row: readonly string[],
	targets: readonly Target[],
	setting: Setting
): Record<string, string> {
	return Object.fromEntries(
		targets.flatMap(({ id }) => {
			const source = setting.mapping[id];
			return source ? [[id, textFrom(row, source)]] : [];
		})
	);
}

/**
 * Whose each row is, so that the same one is known again: by the address, else by the number, else by the whole row. Small
 * letters.
 */
export function whoOf(targets: readonly Target[], sheet: Sheet, mapping: Mapping): string[] {
	const sources = (['email', 'phone'] as const).flatMap((part) => {
		const target = targets.find((one) => one.what === 'person' && one.part === part && mapping[one.id]);
		return target ? [mapping[target.id]!] : [];
	});
	return sheet.rows.map((row) => {
		const text = sources.map((source) => textFrom(row, source)).find(Boolean);
		return (text ?? row.join('\t')).toLowerCase();
	});
}

/** What is missing of somebody who may be left out, and of whom something was given. */
function halfNamed(given: Given, plan: Plan, targets: readonly Target[]): Target | undefined {
	return targets.find((target) => {
		if (target.what !== 'person' || !['name', 'email', 'phone'].includes(target.part)) return false;
		const person = plan.people.find((one) => one.id === target.person)!;
		const said = given.people?.[person.id];
		if (!said || !person.optional) return false;
		const reached = said.deliver ?? person.deliver ?? 'mail';
		const wanted =
			target.part === 'name' || (target.part === 'email' ? reached.includes('mail') : reached.includes('text'));
		return wanted && !said[target.part as 'name'];
	});
}

const MOST_NAMED = 8;

/** Puts a cell where it belongs; the sentence that says why it won't do, or null. */
function fill(
	given: Given,
	target: Target,
	cell: string,
	plan: Plan,
	now: ReturnType<typeof live>,
	documents: Facts['documents']
): string | null {
	if (cell === '')
		return target.needed ? `${target.what === 'answer' ? `“${target.name}”` : target.name} is missing.` : null;
	const choice = target.choices?.find((one) => folded(one) === folded(cell));
	if (target.choices && choice === undefined) {
		const { choices } = target;
		const more = choices.length > MOST_NAMED ? ` and ${choices.length - MOST_NAMED} more` : '';
		return `“${cutText(cell, 60)}” is not among the choices: ${choices.slice(0, MOST_NAMED).join(', ')}${more}.`;
	}
	if (target.what === 'document') {
		const found = documents?.get(documentKey(cell));
		if (found?.is !== 'ready')
			return found?.say ?? `There is no document called “${cutText(cell, 60)}” among those given.`;
		given.document = found.document;
		return null;
	}
	if (target.what === 'title') {
		given.title = cutText(cell, 200);
		return null;
	}
	if (target.what === 'days') {
		const days = Number(cell);
		if (!Number.isInteger(days) || days < 1 || days > 730)
			return `“${cutText(cell, 60)}” is no number of days from 1 to 730.`;
		given.days = days;
		return null;
	}
	if (target.what === 'known') {
		const left = foldedAnswer(target.as, target.as === 'date' ? (dayRead(cell, localeOf(plan)) ?? '') : cell);
		if (left === '') return `“${cutText(cell, 60)}” can’t be compared with an answer.`;
		given.known = {
			...given.known,
			[target.person]: { ...given.known?.[target.person], [target.question]: left }
		};
		return null;
	}
	if (target.what === 'answer') {
		const field = plan.fields.find((one) => one.id === target.field)!;
		const answer = kindOf(field.kind).read(field, choice ?? cell, localeOf(plan));
		if (isRefusal(answer)) return answer.say;
		const no = now.check(field, answer);
		if (no) return no.say;
		(given.answers as Answers)[field.id] = answer;
		return null;
	}
	if (target.part === 'email' && !isAddress(cell)) return `“${cell}” can't be an e-mail address.`;
	if (target.part === 'phone' && !isPhone(cell)) return `“${cell}” can't be a telephone number with its country code.`;
	const person = plan.people.find((one) => one.id === target.person)!;
	const before = given.people![target.person] ?? { name: person.name, email: person.email };
	given.people![target.person] = {
		...before,
		[target.part]: choice ?? cutText(cell, target.part === 'note' ? 4000 : 254)
	};
	return null;
}
