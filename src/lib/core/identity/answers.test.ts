import { describe, expect, it } from 'vitest';
import { answersRight, askedFault, foldedAnswer, sidesFor, waysLeft, type IdentityAsked } from '.';

describe('an answer is compared by what is left of it', () => {
	it.each([
		['text', ' Viola d’amore ', 'violadamore'],
		['text', 'VIOLA DAMORE', 'violadamore'],
		['text', 'Škoda', 'skoda'],
		['text', 'ﬁne', 'fine'],
		['text', '…', ''],
		['number', '1,234.50', '1234.5'],
		['number', '1.234,5', '1234.5'],
		['number', '£1,234', '1234'],
		['number', '0012', '12'],
		['number', '1,000,000', '1000000'],
		['number', '0.125', '0.125'],
		['number', '-3.0', '-3'],
		['number', 'none', ''],
		['date', '2012-03-02', '2012-03-02'],
		['date', '2 March', '']
	] as const)('%s: %j', (as, given, left) => {
		expect(foldedAnswer(as, given)).toBe(left);
	});
	it('so many of so many are enough; none given is none right', () => {
		const asks = ['a', 'b', 'c'].map((id) => ({ id, ask: id, as: 'text' as const, hash: id }));
		const of = (given: Record<string, string>) => answersRight({ asks, right: 2 }, given, (one, hash) => one === hash);
		expect(of({ a: 'A', b: ' b', c: 'x' })).toEqual({ right: 2, of: 3, enough: true });
		expect(of({ a: 'A' })).toMatchObject({ right: 1, enough: false });
		expect(of({})).toMatchObject({ right: 0, enough: false });
	});
});

describe('what is asked of somebody', () => {
	const document = {
		kinds: ['passport' as const, 'identity card' as const],
		countries: [],
		bothSides: true,
		holder: true
	};
	const questions = { asks: [{ id: 'q', ask: 'Which?', as: 'text' as const, hash: 'h' }], right: 1 };
	it('is one way, either, or both', () => {
		const both: IdentityAsked = { document, questions, tries: 3 };
		expect(waysLeft(both, [])).toEqual(['document', 'questions']);
		expect(waysLeft(both, ['questions'])).toEqual(['document']);
		expect(waysLeft({ ...both, either: true }, ['questions'])).toEqual([]);
		expect(waysLeft({ ...both, either: true }, [])).toEqual(['document', 'questions']);
		expect(waysLeft({ document, tries: 1, either: true }, [])).toEqual(['document']);
	});
	it('needs the sides that the document has', () => {
		expect([sidesFor(document, 'passport'), sidesFor(document, 'identity card')]).toEqual([
			['front', 'holder'],
			['front', 'back', 'holder']
		]);
	});
	it('is said to be wrong where nobody could show it', () => {
		expect(askedFault({ tries: 3 })?.say).toMatch(/Choose what/);
		expect(askedFault({ questions: { ...questions, right: 2 }, tries: 3 })?.say).toMatch(/More answers/);
		expect(askedFault({ questions: { asks: [{ ...questions.asks[0]!, hash: '' }], right: 1 }, tries: 3 })?.say).toMatch(
			/no answer/
		);
		expect(askedFault({ document, questions, tries: 3 })).toBeNull();
	});
});
