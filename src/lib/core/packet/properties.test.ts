import fc from 'fast-check';
import { expect, it } from 'vitest';
import { plan, typed } from '../../../../e2e/kit/plans';
import { isRefusal } from '../refusal';
import { acts, stopOf } from '../route';
import { decide, evolve, fold, type Command, type Packet, type Plan, type Recorded } from './index';
import { initial } from './state';

/** Random routes of one to four stops, one to three people each, with every duty. */
const plans = fc
	.array(fc.array(fc.constantFrom('signs', 'approves', 'gets a copy'), { minLength: 1, maxLength: 3 }), {
		minLength: 1,
		maxLength: 4
	})
	.map((stops) => plan(stops.map((duties, s) => duties.map((duty, i) => `p${s}${i}:${duty}`))))
	.filter((p) => p.people.some((person) => acts(person.duty)));

const FROM = { address: '203.0.113.1', device: 'test' };
const SENDER = { name: 'O', email: 'o@b.example', organisation: 'B' };

function commandFor(p: Plan, [what, who]: [number, number]): Command {
	const person = p.people[who % p.people.length]!.id;
	const mine = p.fields.filter((f) => f.person === person);
	const answers = Object.fromEntries(mine.map((f) => [f.id, typed(person)]));
	const all: Command[] = [
		{ do: 'openPaper', person, from: FROM },
		{ do: 'consent', person, text: 'c', from: FROM },
		{ do: 'finish', person, answers, shown: 's', from: FROM },
		{ do: 'finish', person, answers: {}, shown: 's', from: FROM },
		{ do: 'recordMessage', person, purpose: 'your turn', to: 'x', refused: 'y' },
		{ do: 'correctAddress', person, email: `${person}-new@post.example` },
		{ do: 'recordSealed', papers: { paper: 'd' }, evidence: 'e' },
		{ do: 'decline', person, reason: 'r', from: FROM },
		{ do: 'withdraw', reason: 'r' },
		{ do: 'expire' }
	];
	// the last three end everything, so they come rarely
	return all[what % 40 < 33 ? what % 7 : 7 + (what % 3)]!;
}

const steps = fc.array(fc.tuple(fc.nat(999), fc.nat(99)), { maxLength: 80 });

/** Runs the commands and looks at every state on the way. */
function run(
	p: Plan,
	picks: [number, number][],
	look: (before: Packet, after: Packet, command: Command) => void
): Recorded[] {
	const log: Recorded[] = [];
	let state: Packet = initial;
	const send: Command = {
		do: 'send',
		packet: 'k',
		reference: 'P-00000',
		plan: p,
		planDigest: 'd',
		sender: SENDER,
		zone: 'UTC'
	};
	[send, ...picks.map((pick) => commandFor(p, pick))].forEach((command, i) => {
		const at = new Date(Date.UTC(2026, 0, 1) + i * 7_200_000).toISOString();
		const events = decide(state, command, at);
		if (isRefusal(events)) return;
		const before = state;
		for (const event of events) {
			const recorded = { n: log.length, at, by: { kind: 'pellum' as const }, ...event } as Recorded;
			log.push(recorded);
			state = evolve(state, recorded, () => p);
		}
		look(before, state, command);
	});
	return log;
}

it('never lets a later stop act early, and never goes on before a stop is done', () => {
	fc.assert(
		fc.property(plans, steps, (p, picks) => {
			run(p, picks, (_before, after) => {
				if (after.status === 'none') return;
				const acted = p.people.filter((person) => after.people[person.id]!.is !== 'waiting');
				for (const person of acted) {
					const earlier = p.people.filter((q) => acts(q.duty) && stopOf(p, q.id) < stopOf(p, person.id));
					expect(earlier.every((q) => after.people[q.id]!.is === 'done')).toBe(true);
				}
			});
		})
	);
});

it('never reaches a state that contradicts itself', () => {
	fc.assert(
		fc.property(plans, steps, (p, picks) => {
			run(p, picks, (_before, after) => {
				if (after.status === 'none') return;
				const actors = p.people.filter((person) => acts(person.duty));
				const done = actors.filter((person) => after.people[person.id]!.is === 'done');
				expect(after.status === 'completed').toBe(done.length === actors.length);
				expect(after.evidence !== null).toBe(Object.keys(after.sealed).length > 0);
				if (after.evidence !== null) expect(after.status).toBe('completed');
				expect(actors.filter((person) => after.people[person.id]!.is === 'declined').length).toBe(
					after.status === 'declined' ? 1 : 0
				);
				for (const id of Object.keys(after.answers)) {
					const owner = p.fields.find((f) => f.id === id)!.person!;
					expect(after.people[owner]!.is).toBe('done');
				}
			});
		})
	);
});

it('never changes what somebody has finished', () => {
	fc.assert(
		fc.property(plans, steps, (p, picks) => {
			run(p, picks, (before, after) => {
				if (before.status === 'none' || after.status === 'none') return;
				for (const [id, standing] of Object.entries(before.people)) {
					if (standing.is === 'done') expect(after.people[id]).toEqual(standing);
				}
				for (const [id, answer] of Object.entries(before.answers)) expect(after.answers[id]).toEqual(answer);
				if (before.status !== 'out') expect(after.status).toBe(before.status);
			});
		})
	);
});

it('folds a prefix the same, whatever follows it', () => {
	fc.assert(
		fc.property(plans, steps, fc.nat(), (p, picks, pick) => {
			const log = run(p, picks, () => {});
			const cut = pick % (log.length + 1);
			const prefix = JSON.stringify(fold(log.slice(0, cut), () => p));
			let state: Packet = initial;
			log.forEach((event, i) => {
				if (i === cut) expect(JSON.stringify(state)).toBe(prefix);
				state = evolve(state, event, () => p);
			});
			expect(JSON.stringify(fold(log.slice(0, cut), () => p))).toBe(prefix);
		})
	);
});

it('ends the same in whichever order people at a stop finish', () => {
	fc.assert(
		fc.property(plans, fc.integer(), (p, seed) => {
			const ended = (order: (ids: string[]) => string[]) => {
				const picks: Command[] = p.stops.flatMap((stop) =>
					order(stop.people.filter((id) => acts(p.people.find((q) => q.id === id)!.duty))).flatMap((id) => {
						const at = p.people.findIndex((q) => q.id === id);
						return [commandFor(p, [0, at]), commandFor(p, [1, at]), commandFor(p, [2, at])];
					})
				);
				let state: Packet = initial;
				[
					{
						do: 'send',
						packet: 'k',
						reference: 'P-0',
						plan: p,
						planDigest: 'd',
						sender: SENDER,
						zone: 'UTC'
					} as Command,
					...picks
				].forEach((command) => {
					const events = decide(state, command, '2026-01-01T00:00:00.000Z');
					if (!isRefusal(events))
						for (const event of events)
							state = evolve(
								state,
								{ n: 0, at: '2026-01-01T00:00:00.000Z', by: { kind: 'pellum' }, ...event } as Recorded,
								() => p
							);
				});
				return state;
			};
			const forward = ended((ids) => ids);
			const shuffled = ended((ids) =>
				[...ids].sort((a, b) => ((a.charCodeAt(2) * 31 + seed) % 7) - ((b.charCodeAt(2) * 31 + seed) % 7))
			);
			expect(forward.status).toBe('completed');
			expect(shuffled).toEqual(forward);
		})
	);
});
