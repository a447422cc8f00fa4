import { kindOf } from '../field';
import { folded } from '../folded';
import { isAddress, isPhone, type Plan } from '../packet';
import { dayOf } from '../rule';
import type { Sheet } from './sheet';
import type { Target } from './targets';

/** Where a target's words come from: one column, or several joined by a blank. */
export interface Source {
	columns: number[];
	/** “Kowal, Idris” is turned into “Idris Kowal” */
	turned?: true;
	/** only the first word, or all but it */
	part?: 'first' | 'rest';
	/** how sure it is: settled by a person or said by its heading, or only likely */
	sure: boolean;
}

/** Which columns fill which target, by the target's id; a target that is not there stays as the template has it. */
export type Mapping = Record<string, Source>;

/** What headings meant before, with this template: target ids by the heading, folded. */
export type Remembered = Readonly<Record<string, string>>;

const plain = (text: string) => folded(text).replace(/[^\p{L}\p{N}]/gu, '');
/** How a heading is remembered. */
export const headKey = plain;

/** Headings of the two halves of a name, that of the family last. */
const FIRST_NAMES = ['firstname', 'givenname', 'forename', 'first', 'given'];
const LAST_NAMES = ['surname', 'lastname', 'familyname', 'last', 'family'];

/** So many of the cells that hold anything have to be of a kind for the column to be. */
const MOSTLY = 0.8;
/** So many rows are looked at. */
const LOOKED_AT = 200;

/**
 * Which columns are likely meant for which targets: as they were before, by the same words, by what stands in their cells, by words
 * within words. A column fills one target only, and a name may be joined from two.
 */
export function matched(sheet: Sheet, targets: readonly Target[], plan: Plan, remembered: Remembered = {}): Mapping {
	const mapping: Mapping = {};
	const headings = sheet.columns.map(plain);
	const taken = new Set<number>();
	const put = (target: Target, columns: number[], sure: boolean, more: Partial<Source> = {}) => {
		mapping[target.id] = { columns, sure, ...more };
		for (const column of columns) taken.add(column);
	};
	const open = () => targets.filter((target) => mapping[target.id] === undefined);
	const free = (fits: (heading: string, column: number) => boolean) =>
		headings.findIndex((heading, column) => !taken.has(column) && fits(heading, column));

	headings.forEach((heading, column) => {
		const target = targets.find((one) => one.id === remembered[heading]);
		if (heading === '' || !target) return;
		const before = mapping[target.id];
		put(target, [...(before?.columns ?? []), column], true);
	});
	const byWords = (fits: (heading: string, word: string) => boolean, sure: boolean) => {
		for (const target of open())
			for (const word of target.words.map(plain)) {
				const column = free((heading) => heading !== '' && fits(heading, word));
				if (column < 0) continue;
				put(target, [column], sure);
				break;
			}
	};
	byWords((heading, word) => heading === word, true);
	// a name in two columns
	for (const target of open()) {
		if (!isPart(target, 'name')) continue;
		const [first, last] = [FIRST_NAMES, LAST_NAMES].map((words) => free((heading) => words.includes(heading)));
		if (first! >= 0 && last! >= 0) put(target, [first!, last!], true);
	}
	// an address is one whatever its column is called
	const cells = contents(sheet);
	const only = (is: (cell: string) => boolean) => {
		const fitting = headings.flatMap((_heading, column) =>
			!taken.has(column) && mostly(cells[column]!, is) ? [column] : []
		);
		return fitting.length === 1 ? fitting[0]! : -1;
	};
	for (const target of open()) {
		const is = kindOfCells(target, plan);
		const column = is ? only(is) : -1;
		if (column >= 0) put(target, [column], isPart(target, 'email'));
	}
	byWords(
		(heading, word) => word.length > 3 && (heading.includes(word) || (heading.length > 3 && word.includes(heading))),
		false
	);
	for (const [id, source] of Object.entries(mapping)) {
		const target = targets.find((one) => one.id === id)!;
		if (isPart(target, 'name') && source.columns.length === 1 && mostly(cells[source.columns[0]!]!, isTurned))
			source.turned = true;
	}
	return mapping;
}

const isPart = (target: Target, part: 'name' | 'email') => target.what === 'person' && target.part === part;
const isTurned = (cell: string) => /^[^,]+,[^,]+$/.test(cell);

/** The first cells of each column that hold anything. */
const contents = ({ columns, rows }: Sheet): string[][] =>
	columns.map((_column, i) =>
		rows
			.slice(0, LOOKED_AT)
			.map((row) => row[i]!)
			.filter(Boolean)
	);
const mostly = (cells: readonly string[], is: (cell: string) => boolean) =>
	cells.length > 0 && cells.filter(is).length >= cells.length * MOSTLY;

/** What cells look like that are meant for a target, where that can be told from all others. */
function kindOfCells(target: Target, plan: Plan): ((cell: string) => boolean) | null {
	if (target.what === 'person') {
		if (target.part === 'email') return isAddress;
		if (target.part === 'phone') return (cell) => isPhone(cell);
	}
	if (target.choices) {
		const choices = new Set(target.choices.map(folded));
		return (cell) => choices.has(folded(cell));
	}
	if (target.what !== 'answer') return null;
	const field = plan.fields.find((one) => one.id === target.field);
	return field && kindOf(field.kind).kind === 'date' ? (cell) => dayOf(cell) !== null : null;
}

/** What a row brings for a target: its cells joined, turned or parted. */
export function textFrom(row: readonly string[], source: Source | undefined): string {
	if (!source) return '';
	let text = source.columns
		.map((column) => row[column] ?? '')
		.filter(Boolean)
		.join(' ');
	if (source.turned) {
		const [last, first] = text.split(',').map((one) => one.trim());
		if (first && last && isTurned(text)) text = `${first} ${last}`;
	}
	if (!source.part) return text;
	const [first = '', ...rest] = text.split(/\s+/);
	return source.part === 'first' ? first : rest.join(' ');
}
