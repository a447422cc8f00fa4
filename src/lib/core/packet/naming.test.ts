import { describe, expect, it } from 'vitest';
import { field, plan as planOf, typed } from '../../../../e2e/kit/plans';
import { joined, openRoles, proposed, used } from '../template';
import { withoutPerson } from '../template/use';
import { decide } from './decide';
import type { PacketEvent } from './events';
import { evolve } from './evolve';
import { preflight } from './preflight';
import type { Plan } from './plan';
import type { Packet } from './state';

/** A claim: the claimant signs and names the section leader, finance comes last. */
const base = planOf([['claimant'], ['leader'], ['finance']]);
const plan: Plan = {
	...base,
	people: base.people.map((p) =>
		p.id === 'leader' ? { ...p, name: '', email: '', role: 'Section leader', namedBy: 'claimant' } : p
	)
};
const FROM = { address: '', device: '' };
const NOW = '2026-11-24T09:00:00Z';

function after(events: PacketEvent[], of: Plan = plan): Packet {
	return events.reduce<Packet>(
		(state, event, n) => evolve(state, { n, at: NOW, by: { kind: 'pellum' }, ...event }, () => of),
		{ status: 'none' }
	);
}
const sent: PacketEvent[] = [
	{
		type: 'PacketSent',
		packet: 'p',
		reference: 'P-1',
		plan: 'd',
		sender: { name: 'O', email: 'o@x.example', organisation: '' },
		deadline: null,
		zone: 'UTC'
	},
	{ type: 'StopOpened', stop: 0, people: ['claimant'] },
	{ type: 'PaperOpened', person: 'claimant', from: FROM },
	{ type: 'ConsentGiven', person: 'claimant', text: 't', from: FROM }
];
const finish = (names?: Record<string, { name: string; email: string }>) =>
	decide(
		after(sent),
		{
			do: 'finish',
			person: 'claimant',
			answers: { 'claimant-sig': typed('C') },
			shown: 's',
			from: FROM,
			...(names && { names })
		},
		NOW
	);

describe('a person named by another on finishing', () => {
	it('needs neither name nor address before, if who names them comes before them', () => {
		expect(preflight(plan).filter((f) => !f.mild)).toEqual([]);
		const late = { ...plan, people: plan.people.map((p) => (p.id === 'leader' ? { ...p, namedBy: 'finance' } : p)) };
		expect(preflight(late).map((f) => f.code)).toContain('named-too-late');
		const lost = { ...plan, people: plan.people.map((p) => (p.id === 'leader' ? { ...p, namedBy: 'nobody' } : p)) };
		expect(preflight(lost).map((f) => f.code)).toContain('named-too-late');
	});
	it.each([
		['nobody', undefined, 'name-missing'],
		['a blank name', { leader: { name: ' ', email: 'l@post.example' } }, 'name-missing'],
		['no address', { leader: { name: 'Lucia', email: 'lucia' } }, 'bad-address'],
		['oneself', { leader: { name: 'Me', email: 'CLAIMANT@post.example' } }, 'named-oneself']
	] as const)('can’t be %s: finishing waits for it, and nothing has happened', (_what, names, code) => {
		expect(finish(names)).toMatchObject({ code, at: 'leader' });
	});
	it('takes the place: the next stop opens for them, by their name and address', () => {
		const events = finish({ leader: { name: ' Lucia Marchetti', email: 'lucia@post.example ' } }) as PacketEvent[];
		expect(events.map((e) => e.type)).toEqual(['PersonFinished', 'PersonNamed', 'StopOpened']);
		const now = after([...sent, ...events]);
		expect(now).toMatchObject({ status: 'out', stop: 1, people: { leader: { is: 'notified' } } });
		expect(now.status !== 'none' && now.plan.people[1]).toMatchObject({
			name: 'Lucia Marchetti',
			email: 'lucia@post.example'
		});
	});
	it('is not asked about when a template is used, and stays named through leaving out and joining', () => {
		expect(openRoles(plan)).toEqual([]);
		expect(used({ ...plan, people: plan.people.map((p) => ({ ...p, optional: true })) }, {}).people.length).toBe(3);
		expect(withoutPerson(plan, 'claimant').people[0]).not.toHaveProperty('namedBy');
		const parts = [
			{ title: 'One', plan: planOf([['kit']]) },
			{ title: 'Two', plan }
		];
		const whole = joined(parts, proposed(parts)) as Plan;
		expect(whole.people.find((p) => p.role === 'Section leader')!.namedBy).toBe('j1-claimant');
	});
	it('leaves fields of somebody not yet known in place', () => {
		const more = { ...plan, fields: [...plan.fields, field('n', 'text', 'leader', { page: 0 })] };
		expect(preflight(more).filter((f) => !f.mild)).toEqual([]);
	});
});
