import { describe, expect, it } from 'vitest';
import { checkDigit, zoneOf, type Specimen } from '../../../../demo/identity/specimens';
import { judge, type Measures, type SideRead, type Wanted } from '.';

const MEASURES: Measures = { width: 1600, height: 1200, light: 160, sharp: 900, glare: 0, cut: 0, document: 55 };
const MAREN: Specimen = {
	kind: 'passport',
	surname: 'Lindqvist',
	given: 'Maren Elisabet',
	number: 'X12345678',
	born: '1991-05-06',
	expires: '2031-02-28',
	sex: 'F'
};
const side = (more: Partial<SideRead>): SideRead => ({
	side: 'front',
	measures: MEASURES,
	faults: [],
	zone: null,
	nameSure: true,
	words: [],
	...more
});
const wanted = (more: Partial<Wanted> = {}, asked: Partial<Wanted['asked']> = {}): Wanted => ({
	asked: { kinds: ['passport', 'identity card'], countries: [], bothSides: true, holder: false, ...asked },
	kind: 'passport',
	name: 'Maren Lindqvist',
	born: null,
	today: '2026-11-28',
	lettersOff: 1,
	...more
});
const passport = (of: Partial<Specimen> = {}) => [side({ zone: zoneOf({ ...MAREN, ...of }) })];
const outcome = (found: ReturnType<typeof judge>, check: string) =>
	found.checks.find((one) => one.check === check)?.outcome;

describe('the ID desk', () => {
	it('finds that it holds, and says what it can’t do', () => {
		const found = judge(passport(), wanted({ born: '1991-05-06' }));
		expect(found.verdict).toBe('right');
		expect([outcome(found, 'face'), outcome(found, 'forgery')]).toEqual(['not looked at', 'not looked at']);
		expect(found.checks.find((one) => one.check === 'expiry')?.measure).toBe('2031-02-28');
	});
	it.each([
		['expired', passport({ expires: '2026-11-27' }), wanted(), 'expiry'],
		['another name', passport({ given: 'Karin' }), wanted(), 'name'],
		['born on another day', passport(), wanted({ born: '1991-05-07' }), 'birth'],
		['issued elsewhere', passport({ issuer: 'UTO' }), wanted({}, { countries: ['GBR'] }), 'country'],
		['of a kind that is not taken', passport(), wanted({}, { kinds: ['identity card'] }), 'kind']
	])('finds what speaks against it, which counts: %s', (_, sides, asked, check) => {
		const found = judge(sides, asked);
		expect([found.verdict, outcome(found, check)]).toEqual(['wrong', 'wrong']);
	});
	it('takes nothing for wrong that was not read surely: a digit that fails, no lines, a bad picture', () => {
		const [names, digits] = zoneOf(MAREN) as [string, string];
		const misread = judge(
			[side({ zone: [names, digits.replace('X12345678', 'X12345679')] })],
			wanted({ name: 'Another' })
		);
		expect([misread.verdict, outcome(misread, 'digits')]).toEqual(['again', 'again']);
		expect(misread.checks.find((one) => one.check === 'digits')?.measure).toMatch(/number \(check digit\)/);
		expect(judge([side({})], wanted()).verdict).toBe('again');
		expect(judge([side({ zone: zoneOf(MAREN), nameSure: false })], wanted({ name: 'Another One' })).verdict).toBe(
			'again'
		);
		expect(judge([side({ zone: zoneOf(MAREN), nameSure: false })], wanted()).verdict).toBe('right');
		expect(judge([side({ zone: zoneOf(MAREN), faults: ['blurred'] })], wanted()).verdict).toBe('again');
	});
	it('leaves to people: a face, a driving licence, a name in letters that zones have not, a day that can’t be read', () => {
		expect(judge(passport(), wanted({}, { holder: true })).verdict).toBe('unsure');
		expect(judge([side({})], wanted({ kind: 'driving licence' }, { kinds: ['driving licence'] })).verdict).toBe(
			'unsure'
		);
		expect(judge(passport(), wanted({ name: '山田 太郎' })).verdict).toBe('unsure');
		const [names, digits] = zoneOf(MAREN) as [string, string];
		const odd = digits.slice(0, 21) + `319999${checkDigit('319999')}` + digits.slice(28, 43);
		const composite = checkDigit(odd.slice(0, 10) + odd.slice(13, 20) + odd.slice(21, 43));
		expect(judge([side({ zone: [names, odd + composite] })], wanted()).verdict).not.toBe('right');
	});
	it('compares the two sides of a card: by its number, or else by most of its names', () => {
		const card: Specimen = { ...MAREN, kind: 'identity card' };
		const back = side({ side: 'back', zone: zoneOf(card) });
		const asked = wanted({ kind: 'identity card' });
		const words = (...list: string[]) => judge([side({ words: list }), back], asked);
		expect(words('UTOPIA', 'X12345678').verdict).toBe('right');
		expect(words('Lindqvist', 'Maren').verdict).toBe('right');
		expect([words('Halloran', 'Ingrid', 'Y99999999').verdict, words().verdict]).toEqual(['unsure', 'unsure']);
	});
	it('a zone with one side of another document on it is the one that holds', () => {
		const torn = [zoneOf(MAREN)[0]!, zoneOf(MAREN)[1]!.replace('910506', '910507')];
		expect(judge([side({ zone: torn }), side({ side: 'back', zone: zoneOf(MAREN) })], wanted()).verdict).toBe('right');
	});
});
