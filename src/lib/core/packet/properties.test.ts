import fc from 'fast-check';
import { expect, it } from 'vitest';
import { plan, typed } from '../../../../e2e/kit/plans';
import { isRefusal } from '../refusal';
import { acts, moved, stopOf } from '../route';
import { decide, evolve, fold, type Command, type Packet, type Plan, type Recorded, type SentPacket } from './index';
import { initial } from './state';

/** Random routes of one to four stops, one to three people each, with every duty; some are groups, some open by a rule. */
const plans = fc
	.array(
		fc.record({
			duties: fc.array(fc.constantFrom('signs', 'approves', 'gets a copy'), { minLength: 1, maxLength: 3 }),
			group: fc.boolean(),
			rule: fc.constantFrom(undefined, undefined, 'true', 'false')
		}),
		{ minLength: 1, maxLength: 4 }
	)
	.map((stops): Plan => {
		const made = plan(stops.map(({ duties }, s) => duties.map((duty, i) => `p${s}${i}:${duty}`)));
		return {
			...made,
			sending: { handOver: true, reminders: { after: 1, every: 1, most: 2 } },
			stops: made.stops.map((stop, s) => {
				const actors = stops[s]!.duties.filter((duty) => duty !== 'gets a copy').length;
				const { group, rule } = stops[s]!;
				return { ...stop, ...(group && actors > 1 && { anyOne: true }), ...(rule && { when: rule }) };
			})
		};
	})
	.filter((p) => p.people.some((person) => acts(person.duty)));

/** Whether everything is done at a stop: by all of them, or by one of a group, or a rule has left it out. */
function isOver(p: Plan, state: SentPacket, stop: number): boolean {
	const { people, anyOne } = p.stops[stop]!;
	const actors = people.filter((id) => acts(p.people.find((q) => q.id === id)!.duty));
	const is = actors.map((id) => state.people[id]!.is);
	return anyOne
		? is.includes('done') || is.every((one) => one === 'skipped')
		: is.every((one) => one === 'done' || one === 'skipped');
}

const FROM = { address: '203.0.113.1', device: 'test' };
const SENDER = { name: 'O', email: 'o@b.example', organisation: 'B' };

const sending = (p: Plan): Command => ({
	do: 'send',
	packet: 'k',
	reference: 'P-00000',
	plan: p,
	planDigest: 'd',
	sender: SENDER,
	zone: 'UTC'
});

function commandFor(p: Plan, [what, who]: [number, number]): Command {
	const person = p.people[who % p.people.length]!.id;
	const mine = p.fields.filter((f) => f.person === person);
	const answers = Object.fromEntries(mine.map((f) => [f.id, typed(person)]));
	const all: Command[] = [
		{ do: 'openPaper', person, from: FROM },
		{ do: 'consent', person, text: 'c', from: FROM },
		{ do: 'finish', person, answers, shown: 's', from: FROM },
		{ do: 'finish', person, answers: {}, shown: 's', from: FROM },
		{ do: 'recordMessage', person, purpose: 'your turn', to: 'x', channel: 'mail', refused: 'y' },
		{ do: 'correctAddress', person, email: `${person}-new@post.example` },
		{ do: 'recordSealed', papers: { paper: 'd' }, evidence: 'e' },
		{ do: 'handOver', person, name: 'N', email: `heir${who}@post.example`, why: 'w', from: FROM },
		{ do: 'nudge', person },
		{ do: 'enterCode', person, right: false, most: 2, from: FROM },
		{ do: 'decline', person, reason: 'r', from: FROM },
		{ do: 'withdraw', reason: 'r' },
		{ do: 'keepTime' }
	];
	// the last three end everything, so they come rarely
	return all[what % 40 < 33 ? what % 10 : 10 + (what % 3)]!;
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
	const send = sending(p);
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

it('a correction in the midst of it asks nobody twice, loses nobody, and leaves what is done as it is', () => {
	const how = fc.constantFrom('before', 'beside');
	fc.assert(
		fc.property(plans, fc.nat(12), fc.nat(99), fc.nat(4), how, (p, steps, who, to, where) => {
			let state: SentPacket | null = null;
			let next = p;
			const finished: string[] = [];
			let now = Date.UTC(2026, 0, 1);
			const does = (command: Command): boolean => {
				const at = new Date((now += 60_000)).toISOString();
				const events = decide(state ?? initial, command, at);
				if (isRefusal(events)) return false;
				for (const event of events) {
					if (event.type === 'PersonFinished') finished.push(event.person);
					const recorded = { n: 0, at, by: { kind: 'pellum' }, ...event } as Recorded;
					state = evolve(state ?? initial, recorded, (digest) => (digest === 'd' ? p : next)) as SentPacket;
				}
				return true;
			};
			/** Whoever has it does it, one after the other. */
			const act = (most: number) => {
				for (let n = 0; n < most && state?.status === 'out'; n++) {
					const now: SentPacket = state;
					const person = now.plan.people.find((one) => now.people[one.id]!.is === 'notified')?.id;
					if (!person) return;
					const mine = now.plan.fields.filter((f) => f.person === person);
					const answers = Object.fromEntries(mine.map((f) => [f.id, typed(person)]));
					does({ do: 'openPaper', person, from: FROM });
					does({ do: 'consent', person, text: 'c', from: FROM });
					expect(does({ do: 'finish', person, answers, shown: 's', from: FROM })).toBe(true);
				}
			};
			if (!does(sending(p))) return;
			act(steps % 6);
			const before = state! as SentPacket;
			if (!does({ do: 'beginCorrection' })) return;
			next = moved(p, p.people[who % p.people.length]!.id, to % (p.stops.length + 1), where as 'before');
			if (does({ do: 'correct', plan: next, planDigest: 'd2', mayExchange: false })) {
				const after = state! as SentPacket;
				for (const [id, standing] of Object.entries(before.people))
					if (standing.is === 'done') expect(after.people[id]).toEqual(standing);
				expect([after.plan.stops.length, after.correcting]).toEqual([next.stops.length, null]);
			} else does({ do: 'leaveCorrection' });
			act(99);
			const end = state! as SentPacket;
			expect(end.status).toBe('completed');
			expect(new Set(finished).size).toBe(finished.length);
			const left = end.plan.people.filter((one) => !['done', 'skipped'].includes(end.people[one.id]!.is));
			expect(left.filter((one) => acts(one.duty))).toEqual([]);
		}),
		{ numRuns: 300 }
	);
});

it('never lets a later stop act early, and never goes on before a stop is done', () => {
	fc.assert(
		fc.property(plans, steps, (p, picks) => {
			run(p, picks, (_before, after) => {
				if (after.status === 'none') return;
				const acted = p.people.filter((person) => !['waiting', 'skipped'].includes(after.people[person.id]!.is));
				for (const person of acted)
					for (let stop = 0; stop < stopOf(p, person.id); stop++) expect(isOver(p, after, stop)).toBe(true);
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
				expect(after.status === 'completed').toBe(p.stops.every((_stop, i) => isOver(p, after, i)));
				expect(after.evidence !== null).toBe(Object.keys(after.sealed).length > 0);
				if (after.evidence !== null) expect(after.status).toBe('completed');
				const declined = actors.filter((person) => after.people[person.id]!.is === 'declined').map((q) => q.id);
				if (after.status === 'declined') expect(declined).toContain(after.person);
				else expect(declined.every((id) => p.stops[stopOf(p, id)]!.anyOne)).toBe(true);
				expect(actors.some((q) => after.people[q.id]!.is === 'held')).toBe(after.status === 'held');
				for (const id of Object.keys(after.answers)) {
					const owner = p.fields.find((f) => f.id === id)!.person!;
					expect(after.people[owner]!.is).toBe('done');
				}
			});
		})
	);
});

it('asks nobody twice: a turn comes once to each, and never to one whom a rule or a group left out', () => {
	fc.assert(
		fc.property(plans, steps, (p, picks) => {
			const log = run(p, picks, () => {});
			const asked = log.flatMap((event) => (event.type === 'StopOpened' ? event.people : []));
			expect(new Set(asked).size).toBe(asked.length);
			const leftOut = log.flatMap((event) => (event.type === 'StopSkipped' ? event.people : []));
			expect(asked.filter((id) => leftOut.includes(id))).toEqual([]);
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
			// where every stop is left out, nothing is sent
			fc.pre(forward.status !== 'none');
			expect(forward.status).toBe('completed');
			expect(shuffled.status).toBe('completed');
			// who of a group was first is all that the order may change
			if (!p.stops.some((stop) => stop.anyOne)) expect(shuffled).toEqual(forward);
		})
	);
});
