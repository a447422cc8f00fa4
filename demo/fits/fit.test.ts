import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { EDITS } from './edits';
import { judgeEdit } from './judge';

const doc = readFileSync('docs/fit.md', 'utf8');

describe('fields fitted on an edited document', () => {
	it.each(EDITS)('“$name” comes out as docs/fit.md says, and nothing is wrong without a word', async (edit) => {
		const row: number[] = [];
		for (const tuned of [true, false]) {
			const { sure, asked, listed, wrong, faults } = await judgeEdit(edit, tuned, [11]);
			expect(faults.filter((fault) => fault.includes('WRONG'))).toEqual([]);
			row.push(sure, asked, listed, wrong);
		}
		const said = doc
			.split('\n')
			.find((line) => line.startsWith(`| ${edit.name} `))
			?.split('|')
			.slice(2, 10)
			.map((cell) => Number(cell.trim()));
		expect(row).toEqual(said);
	});
});
