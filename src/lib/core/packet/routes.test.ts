import { describe, expect, it } from 'vitest';
import {
	consent,
	decline,
	finish,
	FROM,
	given,
	handOver,
	hours,
	open,
	send,
	standing,
	when,
	whole
} from '../../../../e2e/kit/course';
import { engagement, field, plan, typed } from '../../../../e2e/kit/plans';
import { preflight } from './preflight';
import { nextMoment } from './time';
import { addressOf, type Command, type Plan, type PlanPerson, type Sending, type Stop } from './index';

const codes = (p: Plan) => preflight(p).flatMap((f) => (f.mild ? [] : [f.code]));
const mild = (p: Plan) => preflight(p).flatMap((f) => (f.mild ? [f.code] : []));
const person = (p: Plan, id: string, change: Partial<PlanPerson>): Plan => ({
	...p,
	people: p.people.map((one) => (one.id === id ? { ...one, ...change } : one))
});
const stop = (p: Plan, n: number, change: Partial<Stop>): Plan => ({
	...p,
	stops: p.stops.map((one, i) => (i === n ? { ...one, ...change } : one))
});
const sending = (p: Plan, sending: Sending): Plan => ({ ...p, sending });

describe('example 1: handing over', () => {
	const p = sending(plan([['ingrid:approves'], ['maren'], ['tamsin'], ['ruben:gets a copy']]), { handOver: true });
	it('Ingrid hands over to Tamsin, who approves at stop 1 and signs at stop 3', () => {
		const { state, types } = given(p, [
			handOver('ingrid', 'tamsin@post.example', 'Tamsin'),
			...whole('ingrid', p),
			...whole('maren', p),
			...whole('tamsin', p)
		]);
		expect(types).toContain('PartHandedOver');
		expect(state).toMatchObject({
			status: 'completed',
			handOvers: [
				{
					person: 'ingrid',
					from: { email: 'ingrid@post.example' },
					to: { name: 'Tamsin', email: 'tamsin@post.example' }
				}
			]
		});
		if (state.status === 'none') return;
		expect(state.plan.people.filter((one) => addressOf(state, one.id) === 'tamsin@post.example').length).toBe(2);
	});
	it('gives all that is unfinished: the new one opens and agrees for themselves', () => {
		const course = given(p, [open('ingrid'), consent('ingrid'), handOver('ingrid', 'heir@post.example')]);
		expect(standing(course, 'ingrid')).toBe('notified');
		expect(when(course, finish('ingrid', p))).toBe('no-consent');
	});
	it.each([
		['to oneself', handOver('ingrid', 'Ingrid@post.example'), 'handed-to-oneself'],
		['to no address', handOver('ingrid', 'heir'), 'bad-address'],
		['to nobody', handOver('ingrid', 'heir@post.example', ' '), 'name-missing'],
		['without saying why', handOver('ingrid', 'heir@post.example', 'Heir', ' '), 'reason-missing'],
		['before one’s turn', handOver('maren', 'heir@post.example'), 'not-your-turn']
	] as const)('is refused %s', (_what, command, code) => {
		expect(when(given(p, []), command)).toBe(code);
	});
	it('is refused where the sender has not allowed it', () => {
		expect(when(given(engagement(), []), handOver('ingrid', 'heir@post.example'))).toBe('no-hand-over');
	});
	it('is refused to somebody who has declined, and to somebody beside', () => {
		const group = stop(sending(plan([['a:approves', 'b:approves', 'c:approves']]), { handOver: true }), 0, {
			anyOne: true
		});
		const course = given(group, [decline('a')]);
		expect(when(course, handOver('b', 'a@post.example'))).toBe('has-declined');
		expect(when(course, handOver('b', 'c@post.example'))).toBe('twice-at-stop');
	});
});

/** A player answers their birthday; a guardian's stop opens when they are under 18. */
const consentForm = (rule = 'age(birthday, today) < 18'): Plan => {
	const base = plan([['player'], ['guardian'], ['office']]);
	return stop({ ...base, fields: [...base.fields, field('born', 'date', 'player', { key: 'birthday' })] }, 1, {
		when: rule
	});
};
const born = (p: Plan, day: string): Command =>
	finish('player', p, { answers: { 'player-sig': typed('P'), born: { day } } });

describe('example 3: a stop by rule', () => {
	it('is undecided at sending, and open for good once the answer is there', () => {
		const p = consentForm();
		expect(codes(p)).toEqual([]);
		expect(standing(given(p, []), 'guardian')).toBe('waiting');
		const young = given(p, [open('player'), consent('player'), born(p, '2012-03-01')]);
		expect(young.types.slice(-2)).toEqual(['PersonFinished', 'StopOpened']);
		expect(standing(young, 'guardian')).toBe('notified');
	});
	it('is left out where the rule does not hold; the next stop opens in its place', () => {
		const p = consentForm();
		const grown = given(p, [open('player'), consent('player'), born(p, '2001-03-01')]);
		expect(grown.types.slice(-3)).toEqual(['PersonFinished', 'StopSkipped', 'StopOpened']);
		expect(standing(grown, 'guardian')).toBe('skipped');
		expect(standing(grown, 'office')).toBe('notified');
		expect(when(grown, open('guardian'))).toBe('not-needed');
	});
	it('may ask only for what is certain by then', () => {
		const base = consentForm();
		const late = { ...base, fields: [...base.fields, field('x', 'date', 'office', { key: 'later' })] };
		expect(codes(stop(late, 1, { when: 'age(later, today) < 18' }))).toContain('rule-too-early');
		expect(codes(stop(late, 1, { when: 'age(nothing, today) < 18' }))).toContain('rule-key');
		expect(codes(stop(late, 1, { when: 'age(' }))).not.toEqual([]);
		// what a guardian answers is not certain either, since the guardian may be left out
		const guardians = { ...base, fields: [...base.fields, field('g', 'date', 'guardian', { key: 'seen' })] };
		expect(codes(stop(guardians, 2, { when: 'age(seen, today) < 1' }))).toContain('rule-too-early');
	});
	it('says so, mildly, where the answer may stay empty', () => {
		const p = consentForm();
		const open = { ...p, fields: p.fields.map((f) => (f.id === 'born' ? { ...f, required: false } : f)) };
		expect(mild(open)).toContain('rule-may-lack');
	});
	it('can be the first stop, decided at sending by what the sender has answered', () => {
		const base = plan([['insurer:approves'], ['borrower']]);
		const p = stop(
			{
				...base,
				fields: [...base.fields, field('v', 'number', 'sender', { key: 'value' })],
				answers: { v: { number: '900' } }
			},
			0,
			{ when: 'value > 1000' }
		);
		expect(given(p, []).types).toEqual(['PacketSent', 'StopSkipped', 'StopOpened']);
		expect(() => given({ ...p, stops: [p.stops[0]!, { ...p.stops[1]!, when: 'value > 1000' }] }, [])).toThrow(
			'nobody-acts'
		);
	});
});

describe('a group, of which any one is enough', () => {
	const p = stop(plan([['a:approves', 'b:approves', 'c:approves'], ['last']]), 0, { anyOne: true });
	it('goes on when one has done it; the others are spared and can do nothing more', () => {
		const course = given(p, whole('b', p));
		expect(course.types.slice(-4)).toEqual(['PersonFinished', 'PersonSpared', 'PersonSpared', 'StopOpened']);
		expect(standing(course, 'a')).toBe('skipped');
		expect(when(course, open('a'))).toBe('not-needed');
	});
	it('goes on when one declines, as long as another is left; then it has ended', () => {
		const one = given(p, [decline('a')]);
		expect(one.state.status).toBe('out');
		expect(when(one, open('a'))).toBe('you-declined');
		const all = given(p, [decline('a'), decline('b'), decline('c', 'nobody wants to')]);
		expect(all.state).toMatchObject({ status: 'declined', person: 'c' });
	});
	it('needs two people or more', () => {
		expect(codes(stop(p, 1, { anyOne: true }))).toContain('group-of-one');
	});
	it('may be asked for by a later rule only where every one of them is asked', () => {
		const asked = (ids: string[]) => ({
			...p,
			fields: [...p.fields, ...ids.map((id) => field(`n-${id}`, 'number', id, { key: 'sum' }))]
		});
		expect(codes(stop(asked(['a', 'b', 'c']), 1, { when: 'sum > 3' }))).toEqual([]);
		expect(codes(stop(asked(['a', 'b']), 1, { when: 'sum > 3' }))).toContain('rule-too-early');
	});
});

describe('example 4: named later', () => {
	const base = plan([['claimant'], ['leader'], ['finance']]);
	const p = person(base, 'leader', { name: '', email: '', role: 'Section leader', namedBy: 'claimant' });
	const naming = (email: string, note?: string) =>
		finish('claimant', p, { names: { leader: { name: 'Lucia', email, ...(note && { note }) } } });
	it('is refused for oneself, unless the template permits it', () => {
		const permitted = sending(p, { selfNaming: true });
		const before = [open('claimant'), consent('claimant')];
		expect(when(given(p, before), naming('claimant@post.example'))).toBe('named-oneself');
		expect(when(given(permitted, before), naming('claimant@post.example'))).toContain('PersonNamed');
	});
	it('takes the note along, for the one who is named', () => {
		const { state } = given(p, [open('claimant'), consent('claimant'), naming('lucia@post.example', 'Train fares')]);
		expect(state.status !== 'none' && state.plan.people[1]).toMatchObject({ name: 'Lucia', note: 'Train fares' });
	});
	it('is refused in a circle, and by one who may be left out', () => {
		const circle = person(p, 'claimant', { name: '', email: '', role: 'Claimant', namedBy: 'leader' });
		expect(codes(circle)).toContain('naming-circle');
		expect(codes(stop(p, 0, { when: 'false' }))).toContain('namer-may-be-left-out');
	});
});

describe('example 6: copy only', () => {
	it('never holds up a stop; an early one gets the state so far where the sender wants it', () => {
		const base = plan([['a'], ['watcher:gets a copy'], ['b']]);
		const quiet = given(base, whole('a', base));
		expect(standing(quiet, 'b')).toBe('notified');
		const early = sending(base, { earlyCopies: true });
		const course = given(early, whole('a', early));
		expect(course.types.slice(-1)).toEqual(['StopOpened']);
		expect(standing(course, 'watcher')).toBe('waiting');
	});
	it('is done with the sealed copy', () => {
		const base = plan([['a'], ['watcher:gets a copy']]);
		const course = given(base, [
			...whole('a', base),
			{ do: 'recordMessage', person: 'watcher', purpose: 'copies', to: 'w', channel: 'mail' }
		]);
		expect(standing(course, 'watcher')).toBe('copied');
	});
});

describe('example 7: nothing to do', () => {
	it('stops a signer without a signature and somebody who fills in without a field, but no approver', () => {
		const base = plan([['a'], ['b:approves'], ['c:fills in']]);
		expect(codes({ ...base, fields: [] }).sort()).toEqual(['nothing-to-fill', 'nothing-to-sign']);
	});
});

describe('a host', () => {
	const base = plan([['kay', 'ruben:hosts'], ['last']]);
	const p = person(base, 'kay', { deliver: 'in person', hostedBy: 'ruben', email: '' });
	const agreed = [open('ruben'), consent('ruben')];
	const done = (how: Record<string, string>) => finish('ruben', p, { guests: how });
	it('confirms who acted in front of them, after they have', () => {
		expect(codes(p)).toEqual([]);
		const before = given(p, agreed);
		expect(when(before, done({ kay: 'I know her' }))).toBe('guest-not-done');
		expect(when(before, { do: 'handDevice', person: 'ruben', guest: 'kay', from: FROM })).toEqual(['DeviceHanded']);
		expect(when(before, { do: 'handDevice', person: 'ruben', guest: 'last', from: FROM })).toBe('not-your-guest');
		const after = given(p, [...agreed, ...whole('kay', p)]);
		expect(when(after, done({}))).toBe('guest-unconfirmed');
		expect(when(after, done({ kay: 'I know her' }))).toEqual(['GuestConfirmed', 'PersonFinished', 'StopOpened']);
	});
	it('must be there, beside them, and have somebody to host', () => {
		expect(codes(person(p, 'kay', { hostedBy: 'last' }))).toContain('no-host');
		expect(codes(person(base, 'kay', {}))).toContain('nobody-to-host');
		const apart = { ...p, stops: [{ id: 'x', people: ['kay'] }, { id: 'y', people: ['ruben'] }, p.stops[1]!] };
		expect(codes(apart)).toContain('host-elsewhere');
	});
});

describe('reaching people', () => {
	const p = plan([['a'], ['b']]);
	const lost = (channel: 'mail' | 'text'): Command => ({
		do: 'recordMessage',
		person: 'a',
		purpose: 'your turn',
		to: 'x',
		channel,
		refused: 'no such'
	});
	it('wants an address for a mail and a number for a text message, and neither for a link', () => {
		expect(codes(person(p, 'a', { email: '' }))).toEqual(['bad-address']);
		expect(codes(person(p, 'a', { email: '', deliver: 'link' }))).toEqual([]);
		expect(codes(person(p, 'a', { email: '', deliver: 'text', phone: '+44 7700 900123' }))).toEqual([]);
		expect(codes(person(p, 'a', { deliver: 'text' }))).toEqual(['bad-phone']);
		expect(codes(person(p, 'a', { phone: 'ask her' }))).toEqual(['bad-phone']);
		expect(codes(person(p, 'a', { check: { by: 'text' } }))).toEqual(['bad-phone']);
		expect(codes(person(p, 'a', { check: { by: 'code', hash: '' } }))).toEqual(['no-code']);
	});
	it('calls somebody unreachable only when every way has failed', () => {
		const both = person(p, 'a', { deliver: 'mail and text', phone: '+44 7700 900123' });
		expect(standing(given(both, [lost('mail')]), 'a')).toBe('notified');
		expect(standing(given(both, [lost('mail'), lost('text')]), 'a')).toBe('unreachable');
		const cured = given(both, [
			lost('mail'),
			lost('text'),
			{ do: 'correctPhone', person: 'a', phone: '+44 7700 900124' }
		]);
		expect(standing(cured, 'a')).toBe('notified');
	});
	it('gives a link only to those to whom the sender hands it on, and only when it is their turn', () => {
		const linked = person(person(p, 'a', { deliver: 'link' }), 'b', { deliver: 'link' });
		const take = (id: string): Command => ({ do: 'takeLink', person: id });
		expect(when(given(linked, []), take('a'))).toEqual(['LinkTaken']);
		expect(when(given(linked, []), take('b'))).toBe('not-their-turn');
		expect(when(given(p, []), take('a'))).toBe('not-by-link');
	});
});

describe('proving who one is', () => {
	const p = person(plan([['a'], ['b']]), 'a', { check: { by: 'code', hash: 'h' } });
	const code = (right: boolean): Command => ({ do: 'enterCode', person: 'a', right, most: 3, from: FROM });
	it('counts wrong codes, slows down, and holds the packet at the last that is allowed', () => {
		const one = given(p, [code(false)]);
		expect(when(one, code(true), hours(1))).toBe('code-too-soon');
		const held = given(p, [code(false), code(false), code(false)]);
		expect(held.types.slice(-2)).toEqual(['CodeWrong', 'PersonHeld']);
		expect(held.state.status).toBe('held');
		expect(when(held, code(true))).toBe('held');
		expect(when(held, open('a'))).toBe('held');
	});
	it('begins to count again after a right one', () => {
		const course = given(p, [code(false), code(false), code(true), code(false)]);
		expect(course.state.status).toBe('out');
	});
	it('is released by the sender: for another try, or through', () => {
		const wrong = [code(false), code(false), code(false)];
		const release = (how: 'another try' | 'let through'): Command => ({
			do: 'release',
			person: 'a',
			how,
			note: 'I rang',
			judge: { account: 'o', email: 'odile@brindlevale.example' },
			judges: 1
		});
		const again = given(p, [...wrong, release('another try'), code(false)]);
		expect(again.state).toMatchObject({ status: 'out', proofs: { a: { wrong: 1, spared: false } } });
		const through = given(p, [...wrong, release('let through')]);
		expect(through.state).toMatchObject({ status: 'out', proofs: { a: { spared: true } } });
		expect(when(given(p, []), release('another try'))).toBe('not-held');
		expect(when(given(p, wrong), { do: 'withdraw', reason: 'r' })).toEqual(['PacketWithdrawn']);
	});
});

describe('time', () => {
	const rules = { reminders: { after: 3, every: 2, most: 2 }, warning: 2 };
	const p = sending(plan([['a', 'b'], ['c']]), rules);
	const tick: Command = { do: 'keepTime' };
	it('reminds those whom it waits for, at nine, until the deadline', () => {
		const course = given(p, []);
		expect(course.state.status !== 'none' && nextMoment(course.state)).toBe('2026-11-27T09:00:00.000Z');
		expect(when(course, tick, '2026-11-27T08:59:59.000Z')).toEqual([]);
		expect(when(course, tick, '2026-11-27T09:00:00.000Z')).toEqual(['Reminded', 'Reminded']);
		expect(when(given(p, whole('a', p)), tick, '2026-11-27T09:00:00.000Z')).toEqual(['Reminded']);
	});
	it('warns of the end once, then ends', () => {
		const course = given(sending(p, { warning: 2 }), []);
		expect(when(course, tick, '2026-12-02T09:00:00.000Z')).toEqual(['DeadlineNear']);
		expect(when(course, tick, '2026-12-05T00:00:00.000Z')).toEqual(['PacketExpired']);
	});
	it('reminds nobody of a packet that is held', () => {
		const held = person(p, 'a', { check: { by: 'mail' } });
		const course = given(held, [{ do: 'enterCode', person: 'a', right: false, most: 1, from: FROM }]);
		expect(when(course, tick, '2026-11-27T09:00:00.000Z')).toEqual([]);
	});
	it('tells of the term’s end so many days before, once', () => {
		const termed = sending(plan([['a']]), { term: { months: 12, notice: 30 } });
		const course = given(termed, whole('a', termed));
		expect(course.state.status !== 'none' && nextMoment(course.state)).toBe('2027-10-24T08:00:00.000Z');
		expect(when(course, tick, '2027-10-24T08:00:00.000Z')).toEqual(['TermEnding']);
	});
	it('lets the office nudge once an hour, and only those whom it waits for', () => {
		const nudge: Command = { do: 'nudge', person: 'a' };
		const course = given(p, [nudge]);
		expect(when(course, nudge, hours(1.9))).toBe('nudged-lately');
		expect(when(course, nudge, hours(2))).toEqual(['Nudged']);
		expect(when(course, { do: 'nudge', person: 'c' })).toBe('nobody-waits');
	});
	it('lets the office move the deadline, but not into the past', () => {
		const course = given(p, []);
		expect(when(course, { do: 'moveDeadline', to: '2026-12-24T23:59:59.000Z' })).toEqual(['DeadlineMoved']);
		expect(when(course, { do: 'moveDeadline', to: '2026-11-20T23:59:59.000Z' })).toBe('deadline-past');
	});
	it('counts working days where the sender wants that', () => {
		const working = { ...sending(p, { workingDays: true }), days: 3 };
		const course = given(working, [], send(working, { holidays: ['2026-11-26'] }));
		// Tuesday, then Wednesday, Friday, Monday
		expect(course.state).toMatchObject({ deadline: '2026-11-30T23:59:59.000Z' });
	});
});

describe('asking for another wording', () => {
	const p = sending(plan([['a'], ['b']]), { wording: true });
	const ask = (more: object = {}): Command => ({
		do: 'askWording',
		person: 'a',
		id: 'w1',
		paper: 'paper',
		page: 0,
		words: 'two nights',
		instead: 'three nights',
		why: '',
		from: FROM,
		...more
	});
	const agreed = [open('a'), consent('a')];
	it('reaches the sender, who answers once', () => {
		const course = given(p, [...agreed, ask()]);
		expect(course.state).toMatchObject({ wordings: [{ id: 'w1', words: 'two nights', answer: null }] });
		const answer: Command = { do: 'answerWording', id: 'w1', say: 'We can’t' };
		expect(when(course, answer)).toEqual(['WordingAnswered']);
		expect(when(given(p, [...agreed, ask(), answer]), answer)).toBe('wording-answered');
		expect(when(course, { ...answer, say: ' ' })).toBe('answer-missing');
		expect(when(course, { ...answer, id: 'w9' })).toBe('no-wording');
	});
	it.each([
		['without words', { words: ' ' }, 'words-missing'],
		['without saying what instead', { instead: '' }, 'instead-missing'],
		['on a page that is not there', { page: 7 }, 'no-page']
	] as const)('is refused %s', (_what, more, code) => {
		expect(when(given(p, agreed), ask(more))).toBe(code);
	});
	it('is refused where the sender has not opened the wording', () => {
		expect(when(given(plan([['a']]), agreed), ask())).toBe('no-wording-asked');
	});
});
