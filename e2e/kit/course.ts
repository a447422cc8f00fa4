import { decide, evolve, type Command, type Packet, type Plan, type Recorded } from '../../src/lib/core/packet';
import { isRefusal } from '../../src/lib/core/refusal';
import { typed } from './plans';

/** The course of a packet for tests of the core: commands by short names, and what came of them. */
export const FROM = { address: '203.0.113.1', device: 'test' };
export const SENDING = { name: 'Odile Farrow', email: 'odile@brindlevale.example', organisation: 'Brindlevale' };
const T0 = Date.parse('2026-11-24T09:00:00Z');
export const hours = (n: number) => new Date(T0 + n * 3_600_000).toISOString();

export const send = (p: Plan, more: { holidays?: string[] } = {}): Command => ({
	do: 'send',
	packet: 'k1',
	reference: 'P-7K3QM',
	plan: p,
	planDigest: 'd1',
	sender: SENDING,
	zone: 'Europe/London',
	...more
});
export const open = (person: string): Command => ({ do: 'openPaper', person, from: FROM });
export const consent = (person: string): Command => ({ do: 'consent', person, text: 'en-1', from: FROM });
export const finish = (
	person: string,
	p: Plan,
	more: Partial<Extract<Command, { do: 'finish' }>> = {}
): Extract<Command, { do: 'finish' }> => ({
	do: 'finish',
	person,
	answers: Object.fromEntries(
		p.fields.filter((f) => f.person === person && f.kind === 'signature').map((f) => [f.id, typed(person)])
	),
	shown: 's',
	from: FROM,
	...more
});
export const decline = (person: string, reason = 'no'): Command => ({ do: 'decline', person, reason, from: FROM });
export const handOver = (person: string, email: string, name = 'Somebody Else', why = 'Away'): Command => ({
	do: 'handOver',
	person,
	name,
	email,
	why,
	from: FROM
});
/** Everything a person does from opening to finishing. */
export const whole = (person: string, p: Plan, more: Parameters<typeof finish>[2] = {}): Command[] => [
	open(person),
	consent(person),
	finish(person, p, more)
];

export interface Course {
	state: Packet;
	types: string[];
	/** an hour after the last command */
	now: string;
}

const BY = { kind: 'office', account: 'a1', name: 'Odile Farrow' };

/** The commands, each an hour after the other, all of which must be taken. `minutes`: another time between them. */
export function given(p: Plan, commands: Command[], first: Command = send(p), minutes = 60): Course {
	const moment = (i: number) => hours((i * minutes) / 60);
	let state: Packet = { status: 'none' };
	const types: string[] = [];
	const plans: Record<string, Plan> = { d1: p };
	let n = 0;
	[first, ...commands].forEach((command, i) => {
		const events = decide(state, command, moment(i));
		if (isRefusal(events)) throw new Error(`${command.do}: ${events.code}, ${events.say}`);
		if (command.do === 'correct') plans[command.planDigest] = command.plan;
		for (const event of events) {
			const recorded = { n: n++, at: moment(i), by: BY, ...event } as Recorded;
			state = evolve(state, recorded, (digest) => plans[digest]!);
			types.push(event.type);
		}
	});
	return { state, types, now: moment(commands.length + 1) };
}

/** What a command would bring: the types of its events, or the code of the refusal. */
export function when(course: Course, command: Command, now = course.now): string | string[] {
	const events = decide(course.state, command, now);
	return isRefusal(events) ? events.code : events.map((e) => e.type);
}

export const standing = (course: { state: Packet }, id: string) =>
	course.state.status !== 'none' && course.state.people[id]?.is;
