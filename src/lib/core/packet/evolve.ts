import type { Recorded } from './events';
import type { Plan } from './plan';
import { initial, type Packet, type SentPacket, type Standing } from './state';

/** Finds a frozen plan by the SHA-256 of its canonical JSON. */
export type PlanLookup = (digest: string) => Plan;

/** The state after one more event. Pure; never refuses: what has happened has happened. */
export function evolve(state: Packet, event: Recorded, plans: PlanLookup): Packet {
	if (event.type === 'PacketSent') {
		const plan = plans(event.plan);
		return {
			status: 'out',
			stop: -1,
			packet: event.packet,
			reference: event.reference,
			plan,
			planDigest: event.plan,
			sender: event.sender,
			sentAt: event.at,
			deadline: event.deadline,
			zone: event.zone,
			people: Object.fromEntries(plan.people.map((p) => [p.id, { is: 'waiting' }])),
			addresses: {},
			answers: plan.answers ?? {},
			sealed: {},
			evidence: null,
			events: 1
		};
	}
	if (state.status === 'none') throw new Error(`a packet can't begin with ${event.type}`);
	return after({ ...state, events: state.events + 1 }, event);
}

export function fold(events: Iterable<Recorded>, plans: PlanLookup): Packet {
	let state: Packet = initial;
	for (const event of events) state = evolve(state, event, plans);
	return state;
}

function after(state: SentPacket, event: Exclude<Recorded, { type: 'PacketSent' }>): Packet {
	switch (event.type) {
		case 'StopOpened':
			return stand(
				state.status === 'out' ? { ...state, stop: event.stop } : state,
				event.people.map((id) => [id, { is: 'notified', since: event.at }])
			);
		case 'MessageSent': {
			const now = state.people[event.person];
			return now?.is === 'unreachable' ? stand(state, [[event.person, { is: 'notified', since: now.since }]]) : state;
		}
		case 'MessageRefused': {
			const now = state.people[event.person];
			return now?.is === 'notified'
				? stand(state, [[event.person, { is: 'unreachable', since: now.since, why: event.why }]])
				: state;
		}
		case 'PaperOpened': {
			const now = state.people[event.person];
			return now?.is === 'notified' || now?.is === 'unreachable'
				? stand(state, [[event.person, { is: 'opened', since: now.since, at: event.at, consented: null }]])
				: state;
		}
		case 'ConsentGiven': {
			const now = state.people[event.person];
			return now?.is === 'opened' ? stand(state, [[event.person, { ...now, consented: event.text }]]) : state;
		}
		case 'PersonFinished':
			return {
				...stand(state, [
					[event.person, { is: 'done', since: since(state, event.person), at: event.at, shown: event.shown }]
				]),
				answers: { ...state.answers, ...event.answers }
			};
		case 'PersonNamed':
			return {
				...state,
				plan: {
					...state.plan,
					people: state.plan.people.map((p) =>
						p.id === event.person ? { ...p, name: event.name, email: event.email } : p
					)
				}
			};
		case 'PersonDeclined':
			return {
				...stand(state, [
					[event.person, { is: 'declined', since: since(state, event.person), at: event.at, reason: event.reason }]
				]),
				status: 'declined',
				at: event.at,
				person: event.person,
				reason: event.reason
			};
		case 'AddressCorrected':
			return {
				...(since(state, event.person) === ''
					? state
					: stand(state, [[event.person, { is: 'notified', since: since(state, event.person) }]])),
				addresses: { ...state.addresses, [event.person]: event.now }
			};
		case 'PacketCompleted':
			return { ...state, status: 'completed', at: event.at };
		case 'PacketWithdrawn':
			return { ...state, status: 'withdrawn', at: event.at, reason: event.reason };
		case 'PacketExpired':
			return { ...state, status: 'expired', at: event.at };
		case 'CopySealed':
			return { ...state, sealed: { ...state.sealed, [event.paper]: event.digest } };
		case 'EvidenceSealed':
			return { ...state, evidence: event.digest };
		case 'CopyFetched':
			return state;
	}
}

function stand<S extends SentPacket>(state: S, changes: [string, Standing][]): S {
	return { ...state, people: { ...state.people, ...Object.fromEntries(changes) } };
}

function since(state: SentPacket, person: string): string {
	const now = state.people[person];
	return now && now.is !== 'waiting' ? now.since : '';
}
