import { readdirSync } from 'node:fs';
import { expect, it } from 'vitest';
import { KINDS } from '../../../../core/field';
import { ANSWERS } from '../../../signing/answers';
import { INSPECTED } from './index';

it('each kind of field has its row in both tables, and nobody else has one', () => {
	const kinds = KINDS.map(({ kind }) => kind as string).sort();
	expect(Object.keys(INSPECTED).sort()).toEqual(kinds);
	expect(Object.keys(ANSWERS).sort()).toEqual(kinds);
});
it('whatever is asked of a person can be answered, and what is not is asked of nobody', () => {
	for (const { kind, filledBy } of KINDS) expect(ANSWERS[kind] !== null || filledBy !== 'person', kind).toBe(true);
	for (const { kind, filledBy } of KINDS)
		if (filledBy === 'rule' || filledBy === 'nobody') expect(ANSWERS[kind]).toBeNull();
});
it('each component of an inspector is called by its kind', () => {
	const files = readdirSync(import.meta.dirname).filter((name) => name.endsWith('.svelte'));
	const told = KINDS.filter(({ kind }) => INSPECTED[kind] !== null).map(({ kind }) => `${kind}.svelte`);
	expect(files.sort()).toEqual(told.sort());
});
