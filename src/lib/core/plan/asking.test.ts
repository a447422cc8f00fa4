import { expect, it } from 'vitest';
import { plan } from '../../../../e2e/kit/plans';
import type { IdentityAsked } from '../identity';
import { askAlike, changePerson } from './index';

it('the same is asked of all at a stop, but for the answers that are one person’s; of nobody where nothing is asked', () => {
	const asked: IdentityAsked = {
		document: { kinds: ['passport'], countries: ['GBR'], bothSides: false, holder: true },
		questions: { asks: [{ id: 'q', ask: 'Which?', as: 'text', hash: 'salt:hash' }], right: 1 },
		either: true,
		tries: 2
	};
	const before = changePerson(plan([['maren', 'kit'], ['zoë']]), 'maren', { identity: asked });
	const after = askAlike(before, 'maren', ['kit']);
	const of = (id: string) => after.people.find((person) => person.id === id)?.identity;
	expect(of('kit')).toEqual({
		...asked,
		questions: { asks: [{ id: 'q', ask: 'Which?', as: 'text', hash: '' }], right: 1 }
	});
	expect([of('maren'), of('zoë')]).toEqual([asked, undefined]);
	expect(askAlike(after, 'zoë', ['kit']).people.find((person) => person.id === 'kit')?.identity).toBeUndefined();
});
