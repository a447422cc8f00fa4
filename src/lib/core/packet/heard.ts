import type { Recorded } from './events';
import { personIn } from './plan';
import { channelsOf } from './reach';
import { stand } from './standing';
import type { Packet, SentPacket } from './state';

/** Whether messages reach people. */

/** A message that arrived makes a person reachable again; the copies end the part of whoever only gets one. */
export function arrived(state: SentPacket, event: Extract<Recorded, { type: 'MessageSent' }>): Packet {
	const now = state.people[event.person];
	const reached = { ...state, bounced: { ...state.bounced, [event.person]: [] } };
	if (now?.is === 'unreachable') return stand(reached, [[event.person, { is: 'notified', since: now.since }]]);
	const copyOnly = personIn(state.plan, event.person)?.duty === 'gets a copy';
	if (copyOnly && event.purpose === 'copies' && now?.is === 'waiting')
		return stand(reached, [[event.person, { is: 'copied', since: event.at }]]);
	return state.bounced[event.person]?.length ? reached : state;
}

/** A person is unreachable once every way to them has failed. */
export function cameBack(state: SentPacket, event: Extract<Recorded, { type: 'MessageRefused' }>): Packet {
	const person = personIn(state.plan, event.person);
	if (!person) return state;
	const failed = [...new Set([...(state.bounced[event.person] ?? []), event.channel ?? 'mail'])];
	const next = { ...state, bounced: { ...state.bounced, [event.person]: failed } };
	const now = state.people[event.person];
	const lost = channelsOf(person.deliver).every((channel) => failed.includes(channel));
	return now?.is === 'notified' && lost
		? stand(next, [[event.person, { is: 'unreachable', since: now.since, why: event.why }]])
		: next;
}
