import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { thirdParty } from '../../scripts/third-party';
import kept from './third-party.json';

it('what is said to ship is what the lock file installs, each with a licence; npm run third-party writes it anew', () => {
	const parts = thirdParty(JSON.parse(readFileSync('package-lock.json', 'utf8')));
	expect(kept).toEqual(parts);
	expect(parts.filter(({ licence }) => licence === '')).toEqual([]);
	const told = readFileSync('docs/third-party.md', 'utf8');
	for (const { name } of parts) expect(told).toContain(name);
});
