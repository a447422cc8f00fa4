import { describe, expect, it } from 'vitest';
import {
	consent,
	decline,
	finish,
	given,
	hours,
	open,
	send,
	standing,
	when,
	whole,
	FROM
} from '../../../../e2e/kit/course';
import { engagement, field, plan, typed } from '../../../../e2e/kit/plans';
import { decide, type Command } from './index';
import { initial } from './state';

describe('example 1: the engagement', () => {
	const p = engagement();
	it('goes from Ingrid to the musician to Tamsin; Ruben holds nothing up', () => {
		const { state, types } = given(p, [...whole('ingrid', p), ...whole('maren', p), ...whole('tamsin', p)]);
		expect(types).toEqual([
			'PacketSent',
			'StopOpened',
			'PaperOpened',
			'ConsentGiven',
			'PersonFinished',
			'StopOpened',
			'PaperOpened',
			'ConsentGiven',
			'PersonFinished',
			'StopOpened',
			'PaperOpened',
			'ConsentGiven',
			'PersonFinished',
			'PacketCompleted'
		]);
		expect(state.status).toBe('completed');
	});
	it('ends when Ingrid declines, and the musician was never told', () => {
		const g = given(p, [open('ingrid'), decline('ingrid', 'not this season')]);
		expect(g.state).toMatchObject({ status: 'declined', person: 'ingrid', reason: 'not this season' });
		expect(standing(g, 'maren')).toBe('waiting');
		expect(when(g, open('maren'))).toBe('declined');
	});
});

describe('example 2: side by side', () => {
	const p = plan([['player'], ['ada', 'ben'], ['odile']]);
	const opened = whole('player', p);
	it.each([
		['ada', 'ben'],
		['ben', 'ada']
	])('opens the next stop when %s and then %s have signed', (a, b) => {
		const g = given(p, [...opened, ...whole(a, p)]);
		expect(standing(g, 'odile')).toBe('waiting');
		expect(standing(given(p, [...opened, ...whole(a, p), ...whole(b, p)]), 'odile')).toBe('notified');
	});
	it('ends at once when one declines', () => {
		const g = given(p, [...opened, ...whole('ada', p), decline('ben')]);
		expect(g.state.status).toBe('declined');
		expect(when(g, open('odile'))).toBe('declined');
	});
});

describe('example 6: copies', () => {
	it('passes a stop of copies only', () => {
		const p = plan([['ruben:gets a copy'], ['maren'], ['kit:gets a copy'], ['tamsin']]);
		const g = given(p, whole('maren', p));
		expect(standing(g, 'tamsin')).toBe('notified');
		expect(standing(g, 'kit')).toBe('waiting');
	});
});

describe('sending', () => {
	it('is refused while preflight finds something, with its place', () => {
		const p = engagement();
		p.fields = [];
		expect(decide(initial, send(p), hours(0))).toMatchObject({ code: 'nothing-to-sign', at: 'maren' });
	});
	it('happens once', () => expect(when(given(engagement(), []), send(engagement()))).toBe('already-sent'));
	it('sets the deadline, or none', () => {
		expect(given(engagement(), []).state).toMatchObject({ deadline: '2026-12-04T23:59:59.000Z' });
		expect(given({ ...engagement(), days: null }, []).state).toMatchObject({ deadline: null });
	});
});

describe('a person', () => {
	const p = engagement();
	const g = given(p, whole('ingrid', p));
	it.each<[string, ReturnType<typeof given>, Command, string | string[]]>([
		['can’t open before their turn', g, open('tamsin'), 'not-your-turn'],
		['can’t finish before their turn', g, finish('tamsin', p), 'not-your-turn'],
		[
			'can’t finish before agreeing',
			given(p, [...whole('ingrid', p), open('maren')]),
			finish('maren', p),
			'no-consent'
		],
		['can’t agree before opening', g, consent('maren'), 'not-opened'],
		['opens once', given(p, [...whole('ingrid', p), open('maren')]), open('maren'), []],
		[
			'agrees once to the same text',
			given(p, [...whole('ingrid', p), open('maren'), consent('maren')]),
			consent('maren'),
			[]
		],
		['who presses twice has finished once', g, finish('ingrid', p), []],
		['who has finished can’t decline', g, decline('ingrid'), 'already-finished'],
		['needs a reason to decline', g, decline('maren', '  '), 'reason-missing'],
		['who gets a copy has nothing to finish', g, finish('ruben', p), 'not-your-turn'],
		['must be one of the packet', g, open('nobody'), 'no-person']
	])('%s', (_, state, command, want) => expect(when(state, command)).toEqual(want));
	it('answers only for their own fields, and all that are required', () => {
		const ready = given(p, [...whole('ingrid', p), open('maren'), consent('maren')]);
		const wrong: Command = {
			...(finish('maren', p) as Extract<Command, { do: 'finish' }>),
			answers: { 'tamsin-sig': typed('x') }
		};
		expect(when(ready, wrong)).toBe('not-your-field');
		expect(when(ready, { ...wrong, answers: {} })).toBe('answer-missing');
	});
	it('may fill in, or approve with a note', () => {
		const q = plan([['kit:fills in'], ['maren']]);
		q.fields.push(field('place', 'text', 'kit'));
		const command: Command = {
			do: 'finish',
			person: 'kit',
			answers: { place: { text: 'Oldmere' } },
			shown: 's',
			from: FROM
		};
		expect(when(given(q, [open('kit'), consent('kit')]), command)).toEqual(['PersonFinished', 'StopOpened']);
	});
});

describe('the end of time', () => {
	const p = engagement();
	const late = '2026-12-05T00:00:01.000Z';
	it('comes only after the deadline', () => {
		expect(when(given(p, []), { do: 'keepTime' })).toEqual([]);
		expect(when(given(p, []), { do: 'keepTime' }, late)).toEqual(['PacketExpired']);
	});
	it('shuts the door even before it has been written down', () => {
		expect(when(given(p, [open('ingrid'), consent('ingrid')]), finish('ingrid', p), late)).toBe('expired');
	});
});

describe('the office', () => {
	const p = engagement();
	const out = given(p, [...whole('ingrid', p), ...whole('maren', p)]);
	const correct = (person: string, email: string): Command => ({ do: 'correctAddress', person, email });
	it.each<[string, Command, string | string[]]>([
		['corrects the address of one who waits', correct('tamsin', 't.okoro@brindlevale.example'), ['AddressCorrected']],
		['can’t change one who has finished', correct('maren', 'other@post.example'), 'finished-part-locked'],
		['can’t set what can’t be an address', correct('tamsin', 'tamsin at work'), 'bad-address'],
		['changes nothing by the same address', correct('tamsin', 'tamsin@post.example'), []],
		['can’t correct a stranger', correct('nobody', 'a@b.example'), 'no-person'],
		['needs a reason to withdraw', { do: 'withdraw', reason: ' ' }, 'reason-missing'],
		['withdraws with a reason', { do: 'withdraw', reason: 'wrong hall' }, ['PacketWithdrawn']],
		['seals nothing that is not complete', { do: 'recordSealed', papers: {}, evidence: 'e' }, 'not-complete']
	])('%s', (_, command, want) => expect(when(out, command)).toEqual(want));
	it('can’t put two people with one address side by side', () => {
		const q = plan([['ada', 'ben']]);
		expect(when(given(q, []), correct('ada', 'BEN@post.example'))).toBe('twice-at-stop');
	});
	it('leaves somebody whose turn has not come waiting under the new address', () => {
		const g = given(p, [correct('tamsin', 'new@post.example')]);
		expect(standing(g, 'tamsin')).toBe('waiting');
		expect(g.state).toMatchObject({ addresses: { tamsin: 'new@post.example' } });
	});
	it('marks whom a message did not reach, until it does', () => {
		const bounced = given(p, [
			{ do: 'recordMessage', person: 'ingrid', purpose: 'your turn', to: 'x', channel: 'mail', refused: 'no such box' }
		]);
		expect(standing(bounced, 'ingrid')).toBe('unreachable');
		expect(when(bounced, open('ingrid'))).toEqual(['PaperOpened']);
		const again = given(p, [
			{ do: 'recordMessage', person: 'ingrid', purpose: 'your turn', to: 'x', channel: 'mail', refused: 'no such box' },
			correct('ingrid', 'i.halloran@post.example')
		]);
		expect(standing(again, 'ingrid')).toBe('notified');
	});
});

describe('after the end', () => {
	const p = plan([['maren']]);
	const ends: [string, ReturnType<typeof given>, string][] = [
		['completed', given(p, whole('maren', p)), 'completed'],
		['declined', given(p, [decline('maren')]), 'declined'],
		['withdrawn', given(p, [{ do: 'withdraw', reason: 'x' }]), 'withdrawn']
	];
	it.each(ends)('%s: nobody opens, declines, corrects or withdraws', (_, g, code) => {
		for (const command of [
			open('maren'),
			decline('maren'),
			{ do: 'withdraw', reason: 'x' },
			{ do: 'correctAddress', person: 'maren', email: 'a@b.example' }
		] as Command[])
			expect(when(g, command)).toBe(code);
	});
	it('is sealed once', () => {
		const seal: Command = { do: 'recordSealed', papers: { paper: 'p' }, evidence: 'e' };
		expect(when(ends[0]![1], seal)).toEqual(['CopySealed', 'EvidenceSealed']);
		expect(when(given(p, [...whole('maren', p), seal]), seal)).toEqual([]);
	});
	it('nothing can be done with what was never sent', () => {
		expect(decide(initial, open('maren'), hours(0))).toMatchObject({ code: 'no-packet' });
	});
});
