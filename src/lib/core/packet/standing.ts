import type { PlanPerson } from './plan';
import type { SentPacket, Standing } from './state';

/** How far people are, changed; a room of `evolve`'s own. */

export function freed(state: Extract<SentPacket, { status: 'held' }>): SentPacket {
	const { at: _at, person: _person, ...rest } = state;
	return { ...rest, status: 'out' };
}

export function become<S extends SentPacket>(state: S, id: string, change: Partial<PlanPerson>): S {
	return {
		...state,
		plan: { ...state.plan, people: state.plan.people.map((p) => (p.id === id ? { ...p, ...change } : p)) }
	};
}

export function stand<S extends SentPacket>(state: S, changes: [string, Standing][]): S {
	return { ...state, people: { ...state.people, ...Object.fromEntries(changes) } };
}

export function since(state: SentPacket, person: string): string {
	const now = state.people[person];
	return now && now.is !== 'waiting' ? now.since : '';
}
