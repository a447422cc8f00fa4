import { freeKey, parsedRule, plainKey } from '../field';
import { checkRule, Dec, dayOf, holds, isFault, type RuleFault, type RuleKeys, type RuleValue } from '../rule';
import type { Sheet } from './sheet';

/** The name of each column in rules: its heading as a key, `column_2` where that is no name. */
export function columnKeys({ columns }: Sheet): string[] {
	const keys: string[] = [];
	for (const [i, column] of columns.entries()) keys.push(freeKey(plainKey(column) || `column_${i + 1}`, keys));
	return keys;
}

const NUMBER = /^-?\d+(\.\d+)?$/;

/** What a column holds, by all its cells: numbers, ISO 8601 days, or texts. */
function typesOf({ columns, rows }: Sheet): ('number' | 'date' | 'text')[] {
	return columns.map((_column, i) => {
		const cells = rows.map((row) => row[i] ?? '').filter((cell) => cell !== '');
		if (cells.length > 0 && cells.every((cell) => NUMBER.test(cell))) return 'number';
		return cells.length > 0 && cells.every((cell) => dayOf(cell) !== null) ? 'date' : 'text';
	});
}

/** What is wrong with a filter, with its place; null where nothing is. An empty one lets every row pass. */
export function filterFault(sheet: Sheet, filter: string): RuleFault | null {
	if (filter.trim() === '') return null;
	const types = typesOf(sheet);
	const keys: RuleKeys = Object.fromEntries(columnKeys(sheet).map((key, i) => [key, types[i]!]));
	const checked = checkRule(filter, keys, 'truth');
	return isFault(checked) ? checked : null;
}

/** Whether each row passes the filter; an empty cell has no value. A filter that is faulty lets none pass. */
export function passing(sheet: Sheet, filter: string, today: string): boolean[] {
	if (filter.trim() === '') return sheet.rows.map(() => true);
	const node = parsedRule(filter);
	if (filterFault(sheet, filter) || isFault(node)) return sheet.rows.map(() => false);
	const types = typesOf(sheet);
	const keys = columnKeys(sheet);
	return sheet.rows.map((row) =>
		holds(node, {
			today,
			value(key): RuleValue {
				const at = keys.indexOf(key);
				const cell = row[at] ?? '';
				if (cell === '') return null;
				return types[at] === 'number' ? new Dec(cell) : types[at] === 'date' ? dayOf(cell) : cell;
			}
		})
	);
}
