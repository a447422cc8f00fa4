import { beforeEach, describe, expect, it, vi } from 'vitest';
import { field, plan, typed } from '../../../../../e2e/kit/plans';
import { afterRehearsed, forgetRehearsal, rehearsalKeeper, rehearsed } from './rehearsing';

const kept = new Map<string, string>();
vi.stubGlobal('sessionStorage', {
	getItem: (name: string) => kept.get(name) ?? null,
	setItem: (name: string, value: string) => void kept.set(name, value),
	removeItem: (name: string) => void kept.delete(name)
});
beforeEach(() => kept.clear());

const p = plan([['maren'], ['tamsin']]);
p.fields.push(
	field('n1', 'number', 'maren', { key: 'nights' }),
	field('n2', 'number', 'tamsin', { key: 'nights' }),
	field('sum', 'computed', 'everybody', { key: 'sum', settings: { rule: 'nights * fee' } }),
	field('fee', 'number', 'sender', { key: 'fee' })
);
const context = (person: string) => () => ({
	person: { name: person, email: `${person}@post.example` },
	now: '2026-12-02T10:00:00Z',
	zone: 'Europe/London',
	locale: 'en-GB'
});
const keeper = (person: string, done = () => undefined as void) =>
	rehearsalKeeper('d', p, person, context(person), { fee: { number: '240' } }, done);

describe('a rehearsal', () => {
	it('refuses what signing would refuse, with the field it is about, and keeps nothing of it', async () => {
		expect(await keeper('maren').finish({ 'maren-sig': typed('M') }, { names: {}, guests: {} })).toMatchObject({
			ok: false,
			at: 'n1'
		});
		expect(rehearsed('d')).toEqual({ answers: {}, finished: [] });
	});
	it('hands answers on to the next, twins and sums too, in this tab only', async () => {
		const done = vi.fn();
		expect(
			await keeper('maren', done).finish({ 'maren-sig': typed('M'), n1: { number: '3' } }, { names: {}, guests: {} })
		).toMatchObject({
			ok: true
		});
		expect(done).toHaveBeenCalledOnce();
		expect(rehearsed('d')).toMatchObject({
			finished: ['maren'],
			answers: { n1: { number: '3' }, n2: { number: '3' }, sum: { number: '720' } }
		});
		expect(
			await keeper('tamsin').finish({ 'tamsin-sig': typed('T'), n2: { number: '9' } }, { names: {}, guests: {} })
		).toMatchObject({
			ok: true
		});
		expect(rehearsed('d')).toMatchObject({ finished: ['maren', 'tamsin'], answers: { n2: { number: '3' } } });
		expect(rehearsed('another draft').finished).toEqual([]);
		forgetRehearsal('d');
		expect(rehearsed('d').finished).toEqual([]);
	});
	it('takes files without sending them anywhere, and no pictures', async () => {
		const fetched = vi.fn();
		vi.stubGlobal('fetch', fetched);
		expect(await keeper('maren').file('x', new File(['abc'], 'a.pdf', { type: 'application/pdf' }))).toMatchObject({
			name: 'a.pdf',
			bytes: 3
		});
		expect(await keeper('maren').picture(new File(['abc'], 'a.png'))).toContain('Type or draw it');
		expect(await keeper('maren').keep({})).toMatchObject({ ok: true });
		expect(fetched).not.toHaveBeenCalled();
		vi.unstubAllGlobals();
	});
	it('goes on as a packet would: past stops that a rule leaves out, and past the others of a group', () => {
		const route = plan([['a'], ['b'], ['c', 'd'], ['e']], { fields: [field('n', 'number', 'a', { key: 'n' })] });
		route.stops[1] = { ...route.stops[1]!, when: 'n > 5' };
		const after = (who: string, n: string, finished: string[]) =>
			afterRehearsed(route, who, { answers: { n: { number: n } }, finished }, {}, '2026-12-02');
		expect(after('a', '9', ['a'])).toEqual({ next: 'b', left: [] });
		expect(after('a', '1', ['a'])).toEqual({ next: 'c', left: ['b'] });
		expect(after('c', '1', ['a', 'c'])).toEqual({ next: 'd', left: [] });
		route.stops[2] = { ...route.stops[2]!, anyOne: true };
		expect(after('c', '1', ['a', 'c'])).toEqual({ next: 'e', left: ['d'] });
		expect(after('e', '1', ['a', 'c', 'e'])).toEqual({ next: null, left: [] });
	});
});
