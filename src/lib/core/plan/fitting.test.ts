import { describe, expect, it } from 'vitest';
import { field, plan as planOf } from '../../../../e2e/kit/plans';
import type { Paper } from '../packet';
import { shownPage, toShown, type Fitted } from '../page';
import { doubtsSaid, exchanged, laidOut, withTemplate } from './fitting';
import { isMarkerKnown, markerFields } from './marked';
import { movedPage, pagesAsTheyAre, reordered, turned } from './pages';

const A4 = { width: 595, height: 842, rotate: 0 as const };
const paper = (pages: number): Paper => ({
	id: 'paper',
	name: 'Letter',
	digest: 'b'.repeat(64),
	pages: Array.from({ length: pages }, () => A4)
});
const plan = {
	...planOf([['maren']], { papers: [paper(3)] }),
	fields: [
		field('a', 'text', 'maren'),
		field('b', 'text', 'maren', { page: 1, cover: { x: 1, y: 1, width: 9, height: 9 } }),
		field('c', 'text', 'maren', { page: 2 })
	]
};
const fitted: Fitted[] = [
	{ id: 'a', place: { page: 0, rect: { x: 1, y: 2, width: 3, height: 4 } }, sure: 1, doubts: [], moved: false },
	{ id: 'b', place: null, sure: 0, doubts: ['gone'], moved: false },
	{ id: 'c', place: { page: 1, rect: { x: 5, y: 6, width: 3, height: 4 } }, sure: 0.6, doubts: ['count'], moved: true }
];

describe('fields on another version', () => {
	const laid = laidOut(plan.fields, fitted);
	it('that want a look come first, and say why', () => {
		expect(laid.map((one) => [one.field.id, one.seen])).toEqual([
			['c', false],
			['b', false],
			['a', true]
		]);
		expect(doubtsSaid(laid[0]!)).toContain('it moved from page 3 to page 2');
		expect([doubtsSaid(laid[1]!), doubtsSaid(laid[2]!)]).toEqual(['its place is gone', '']);
	});
	it('are laid down where they were put; those left out are gone, all else is kept', () => {
		const next = { name: 'New', digest: 'c'.repeat(64), pages: [A4, A4] };
		const done = exchanged(plan, 'paper', next, laid);
		expect(done.papers).toEqual([{ id: 'paper', ...next }]);
		expect(done.fields.map((f) => [f.id, f.page, f.rect.x])).toEqual([
			['a', 0, 1],
			['c', 1, 5]
		]);
		expect(done.people).toBe(plan.people);
	});
	it('of a template come with its people, before the documents that were there', () => {
		const mine = {
			...planOf([], { title: 'bass' }),
			papers: [
				{ ...paper(1), id: 'mine' },
				{ ...paper(1), id: 'handbook' }
			]
		};
		const both = withTemplate(mine, plan, 'mine');
		expect([both.title, both.papers.map((p) => p.id), both.people.length]).toEqual(['Test', ['paper', 'handbook'], 1]);
	});
});

describe('pages in another order', () => {
	const pages = pagesAsTheyAre(plan.papers[0]!);
	it('take their fields along, and those left out take theirs away', () => {
		const order = movedPage(pages, 2, 0).filter((page) => page.from !== 1);
		const done = reordered(plan, 'paper', { digest: 'd'.repeat(64), pages: [A4, A4] }, order);
		expect(done.fields.map((f) => [f.id, f.page])).toEqual([
			['a', 1],
			['c', 0]
		]);
	});
	it('turned keep fields at their corner as it is shown, and the right way up', () => {
		const order = turned(pages, 0);
		expect(order[0]!.turn).toBe(90);
		const now = order.map(({ turn }) => ({ ...A4, rotate: turn }));
		const [first] = reordered(plan, 'paper', { digest: 'd'.repeat(64), pages: now }, order).fields;
		const [before, after] = [toShown(A4, plan.fields[0]!.rect), toShown(now[0]!, first!.rect)];
		expect([after.width, after.height]).toEqual([before.width, before.height]);
		expect(after.left).toBeCloseTo(before.left);
	});
});

describe('markers of a document', () => {
	const words = ['Sign', 'here', '::maren.signature.sig::', '::nobody.text::'].map((text, i) => ({
		text,
		x: 50 + i * 130,
		y: 700,
		width: 120,
		height: 11
	}));
	const page = shownPage({ words: [words], drawn: [] }, 0, A4);
	it('become fields with the marker covered, or are named with what is not known', () => {
		const roles = { ...plan, people: plan.people.map((p) => ({ ...p, role: 'maren' })) };
		const [known, unknown] = markerFields(roles, paper(1), () => page);
		expect(isMarkerKnown(known!) && known.field).toMatchObject({
			kind: 'signature',
			person: 'maren',
			key: 'sig',
			page: 0,
			required: true
		});
		const cover = isMarkerKnown(known!) ? known.field.cover! : null;
		expect(cover!.x).toBeCloseTo(309, 0);
		expect(unknown).toMatchObject({ unknown: 'a role “nobody”' });
		expect(markerFields(roles, paper(1), () => null)).toEqual([]);
	});
});
