import { expect, it } from 'vitest';
import { engagement, plan } from '../../../../e2e/kit/plans';
import { actorsAt, following, moved, stopOf } from './index';

const order = (p: ReturnType<typeof engagement>) => p.stops.map((s) => s.people.join('+'));

it('moves a person to a stop of their own, earlier and later', () => {
	const p = engagement();
	expect(order(moved(p, 'tamsin', 1, 'before'))).toEqual(['ingrid', 'tamsin', 'maren', 'ruben']);
	expect(order(moved(p, 'ingrid', 3, 'before'))).toEqual(['maren', 'tamsin', 'ingrid', 'ruben']);
	expect(order(moved(p, 'ingrid', 4, 'before'))).toEqual(['maren', 'tamsin', 'ruben', 'ingrid']);
});
it('puts people side by side and takes them apart again', () => {
	const together = moved(engagement(), 'tamsin', 1, 'beside');
	expect(order(together)).toEqual(['ingrid', 'maren+tamsin', 'ruben']);
	expect(order(moved(together, 'tamsin', 2, 'before'))).toEqual(['ingrid', 'maren', 'tamsin', 'ruben']);
});
it('gives every stop an id of its own, however often people are moved', () => {
	let p = engagement();
	// Tamsin leaves a stop that others have joined, and comes back to a place of the same number
	p = moved(moved(moved(p, 'tamsin', 1, 'before'), 'maren', 1, 'beside'), 'tamsin', 1, 'before');
	expect(new Set(p.stops.map((s) => s.id)).size).toBe(p.stops.length);
	for (let i = 0; i < 12; i++) p = moved(p, ['ingrid', 'maren', 'tamsin'][i % 3]!, i % 4, i % 2 ? 'beside' : 'before');
	expect(new Set(p.stops.map((s) => s.id)).size).toBe(p.stops.length);
	expect(p.stops.flatMap((s) => s.people).sort()).toEqual(['ingrid', 'maren', 'ruben', 'tamsin']);
});
it('passes over stops at which nobody acts', () => {
	const p = plan([['a:gets a copy'], ['b'], ['c:gets a copy']]);
	const next = (after: number) => following(p, after, {}, '2026-11-24').opens?.stop ?? null;
	expect([next(-1), next(1), actorsAt(p, 2).length, stopOf(p, 'c'), stopOf(p, 'x')]).toEqual([1, null, 0, 2, -1]);
});
