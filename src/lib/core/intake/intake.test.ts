import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { field, plan as planOf, typed } from '../../../../e2e/kit/plans';
import { finishAnswers, inWords, type Answers } from '../field';
import { provideAll } from '../field/formats/all-checkers';
import { ASKED, graveFault, localeFor, type Plan, type SentPacket } from '../packet';
import { isRefusal } from '../refusal';
import {
	askedPlan,
	casePlan,
	checkIntake,
	closedNow,
	followUpsDue,
	mayStart,
	walked,
	wayFault,
	waysThrough,
	type Intake,
	type Item,
	emptyIntake,
	type Starting
} from '.';

provideAll();

const TODAY = '2026-11-28';
const bare: Intake = { ...emptyIntake('Youth player consent', 'player'), representative: 'may' };
const item = (key: string): Item => ({ id: key, is: 'field', key });

/** Youth consent: a guardian under eighteen, a second one where both have custody. */
function consent(): Plan {
	const plan = planOf([['player'], ['guardian', 'second'], ['odile:gets a copy']]);
	const custody = {
		label: 'Who has custody',
		key: 'custody',
		showWhen: 'age(birthday) < 18',
		rect: { x: 300, y: 300, width: 99, height: 20 }
	};
	return {
		...plan,
		people: plan.people.map((p) => (p.id === 'odile' ? p : { ...p, name: '', email: '', role: p.id })),
		stops: [
			plan.stops[0]!,
			{ id: 'g1', people: ['guardian'], when: 'age(birthday) < 18' },
			{ id: 'g2', people: ['second'], when: 'age(birthday) < 18 and custody = "two"' },
			plan.stops[2]!
		],
		fields: [
			...plan.fields,
			field('birthday', 'date', 'player', { key: 'birthday' }),
			field('custody', 'choice', 'player', {
				...custody,
				settings: {
					options: [
						{ value: 'one', text: 'One of them' },
						{ value: 'two', text: 'Both' }
					]
				}
			}),
			field('health', 'text', 'guardian', { key: 'health', required: false, showWhen: 'age(birthday) < 18' })
		]
	};
}
const youth: Intake = {
	...bare,
	pages: [
		{ id: 'about', title: 'The player', items: [item('birthday')] },
		{
			id: 'home',
			title: 'At home',
			when: 'age(birthday) < 18',
			items: [item('custody'), { id: 'who', is: 'people', roles: ['guardian', 'second'] }]
		}
	]
};
const day = (text: string): Answers => ({ birthday: { day: text } });
const visitor = { name: 'Ottilie Brandt', email: 'o.brandt@post.example' };
const guardians = {
	guardian: { name: 'Henrik Brandt', email: 'h.brandt@post.example' },
	second: { name: 'Ines Brandt', email: 'i.brandt@post.example' }
};
/** The case that comes of it, or the code of the refusal. */
function begun(plan: Plan, intake: Intake, answers: Answers, starting: Partial<Starting> = {}) {
	const asked = askedPlan(plan, intake);
	const way = walked(asked, intake, answers, TODAY);
	const made = casePlan(asked, intake, way, { visitor, prepares: null, named: {}, ...starting });
	return isRefusal(made) ? made.code : made;
}

describe('youth consent', () => {
	it('of fourteen: at least one guardian must be named, two where both have custody', () => {
		const young = { ...day('2012-03-02'), custody: { choice: 'one' } };
		expect(begun(consent(), youth, day('2012-03-02'))).toBe('answer-missing');
		expect(begun(consent(), youth, young)).toBe('name-missing');
		const one = begun(consent(), youth, young, { named: guardians });
		if (typeof one === 'string') throw new Error(one);
		// the second has a place only where both have custody; until then they would be named on finishing
		expect(one.plan.people.map((p) => [p.id, p.name, p.namedBy])).toEqual([
			['player', 'Ottilie Brandt', undefined],
			['guardian', 'Henrik Brandt', undefined],
			['second', '', 'player'],
			['odile', 'Odile', undefined]
		]);
		expect(one.answers).toEqual(young);
		expect(graveFault(one.plan)).toBeNull();
		const both = { ...young, custody: { choice: 'two' } };
		expect(begun(consent(), youth, both, { named: { guardian: guardians.guardian } })).toBe('name-missing');
		expect(begun(consent(), youth, both, { named: guardians })).toMatchObject({ answers: both });
	});
	it('of eighteen today: nobody is asked for, and none of their fields appear', () => {
		const asked = askedPlan(consent(), youth);
		const way = walked(asked, youth, { ...day('2008-11-28'), custody: { choice: 'two' } }, TODAY);
		expect(way.pages.map(({ page }) => page.id)).toEqual(['about']);
		// an answer from a way that was left counts for nothing
		expect(way.answers).toEqual(day('2008-11-28'));
		expect(way.now.shown(asked.fields.find((f) => f.id === 'health')!)).toBe(false);
		const made = begun(consent(), youth, day('2008-11-28'), { named: guardians });
		if (typeof made === 'string') throw new Error(made);
		expect(made.plan.people.find((p) => p.id === 'guardian')).toMatchObject({ name: '', namedBy: 'player' });
	});
	it('refuses who names themselves, in any capitals, and the same person twice', () => {
		const young = { ...day('2012-03-02'), custody: { choice: 'two' } };
		const oneself = { ...guardians, second: { name: 'O', email: 'O.Brandt@POST.example' } };
		expect(begun(consent(), youth, young, { named: oneself })).toBe('named-twice');
		const twice = { guardian: guardians.guardian, second: guardians.guardian };
		expect(begun(consent(), youth, young, { named: twice })).toBe('named-twice');
		const permitted = { ...consent(), sending: { selfNaming: true } };
		expect(begun(permitted, youth, young, { named: oneself })).toMatchObject({ answers: young });
	});
	it('is prepared by a representative, who has no place of their own in it', () => {
		const leader = { name: 'Bram Oyelaran', email: 'b.oyelaran@post.example' };
		const starting = { visitor: leader, prepares: visitor };
		expect(begun(consent(), youth, day('2000-01-01'), starting)).toMatchObject({
			plan: { people: expect.arrayContaining([expect.objectContaining({ id: 'player', email: visitor.email })]) }
		});
		expect(begun(consent(), { ...youth, representative: 'no' }, day('2000-01-01'), starting)).toBe('no-representative');
		expect(begun(consent(), { ...youth, representative: 'must' }, day('2000-01-01'))).toBe('only-representative');
		expect(begun(consent(), youth, day('2000-01-01'), { visitor, prepares: visitor })).toBe('prepares-oneself');
		// they answer as far as they may: what they leave out is answered, and who is missing named, by the person
		const left = begun(consent(), youth, day('2012-03-02'), starting);
		expect(left).toMatchObject({ answers: day('2012-03-02') });
		expect((left as { plan: Plan }).plan.people.map(({ id, namedBy }) => [id, namedBy])).toEqual([
			['player', undefined],
			['guardian', 'player'],
			['second', 'player'],
			['odile', undefined]
		]);
		const half = { guardian: { name: 'Henrik Brandt', email: '' } };
		expect(
			begun(consent(), youth, { ...day('2012-03-02'), custody: { choice: 'one' } }, { ...starting, named: half })
		).toBe('bad-address');
	});
});

describe('hall hire in one of the three counties', () => {
	const plan: Plan = planOf([['hirer'], ['tamsin']]);
	const hall: Intake = {
		...bare,
		starter: 'hirer',
		pages: [
			{
				id: 'who',
				title: 'Who hires',
				items: [
					{
						id: 'county',
						is: 'question',
						question: {
							kind: 'choice',
							key: 'county',
							label: 'County',
							required: true,
							settings: { options: ['Aldmoor', 'Brint', 'Corve', 'Dunwick'].map((one) => ({ value: one, text: one })) }
						}
					},
					{
						id: 'how',
						is: 'question',
						question: {
							kind: 'pick-one',
							key: 'how',
							label: 'Alone or with spouse',
							required: true,
							settings: {
								options: [
									{ value: 'alone', text: 'Alone' },
									{ value: 'spouse', text: 'With spouse' }
								]
							}
						}
					}
				]
			},
			{ id: 'spouse', title: 'Your spouse', when: 'how = "spouse"', items: [] }
		],
		says: [
			{
				id: 'both',
				when: 'how = "alone" and (county = "Aldmoor" or county = "Brint" or county = "Corve")',
				say: 'In these three counties both spouses must take part.',
				closes: true
			}
		]
	};
	const told = (county: string, how: string): Answers => ({
		'q-county': { choice: county },
		'q-how-0': { choice: how }
	});

	it('says why, and closes that way only', () => {
		const asked = askedPlan(plan, hall);
		const shut = walked(asked, hall, told('Brint', 'alone'), TODAY);
		expect(shut.closed?.say).toContain('both spouses');
		expect(wayFault(asked, hall, shut)).toMatchObject({
			code: 'way-closed',
			say: expect.stringContaining('three counties')
		});
		expect(walked(asked, hall, told('Brint', 'spouse'), TODAY).pages.map(({ page }) => page.id)).toEqual([
			'who',
			'spouse'
		]);
		expect(wayFault(asked, hall, walked(asked, hall, told('Dunwick', 'alone'), TODAY))).toBeNull();
		expect(begun(plan, hall, told('Brint', 'alone'))).toBe('way-closed');
	});
	it('forces an answer, and a rule further on sees the forced one', () => {
		const forcing: Intake = {
			...hall,
			says: [
				{ id: 'both', when: 'county = "Brint"', say: 'Both must sign there.', forces: { key: 'how', answer: 'spouse' } }
			]
		};
		const way = walked(askedPlan(plan, forcing), forcing, told('Brint', 'alone'), TODAY);
		expect(way.forced['how']?.say).toBe('Both must sign there.');
		expect(way.answers['q-how-0']).toEqual({ choice: 'spouse' });
		expect(way.pages.map(({ page }) => page.id)).toEqual(['who', 'spouse']);
	});
	it('keeps what was asked as questions that stand on no page, in a plan that can be sent', () => {
		const made = begun(plan, hall, told('Dunwick', 'alone'));
		if (typeof made === 'string') throw new Error(made);
		expect(made.plan.fields.filter((f) => f.paper === ASKED).map((f) => f.key)).toEqual(['county', 'how', 'how']);
		expect(graveFault(made.plan)).toBeNull();
	});
});

describe('an expense claim', () => {
	const amounts = ['12.40', '7.05', null, '101.00'];
	const keys = amounts.map((_amount, i) => `amount_${i + 1}`);
	const plan = planOf([['claimant'], ['leader:approves'], ['finance:approves']]);
	const money = { currency: 'GBP', decimals: 2 };
	const total = {
		kind: 'computed' as const,
		key: 'total',
		label: 'In all',
		required: false,
		settings: { rule: `sum(${keys.join(', ')})`, currency: 'GBP' }
	};
	const claim: Intake = {
		...bare,
		starter: 'claimant',
		pages: [
			{
				id: 'lines',
				title: 'What you paid',
				items: [
					...keys.map((key): Item => ({
						id: key,
						is: 'question',
						question: { kind: 'number', key, label: key, required: false, settings: money }
					})),
					{ id: 'total', is: 'question', question: total }
				]
			}
		]
	};
	it('adds up exactly what is there, shown in the language of whoever looks', () => {
		const asked = askedPlan(plan, claim);
		const answers = Object.fromEntries(
			amounts.flatMap((number, i) => (number ? [[`q-amount_${i + 1}`, { number }]] : []))
		) as Answers;
		const { now } = walked(asked, claim, answers, TODAY);
		const sum = asked.fields.find(({ key }) => key === 'total')!;
		const shown = (language: string) => inWords(asked, sum, now.answer(sum)!, localeFor(asked, language));
		expect([shown('en'), shown('de')]).toEqual(['£120.45', '120,45\u00a0£']);
		expect(localeFor({ ...asked, locale: 'de-CH' }, 'de')).toBe('de-CH');
	});
});

describe('the ways through', () => {
	const plan = planOf([['player']]);
	const choice = (key: string, ...values: string[]): Item => ({
		id: key,
		is: 'question',
		question: {
			kind: 'choice',
			key,
			label: key,
			required: true,
			settings: { options: values.map((value) => ({ value, text: value })) }
		}
	});
	const page = (id: string, more: Partial<Intake['pages'][number]> = {}) => ({ id, title: id, items: [], ...more });

	it('are all tried: what none comes to, what turns in a circle, what never ends, what is never said', () => {
		const intake: Intake = {
			...bare,
			pages: [
				page('a', {
					items: [choice('x', '1', '2', '3')],
					next: [
						{ when: 'x = "2"', to: 'c' },
						{ when: 'x = "3"', to: 'a' }
					]
				}),
				page('b', { when: 'x = "9"' }),
				page('c', { items: [choice('y', 'no')] })
			],
			says: [
				{ id: 's', when: 'x = "2"', say: 'Not possible.', closes: true },
				{ id: 't', when: 'x = "8"', say: 'Never.' }
			]
		};
		const ways = waysThrough(askedPlan(plan, intake), intake, TODAY);
		expect(ways).toMatchObject({ unreached: ['b'], circles: ['a'], mute: ['t'], all: true });
		expect(ways.steps).toContainEqual({ from: 'a', to: 'shut', times: 1 });
		const { found } = checkIntake(plan, intake, TODAY);
		expect(found.map(({ code, at, mild }) => [code, at, mild])).toEqual(
			expect.arrayContaining([
				['way-circle', 'a', undefined],
				['page-unreached', 'b', true],
				['say-mute', 't', true]
			])
		);
		const shut: Intake = { ...bare, pages: [page('a')], says: [{ id: 's', when: '1 = 1', say: 'No.', closes: true }] };
		expect(waysThrough(askedPlan(plan, shut), shut, TODAY).endless).toEqual(['a']);
	});
	it('find the age at which a page comes, though a birthday can be any day', () => {
		const ways = waysThrough(askedPlan(consent(), youth), youth, TODAY);
		expect(ways.unreached).toEqual([]);
		expect(ways.passed['home']).toBeGreaterThan(0);
	});
	it('look through what is computed: a rule over a sum is tried on both sides of its bound', () => {
		const base = planOf([['player']]);
		const sums: Plan = {
			...base,
			fields: [
				...base.fields,
				field('a', 'number', 'player', { key: 'a' }),
				field('b', 'number', 'player', { key: 'b', rect: { x: 9, y: 9, width: 9, height: 9 } }),
				field('t', 'computed', 'everybody', { key: 't', settings: { rule: 'sum(a, b)' } })
			]
		};
		const intake: Intake = {
			...bare,
			pages: [page('p', { items: [item('a'), item('b')] }), page('q', { when: 't > 250' })],
			says: [{ id: 's', when: 't < 3', say: 'Little.' }]
		};
		expect(waysThrough(sums, intake, TODAY)).toMatchObject({ unreached: [], mute: [], all: true });
	});
	it('are bounded: forty lists of ten are judged at once', () => {
		const intake: Intake = {
			...bare,
			pages: [
				page('a', {
					items: Array.from({ length: 40 }, (_, i) => choice(`k${i}`, ...'0123456789')),
					next: Array.from({ length: 20 }, (_, i) => ({ when: `k${i} = "1" and k${i + 1} = "2"`, to: 'document' }))
				})
			]
		};
		const ways = waysThrough(askedPlan(plan, intake), intake, TODAY);
		expect(ways).toMatchObject({ all: false, tried: 3000 });
	});
});

describe('what is wrong', () => {
	it.each<[string, Partial<Intake>]>([
		['no-heading', { heading: ' ' }],
		['no-starter', { starter: 'nobody' }],
		['starter-taken', { starter: 'odile' }],
		['days-reversed', { from: '2026-12-02', to: '2026-12-01' }],
		['no-code', { door: { by: 'code', hash: '' } }],
		['domain-unproved', { door: { by: 'domains', domains: ['x.example'] }, proof: false }],
		['field-lost', { pages: [{ id: 'p', title: 'P', items: [item('nothing')] }] }],
		['role-open', { pages: [], starter: 'second' }],
		['rule-key', { says: [{ id: 's', when: 'nope = 1', say: 'S' }] }],
		['page-lost', { pages: [{ id: 'p', title: 'P', items: [], next: [{ when: '1 = 1', to: 'gone' }] }] }],
		['force-lost', { says: [{ id: 's', when: '1 = 1', say: 'S', forces: { key: 'nope', answer: '1' } }] }],
		['force-wrong', { says: [{ id: 's', when: '1 = 1', say: 'S', forces: { key: 'custody', answer: 'three' } }] }],
		[
			'key-twice',
			{
				pages: [
					{
						id: 'p',
						title: 'P',
						items: [
							{
								id: 'q',
								is: 'question',
								question: { kind: 'text', key: 'birthday', label: 'B', required: true, settings: {} }
							}
						]
					}
				]
			}
		],
		[
			'no-options',
			{
				pages: [
					{
						id: 'p',
						title: 'P',
						items: [
							{
								id: 'q',
								is: 'question',
								question: { kind: 'choice', key: 'q', label: 'B', required: true, settings: {} }
							}
						]
					}
				]
			}
		],
		['role-lost', { pages: [{ id: 'p', title: 'P', items: [{ id: 'q', is: 'people', roles: ['player'] }] }] }],
		['stop-lost', { then: [{ id: 't', at: { stop: 'gone' }, does: { is: 'file', folder: 'F' } }] }],
		[
			'bad-address',
			{
				then: [
					{ id: 't', at: 'completed', does: { is: 'letter', to: 'nobody', subject: '', message: '', copies: true } }
				]
			}
		],
		[
			'value-unknown',
			{
				then: [
					{
						id: 't',
						at: 'completed',
						does: { is: 'letter', to: 'player', subject: '{nope}', message: '', copies: true }
					}
				]
			}
		],
		['key-lost', { then: [{ id: 't', at: 'completed', does: { is: 'row', keys: ['nope'] } }] }]
	])('%s', (code, change) => {
		const { found } = checkIntake(consent(), { ...youth, ...change }, TODAY);
		expect(found.map((one) => one.code)).toContain(code);
	});
	it('nothing, in the scenario’s own', () => {
		expect(checkIntake(consent(), youth, TODAY).found).toEqual([]);
	});
});

describe('who may start, and when', () => {
	const now = '2026-11-28T12:00:00Z';
	it.each<[string, string | null, Partial<Intake>, number?]>([
		['open', null, {}],
		['from tomorrow', 'from', { from: '2026-11-29' }],
		['until yesterday', 'to', { to: '2026-11-27' }],
		['on its last day', null, { to: '2026-11-28' }],
		['after its last case', 'most', { most: 3 }, 3],
		['before its last case', null, { most: 3 }, 2]
	])('%s', (_, at, change, cases = 0) => {
		const no = closedNow({ ...bare, ...change }, 'open', cases, now, 'Europe/London');
		expect(no?.at ?? null).toBe(at);
	});
	it('says the office’s own sentence', () => {
		expect(closedNow({ ...bare, closed: 'Claims open in May.' }, 'closed', 0, now, 'UTC')?.say).toBe(
			'Claims open in May.'
		);
	});
	it('only addresses of the domains that were named, and of those below them', () => {
		const door = { by: 'domains' as const, domains: ['brindlevale.example', '@Post.Example'] };
		expect(mayStart({ door }, 'a@brindlevale.example')).toBe(true);
		expect(mayStart({ door }, 'a@mail.POST.example')).toBe(true);
		expect(mayStart({ door }, 'a@notbrindlevale.example')).toBe(false);
		expect(mayStart({ door }, 'brindlevale.example@other.example')).toBe(false);
	});
});

describe('what follows', () => {
	const then: Intake['then'] = [
		{ id: 'signed', at: { stop: 's0' }, when: 'fee > 100', does: { is: 'file', folder: 'Large' } },
		{ id: 'end', at: 'completed', does: { is: 'row', keys: ['fee'] } },
		{ id: 'no', at: 'declined', does: { is: 'file', folder: 'Declined' } }
	];
	const plan = { ...planOf([['player'], ['tamsin']]) };
	const whole: Plan = { ...plan, fields: [...plan.fields, field('fee', 'number', 'player', { key: 'fee' })] };
	const state = (fee: string, followed: string[] = []) =>
		({
			plan: whole,
			zone: 'UTC',
			answers: { fee: { number: fee } },
			followed,
			people: { player: { is: 'done' } }
		}) as unknown as SentPacket;
	const due = (fee: string, event: Parameters<typeof followUpsDue>[2][number], followed: string[] = []) =>
		followUpsDue({ then }, state(fee, followed), [event], '2026-11-28T12:00:00Z').map(({ id }) => id);

	it('comes at its stop or its end, by rule, once', () => {
		const opened = { type: 'StopOpened' as const, stop: 1, people: ['tamsin'] };
		expect(due('240', opened)).toEqual(['signed']);
		expect(due('90', opened)).toEqual([]);
		expect(due('240', opened, ['signed'])).toEqual([]);
		expect(due('90', { type: 'EvidenceSealed', digest: '' })).toEqual(['end']);
		const declined = {
			type: 'PersonDeclined' as const,
			person: 'tamsin',
			reason: '',
			from: { address: '', device: '' }
		};
		expect(due('90', declined)).toEqual(['no']);
		expect(due('90', { ...declined, others: true })).toEqual([]);
	});
});

describe('whatever is answered', () => {
	const keys = ['a', 'b', 'c'] as const;
	const rule = fc.oneof(
		fc.constant(undefined),
		fc.tuple(fc.constantFrom(...keys), fc.constantFrom('1', '2')).map(([key, value]) => `${key} = "${value}"`)
	);
	const intakes = fc
		.array(fc.record({ when: rule, asks: fc.subarray([...keys]), to: fc.nat(5), jump: rule }), {
			minLength: 1,
			maxLength: 5
		})
		.map((pages): Intake => {
			const once = new Set<string>();
			return {
				...bare,
				pages: pages.map((one, i) => ({
					id: `p${i}`,
					title: `P${i}`,
					...(one.when && { when: one.when }),
					items: one.asks.filter((key) => !once.has(key) && once.add(key)).map((key) => item(key)),
					...(one.jump && { next: [{ when: one.jump, to: one.to === 5 ? 'document' : `p${one.to}` }] })
				}))
			};
		});
	const answered = fc.record(Object.fromEntries(keys.map((key) => [key, fc.constantFrom('1', '2', undefined)])));
	const base = planOf([['player']]);
	const asking: Plan = {
		...base,
		fields: [
			...base.fields,
			...keys.map((key) =>
				field(key, 'choice', 'player', {
					key,
					settings: {
						options: [
							{ value: '1', text: '1' },
							{ value: '2', text: '2' }
						]
					}
				})
			)
		]
	};

	it('every way ends, passes no page twice, asks nothing twice, and counts only what was asked on it', () => {
		fc.assert(
			fc.property(intakes, answered, (intake, given) => {
				const answers = Object.fromEntries(
					Object.entries(given).flatMap(([key, value]) => (value ? [[key, { choice: value }] as const] : []))
				);
				const way = walked(asking, intake, answers, TODAY);
				const pages = way.pages.map(({ page }) => page.id);
				expect(new Set(pages).size).toBe(pages.length);
				const asked = way.pages.flatMap(({ items }) => items.flatMap((one) => (one.is === 'field' ? [one.key] : [])));
				expect(new Set(asked).size).toBe(asked.length);
				for (const key of Object.keys(way.answers)) expect(asked).toContain(key);
				// nothing hidden is required: with every question of the way answered, nothing stands in it
				if (way.circle === null && asked.every((key) => way.answers[key]))
					expect(wayFault(asking, intake, way)).toBeNull();
			})
		);
	});
	it('nothing that was asked is asked again: with the case’s answers only the signature is left', () => {
		fc.assert(
			fc.property(intakes, (intake) => {
				const answers = Object.fromEntries(keys.map((key) => [key, { choice: '1' }]));
				const way = walked(asking, intake, answers, TODAY);
				if (way.circle !== null) return;
				const made = casePlan(asking, intake, way, { visitor, prepares: null, named: {} });
				if (isRefusal(made)) throw new Error(made.say);
				const rest = Object.fromEntries(keys.filter((key) => !made.answers[key]).map((key) => [key, { choice: '2' }]));
				const context = { person: visitor, now: '2026-11-28T12:00:00Z', zone: 'UTC', locale: 'en-GB' };
				const done = finishAnswers(
					made.plan,
					'player',
					{ ...made.answers, ...rest, 'player-sig': typed('O') },
					context
				);
				expect(isRefusal(done)).toBe(false);
			})
		);
	});
});
