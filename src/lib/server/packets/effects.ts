import type { MessagePurpose, Recorded, SentPacket } from '../../core/packet';
import { acts, stopOf } from '../../core/route';

/** Work that an event brings about outside the database; done by the job runner, once under each key. */
export interface Effect {
	kind: 'message' | 'seal';
	key: string;
	payload: { person: string; purpose: MessagePurpose } | Record<string, never>;
}

/** What must be done after an event, given the state after it. */
export function effectsOf(state: SentPacket, event: Recorded): Effect[] {
	const message = (person: string, purpose: MessagePurpose): Effect => ({
		kind: 'message',
		key: `${event.n}:${purpose}:${person}`,
		payload: { person, purpose }
	});
	switch (event.type) {
		case 'StopOpened':
			return event.people.map((person) => message(person, 'your turn'));
		case 'AddressCorrected': {
			const standing = state.people[event.person]?.is;
			return standing !== 'waiting' ? [message(event.person, 'your turn')] : [];
		}
		case 'PacketCompleted':
			return [{ kind: 'seal', key: 'seal', payload: {} }];
		case 'EvidenceSealed':
			return everyone(state).map((person) => message(person, 'copies'));
		case 'PersonDeclined':
			return told(state, event.person).map((person) => message(person, 'declined'));
		case 'PacketWithdrawn':
			return told(state).map((person) => message(person, 'withdrawn'));
		case 'PacketExpired':
			return told(state).map((person) => message(person, 'expired'));
		default:
			return [];
	}
}

function everyone(state: SentPacket): string[] {
	return state.plan.people.filter((person) => stopOf(state.plan, person.id) >= 0).map((person) => person.id);
}

/** Those who have had it: nobody is told of the end of something they never heard of. */
function told(state: SentPacket, but?: string): string[] {
	return state.plan.people
		.filter((person) => acts(person.duty) && person.id !== but && state.people[person.id]?.is !== 'waiting')
		.map((person) => person.id);
}
