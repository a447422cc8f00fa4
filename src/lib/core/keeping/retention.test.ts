import { describe, expect, it } from 'vitest';
import { keptUntil, ruleInWords, type KeptFacts, type RetentionRule } from './index';

const rule = (change: Partial<RetentionRule> = {}): RetentionRule => ({
	id: 'r',
	name: 'Hall hire, 6 years',
	by: 'type',
	of: 'Hall hire',
	years: 6,
	from: 'term',
	key: '',
	yearEnd: true,
	then: 'dispose',
	...change
});
const facts = (change: Partial<KeptFacts> = {}): KeptFacts => ({
	ended: '2025-10-14',
	termEnd: '2026-09-30',
	type: 'Hall hire',
	folder: 'Halls',
	template: 'hall',
	answer: (key) => ({ born: '2008-02-29', note: 'soon' })[key],
	...change
});

describe('how long something is kept', () => {
	it.each([
		['six years after the term’s end, at year’s end', {}, {}, '2032-12-31'],
		['without a term, from completion', {}, { termEnd: null }, '2031-12-31'],
		['still out: no date', {}, { ended: null }, null],
		['a rule for another type', { of: 'Lease' }, {}, null],
		['a type in other capitals', { of: 'hall HIRE' }, {}, '2032-12-31'],
		['not to the end of the year', { yearEnd: false }, {}, '2032-09-30'],
		['from its end', { from: 'end' as const, yearEnd: false }, {}, '2031-10-14'],
		[
			'from a day among its answers',
			{ from: 'date' as const, key: 'born', years: 18, yearEnd: false },
			{},
			'2026-02-28'
		],
		['an answer that is no day', { from: 'date' as const, key: 'note', yearEnd: false }, {}, '2031-10-14'],
		['no such answer', { from: 'date' as const, key: 'other', yearEnd: false }, {}, '2031-10-14'],
		['no years at all', { years: 0, from: 'end' as const, yearEnd: false }, {}, '2025-10-14']
	])('%s', (_say, ruled, is, until) => {
		expect(keptUntil([rule(ruled)], facts(is))?.until ?? null).toBe(until);
	});
	it('the nearest rule is the one: the template’s, then the type’s, then the folder’s', () => {
		const rules = [
			rule({ id: 'folder', by: 'folder', of: 'Halls' }),
			rule({ id: 'type' }),
			rule({ id: 'template', by: 'template', of: 'hall' })
		];
		expect(keptUntil(rules, facts())?.rule.id).toBe('template');
		expect(keptUntil(rules, facts({ template: 'other' }))?.rule.id).toBe('type');
		expect(keptUntil(rules, facts({ template: null, type: '' }))?.rule.id).toBe('folder');
		expect(keptUntil(rules, facts({ template: null, type: '', folder: '' }))).toBeNull();
	});
	it('is said in a sentence', () => {
		expect(ruleInWords(rule(), 'Hall hire')).toBe(
			'Hall hire: 6 years after the end of its term, to the end of that year; then it goes by itself.'
		);
		expect(ruleInWords(rule({ years: 1, from: 'end', yearEnd: false, then: 'review' }), 'Rotas')).toBe(
			'Rotas: 1 year after it has ended; then somebody looks at it.'
		);
	});
});
