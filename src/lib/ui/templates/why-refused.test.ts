import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, it } from 'vitest';
import { WHY_REFUSED, whyRefused } from './why-refused';

/** Of a machine that sends what no page of ours does, or of all answers together: nobody leaves a field with these. */
const NOT_TYPED = /-wrong$|^(not-your-field|answer-missing|pattern-long|rule-)/;

it('says in words why each entry is refused that somebody can leave behind, and nothing that none is refused for', () => {
	const folder = 'src/lib/core/field';
	const sources = readdirSync(folder, { recursive: true, encoding: 'utf8' })
		.filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
		.map((name) => readFileSync(path.join(folder, name), 'utf8'));
	const codes = new Set(
		sources.flatMap((text) => [...text.matchAll(/refuse(?:With)?\(\s*'([a-z-]+)'/g)].map(([, code]) => code!))
	);
	expect(codes.size).toBeGreaterThan(30);
	expect([...codes].filter((code) => !NOT_TYPED.test(code) && !(code in WHY_REFUSED))).toEqual([]);
	expect(Object.keys(WHY_REFUSED).filter((code) => !codes.has(code))).toEqual([]);
	expect(whyRefused('made-up')).toBe('for another reason');
});
