import { describe, expect, it } from 'vitest';
import { field, plan, typed } from '../../../../e2e/kit/plans';
import { isRefusal } from '../refusal';
import { finishAnswers, kindOf, KINDS, openFields, type Answer } from './index';

const context = {
	person: { name: 'Maren Sofie Lindqvist', email: 'maren@post.example' },
	now: '2026-12-02T23:30:00Z',
	zone: 'Europe/Berlin',
	locale: 'en-GB'
};
const line = (...xs: number[]): Answer => ({ way: 'drawn', strokes: [xs], ratio: 0.3 });

describe('each kind', () => {
	it('has a letter and a name of its own', () => {
		expect(new Set(KINDS.map((k) => k.letter)).size).toBe(KINDS.length);
		expect(new Set(KINDS.map((k) => k.kind)).size).toBe(KINDS.length);
		expect(() => kindOf('toString')).toThrow();
	});

	// given a field of a kind with settings, when this is answered, then this refusal (or none)
	it.each([
		['signature', {}, typed('Maren'), null],
		['signature', {}, typed('  '), 'mark-empty'],
		['signature', {}, line(0, 0, 500, 100), null],
		['signature', {}, line(500, 100), 'mark-too-small'],
		['signature', {}, line(500, 100, 501, 101), 'mark-too-small'],
		['signature', {}, { way: 'picture', digest: 'a'.repeat(64) }, null],
		['signature', {}, { text: 'Maren' }, 'signature-wrong'],
		['initials', {}, typed('ML'), null],
		['initials', {}, { text: 'ML' }, 'initials-wrong'],
		['name', {}, { text: 'Maren' }, null],
		['name', {}, { text: ' ' }, 'name-empty'],
		['name', {}, { text: 'x'.repeat(201) }, 'name-long'],
		['name', {}, typed('Maren'), 'name-wrong'],
		['text', {}, { text: 'something' }, null],
		['text', {}, { text: '' }, 'text-empty'],
		['text', {}, { text: 'a\nb' }, 'text-lines'],
		['text', { several: true }, { text: 'a\nb' }, null],
		['text', { most: 3 }, { text: 'abcd' }, 'text-long'],
		['text', { most: 3 }, { text: '👩‍🎤'.slice(0, 2) + 'ab' }, null],
		['text', {}, { text: 'x'.repeat(10_000) }, 'text-long'],
		['text', {}, { at: context.now, text: 'x' }, 'text-wrong'],
		['signing-date', {}, { text: 'tomorrow' }, 'date-wrong']
	] as const)('%s %j answered with %j: %s', (kind, settings, answer, code) => {
		const refusal = kindOf(kind).check(field('f', kind, 'maren', { settings: { ...settings } }), answer as Answer);
		expect(refusal?.code ?? null).toBe(code);
	});

	it.each([
		['name', {}, 'Maren Sofie Lindqvist'],
		['name', { part: 'given' }, 'Maren Sofie'],
		['name', { part: 'family' }, 'Lindqvist'],
		// 23:30 UTC is the next day in Berlin
		['signing-date', {}, '3 December 2026'],
		['signing-date', { format: 'medium' }, '3 Dec 2026'],
		['signing-date', { format: 'iso' }, '2026-12-03'],
		['text', {}, ''],
		['signature', {}, '']
	] as const)('%s %j is filled in beforehand with “%s”', (kind, settings, text) => {
		const one = field('f', kind, 'maren', { settings: { ...settings } });
		const answer = kindOf(kind).prefill(one, context);
		expect(answer ? kindOf(kind).shown(one, answer) : '').toBe(text);
	});
});

describe('finishing', () => {
	const given = plan([['maren'], ['tamsin']]);
	given.fields.push(
		field('note', 'text', 'maren', { required: false }),
		field('date', 'signing-date', 'maren'),
		field('ini', 'initials', 'maren')
	);
	const good = { 'maren-sig': typed('Maren'), ini: typed('ML') };

	it('fills in what is Pellum’s and leaves out what may stay empty', () => {
		const all = finishAnswers(given, 'maren', { ...good, note: { text: ' ' } }, context);
		expect(Object.keys(all).sort()).toEqual(['date', 'ini', 'maren-sig']);
	});
	it.each([
		['a required one is missing', { 'maren-sig': typed('Maren') }, 'answer-missing', 'ini'],
		['it is somebody else’s', { ...good, 'tamsin-sig': typed('T') }, 'not-your-field', 'tamsin-sig'],
		['it is no field at all', { ...good, constructor: typed('T') }, 'not-your-field', 'constructor'],
		['it does not pass its kind', { ...good, note: { text: 'a\nb' } }, 'text-lines', 'note']
	])('is refused where %s', (_, answers, code, at) => {
		const no = finishAnswers(given, 'maren', answers, context);
		expect(isRefusal(no) && [no.code, no.at]).toEqual([code, at]);
	});
	it('never takes a date that the person made up', () => {
		const all = finishAnswers(given, 'maren', { ...good, date: { at: '1999-01-01', text: '1999' } }, context);
		expect(!isRefusal(all) && all['date']).toEqual({ at: context.now, text: '3 December 2026' });
	});
	it('lists what is open by the same checks', () => {
		expect(openFields(given, 'maren', { 'maren-sig': typed(' ') }).map((f) => f.id)).toEqual(['maren-sig', 'ini']);
		expect(openFields(given, 'maren', good)).toEqual([]);
	});
});
