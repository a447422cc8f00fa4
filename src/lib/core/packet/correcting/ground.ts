import { actorsAt } from '../../route';
import type { Plan } from '../plan';
import { addressOf, phoneOf, type OpenPacket } from '../state';

/** How long a packet stays shut to signers after the last change to its correction. */
export const SHUT_MINUTES = 30;

/** What a correction stands on: the plan as it holds now, and what of it people have already acted on. */
export interface Ground {
	plan: Plan;
	/** who has finished, by id: their part is locked */
	finished: string[];
	/** the stops that are behind, and the present one where somebody at it has finished, by id */
	behind: string[];
	/** the stop that is open, by id; null where the route is not yet there */
	open: string | null;
	/** whether the organisation permits exchanging documents while nobody has finished */
	mayExchange: boolean;
}

export function groundOf(packet: OpenPacket, mayExchange: boolean): Ground {
	const plan = presentPlan(packet);
	const finished = plan.people.map((p) => p.id).filter((id) => packet.people[id]?.is === 'done');
	const open = plan.stops[packet.stop];
	const begun = open?.people.some((id) => finished.includes(id)) ?? false;
	return {
		plan,
		finished,
		behind: plan.stops
			.filter((_stop, i) => (i < packet.stop && actorsAt(plan, i).length > 0) || (i === packet.stop && begun))
			.map((stop) => stop.id),
		open: open?.id ?? null,
		mayExchange
	};
}

/** The plan that holds now: addresses and numbers that have been corrected stand in it. */
export function presentPlan(packet: OpenPacket): Plan {
	return {
		...packet.plan,
		people: packet.plan.people.map((person) => {
			const phone = phoneOf(packet, person.id);
			const { phone: _phone, ...rest } = person;
			return { ...rest, email: addressOf(packet, person.id), ...(phone !== '' && { phone }) };
		})
	};
}
