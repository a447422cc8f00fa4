import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { FORMS } from './index';
import { judge } from './judge';

const doc = readFileSync('docs/found-places.md', 'utf8');

describe('found places', () => {
	it.each(FORMS)('on “$name” are as docs/found-places.md says', async (form) => {
		const judged = await judge(form);
		const row = [judged.places, judged.right, judged.false.length, judged.kinds].join(' ');
		const said = doc
			.split('\n')
			.find((line) => line.startsWith(`| ${form.name} `))
			?.split('|')
			.slice(3, 7)
			.map((cell) => cell.trim())
			.join(' ');
		expect(row).toBe(said);
		// what was never seen while making it is found nearly as well
		expect(judged.right / judged.places).toBeGreaterThanOrEqual(0.95);
		expect(judged.right / (judged.right + judged.false.length)).toBeGreaterThanOrEqual(0.95);
	});
	it('were judged on eight forms, a third of them kept out', () => {
		expect([FORMS.length, FORMS.filter((f) => !f.tuned).length]).toEqual([8, 3]);
	});
});
