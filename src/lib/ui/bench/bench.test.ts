import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { engagement, field, plan } from '../../../../e2e/kit/plans';
import { kindOf, questionOf } from '../../core/field';
import type { Field, Plan } from '../../core/packet';
import { toShown, type FoundPlace } from '../../core/page';
import { blockOf, copyFields, copyFor, pasteBlock, peopleHere, readBlock, repeatOn } from '../../core/plan';
import {
	alignFields,
	changeQuestion,
	giveTo,
	placeField,
	removeFields,
	setKey,
	shiftToPage,
	withGroups
} from '../../core/plan';
import { likelyOwner, placeAtHits, stillFree, takePlaces } from '../../core/plan';
import { begin, changed, redone, undone, type History } from '../../core/plan';
import { historyOf, keptOf } from '../../core/plan';
import { sheetLayout, visibleSheets } from './pages';

const page = { width: 595, height: 842, rotate: 0 as const };
const paper = (pages = 6) => ({
	id: 'paper',
	name: 'Paper',
	digest: 'a'.repeat(64),
	pages: Array.from({ length: pages }, () => page)
});
const group = (value: string, more: Partial<Field> = {}) =>
	field(value, 'pick-one', 'maren', {
		key: 'town',
		rect: { x: 50, y: 100 + value.length * 30, width: 12, height: 12 },
		settings: { value },
		...more
	});
const base = (fields: Field[], more: Partial<Plan> = {}): Plan =>
	plan([['maren'], ['tamsin']], { papers: [paper()], fields, ...more });
const shown = (p: Plan, id: string) => toShown(page, p.fields.find((f) => f.id === id)!.rect);

describe('copying', () => {
	const p = base([
		field('fee', 'number', 'maren', { key: 'fee' }),
		field('sum', 'computed', 'everybody', { key: 'total', settings: { rule: 'fee * 2 + length("fee")' } }),
		field('why', 'text', 'maren', { showWhen: 'total > 5' }),
		group('a'),
		group('bb')
	]);
	it('gives new keys, which the rules among the copies follow', () => {
		const { plan: now, fields } = copyFields(p, ['fee', 'sum', 'why']);
		const [fee, sum, why] = fields.map((id) => now.fields.find((f) => f.id === id)!);
		expect([fee!.key, sum!.settings['rule'], why!.showWhen]).toEqual([
			'fee_2',
			'fee_2 * 2 + length("fee")',
			'total_2 > 5'
		]);
		expect(sum!.person).toBe('everybody');
	});
	it('takes groups as a whole, under one new key', () => {
		const { plan: now, fields } = copyFields(p, ['a']);
		expect(fields.map((id) => now.fields.find((f) => f.id === id)!.key)).toEqual(['town_2', 'town_2']);
	});
	it('keeps the keys of what was cut', () => {
		const block = blockOf(p, ['fee']);
		const cut = removeFields(p, ['fee']);
		const back = pasteBlock(cut, block, { paper: 'paper', page: 3 }, { maren: 'maren' });
		const pasted = back.plan.fields.find((f) => f.id === back.fields[0])!;
		expect([pasted.key, pasted.page, pasted.rect]).toEqual(['fee', 3, p.fields[0]!.rect]);
	});
	it('repeats on pages in one step, as twins if wished, passing over its own page', () => {
		const done = repeatOn(p, ['fee'], 'odd', true);
		expect(typeof done !== 'string' && done.plan.fields.filter((f) => f.key === 'fee').map((f) => f.page)).toEqual([
			0, 2, 4
		]);
		expect(repeatOn(p, ['fee'], '9-12', false)).toContain('this document has 6');
		expect(repeatOn(p, ['fee'], '1', false)).toContain('already');
	});
	it('puts a block for somebody else right below, theirs', () => {
		const { plan: now, fields } = copyFor(p, ['fee', 'why'], 'tamsin');
		expect(fields.map((id) => now.fields.find((f) => f.id === id)!.person)).toEqual(['tamsin', 'tamsin']);
		expect(shown(now, fields[0]!).top).toBeGreaterThan(shown(p, 'fee').top);
	});
	it('knows people of another packet by their address, and asks about the rest', () => {
		const other = blockOf(
			plan([['x'], ['y']], {
				fields: [field('1', 'text', 'x'), field('2', 'text', 'y')],
				people: [
					{ id: 'x', name: 'Maren', email: 'MAREN@post.example', duty: 'signs' },
					{ id: 'y', name: 'Gwen', email: 'gwen@post.example', duty: 'signs' }
				]
			}),
			['1', '2']
		);
		expect(peopleHere(p, other)).toEqual({
			known: { x: 'maren' },
			unknown: [{ id: 'y', name: 'Gwen', email: 'gwen@post.example' }]
		});
		expect(readBlock(JSON.stringify(other))).toEqual(other);
		for (const odd of [null, '', '{}', '{"fields":1,"people":[]}']) expect(readBlock(odd)).toBeNull();
	});
});

describe('fields', () => {
	it('join a group when placed while one of it is chosen', () => {
		const first = placeField(base([]), 'ticks', 'maren', 'paper', 0, { x: 100, y: 100 });
		const chosen = first.plan.fields.at(-1)!;
		const second = placeField(first.plan, 'ticks', 'tamsin', 'paper', 0, { x: 100, y: 130 }, chosen);
		expect(second.plan.fields.map((f) => [f.key, f.person, f.settings['value']])).toEqual([
			['ticks', 'maren', 'option_1'],
			['ticks', 'maren', 'option_2']
		]);
		expect(withGroups(second.plan, [chosen.id])).toHaveLength(2);
		// by itself it begins a new one
		expect(placeField(first.plan, 'ticks', 'maren', 'paper', 0, { x: 9, y: 9 }).plan.fields.at(-1)!.key).toBe(
			'ticks_2'
		);
	});
	it('become twins by a key, with the checks of the one that was there, unless of another kind', () => {
		const p = base([
			field('a', 'text', 'maren', { key: 'town', required: false, settings: { most: 9 } }),
			field('b', 'text', 'tamsin'),
			field('c', 'number', 'tamsin')
		]);
		const twins = setKey(p, 'b', 'town') as Plan;
		expect(twins.fields[1]).toMatchObject({ key: 'town', required: false, settings: { most: 9 }, person: 'tamsin' });
		expect(setKey(p, 'c', 'town')).toContain('“town” is text already');
		const both = changeQuestion(twins, ['b'], (f) => ({ ...f, label: 'Town' }));
		expect(questionOf(both.fields, both.fields[0]!).map((f) => f.label)).toEqual(['Town', 'Town']);
	});
	it('are given to somebody in one step, groups whole, what is everybody’s not, the sender’s answers gone', () => {
		const p = base(
			[field('n', 'note', 'everybody'), group('a', { person: 'sender' }), group('bb', { person: 'sender' })],
			{
				answers: { a: { choice: 'a' } }
			}
		);
		const now = giveTo(p, ['n', 'a'], 'tamsin');
		expect([now.fields.map((f) => f.person), now.answers]).toEqual([['everybody', 'tamsin', 'tamsin'], {}]);
	});
	it('are arranged and moved to another page as they are shown, on turned pages too', () => {
		const turned = { ...page, rotate: 90 as const };
		const p = base([field('a', 'text', 'maren'), field('bbb', 'text', 'maren')], {
			papers: [{ ...paper(2), pages: [turned, page] }]
		});
		const lined = alignFields(p, ['a', 'bbb'], 'top');
		const tops = lined.fields.map((f) => toShown(turned, f.rect).top);
		expect(tops[0]).toBeCloseTo(tops[1]!, 5);
		const moved = shiftToPage(p, ['a'], { paper: 'paper', page: 1 }, { left: 10, top: 0 });
		expect(moved.fields[0]!.page).toBe(1);
		expect(toShown(page, moved.fields[0]!.rect).left).toBeCloseTo(toShown(turned, p.fields[0]!.rect).left + 10, 5);
	});
});

describe('found places', () => {
	const found = (label: string, top: number, more: Partial<FoundPlace> = {}): FoundPlace => ({
		page: 0,
		rect: { left: 100, top, width: 120, height: 18 },
		kind: 'text',
		label,
		key: label.toLowerCase(),
		required: true,
		settings: {},
		whose: { phrases: [label], named: '' },
		...more
	});
	const people = [
		{ id: 'maren', name: 'Maren Lindqvist', email: '', duty: 'signs' as const, jobTitle: 'Borrower' },
		{ id: 'tamsin', name: 'Tamsin Okoro', email: '', duty: 'signs' as const, jobTitle: 'Company manager' },
		{ id: 'ruben', name: 'Ruben', email: '', duty: 'gets a copy' as const, jobTitle: 'Lender' }
	];
	it.each([
		['Signature of the borrower', 'The lender', 'maren'],
		['Signed', 'For the company manager', 'tamsin'],
		['Signed', 'The lender', null]
	])('“%s” under “%s” is likely %s’s', (label, heading, owner) =>
		expect(likelyOwner(found(label, 0, { whose: { phrases: [label, heading], named: '' } }), people)).toBe(owner)
	);
	it('are taken with keys of their own, groups under one; what is taken is no longer offered', () => {
		const square = (value: string, top: number) =>
			found('Extras', top, {
				kind: 'ticks',
				key: 'extras',
				rect: { left: 50, top, width: 9, height: 9 },
				settings: { value }
			});
		const places = [found('Town', 10), found('Town', 40), square('tea', 70), square('milk', 90)];
		const one = takePlaces(base([]), 'paper', [places[2]!], places, 'maren');
		expect(stillFree(one.plan, 'paper', places)).toHaveLength(3);
		const all = takePlaces(one.plan, 'paper', stillFree(one.plan, 'paper', places), places, 'maren');
		expect(all.plan.fields.map((f) => f.key)).toEqual(['extras', 'town', 'town_2', 'extras']);
		expect(stillFree(all.plan, 'paper', places)).toEqual([]);
	});
	it('a field is placed at each find, where it is wished', () => {
		const hits = [{ paper: 'paper', page: 1, rect: { left: 100, top: 200, width: 40, height: 10 } }];
		const at = (beside: 'right of it' | 'below it' | 'on it') => {
			const { plan: now, fields } = placeAtHits(base([]), hits, 'initials', 'maren', beside);
			return Math.round(shown(now, fields[0]!).left * 10 + shown(now, fields[0]!).top);
		};
		expect([at('right of it'), at('below it'), at('on it')]).toEqual([1440 + 191, 1000 + 213, 1000 + 200]);
		expect(kindOf('initials').size.height).toBe(28);
	});
});

describe('the history that is kept over a reload', () => {
	const steps = fc.array(
		fc.record({ what: fc.constantFrom('title', 'field', 'move', 'remove', 'undo', 'redo', 'answer'), n: fc.nat(5) }),
		{ maxLength: 40 }
	);
	it('leads through the same plans, whatever was done', () => {
		fc.assert(
			fc.property(steps, (done) => {
				let h: History<Plan> = begin(engagement());
				for (const { what, n } of done) {
					const now = h.now;
					const ids = now.fields.map((f) => f.id);
					if (what === 'undo') h = undone(h);
					else if (what === 'redo') h = redone(h);
					else if (what === 'title') h = changed(h, what, { ...now, title: `T${n}` }, false);
					else if (what === 'answer')
						h = changed(h, what, n > 2 ? { ...now, answers: {} } : (({ answers: _a, ...rest }) => rest)(now), false);
					else if (what === 'field')
						h = changed(
							h,
							what,
							{ ...now, fields: [...now.fields, field(`f${h.past.length}`, 'text', 'maren')] },
							false
						);
					else if (what === 'remove')
						h = changed(h, what, removeFields(now, [ids[n % Math.max(1, ids.length)] ?? '']), false);
					else h = changed(h, what, { ...now, fields: [...now.fields].reverse() }, false);
				}
				const kept = JSON.parse(JSON.stringify(keptOf(h)));
				expect(historyOf(kept, h.now)).toEqual(h);
			})
		);
	});
	it('stays small over several hundred steps of a large plan', () => {
		const fields = Array.from({ length: 500 }, (_, i) => field(`f${i}`, 'text', 'maren'));
		let h: History<Plan> = begin(base(fields));
		for (let i = 0; i < 400; i++)
			h = changed(
				h,
				'move',
				{ ...h.now, fields: h.now.fields.map((f, n) => (n === i ? { ...f, page: 1 } : f)) },
				false
			);
		expect(h.past).toHaveLength(400);
		expect(JSON.stringify(keptOf(h)).length / JSON.stringify(h.now).length).toBeLessThan(30);
	});
});

it('only sheets near the view are drawn', () => {
	const layout = sheetLayout([paper(100)], 1, 16);
	expect([layout.tops[0], layout.tops[1], layout.height]).toEqual([16, 874, 100 * 858 + 16]);
	expect(visibleSheets(layout, 0, 800)).toEqual({ from: 0, to: 1 });
	expect(visibleSheets(layout, 43_000, 800)).toEqual({ from: 49, to: 51 });
	expect(visibleSheets(sheetLayout([], 1, 16), 0, 800)).toEqual({ from: 0, to: -1 });
});
