import { describe, expect, it } from 'vitest';
import {
	consent,
	FROM,
	given,
	hours,
	open,
	send,
	standing,
	when,
	whole,
	type Course
} from '../../../../../e2e/kit/course';
import { field, plan, typed } from '../../../../../e2e/kit/plans';
import { moved } from '../../route';
import { decide, type Command, type PacketEvent, type Plan, type PlanPerson } from '../index';
import { nextMoment } from '../time';
import { changesOf, correctionFault, groundOf, presentPlan, rebased } from './index';

/** Ingrid and the musician have done their part, Tamsin waits, Ruben gets a copy: the state of the worked example. */
const engaged = plan([['ingrid:approves'], ['maren'], ['tamsin'], ['ruben:gets a copy']], {
	fields: [
		field('maren-sig', 'signature', 'maren'),
		field('maren-bank', 'text', 'maren', { required: false }),
		field('tamsin-sig', 'signature', 'tamsin'),
		field('tamsin-note', 'text', 'tamsin', { required: false }),
		field('info', 'note', 'everybody', { settings: { text: 'Doors at 18:30' } })
	]
});
const before: Command[] = [...whole('ingrid', engaged), ...whole('maren', engaged)];
const begin: Command = { do: 'beginCorrection' };
const corrected = (to: Plan, more: Partial<Extract<Command, { do: 'correct' }>> = {}): Command => ({
	do: 'correct',
	plan: to,
	planDigest: `d-${JSON.stringify(to).length}`,
	mayExchange: false,
	...more
});
const MINUTES = 5;
/** Each command five minutes after the other, so that a correction stays open between them. */
const course = (commands: Command[], p: Plan = engaged) => given(p, commands, send(p), MINUTES);
const begun = course([...before, begin]);

const stateOf = ({ state }: Course) => {
	if (state.status !== 'out') throw new Error(state.status);
	return state;
};
const person = (p: Plan, id: string, change: Partial<PlanPerson>): Plan => ({
	...p,
	people: p.people.map((one) => (one.id === id ? { ...one, ...change } : one))
});
const fields = (p: Plan, change: (all: Plan['fields']) => Plan['fields']): Plan => ({ ...p, fields: change(p.fields) });
const add = (p: Plan, id: string, how: Parameters<typeof moved>[3], at: number): Plan => {
	const with_: Plan = {
		...p,
		people: [...p.people, { id, name: id, email: `${id}@post.example`, duty: 'approves' }],
		stops: [...p.stops, { id: `s-${id}`, people: [id] }]
	};
	return moved(with_, id, at, how);
};
/** The events of a correction, as they would be now. */
function events(c: Course, command: Command): PacketEvent[] {
	const made = decide(c.state, command, c.now);
	if (!Array.isArray(made)) throw new Error(`${made.code}: ${made.say}`);
	return made;
}

describe('Tamsin’s address', () => {
	it('is corrected: she gets a new message, and the record has the old one and the new', () => {
		const [first, second] = events(begun, corrected(person(engaged, 'tamsin', { email: 'new@post.example' })));
		expect([first!.type, second]).toEqual([
			'PlanCorrected',
			{ type: 'AddressCorrected', person: 'tamsin', was: 'tamsin@post.example', now: 'new@post.example' }
		]);
	});
	it('and her telephone number', () => {
		const to = person(engaged, 'tamsin', { phone: '+44 20 7946 0018', deliver: 'text' });
		expect(events(begun, corrected(to))[1]).toMatchObject({ channel: 'text', now: '+44 20 7946 0018' });
	});
});

describe('what somebody has finished', () => {
	it.each([
		['their name', person(engaged, 'maren', { name: 'Maren H' })],
		['their address', person(engaged, 'maren', { email: 'm@post.example' })],
		['a field of theirs, taken away', fields(engaged, (all) => all.filter((f) => f.id !== 'maren-bank'))],
		[
			'the place of a field',
			fields(engaged, (all) => all.map((f) => (f.id === 'maren-sig' ? { ...f, rect: { ...f.rect, x: 9 } } : f)))
		],
		['a field more for them', fields(engaged, (all) => [...all, field('more', 'text', 'maren')])],
		[
			'a field of theirs given to another',
			fields(engaged, (all) => all.map((f) => (f.id === 'maren-bank' ? { ...f, person: 'tamsin' } : f)))
		],
		['they themselves', { ...engaged, people: engaged.people.filter((p) => p.id !== 'maren') }],
		['what they saw for all', fields(engaged, (all) => all.filter((f) => f.id !== 'info'))],
		['what the sender answered', { ...engaged, answers: { info: typed('x') } }],
		['the title they saw', { ...engaged, title: 'Another' }]
	])('is locked: %s', (_what, to) => expect(when(begun, corrected(to))).toBe('finished-part-locked'));
	it('is said with the name of who has finished', () => {
		const no = correctionFault(groundOf(stateOf(begun), false), person(engaged, 'maren', { name: 'X' }));
		expect(no!.say).toContain('Maren has signed');
	});
	it('can name nobody any more', () => {
		const to = person(add(engaged, 'kit', 'before', 3), 'kit', {
			name: '',
			email: '',
			namedBy: 'maren',
			role: 'Second'
		});
		expect(when(begun, corrected(to))).toBe('namer-finished');
	});
});

describe('fields of whoever comes later', () => {
	it.each([
		['added', [...engaged.fields, field('fee', 'number', 'tamsin')]],
		['moved', engaged.fields.map((f) => (f.id === 'tamsin-sig' ? { ...f, page: 0, rect: { ...f.rect, y: 700 } } : f))],
		['taken away', engaged.fields.filter((f) => f.id !== 'tamsin-note')]
	])('are %s, and she is not asked anew', (_what, now) => {
		const to = { ...engaged, fields: now };
		expect(when(begun, corrected(to))).toEqual(['PlanCorrected']);
		const after = course([
			...before,
			begin,
			corrected(to),
			...whole('tamsin', to, {
				answers: { 'tamsin-sig': typed('T'), ...(to.fields.some((f) => f.id === 'fee') && { fee: { number: '240' } }) }
			})
		]);
		expect(after.state.status).toBe('completed');
		expect(stateOf(course([...before, begin, corrected(to)])).plan.fields).toEqual(now);
	});
	it('can’t be taken so far that nothing is left to sign', () => {
		const to = fields(engaged, (all) => all.filter((f) => f.person !== 'tamsin'));
		expect(when(begun, corrected(to))).toBe('nothing-to-sign');
	});
});

describe('stops', () => {
	it('after the present one are added; she keeps her turn', () => {
		const to = add(engaged, 'kit', 'before', 3);
		expect(when(begun, corrected(to))).toEqual(['PlanCorrected']);
		const after = course([...before, begin, corrected(to), ...whole('tamsin', to)]);
		expect([standing(after, 'kit'), after.types.at(-1)]).toEqual(['notified', 'StopOpened']);
	});
	it('before it open now, and she waits until they are done', () => {
		const to = add(engaged, 'kit', 'before', 2);
		const after = course([...before, open('tamsin'), begin, corrected(to)]);
		expect([standing(after, 'kit'), standing(after, 'tamsin'), after.types.at(-1)]).toEqual([
			'notified',
			'waiting',
			'StopOpened'
		]);
		expect(when(after, open('tamsin'))).toBe('not-your-turn');
		const then = course([...before, open('tamsin'), begin, corrected(to), ...whole('kit', to)]);
		expect(standing(then, 'tamsin')).toBe('notified');
	});
	it('before one that is finished are refused', () => {
		expect(when(begun, corrected(add(engaged, 'kit', 'before', 1)))).toBe('before-finished');
		expect(when(begun, corrected(add(engaged, 'kit', 'beside', 1)))).toBe('before-finished');
		expect(when(begun, corrected(moved(engaged, 'tamsin', 0, 'before')))).toBe('before-finished');
	});
	it('with somebody beside: she is asked as well, the one who has it is not asked twice', () => {
		const to = add(engaged, 'kit', 'beside', 2);
		const made = events(begun, corrected(to));
		expect(made[1]).toEqual({ type: 'StopOpened', stop: 2, people: ['kit'] });
	});
	it('lose their last one: the next opens, or it is complete', () => {
		const two = add(engaged, 'kit', 'before', 3);
		const without = (p: Plan, id: string): Plan => ({
			...p,
			people: p.people.filter((one) => one.id !== id),
			stops: p.stops.filter((stop) => !stop.people.includes(id)),
			fields: p.fields.filter((f) => f.person !== id)
		});
		const c = given(two, [...before, open('tamsin'), begin], send(two), MINUTES);
		const made = events(c, corrected(without(two, 'tamsin')));
		expect(made[0]).toMatchObject({ gone: [{ person: { id: 'tamsin' }, heard: true }] });
		expect(made[1]).toMatchObject({ type: 'StopOpened', people: ['kit'] });
		expect(events(begun, corrected(without(engaged, 'tamsin'))).at(-1)!.type).toBe('PacketCompleted');
	});
	it('side by side, one of them done: others still come and go, the one who is done stays', () => {
		const p = plan([['a', 'b'], ['c']]);
		const c = given(p, [...whole('a', p), begin], send(p), MINUTES);
		expect(when(c, corrected(add(p, 'kit', 'beside', 0)))).toEqual(['PlanCorrected', 'StopOpened']);
		expect(when(c, corrected(moved(p, 'a', 2, 'before')))).toBe('before-finished');
		expect(when(c, corrected(add(p, 'kit', 'before', 0)))).toBe('before-finished');
		const later = events(c, corrected(moved(p, 'b', 2, 'before')));
		expect(later[0]).toMatchObject({ waits: ['b'] });
		expect(later[1]).toMatchObject({ type: 'StopOpened', people: ['c'] });
	});
	it('by rule that are open stay decided', () => {
		const p: Plan = { ...engaged, stops: engaged.stops.map((s, i) => (i === 2 ? { ...s, when: '1 < 2' } : s)) };
		const c = given(p, [...before, begin], send(p), MINUTES);
		const other = { ...p, stops: p.stops.map((s, i) => (i === 2 ? { ...s, when: '1 > 2' } : s)) };
		expect(when(c, corrected(other))).toBe('stop-decided');
		// where somebody comes before it, it opens for good once they are done
		const first = given(p, [...before, begin, corrected(add(p, 'kit', 'before', 2))], send(p), MINUTES);
		expect(stateOf(first).plan.stops[3]!.when).toBeUndefined();
	});
});

describe('deadline, reminders and letters', () => {
	it('are changed; the days count from the day it was sent', () => {
		const to: Plan = {
			...engaged,
			days: 20,
			message: 'New',
			sending: { reminders: { after: 2, every: null, most: 1 } }
		};
		const made = events(begun, corrected(to));
		expect(made[0]).toMatchObject({ changes: [{ what: 'letters' }, { what: 'sending' }] });
		expect(made[1]).toEqual({
			type: 'DeadlineMoved',
			was: '2026-12-04T23:59:59.000Z',
			now: '2026-12-14T23:59:59.000Z'
		});
		expect(events(begun, corrected({ ...engaged, days: null }))[1]).toMatchObject({ now: null });
	});
	it('not to a day that has passed', () => {
		const late = { ...begun, now: hours(24 * 3) };
		const c = { ...late, state: { ...stateOf(begun), correcting: { by: 'x', since: late.now, until: hours(24 * 4) } } };
		expect(when(c, corrected({ ...engaged, days: 1 }))).toBe('deadline-past');
	});
});

it('answers stay: of people, and computed ones that have been fixed; the sender’s are those of the plan', () => {
	const p: Plan = {
		...plan([['maren'], ['tamsin']]),
		answers: { place: { text: 'Oldmere' } }
	};
	p.fields.push(
		field('fee', 'number', 'maren', { key: 'fee' }),
		field('total', 'computed', 'everybody', { settings: { rule: 'fee * 3' } }),
		field('place', 'text', 'sender')
	);
	const answers = { 'maren-sig': typed('M'), fee: { number: '240' } };
	const before = given(p, [...whole('maren', p, { answers }), begin], send(p), MINUTES);
	const after = given(
		p,
		[...whole('maren', p, { answers }), begin, corrected({ ...p, message: 'x' })],
		send(p),
		MINUTES
	);
	expect(Object.keys(stateOf(before).answers).sort()).toEqual(['fee', 'maren-sig', 'place', 'total']);
	expect(stateOf(after).answers).toEqual(stateOf(before).answers);
});

describe('the document', () => {
	const other: Plan = { ...engaged, papers: [{ ...engaged.papers[0]!, digest: 'b'.repeat(64) }] };
	const fresh = course([open('ingrid'), consent('ingrid'), begin]);
	it('is exchanged only where the organisation permits it and nobody has finished', () => {
		expect(when(fresh, corrected(other))).toBe('no-exchange');
		expect(when(fresh, corrected(other, { mayExchange: true }))).toEqual(['PlanCorrected']);
		expect(when(begun, corrected(other, { mayExchange: true }))).toBe('no-exchange');
	});
	it('and a file that goes along counts as one', () => {
		const more = { ...engaged, attachments: [{ id: 'x', name: 'X', digest: 'c'.repeat(64) }] };
		expect(when(fresh, corrected(more))).toBe('no-exchange');
	});
});

describe('somebody who has opened it', () => {
	const tamsin = [...before, open('tamsin'), consent('tamsin')];
	const told: Command = { do: 'noteShown', person: 'tamsin', from: FROM };
	const to = fields(engaged, (all) => [...all, field('more', 'text', 'tamsin', { required: false })]);
	const keep: Command = { do: 'keepAnswers', person: 'tamsin', fields: ['tamsin-note'], from: FROM };
	it('is told at the next click, then goes on; agreeing again is not asked', () => {
		const after = course([...tamsin, begin, corrected(to)]);
		expect(stateOf(after).toTell).toEqual({ tamsin: ['yours'] });
		expect(when(after, keep)).toBe('corrected-meanwhile');
		const then = course([...tamsin, begin, corrected(to), told]);
		expect(then.types.at(-1)).toBe('CorrectionShown');
		expect(when(then, keep)).toEqual(['AnswersKept']);
		expect(when(then, told)).toEqual([]);
	});
	it('who gets it in her place has seen nothing before, and is told of nothing', () => {
		const another = person(to, 'tamsin', { name: 'Kit', email: 'kit@post.example' });
		const after = course([...tamsin, begin, corrected(another)]);
		expect([stateOf(after).toTell, standing(after, 'tamsin')]).toEqual([{}, 'notified']);
		const later = course([
			...tamsin,
			begin,
			corrected(to),
			{ do: 'correctAddress', person: 'tamsin', email: 'x@post.example' }
		]);
		expect(stateOf(later).toTell).toEqual({});
	});
	it('is not told where nothing changed that she saw', () => {
		const after = course([...tamsin, begin, corrected(add(engaged, 'kit', 'before', 3))]);
		expect([stateOf(after).toTell, when(after, keep)]).toEqual([{}, ['AnswersKept']]);
	});
	it('finds a shut door while it is corrected, for 30 minutes after the last change at most', () => {
		const shut = course([...tamsin, begin]);
		expect(when(shut, keep)).toBe('being-corrected');
		const until = Date.parse(stateOf(shut).correcting!.until);
		const at = (minutes: number) => new Date(until + minutes * 60_000).toISOString();
		expect([when(shut, keep, at(-1)), when(shut, keep, at(0))]).toEqual(['being-corrected', ['AnswersKept']]);
		expect(nextMoment(stateOf(shut))).toBe(at(0));
		expect(when(shut, { do: 'keepTime' }, at(0))).toEqual(['CorrectionLeft']);
		const changed = course([...tamsin, begin, { do: 'goOnCorrecting' }]);
		expect(Date.parse(stateOf(changed).correcting!.until) - until).toBe(MINUTES * 60_000);
	});
});

describe('while it is corrected', () => {
	const p: Plan = { ...engaged, sending: { reminders: { after: 1, every: 1, most: 9 } } };
	it('no reminder goes and nobody is nudged; what is changed otherwise is refused', () => {
		const c = given(p, [...before, begin], send(p), MINUTES);
		const shut = { ...c, state: { ...stateOf(c), correcting: { by: 'Odile', since: hours(0), until: hours(24 * 9) } } };
		expect(when(shut, { do: 'keepTime' }, hours(24 * 3))).toEqual([]);
		for (const command of [
			{ do: 'nudge', person: 'tamsin' },
			{ do: 'correctAddress', person: 'tamsin', email: 'x@post.example' },
			{ do: 'moveDeadline', to: hours(24 * 30) }
		] satisfies Command[])
			expect(when(shut, command)).toBe('being-corrected');
		expect(when(shut, { do: 'withdraw', reason: 'r' })).toEqual(['PacketWithdrawn']);
	});
	it('left as it was it opens unchanged; so it does where nothing was changed', () => {
		const left = course([...before, begin, { do: 'leaveCorrection' }]);
		expect([stateOf(left).correcting, when(left, open('tamsin'))]).toEqual([null, ['PaperOpened']]);
		expect(when(begun, corrected(presentPlan(stateOf(begun))))).toEqual(['CorrectionLeft']);
	});
	it('too late, it is refused and can be begun again', () => {
		const over = course([...before, begin, { do: 'leaveCorrection' }]);
		expect(when(over, corrected({ ...engaged, message: 'x' }))).toBe('not-being-corrected');
		expect(when(over, begin)).toEqual(['CorrectionBegun']);
		// also where nobody has noted yet that the time is over
		const late = stateOf(begun).correcting!.until;
		expect(when(begun, corrected({ ...engaged, message: 'x' }), late)).toBe('not-being-corrected');
		expect(when(begun, begin, late)).toEqual(['CorrectionLeft', 'CorrectionBegun']);
	});
	it('is not begun on a packet that is held, or has ended', () => {
		const held = plan([['a'], ['b']]);
		const p2 = person(held, 'a', { check: { by: 'mail' } });
		const wrong: Command = { do: 'enterCode', person: 'a', right: false, most: 1, from: FROM };
		expect(when(given(p2, [wrong]), begin)).toBe('held');
		expect(when(given(p2, [{ do: 'withdraw', reason: 'r' }]), begin)).toBe('withdrawn');
	});
});

describe('a correction begun earlier', () => {
	it('keeps what it changed and takes up what has happened since', () => {
		const mine = fields(person(engaged, 'tamsin', { jobTitle: 'Manager' }), (all) => [
			...all,
			field('x', 'text', 'tamsin')
		]);
		const now = person(person(engaged, 'ruben', { email: 'r2@post.example' }), 'maren', { name: 'Maren H' });
		const both = rebased(engaged, mine, now);
		expect(both.people.map((p) => [p.name, p.email, p.jobTitle ?? ''])).toEqual([
			['Ingrid', 'ingrid@post.example', ''],
			['Maren H', 'maren@post.example', ''],
			['Tamsin', 'tamsin@post.example', 'Manager'],
			['Ruben', 'r2@post.example', '']
		]);
		expect(both.fields.map((f) => f.id)).toEqual([...engaged.fields.map((f) => f.id), 'x']);
		const gone = fields(engaged, (all) => all.slice(1));
		expect(rebased(engaged, gone, now).fields).toHaveLength(engaged.fields.length - 1);
	});
	it('is said in the record by what it changed', () => {
		const to = fields(person(engaged, 'tamsin', { duty: 'approves', deliver: 'link' }), (all) => all.slice(0, -1));
		expect(changesOf(engaged, add(to, 'kit', 'before', 3)).map((c) => c.what)).toEqual([
			'person added',
			'person changed',
			'fields removed'
		]);
		expect(changesOf(engaged, moved(engaged, 'tamsin', 4, 'before')).map((c) => c.what)).toEqual(['route']);
	});
});
