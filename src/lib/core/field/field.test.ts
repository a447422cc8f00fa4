import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { field, plan, typed } from '../../../../e2e/kit/plans';
import { KIND_NAMES, LOCALES, type Field, type KindName } from '../packet/plan';
import { isRefusal } from '../refusal';
import {
	dayRead,
	dayShown,
	CURRENCIES,
	DATE_FORMATS,
	finishAnswers,
	freeKey,
	inTurn,
	inWords,
	keyFault,
	kindOf,
	KINDS,
	live,
	numberRead,
	numberShown,
	openFields,
	plainKey,
	ruleFault,
	rulesOf,
	senderAnswers,
	type Answer,
	type Answers
} from './index';
import { provideAll } from './formats/all-checkers';

provideAll();

const context = {
	person: {
		name: 'Maren Sofie Lindqvist',
		email: 'maren@post.example',
		organisation: 'Lindqvist Quartet',
		jobTitle: 'Viola'
	},
	now: '2026-12-02T23:30:00Z',
	zone: 'Europe/Berlin',
	locale: 'en-GB'
};
const today = '2026-12-03';
const line = (...xs: number[]): Answer => ({ way: 'drawn', strokes: [xs], ratio: 0.3 });
const file = (media: string, bytes = 1000): Answer => ({ file: 'a'.repeat(64), name: 'photo', media, bytes });
const towns = [
	{ value: 'st', text: 'Staunton' },
	{ value: 'br', text: 'Brindlevale' }
];

/** The refusal of an answer to a field that stands with others in a plan. */
function checked(one: Field, answer: Answer, others: Field[] = [], answers: Answers = {}): string | null {
	const all = [one, ...others];
	return live({ fields: all }, answers, today).check(one, answer)?.code ?? null;
}

describe('each kind', () => {
	it('is known by a name, has a letter of its own, and stands in the plan’s schema', () => {
		expect(KINDS.map((k) => k.kind).sort()).toEqual([...KIND_NAMES].sort());
		expect(new Set(KINDS.map((k) => k.letter)).size).toBe(KINDS.length);
		expect(() => kindOf('toString')).toThrow();
	});

	// given a field of a kind with settings, when this is answered, then this refusal (or none)
	it.each<[KindName, Field['settings'], Answer, string | null]>([
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
		['name', {}, { text: ' ' }, 'known-empty'],
		['name', {}, { text: 'x'.repeat(201) }, 'known-long'],
		['name', {}, typed('Maren'), 'name-wrong'],
		['email', {}, { text: 'maren@post.example' }, null],
		['email', {}, { text: 'maren at post' }, 'email-bad'],
		['organisation', {}, { text: 'Staunton Parish' }, null],
		['job-title', {}, { text: '' }, 'known-empty'],
		['text', {}, { text: 'something' }, null],
		['text', {}, { text: '' }, 'text-empty'],
		['text', {}, { text: 'a\nb' }, 'text-lines'],
		['text', { several: true }, { text: 'a\nb' }, null],
		['text', { most: 3 }, { text: 'abcd' }, 'text-long'],
		['text', { most: 3 }, { text: '👩‍🎤'.slice(0, 2) + 'ab' }, null],
		['text', { least: 5 }, { text: 'abcd' }, 'text-short'],
		['text', { boxes: 4 }, { text: 'abc' }, 'text-exact'],
		['text', { boxes: 4 }, { text: 'abcd' }, null],
		['text', {}, { text: 'x'.repeat(10_000) }, 'text-long'],
		['text', {}, { at: context.now, text: 'x' }, 'text-wrong'],
		['text', { pattern: 'digits' }, { text: '0123' }, null],
		['text', { pattern: 'digits' }, { text: '12a' }, 'pattern-digits'],
		['text', { pattern: 'letters' }, { text: 'O’Neill-Šć' }, null],
		['text', { pattern: 'letters' }, { text: 'R2' }, 'pattern-letters'],
		['text', { pattern: 'postcode', country: 'GB' }, { text: 'BD23 1AA' }, null],
		['text', { pattern: 'postcode', country: 'DE' }, { text: 'BD23 1AA' }, 'pattern-postcode'],
		['text', { pattern: 'phone' }, { text: '+44 7700 900123' }, null],
		['text', { pattern: 'phone' }, { text: '12' }, 'pattern-phone'],
		['text', { pattern: 'iban' }, { text: 'GB29 NWBK 6016 1331 9268 19' }, null],
		['text', { pattern: 'iban' }, { text: 'GB28 NWBK 6016 1331 9268 19' }, 'pattern-iban'],
		['text', { pattern: 'own', own: 'B-\\d{3}' }, { text: 'B-123' }, null],
		['text', { pattern: 'own', own: 'B-\\d{3}' }, { text: 'xB-123' }, 'pattern-own'],
		['text', { pattern: 'own', own: '(' }, { text: 'x' }, 'pattern-wrong'],
		// would take longer than the world lasts in an engine that goes back
		['text', { pattern: 'own', own: '(a+)+b' }, { text: 'a'.repeat(1900) }, 'pattern-own'],
		['text', { pattern: 'own', own: '(a)\\1' }, { text: 'aa' }, 'pattern-wrong'],
		['number', {}, { number: '12.5' }, null],
		['number', {}, { text: '12' }, 'number-wrong'],
		['number', { decimals: 0 }, { number: '12.5' }, 'number-whole'],
		['number', { least: '0.1' }, { number: '0.09' }, 'number-small'],
		['number', { most: '0.3' }, { number: '0.30' }, null],
		['number', { most: '0.3' }, { number: '0.31' }, 'number-large'],
		['date', {}, { day: '2026-12-02' }, null],
		['date', {}, { day: '2026-02-30' }, 'day-bad'],
		['date', { least: '2026-12-03' }, { day: '2026-12-02' }, 'day-early'],
		['date', { most: 'today' }, { day: '2026-12-04' }, 'day-late'],
		['date', { least: 'add_days(today, 2)' }, { day: '2026-12-04' }, 'day-early'],
		['choice', { options: towns }, { choice: 'st' }, null],
		['choice', { options: towns }, { choice: 'Staunton' }, 'choice-unknown'],
		['attachment', {}, file('image/png'), null],
		['attachment', { types: 'pdf,docx' }, file('image/png'), 'file-type'],
		['attachment', { megabytes: 1 }, file('application/pdf', 2_000_000), 'file-too-large'],
		['signing-date', {}, { text: 'tomorrow' }, 'date-wrong'],
		['note', {}, { text: 'mine' }, null],
		['image', {}, { text: 'mine' }, 'image-wrong']
	])('%s %j answered with %j: %s', (kind, settings, answer, code) => {
		expect(checked(field('f', kind, 'maren', { settings }), answer)).toBe(code);
	});

	const box = (id: string, value: string, more: Field['settings'] = {}) =>
		field(id, 'ticks', 'maren', { key: 'extras', settings: { value, ...more } });
	const boxes = (more: Field['settings']) => [box('a', 'tea', more), box('b', 'coffee', more), box('c', 'milk', more)];
	it.each<[Field['settings'], string[], string | null]>([
		[{}, ['tea'], null],
		[{}, [], 'ticks-none'],
		[{}, ['beer'], 'ticks-unknown'],
		[{ least: 2 }, ['tea'], 'ticks-few'],
		[{ least: 2 }, ['tea', 'milk'], null],
		[{ most: 1 }, ['tea', 'milk'], 'ticks-many']
	])('tick boxes %j with %j: %s', (settings, ticks, code) => {
		const [first, ...others] = boxes(settings);
		expect(checked(first!, { ticks }, others)).toBe(code);
	});
	it('pick one takes one of its group, and says it in words', () => {
		const buttons = ['yes', 'no'].map((value) =>
			field(value, 'pick-one', 'maren', {
				key: 'agree',
				settings: { value, text: value.toUpperCase(), ticked: value === 'no' }
			})
		);
		expect(checked(buttons[0]!, { choice: 'no' }, [buttons[1]!])).toBeNull();
		expect(checked(buttons[0]!, { choice: 'perhaps' }, [buttons[1]!])).toBe('pick-unknown');
		expect(inWords({ fields: buttons }, buttons[0]!, { choice: 'no' }, 'en-GB')).toBe('NO');
		expect(kindOf('pick-one').prefill(buttons[0]!, context, buttons)).toEqual({ choice: 'no' });
	});

	it.each<[KindName, Field['settings'], string]>([
		['name', {}, 'Maren Sofie Lindqvist'],
		['name', { part: 'given' }, 'Maren Sofie'],
		['name', { part: 'family' }, 'Lindqvist'],
		['email', {}, 'maren@post.example'],
		['organisation', {}, 'Lindqvist Quartet'],
		['job-title', {}, 'Viola'],
		// 23:30 UTC is the next day in Berlin
		['signing-date', {}, '3 December 2026'],
		['signing-date', { format: 'medium' }, '3 Dec 2026'],
		['signing-date', { format: 'iso' }, '2026-12-03'],
		['text', {}, ''],
		['text', { default: 'as ever' }, 'as ever'],
		['number', { default: '1250', currency: 'EUR' }, '€1,250.00'],
		['choice', { options: towns, default: 'br' }, 'Brindlevale'],
		['choice', { options: towns, default: 'gone' }, ''],
		['date', { default: '2026-12-24', format: 'short' }, '24/12/2026'],
		['signature', {}, '']
	])('%s %j is filled in beforehand with “%s”', (kind, settings, text) => {
		const one = field('f', kind, 'maren', { settings });
		const answer = kindOf(kind).prefill(one, context, [one]);
		expect(answer ? kindOf(kind).shown(one, answer, 'en-GB') : '').toBe(text);
	});

	it('has a sample that passes its own check', () => {
		const made: [KindName, Field['settings']][] = [
			['text', { boxes: 9 }],
			['text', { boxes: 22, pattern: 'iban' }],
			['text', { least: 100 }],
			...(['digits', 'letters', 'postcode', 'phone', 'iban'] as const).map((pattern): [KindName, Field['settings']] => [
				'text',
				{ pattern }
			]),
			['number', { least: '500' }],
			['number', { most: '3' }],
			['date', { least: 'add_days(today, 5)' }],
			['choice', { options: towns }],
			['ticks', { value: 'a', least: 1 }],
			...KINDS.filter((k) => k.filledBy === 'person' && k.kind !== 'choice').map((k): [KindName, Field['settings']] => [
				k.kind,
				{}
			])
		];
		for (const [kind, settings] of made) {
			const one = field('f', kind, 'maren', { settings });
			const sample = kindOf(kind).sample(one, context, [one]);
			expect([kind, settings, sample && checked(one, sample)]).toEqual([kind, settings, null]);
		}
	});
});

describe('every format comes back as it went', () => {
	it('numbers, in every language, with and without currency', () => {
		const decimals = fc.integer({ min: 0, max: 4 });
		fc.assert(
			fc.property(
				fc.bigInt({ min: -(10n ** 15n), max: 10n ** 15n }),
				decimals,
				fc.constantFrom(...LOCALES),
				fc.constantFrom(undefined, ...CURRENCIES),
				fc.constantFrom('symbol' as const, 'code' as const),
				(digits, places, locale, currency, money) => {
					const text = String(digits < 0n ? -digits : digits).padStart(places + 1, '0');
					const sign = digits < 0n ? '-' : '';
					const number = `${sign}${text.slice(0, text.length - places)}${places > 0 ? `.${text.slice(-places)}` : ''}`;
					const format = { decimals: places, money, ...(currency && { currency }) };
					const shown = numberShown(number, format, locale);
					expect([shown, numberRead(shown, locale)]).toEqual([shown, number]);
				}
			),
			{ numRuns: 500 }
		);
	});
	it('dates, in every language and format', () => {
		const days = fc.date({ min: new Date('1900-01-01'), max: new Date('2199-12-31'), noInvalidDate: true });
		fc.assert(
			fc.property(days, fc.constantFrom(...DATE_FORMATS), fc.constantFrom(...LOCALES), (date, format, locale) => {
				const day = date.toISOString().slice(0, 10);
				const shown = dayShown(day, format, locale);
				expect([shown, dayRead(shown, locale)]).toEqual([shown, day]);
			})
		);
	});
	it.each([
		['1.234,50', 'de-DE', '1234.50'],
		['1,234.50', 'de-DE', null],
		['1.23', 'de-DE', null],
		['EUR 12', 'en-GB', '12'],
		['−5', 'en-GB', '-5'],
		['.5', 'en-GB', '0.5'],
		['‏0 UK£', 'ar', '0'],
		['12 US$', 'ar', '12'],
		['12 apples', 'en-GB', null],
		['', 'en-GB', null],
		['1e9', 'en-GB', null]
	])('“%s” typed in %s is %s', (typedText, locale, number) => expect(numberRead(typedText, locale)).toBe(number));
	it('texts and choices', () => {
		const list = field('f', 'choice', 'maren', { settings: { options: towns } });
		expect(kindOf('choice').read(list, 'staunton', 'en-GB')).toEqual({ choice: 'st' });
		expect(kindOf('choice').read(list, 'Paris', 'en-GB')).toMatchObject({ code: 'choice-unknown' });
		const boxed = field('f', 'ticks', 'maren', { settings: { value: 'a' } });
		expect(kindOf('ticks').read(boxed, 'a, b, a', 'en-GB')).toEqual({ ticks: ['a', 'b'] });
	});
	it('what is typed in groups goes into boxes without the spaces, where it fits so', () => {
		const boxed = field('f', 'text', 'maren', { settings: { boxes: 22, pattern: 'iban' } });
		const read = (typed: string) => kindOf('text').read(boxed, typed, 'en-GB');
		expect(read('GB29 NWBK 6016 1331 9268 19')).toEqual({ text: 'GB29NWBK60161331926819' });
		expect(read('GB29 NWBK 6016 1331')).toEqual({ text: 'GB29 NWBK 6016 1331' });
	});
});

describe('keys', () => {
	it.each([
		['fee', null],
		['', null],
		['Straße 2', 'strasse_2'],
		['2nd name', 'nd_name'],
		['sum', 'sum_1'],
		['größe!', 'grosse'],
		['**', 'A key begins']
	])('“%s”: %s', (key, say) =>
		say === null ? expect(keyFault(key)).toBeNull() : expect(keyFault(key)).toContain(say)
	);
	it('free ones count on', () => {
		expect(freeKey('fee', ['fee', 'fee_2'])).toBe('fee_3');
		expect(freeKey('fee_2', ['fee_2'])).toBe('fee_3');
		expect(plainKey('Date of birth')).toBe('date_of_birth');
	});
});

describe('a plan with answers', () => {
	const fields = [
		field('n', 'number', 'maren', { key: 'nights' }),
		field('f', 'number', 'sender', { key: 'fee' }),
		field('c', 'computed', 'everybody', { key: 'total', settings: { rule: 'fee * nights', currency: 'EUR' } }),
		field('guest', 'ticks', 'maren', { key: 'guest', required: false, settings: { value: 'yes' } }),
		field('who', 'text', 'maren', { key: 'who', showWhen: 'guest' }),
		field('why', 'text', 'maren', { required: false, requireWhen: 'total > 500' }),
		field('x', 'computed', 'everybody', { key: 'x', settings: { rule: 'length(who)' } })
	];
	const at = (answers: Answers) => live({ fields }, answers, today);
	it('computes, shows and requires by its rules', () => {
		const none = at({});
		expect([none.answer(fields[2]!), none.shown(fields[4]!), none.required(fields[5]!)]).toEqual([
			undefined,
			false,
			false
		]);
		const some = at({ n: { number: '3' }, f: { number: '240' }, guest: { ticks: ['yes'] } });
		expect([some.answer(fields[2]!), some.shown(fields[4]!), some.required(fields[5]!)]).toEqual([
			{ number: '720' },
			true,
			true
		]);
	});
	it('gives nothing of what is not shown to anybody’s rule', () => {
		const hidden = at({ who: { text: 'Ruben' } });
		expect([hidden.value('who'), hidden.answer(fields[6]!)]).toEqual([null, undefined]);
		expect(at({ who: { text: 'Ruben' }, guest: { ticks: ['yes'] } }).answer(fields[6]!)).toEqual({ number: '5' });
	});
	it('goes round no circle', () => {
		const round = ['a', 'b'].map((key, i) =>
			field(key, 'computed', 'everybody', { key, settings: { rule: i === 0 ? 'b + 1' : 'a + 1' } })
		);
		expect(live({ fields: round }, {}, today).answer(round[0]!)).toBeUndefined();
		const fault = ruleFault(plan([['maren']], { fields: round }), round[0]!, rulesOf(round[0]!)[0]!);
		expect(fault?.say).toContain('a → b → a');
	});
});

describe('the order of answering', () => {
	const paper = (id: string, rotate: 0 | 90) => ({
		id,
		name: id,
		digest: 'a'.repeat(64),
		pages: [{ width: 595, height: 842, rotate }]
	});
	const at = (id: string, x: number, y: number, more: Partial<Field> = {}) =>
		field(id, 'text', 'maren', { paper: 'p', rect: { x, y, width: 90, height: 20 }, ...more });
	it.each<[string, Field[], string]>([
		['from the top, then from the left', [at('c', 50, 100), at('b', 300, 702), at('a', 50, 700)], 'a b c'],
		['document by document', [at('b', 50, 700, { paper: 'q' }), at('a', 50, 100)], 'a b'],
		['by their own turn first', [at('c', 50, 700), at('a', 50, 100, { tab: 1 }), at('b', 50, 400, { tab: 2 })], 'a b c']
	])('goes %s', (_, fields, order) =>
		expect(
			inTurn([paper('p', 0), paper('q', 0)], fields)
				.map((f) => f.id)
				.join(' ')
		).toBe(order)
	);
	it('goes as a turned page is shown', () => {
		// turned a quarter, what lies at the left of the file is at the top of what is seen
		expect(inTurn([paper('p', 90)], [at('b', 300, 700), at('a', 50, 100)]).map((f) => f.id)).toEqual(['a', 'b']);
	});
});

describe('finishing', () => {
	const given = plan([['maren'], ['tamsin']]);
	given.fields.push(
		field('note', 'text', 'maren', { required: false }),
		field('date', 'signing-date', 'maren'),
		field('ini', 'initials', 'maren'),
		field('fixed', 'text', 'maren', { readOnly: true, settings: { default: 'as agreed' } }),
		field('n1', 'number', 'maren', { key: 'nights' }),
		field('n2', 'number', 'tamsin', { key: 'nights' }),
		field('fee', 'number', 'tamsin', { key: 'fee' }),
		field('total', 'computed', 'everybody', { key: 'total', settings: { rule: 'fee * nights' } }),
		field('guest', 'ticks', 'maren', { key: 'guest', required: false, settings: { value: 'yes' } }),
		field('who', 'text', 'maren', { showWhen: 'guest' })
	);
	const good: Answers = { 'maren-sig': typed('Maren'), ini: typed('ML'), n1: { number: '3' } };

	it('fills in what is Pellum’s, answers twins, and leaves out what may stay empty or is not shown', () => {
		const all = finishAnswers(given, 'maren', { ...good, note: { text: ' ' }, who: { text: 'Ruben' } }, context);
		expect(Object.keys(all).sort()).toEqual(['date', 'fixed', 'ini', 'maren-sig', 'n1', 'n2']);
	});
	it.each<[string, Answers, string, string]>([
		['a required one is missing', { ...good, ini: typed('') }, 'mark-empty', 'ini'],
		['a required one is not there', { 'maren-sig': typed('Maren'), n1: { number: '3' } }, 'answer-missing', 'ini'],
		['one that a rule shows is missing', { ...good, guest: { ticks: ['yes'] } }, 'answer-missing', 'who'],
		['it is somebody else’s', { ...good, 'tamsin-sig': typed('T') }, 'not-your-field', 'tamsin-sig'],
		['it is no field at all', { ...good, constructor: typed('T') }, 'not-your-field', 'constructor'],
		['it is computed', { ...good, total: { number: '1' } }, 'not-your-field', 'total'],
		['it does not pass its kind', { ...good, note: { text: 'a\nb' } }, 'text-lines', 'note']
	])('is refused where %s', (_, answers, code, where) => {
		const no = finishAnswers(given, 'maren', answers, context);
		expect(isRefusal(no) && [no.code, no.at]).toEqual([code, where]);
	});
	it('never takes a date or a read-only value that the person made up', () => {
		const all = finishAnswers(
			given,
			'maren',
			{ ...good, date: { at: '1999-01-01', text: '1999' }, fixed: { text: 'more money' } },
			context
		);
		expect(!isRefusal(all) && [all['date'], all['fixed']]).toEqual([
			{ at: context.now, day: '2026-12-03', text: '3 December 2026' },
			{ text: 'as agreed' }
		]);
	});
	it('lets a twin’s earlier answer stand, and fixes what is computed when its last giver finishes', () => {
		const first = finishAnswers(given, 'maren', good, context) as Answers;
		expect(first['total']).toBeUndefined();
		const second = finishAnswers(
			given,
			'tamsin',
			{ 'tamsin-sig': typed('T'), n2: { number: '99' }, fee: { number: '240' } },
			context,
			first,
			['maren']
		) as Answers;
		expect([second['n2'], second['total']]).toEqual([undefined, { number: '720' }]);
	});
	it('lists what is open by the same checks, each question once', () => {
		const now = (answers: Answers) => openFields(given, 'maren', live(given, answers, today)).map((f) => f.id);
		expect(now({ 'maren-sig': typed(' ') })).toEqual(['maren-sig', 'ini', 'n1']);
		expect(now({ ...good, guest: { ticks: ['yes'] } })).toEqual(['who']);
		expect(now(good)).toEqual([]);
	});
	it('takes the sender’s answers, what is known of them, and nobody else’s', () => {
		const own = plan([['maren']], {
			answers: { a: { number: '5' }, 'maren-sig': typed('forged') },
			fields: [
				field('a', 'number', 'sender', { key: 'fee' }),
				field('b', 'number', 'maren', { key: 'fee' }),
				field('n', 'name', 'sender'),
				field('maren-sig', 'signature', 'maren')
			]
		});
		expect(senderAnswers(own, context)).toEqual({
			a: { number: '5' },
			b: { number: '5' },
			n: { text: 'Maren Sofie Lindqvist' }
		});
	});
});
