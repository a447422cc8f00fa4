import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { drawHouse } from './draw-house';

it('docs/house.svg is drawn from the imports as they are: npx tsx scripts/draw-house.ts draws it anew', () => {
	expect(readFileSync('docs/house.svg', 'utf8')).toBe(drawHouse());
});
it('the rooms of core that are there stand in one part of the work each', () => {
	expect(drawHouse()).not.toContain('besides:');
});
