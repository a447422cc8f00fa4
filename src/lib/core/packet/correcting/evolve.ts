import { sameJson } from '../../audit';
import type { Recorded } from '../events';
import { personIn, SENDER, type Plan, type PlanPerson } from '../plan';
import { isOpen, type Packet, type SentPacket, type Standing } from '../state';

/** The corrected plan holds: who had it at a stop that comes later now waits; answers stay where their field still is. */
export function corrected(state: SentPacket, event: Extract<Recorded, { type: 'PlanCorrected' }>, plan: Plan): Packet {
	const people = Object.fromEntries(
		plan.people.map(({ id }): [string, Standing] => [
			id,
			event.waits.includes(id) ? { is: 'waiting' } : (state.people[id] ?? { is: 'waiting' })
		])
	);
	// the sender's stand in the plan; all others stay, computed ones that are fixed among them
	const others = Object.entries(state.answers).filter(([id]) =>
		plan.fields.some((field) => field.id === id && field.person !== SENDER)
	);
	const asked = (one: PlanPerson | undefined) => [one?.check ?? null, one?.identity ?? null];
	const changedProof = (id: string) => !sameJson(asked(personIn(state.plan, id)), asked(personIn(plan, id)));
	const still = <T>(of: Record<string, T>, but: (id: string) => boolean = () => false): Record<string, T> =>
		Object.fromEntries(Object.entries(of).filter(([id]) => people[id] && !but(id)));
	const next = {
		...state,
		type: state.plan.sending?.type === plan.sending?.type ? state.type : (plan.sending?.type ?? ''),
		// a stop that was open has been decided for good, also where it waits again
		plan: {
			...plan,
			stops: plan.stops.map((stop) =>
				stop.people.some((id) => event.waits.includes(id)) ? { ...stop, when: undefined } : stop
			)
		},
		planDigest: event.plan,
		people,
		answers: { ...Object.fromEntries(others), ...plan.answers },
		// addresses and numbers that were corrected stand in the new plan
		addresses: {},
		phones: {},
		proofs: still(state.proofs, changedProof),
		reminded: still(state.reminded, (id) => event.waits.includes(id)),
		correcting: null,
		corrections: state.corrections + 1,
		toTell: { ...still(state.toTell), ...event.toTell },
		former: [...state.former, ...event.gone.map((one) => one.person)]
	};
	return isOpen(next) ? { ...next, stop: event.stop } : next;
}
