import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
	asText,
	checkRule,
	Dec,
	evaluate,
	findCycle,
	FUNCTIONS,
	howsFor,
	isFault,
	parseRule,
	ruleOf,
	simpleOf,
	type RuleKeys,
	type RuleType,
	type RuleValue
} from './index';

const KEYS: RuleKeys = {
	fee: 'number',
	nights: 'number',
	nothing: 'number',
	town: 'text',
	birthday: 'date',
	start: 'date',
	vegetarian: 'truth',
	days_there: 'list'
};
const VALUES: Record<string, RuleValue> = {
	fee: new Dec(240),
	nights: new Dec(3),
	town: 'Staunton',
	birthday: { day: '2009-11-24' },
	start: { day: '2026-12-02' },
	vegetarian: true,
	days_there: ['fri', 'sat']
};
const world = { today: '2026-11-23', value: (key: string) => VALUES[key] ?? null };

function result(source: string): string {
	const checked = checkRule(source, KEYS);
	if (isFault(checked)) return `${checked.code} at ${source.slice(checked.from, checked.to)}`;
	const value = evaluate(checked.node, world);
	return value === null ? 'no value' : asText(value);
}

describe('a rule gives', () => {
	it.each([
		['fee * nights', '720'],
		['0.1 + 0.2 = 0.3', 'yes'],
		['1 / 0', 'no value'],
		['fee + nothing', 'no value'],
		['sum(fee, nothing, nights)', '243'],
		['sum(nothing)', 'no value'],
		['2 + 3 * 4 - 6 / 2', '11'],
		['-(fee - 250)', '10'],
		['nothing > 3', 'no value'],
		['nothing > 3 and false', 'no'],
		['nothing > 3 or true', 'yes'],
		['not(vegetarian)', 'no'],
		['not (fee = 240 and nights = 3)', 'no'],
		['age(birthday, today) < 18', 'yes'],
		['age(birthday)', '16'],
		['days(start, add_days(start, 3))', '3'],
		['contains(days_there, "sat")', 'yes'],
		['count(days_there, fee, nothing)', '3'],
		['if(fee > 200, join("over: ", fee), "under")', 'over: 240'],
		['if(nothing = 1, "one")', 'no value'],
		['99999999999999999999999999 * 99999999999999999999999999 * 99999999999999999999999', 'no value']
	])('%s → %s', (source, expected) => expect(result(source)).toBe(expected));

	it('what docs/rules.md says, for every function there is', () => {
		const doc = readFileSync('docs/rules.md', 'utf8');
		const rows = [...doc.matchAll(/^\| `(.+?)`\s+\| (.+?)\s+\| .*\|$/gm)];
		expect(rows.length).toBeGreaterThan(40);
		for (const [, source, expected] of rows) expect([source, result(source!)]).toEqual([source, expected]);
		for (const name of Object.keys(FUNCTIONS)) expect(doc, name).toMatch(new RegExp(`\\b${name}\\b`));
	});
});

describe('a rule is refused while it is typed, with its place', () => {
	it.each([
		['', 'rule-empty at '],
		['fee *', 'rule-syntax at *'],
		['(fee', 'rule-syntax at e'],
		['town = "Staun', 'rule-syntax at n'],
		['fee nights', 'rule-syntax at fee nights'],
		['fees * 2', 'rule-key at fees'],
		['2 * total(fee)', 'rule-function at total(fee)'],
		['round()', 'rule-arguments at round()'],
		['fee + town', 'rule-type at town'],
		['fee + birthday', 'rule-type at birthday'],
		['upper(fee)', 'rule-type at fee'],
		['fee and vegetarian', 'rule-type at fee'],
		['town > "a"', 'rule-type at town > "a"'],
		['days_there = "sat"', 'rule-type at days_there = "sat"'],
		['if(vegetarian, 1, "one")', 'rule-type at if(vegetarian, 1, "one")'],
		['fee ? 1 : 2', 'rule-syntax at fee ? 1 : 2'],
		['town.length', 'rule-syntax at town.length'],
		['town["constructor"]', 'rule-syntax at town["constructor"]'],
		['[1, 2]', 'rule-syntax at [1, 2]'],
		['1e500', 'rule-syntax at 1e500'],
		['constructor', 'rule-key at constructor'],
		['toString()', 'rule-function at toString()'],
		['__proto__', 'rule-key at __proto__'],
		['this', 'rule-syntax at this']
	])('%s', (source, expected) => expect(result(source)).toBe(expected));

	it('by what it must give, and with what may have been meant', () => {
		const checked = checkRule('fee', KEYS, 'truth');
		expect(isFault(checked) && checked.say).toBe('This gives a number, but yes or no is wanted here.');
		const near = checkRule('fees', KEYS);
		expect(isFault(near) && near.say).toContain('Is “fee” meant?');
	});
});

describe('nothing runs away', () => {
	it.each([
		['a million characters', 'fee + '.repeat(170_000), 'rule-long'],
		['a thousand brackets', '('.repeat(990) + '1' + ')'.repeat(990), null],
		['deep calls', 'abs('.repeat(300) + '1' + ')'.repeat(300), 'rule-deep'],
		['many parts', Array.from({ length: 450 }, () => '1').join('+'), 'rule-deep'],
		['open brackets only', '('.repeat(1999), 'rule-syntax']
	])('%s', (_, source, code) => {
		const parsed = parseRule(source);
		expect(isFault(parsed) ? parsed.code : null).toBe(code);
	});
	it('texts joined over and over end in no value', () => {
		const checked = checkRule('join(a,a,a,a,a,a,a,a,a,a)', { a: 'text' });
		const long = 'x'.repeat(5000);
		expect(!isFault(checked) && evaluate(checked.node, { today: '', value: () => long })).toBeNull();
	});
	it('whatever is typed, parsing answers', () => {
		fc.assert(
			fc.property(fc.string({ maxLength: 60 }), (source) => {
				const checked = checkRule(source, KEYS);
				if (!isFault(checked)) evaluate(checked.node, world);
				else expect([checked.say.length > 5, checked.from <= checked.to]).toEqual([true, true]);
			})
		);
	});
});

/** A random expression with what it is worth by the language's plain numbers: the reference. */
interface Told {
	source: string;
	worth: number | boolean | null;
}
const leaf = fc.oneof(
	fc.integer({ min: 0, max: 60 }).map((n): Told => ({ source: String(n), worth: n })),
	fc.constantFrom<Told>(
		{ source: 'fee', worth: 240 },
		{ source: 'nights', worth: 3 },
		{ source: 'nothing', worth: null }
	)
);
const both = (a: Told, b: Told, run: (x: number, y: number) => number | boolean | null) =>
	a.worth === null || b.worth === null ? null : run(a.worth as number, b.worth as number);
const { sum } = fc.letrec<{ sum: Told }>((tie) => ({
	sum: fc.oneof(
		{ maxDepth: 4 },
		leaf,
		fc.tuple(tie('sum'), fc.constantFrom('+', '-', '*'), tie('sum')).map(([a, op, b]): Told => ({
			source: `(${a.source} ${op} ${b.source})`,
			worth: both(a, b, (x, y) => (op === '+' ? x + y : op === '-' ? x - y : x * y))
		})),
		fc.tuple(tie('sum'), tie('sum')).map(([a, b]): Told => {
			const there = [a.worth, b.worth].filter((n) => n !== null) as number[];
			return { source: `max(${a.source}, ${b.source})`, worth: there.length === 0 ? null : Math.max(...there) };
		}),
		fc
			.tuple(tie('sum'), fc.constantFrom('<', '=', '>='), tie('sum'), tie('sum'), tie('sum'))
			.map(([a, op, b, yes, no]): Told => {
				const holds = both(a, b, (x, y) => (op === '<' ? x < y : op === '=' ? x === y : x >= y));
				return {
					source: `if(${a.source} ${op} ${b.source}, ${yes.source}, ${no.source})`,
					worth: holds === true ? yes.worth : no.worth
				};
			})
	)
}));

describe('on random expressions', () => {
	it('evaluation agrees with a plain reference', () => {
		fc.assert(
			fc.property(
				sum.filter((one) => one.source.length < 1500 && (one.worth === null || Math.abs(one.worth as number) < 1e15)),
				({ source, worth }) => {
					const checked = checkRule(source, KEYS);
					// what is too deep is refused, not reckoned wrongly
					if (isFault(checked)) return expect(checked.code).toBe('rule-deep');
					const value = evaluate(checked.node, world);
					// the reference has a negative nought, which rules don't know
					const plain = worth === null ? null : (worth as number) + 0;
					expect([source, value === null ? null : Number(asText(value))]).toEqual([source, plain]);
				}
			),
			{ numRuns: 400 }
		);
	});
	it('simple conditions come back as they were put together', () => {
		const simple = fc
			.constantFrom<RuleType>('number', 'text', 'date', 'list', 'truth')
			.chain((type) =>
				fc.tuple(
					fc.constant(type),
					fc.constantFrom(...howsFor(type)),
					type === 'number'
						? fc.integer().map(String)
						: type === 'date'
							? fc.constantFrom('2026-12-02', '2024-02-29')
							: type === 'truth'
								? fc.constantFrom('yes', 'no')
								: fc.string({ maxLength: 20 }).filter((t) => !/[\\\n\r]/.test(t))
				)
			);
		fc.assert(
			fc.property(simple, ([type, how, value]) => {
				const one = { key: 'k', how, value: how.startsWith('is ') && /answered|empty/.test(how) ? '' : value };
				expect(simpleOf(ruleOf(one, type))).toEqual(one);
				expect(isFault(checkRule(ruleOf(one, type), { k: type }, 'truth'))).toBe(false);
			})
		);
	});
});

it('a circle is named along its way', () => {
	expect(findCycle({ a: ['b'], b: ['c'], c: ['b'], d: [] })).toEqual(['b', 'c', 'b']);
	expect(findCycle({ a: ['a'] })).toEqual(['a', 'a']);
	expect(findCycle({ a: ['b', 'c'], b: ['c'], c: ['gone'] })).toBeNull();
});
