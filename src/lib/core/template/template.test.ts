import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { field, plan as planOf } from '../../../../e2e/kit/plans';
import type { Answers } from '../field';
import { preflight, preflightTemplate, type Plan, type PlanPerson } from '../packet';
import { isRefusal } from '../refusal';
import {
	asOne,
	asRoles,
	clashesOf,
	filledIn,
	joined,
	lockedChange,
	movedGroup,
	nameOf,
	openAnswers,
	openRoles,
	parted,
	proposed,
	strangeValues,
	used,
	valuesOf,
	type Joining,
	type Part
} from './index';

/** A template: some roles open, some taken for good. */
function template(
	stops: string[][],
	change: Partial<Plan> = {},
	roles: Record<string, Partial<PlanPerson>> = {}
): Plan {
	const plan = planOf(stops, change);
	return {
		...plan,
		people: plan.people.map((p) => ({ ...p, name: '', email: '', role: p.id, ...(roles[p.id] ?? {}) }))
	};
}
const tamsin = { name: 'Tamsin Okoro', email: 'tamsin@brindlevale.example' };
const maren = { name: 'Maren Lindqvist', email: 'maren@post.example' };
const done = (parts: Part[], joining: Joining): Plan => {
	const plan = joined(parts, joining);
	if (isRefusal(plan)) throw new Error(plan.say);
	return plan;
};

describe('a template used', () => {
	const plan = template([['lender'], ['second'], ['manager']], {}, { second: { optional: true }, manager: tamsin });
	it('asks for the roles that are open and no others', () => {
		expect(openRoles(plan).map((p) => p.id)).toEqual(['lender', 'second']);
	});
	it('with one lender: the second’s stop and fields are gone, and nothing stands in the way', () => {
		const one = used(plan, { title: 'Loan', people: { lender: maren, second: null } });
		expect([one.people.map((p) => p.id), one.stops.length]).toEqual([['lender', 'manager'], 2]);
		expect(one.fields.some((f) => f.person === 'second')).toBe(false);
		expect(preflight(one).filter((f) => !f.mild)).toEqual([]);
	});
	it('says what a lost twin leaves behind', () => {
		const twin = {
			...plan,
			fields: [
				...plan.fields,
				field('t', 'text', 'second', { key: 'bow' }),
				field('c', 'computed', 'manager', { key: 'c', settings: { rule: 'upper(bow)' } })
			]
		};
		const codes = preflight(used(twin, { people: { lender: maren, second: null } })).map((f) => f.code);
		expect(codes).toContain('rule-key');
	});
	it('asks each of the sender’s answers once, however often it stands', () => {
		const asked = {
			...plan,
			fields: [
				...plan.fields,
				field('a', 'text', 'sender', { key: 'fee' }),
				field('b', 'text', 'sender', { key: 'fee', page: 1 }),
				field('n', 'text', 'sender', { key: 'hall' })
			]
		};
		expect(openAnswers(asked).map((f) => f.id)).toEqual(['a', 'n']);
		expect(openAnswers(used(asked, { answers: { b: { text: '240' } } as Answers })).map((f) => f.id)).toEqual(['n']);
	});
	it('may leave names and addresses open, but not the roles themselves', () => {
		expect(preflightTemplate(plan).filter((f) => !f.mild)).toEqual([]);
		const nameless = { ...plan, people: plan.people.map((p, i) => (i === 0 ? { ...p, role: '' } : p)) };
		expect(preflightTemplate(nameless).map((f) => f.code)).toContain('no-role');
		const twice = { ...plan, people: plan.people.map((p) => ({ ...p, role: 'lender' })) };
		expect(preflightTemplate(twice).map((f) => f.code)).toContain('role-twice');
		const wrong = { ...plan, people: plan.people.map((p, i) => (i === 0 ? { ...p, email: 'nobody' } : p)) };
		expect(preflightTemplate(wrong).map((f) => f.code)).toContain('bad-address');
	});
});

describe('what a template locks', () => {
	const base = template(
		[['musician'], ['manager']],
		{ locked: ['message', 'deadline', 'people', 'fields', 'papers'], message: 'Dear all', days: 14 },
		{ manager: { ...tamsin, locked: ['name', 'address', 'duty', 'removal'] } }
	);
	const filled = used(base, { title: 'For Maren', people: { musician: maren } });
	const person = (change: Partial<PlanPerson>) => ({
		...filled,
		people: filled.people.map((p) => (p.id === 'manager' ? { ...p, ...change } : p))
	});
	it('lets open roles be filled and the title be written', () => {
		expect(lockedChange(base, filled)).toBeNull();
	});
	it.each<[string, Plan]>([
		['a name', person({ name: 'Somebody Else' })],
		['an address', person({ email: 'else@post.example' })],
		['a duty', person({ duty: 'approves' })],
		['a person’s locks', person({ locked: [] })],
		['a person taken off', { ...filled, people: filled.people.slice(0, 1), stops: filled.stops.slice(0, 1) }],
		['the locks of the whole', { ...filled, locked: [] }],
		['the message', { ...filled, message: 'Hello' }],
		['a letter of one’s own', person({ message: 'Hello you' })],
		['the time', { ...filled, days: 3 }],
		['the order', { ...filled, stops: [...filled.stops].reverse() }],
		['a field', { ...filled, fields: filled.fields.slice(1) }],
		['a field’s place', { ...filled, fields: filled.fields.map((f) => ({ ...f, page: 1 })) }],
		['a document', { ...filled, papers: filled.papers.map((p) => ({ ...p, digest: 'e'.repeat(64) })) }]
	])('refuses %s to be changed', (_what, plan) => {
		expect(lockedChange(base, plan)).toMatchObject({ code: 'locked' });
	});
	it('lets fields follow their words where the document may be exchanged', () => {
		const open = { ...base, locked: ['fields' as const] };
		const fitted = {
			...open,
			papers: open.papers.map((p) => ({ ...p, digest: 'e'.repeat(64) })),
			fields: open.fields.map((f) => ({ ...f, rect: { ...f.rect, y: f.rect.y + 20 } }))
		};
		expect(lockedChange(open, fitted)).toBeNull();
		expect(
			lockedChange(open, { ...fitted, fields: fitted.fields.map((f) => ({ ...f, required: !f.required })) })
		).not.toBeNull();
	});
	it('counts an optional role that fell away, with its fields, as no change', () => {
		const optional = { ...base, people: base.people.map((p) => (p.id === 'musician' ? { ...p, optional: true } : p)) };
		expect(lockedChange(optional, used(optional, { people: { musician: null } }))).toBeNull();
	});
});

describe('values in letters', () => {
	const plan = template([['guest musician']], { title: 'Autumn tour', days: 14 }, { 'guest musician': maren });
	const full = {
		...plan,
		fields: [...plan.fields, field('fee', 'number', 'sender', { key: 'fee', settings: { decimals: 2 } })],
		answers: { fee: { number: '1240.5' } } as Answers
	};
	const facts = {
		plan: full,
		answers: {},
		sender: { ...tamsin, organisation: 'Brindlevale' },
		until: 'Friday 4 December'
	};
	it.each([
		['{title} until {deadline}', 'Autumn tour until Friday 4 December'],
		['{Guest Musician} has accepted', 'Maren Lindqvist has accepted'],
		['Dear {guest musician.given name}', 'Dear Maren'],
		['{ guest musician.family name }, {guest musician.email}', 'Lindqvist, maren@post.example'],
		['the fee is {fee}', 'the fee is 1,240.50'],
		['{sender.name} of {sender.organisation}', 'Tamsin Okoro of Brindlevale'],
		['{guest musician.job title}', '…'],
		['{nothing} {} {a.b}', '{nothing} {} {a.b}']
	])('“%s” becomes “%s”', (text, said) => {
		expect(filledIn(text, facts)).toBe(said);
	});
	it('are written as the one whom the letter is for writes them', () => {
		expect(filledIn('{fee}', { ...facts, locale: 'de-DE' })).toBe('1.240,50');
	});
	it('that are none stand in the way of sending, those on offer never do', () => {
		expect(strangeValues('{fee} {violin.name}', full)).toEqual(['violin.name']);
		expect(strangeValues(valuesOf(full).join(' '), full)).toEqual([]);
		expect(preflight({ ...full, message: '{violin.name}' }).map((f) => f.code)).toContain('value-unknown');
	});
	it('never fail, whatever is written', () => {
		fc.assert(fc.property(fc.string(), (text) => typeof filledIn(`{${text}} ${text}`, facts) === 'string'));
	});
});

describe('templates joined', () => {
	const engagement: Part = {
		title: 'Engagement',
		plan: template(
			[['director'], ['musician'], ['manager'], ['finance']],
			{ from: [{ template: 'e', version: 3 }] },
			{ manager: { ...tamsin, locked: ['name'] } }
		)
	};
	const release: Part = {
		title: 'Release',
		plan: template([['musician'], ['office']], { from: [{ template: 'r', version: 1 }] })
	};
	const names = (parts: Part[], joining: Joining) =>
		joining.stops.map((stop) => stop.map((id) => nameOf(parts, joining, id)).join('+'));

	it('one role is one person, and each order is kept', () => {
		const parts = [engagement, release];
		const joining = proposed(parts);
		expect(names(parts, joining)).toEqual(['director', 'musician', 'office', 'manager', 'finance']);
		const plan = done(parts, joining);
		expect([plan.people.length, plan.papers.length, plan.fields.length]).toEqual([
			5,
			2,
			engagement.plan.fields.length + release.plan.fields.length
		]);
		expect(new Set([...plan.fields.map((f) => f.id), ...plan.papers.map((p) => p.id)]).size).toBe(
			plan.fields.length + 2
		);
		expect(plan.from).toEqual([
			{ template: 'e', version: 3 },
			{ template: 'r', version: 1 }
		]);
		expect(plan.people.find((p) => p.role === 'manager')).toMatchObject({ ...tamsin, locked: ['name'] });
		expect(preflightTemplate({ ...plan, title: 'Both' }).filter((f) => !f.mild)).toEqual([]);
	});
	it('orders that contradict each other are a clash, solved by order or by leaving it', () => {
		const other: Part = { title: 'Other', plan: template([['manager'], ['musician']]) };
		const parts = [engagement, other];
		const joining = proposed(parts);
		const [clash] = clashesOf(parts, joining).filter((c) => c.id.startsWith('order'));
		expect([clash!.open, clash!.say]).toEqual([true, 'In “Other” manager comes before musician; here not.']);
		expect(joined(parts, joining)).toMatchObject({ code: 'clashes-open' });
		expect(done(parts, clash!.ways[1]!.change(joining)).stops.length).toBe(4);
		const first = clash!.ways[0]!.change(joining);
		expect(names(parts, first)).toEqual(['director', 'manager', 'musician', 'finance']);
	});
	it('two fixed addresses for one person are asked about: one of them, or two people', () => {
		const two: Part = {
			title: 'Two',
			plan: template([['manager']], {}, { manager: { name: 'Ingrid', email: 'ingrid@brindlevale.example' } })
		};
		const parts = [engagement, two];
		const apart = proposed(parts);
		// different addresses are different people to begin with
		expect(apart.people.length).toBe(5);
		const one = asOne(apart, 'j0-manager', 'j1-manager');
		const clash = clashesOf(parts, one).find((c) => c.id.startsWith('address'))!;
		expect(clash.open).toBe(true);
		expect(done(parts, clash.ways[1]!.change(one)).people.find((p) => p.id === 'j0-manager')!.name).toBe('Ingrid');
		expect(clash.ways.at(-1)!.change(one).people.length).toBe(5);
	});
	it('somebody fixed in one and open in the other holds for both, which is said, and can be parted', () => {
		const open: Part = { title: 'Open', plan: template([['manager']]) };
		const parts = [engagement, open];
		const joining = proposed(parts);
		const clash = clashesOf(parts, joining).find((c) => c.id.startsWith('fixed'))!;
		expect([clash.open, clash.say]).toEqual([
			false,
			'manager is Tamsin Okoro in one and open in the other: Tamsin Okoro holds for both.'
		]);
		expect(done(parts, joining).people.find((p) => p.role === 'manager')!.email).toBe(tamsin.email);
		expect(clash.ways[0]!.change(joining).people.length).toBe(5);
	});
	it('different duties and times are settled by a press each', () => {
		const approving: Part = {
			title: 'Approving',
			plan: {
				...template([['musician']], { days: 3 }),
				people: [{ id: 'musician', role: 'musician', name: '', email: '', duty: 'approves' }]
			}
		};
		const parts = [release, approving];
		let joining = proposed(parts);
		expect(
			clashesOf(parts, joining)
				.filter((c) => c.open)
				.map((c) => c.id.split(' ')[0])
		).toEqual(['duty', 'days']);
		for (const clash of clashesOf(parts, joining)) joining = clash.ways.at(-1)!.change(joining);
		expect(done(parts, joining)).toMatchObject({ days: 3, people: [{ duty: 'approves' }, {}] });
	});
	it('a key that means the same is one answer, one that does not is told apart with the rules that name it', () => {
		const asks = (id: string, kind: 'number' | 'text'): Part => ({
			title: id,
			plan: {
				...template([['musician']]),
				fields: [
					field('s', 'signature', 'musician'),
					field('f', kind, 'musician', { key: 'fee' }),
					field('g', 'text', 'musician', { key: 'note', showWhen: 'not empty(fee)' })
				]
			}
		});
		const same = [asks('one', 'text'), asks('two', 'text')];
		expect(done(same, proposed(same)).fields.map((f) => f.key)).toEqual(['', 'fee', 'note', '', 'fee', 'note']);
		const differ = [asks('one', 'number'), asks('two', 'text')];
		const joining = proposed(differ);
		const clash = clashesOf(differ, joining).find((c) => c.open)!;
		expect(clash.id).toBe('key fee');
		const plan = done(differ, clash.ways[0]!.change(joining));
		expect(plan.fields.map((f) => [f.key, f.showWhen ?? ''])).toEqual([
			['', ''],
			['fee', ''],
			['note', 'not empty(fee)'],
			['', ''],
			['fee_2', ''],
			['note', 'not empty(fee_2)']
		]);
	});
	it('people are moved, parted and taken as one without losing anybody', () => {
		const parts = [engagement, release];
		const all = (joining: Joining) => [...joining.stops.flat()].sort().join();
		fc.assert(
			fc.property(fc.array(fc.tuple(fc.nat(), fc.nat(), fc.boolean()), { maxLength: 12 }), (moves) => {
				let joining = proposed(parts);
				for (const [who, to, beside] of moves) {
					const id = joining.people[who % joining.people.length]!.id;
					joining = movedGroup(joining, id, to % joining.stops.length, beside ? 'beside' : 'before');
					if (to % 5 === 0) joining = parted(joining, id);
				}
				expect(all(joining)).toBe([...joining.people.map((g) => g.id)].sort().join());
				expect(joining.people.flatMap((g) => g.members).length).toBe(6);
			})
		);
	});
});

describe('what the route and the sending bring to templates', () => {
	const base = template(
		[['musician'], ['manager']],
		{ locked: ['sending', 'deadline', 'people'], sending: { handOver: true, warning: 2 } },
		{
			musician: {
				check: { by: 'code', hash: '' },
				locked: ['check', 'address'],
				phone: '+44 7700 900111',
				email: 'm@post.example'
			}
		}
	);
	const person = (change: Partial<PlanPerson>): Plan => ({
		...base,
		people: base.people.map((p) => (p.id === 'musician' ? { ...p, ...change } : p))
	});
	it.each<[string, Plan, boolean]>([
		['an access code is set', person({ check: { by: 'code', hash: 'aa:bb' } }), true],
		['another proof is asked', person({ check: { by: 'mail' } }), false],
		['no proof is asked', { ...base, people: base.people.map(({ check: _check, ...p }) => p) }, false],
		['another number', person({ phone: '+44 7700 900222' }), false],
		['hand-over is taken away', { ...base, sending: { warning: 2 } }, false],
		['the warning', { ...base, sending: { handOver: true, warning: 5 } }, false],
		['a stop by rule', { ...base, stops: base.stops.map((s) => ({ ...s, when: 'true' })) }, false],
		['any one is enough', { ...base, stops: base.stops.map((s) => ({ ...s, anyOne: true })) }, false]
	])('%s: permitted %s', (_, plan, permitted) => {
		const no = lockedChange(base, plan);
		expect(no === null).toBe(permitted);
		if (no) expect(no.code).toBe('locked');
	});
	it('asks for the number a text message needs, and for the code, and for no address that nothing goes to', () => {
		const plan = template(
			[['a'], ['b'], ['c']],
			{},
			{
				a: { name: 'A', deliver: 'text' },
				b: { name: 'B', email: 'b@post.example', check: { by: 'code', hash: '' } },
				c: { name: 'C', deliver: 'link' }
			}
		);
		expect(openRoles(plan).map((p) => p.id)).toEqual(['a', 'b']);
		const filled = used(plan, {
			people: {
				a: { name: 'A', email: '', phone: '+44 7700 900111' },
				b: { name: 'B', email: 'b@post.example', check: { by: 'code', hash: 'aa:bb' } }
			}
		});
		expect(openRoles(filled)).toEqual([]);
		expect(asRoles(filled, new Set()).people.map((p) => [p.phone ?? '', p.check ?? null])).toEqual([
			['', null],
			['', { by: 'code', hash: '' }],
			['', null]
		]);
	});

	const part = (title: string, change: Partial<Plan>, musician: Partial<PlanPerson> = {}): Part => ({
		title,
		plan: template([['office'], ['musician']], change, { musician })
	});
	it('joins checks, stops by rule and settings that agree, without a question', () => {
		const same = { check: { by: 'mail' as const } };
		const rule = (plan: Partial<Plan>) => ({ ...plan, sending: { handOver: true } });
		const parts = [part('A', rule({}), same), part('B', rule({}), same)];
		expect(clashesOf(parts, proposed(parts)).filter((c) => c.open)).toEqual([]);
		const plan = done(parts, proposed(parts));
		expect(plan.people.find((p) => p.role === 'musician')!.check).toEqual({ by: 'mail' });
		expect(plan.sending).toEqual({ handOver: true });
	});
	it('asks where checks, rules and settings differ, and does as is answered', () => {
		const a = part('A', { sending: { handOver: true } }, { check: { by: 'mail' } });
		const b = part('B', { sending: { reminders: { after: 1, every: null, most: 1 } } });
		b.plan.stops[1] = { ...b.plan.stops[1]!, when: 'fee > 100' };
		b.plan.fields.push(field('fee', 'number', 'office', { key: 'fee' }));
		const parts = [a, b];
		let joining = proposed(parts);
		expect(joined(parts, joining)).toMatchObject({ code: 'clashes-open' });
		const open = () =>
			clashesOf(parts, joining)
				.filter((c) => c.open)
				.map((c) => c.id.split(' ')[0]);
		expect(open()).toEqual(['check', 'opens']);
		const settle = (what: string, way: number) => {
			joining = clashesOf(parts, joining)
				.find((c) => c.id.startsWith(what))!
				.ways[way]!.change(joining);
		};
		settle('check', 1);
		settle('opens', 1);
		expect(clashesOf(parts, joining).find((c) => c.id === 'sending')!.say).toContain('those of “A” hold');
		settle('sending', 1);
		expect(open()).toEqual([]);
		const plan = done(parts, joining);
		const musician = plan.people.find((p) => p.role === 'musician')!;
		expect(musician.check).toBeUndefined();
		expect(plan.stops.find((s) => s.people.includes(musician.id))!.when).toBe('fee > 100');
		expect(plan.sending?.reminders).toEqual({ after: 1, every: null, most: 1 });
	});
	it('a key that is told apart is followed by the stop’s rule', () => {
		const asks = (title: string, kind: 'number' | 'text', when: string): Part => {
			const one = part(title, {});
			one.plan.fields.push(field('fee', kind, 'office', { key: 'fee' }));
			one.plan.stops[1] = { ...one.plan.stops[1]!, when };
			return one;
		};
		const parts = [asks('A', 'number', 'fee > 1'), asks('B', 'text', 'not empty(fee)')];
		let joining = proposed(parts);
		for (const id of ['key', 'opens'])
			joining = clashesOf(parts, joining)
				.find((c) => c.id.startsWith(id))!
				.ways[id === 'key' ? 0 : 1]!.change(joining);
		expect(done(parts, joining).stops.map((s) => s.when ?? '')).toContain('not empty(fee_2)');
	});
});
