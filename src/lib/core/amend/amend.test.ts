import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chainOf, differences, findAcross, type Link } from './index';
import type { ShownPage } from '../page';

describe('what differs between two texts', () => {
	const words = (text: string) => text.split(' ').filter(Boolean);
	it('is told by words, with what was struck, what is new, and the pages', () => {
		const before = [words('The hirer takes Hall 2 for £185 a day.'), words('Keys are fetched at nine.')];
		const after = [
			words('The hirer takes Hall 3 for £785 a day.'),
			words('Keys are fetched at nine.'),
			words('No dogs.')
		];
		expect(differences(before, after)).toEqual([
			expect.objectContaining({ struck: '2', fresh: '3', lead: 'The hirer takes Hall', pageBefore: 0, pageAfter: 0 }),
			expect.objectContaining({ struck: '£185', fresh: '£785' }),
			expect.objectContaining({ struck: '', fresh: 'No dogs.', pageBefore: null, pageAfter: 2 })
		]);
		expect(differences(after, before).at(-1)).toMatchObject({ struck: 'No dogs.', fresh: '', pageBefore: 2 });
		expect(differences(before, before)).toEqual([]);
		expect(differences([], [])).toEqual([]);
	});
	it('makes the later text of the earlier one, whatever they are', () => {
		const text = fc.array(fc.constantFrom('a', 'b', 'c', 'D', 'e.'), { maxLength: 30 });
		fc.assert(
			fc.property(text, text, (one, other) => {
				const changes = differences([one], [other]);
				expect(
					changes.flatMap(({ struck }) => words(struck)).length - changes.flatMap(({ fresh }) => words(fresh)).length
				).toBe(one.length - other.length);
				expect(changes.length === 0).toBe(one.join(' ') === other.join(' '));
			})
		);
	});
});

describe('words on a page', () => {
	const row = (top: number, text: string) => {
		let left = 50;
		const all = text.split(' ').map((word) => {
			const one = { text: word, left, top, width: word.length * 6, height: 10 };
			left += one.width + 4;
			return one;
		});
		return { top, height: 10, words: all };
	};
	const page = {
		rows: [row(100, 'The hirer takes Hall'), row(114, '2 for a day; Hall 2 is warm.')]
	} as unknown as ShownPage;
	it('are found over the end of a line, a rectangle a row', () => {
		const found = findAcross(page, 'hall  2');
		expect(found.map(({ rows }) => rows.length)).toEqual([2, 1]);
		expect(found[0]).toMatchObject({ words: 'Hall 2', before: 'The hirer takes ' });
		expect(found[0]!.rows.map(({ top }) => top)).toEqual([100, 114]);
		expect(findAcross(page, 'cold')).toEqual([]);
		expect(findAcross(page, '  ')).toEqual([]);
	});
});

describe('a chain', () => {
	const link = (id: string, amends: string | null, status: string, at: string | null = null): Link => ({
		id,
		reference: id,
		title: id,
		amends,
		status,
		at
	});
	it.each([
		['alone', [link('a', null, 'completed', '1')], 'a', ['a']],
		['out', [link('a', null, 'completed', '1'), link('b', 'a', 'out')], 'a', ['a', 'b']],
		['amended', [link('a', null, 'completed', '1'), link('b', 'a', 'completed', '2')], 'b', ['a', 'b']],
		[
			'amended, the next withdrawn, another complete',
			[
				link('d', 'b', 'completed', '4'),
				link('a', null, 'completed', '1'),
				link('c', 'b', 'withdrawn', '3'),
				link('b', 'a', 'completed', '2')
			],
			'd',
			['a', 'b', 'c', 'd']
		],
		['of nothing completed', [link('a', null, 'declined', '1')], null, ['a']]
	])('%s', (_say, links, holds, order) => {
		const chain = chainOf(links);
		expect(chain.holds?.id ?? null).toBe(holds);
		expect(chain.order.map(({ id }) => id)).toEqual(order);
	});
});
