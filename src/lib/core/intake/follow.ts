import { live } from '../field';
import { isoDay } from '../calendar';
import type { PacketEvent } from '../packet/events';
import type { SentPacket } from '../packet/state';
import { actorsAt } from '../route';
import type { FollowUp, Intake } from './schema';
import { ruleHolds } from './walk';

/**
 * What follows by itself after these events of a case: at its end, once the copies are sealed where it is complete, or when a stop is
 * done, where the rule holds. What has followed does not follow again.
 * @param state the packet after the events
 * @param now ISO 8601
 */
export function followUpsDue(
	intake: Pick<Intake, 'then'>,
	state: SentPacket,
	events: PacketEvent[],
	now: string
): FollowUp[] {
	const world = live(state.plan, state.answers, isoDay(state.zone, now));
	return intake.then.filter(
		(one) =>
			!state.followed.includes(one.id) &&
			events.some((event) => comesWith(one.at, event, state)) &&
			ruleHolds(one.when, world)
	);
}

function comesWith(at: FollowUp['at'], event: PacketEvent, state: SentPacket): boolean {
	if (at === 'completed') return event.type === 'EvidenceSealed';
	if (at === 'declined') return event.type === 'PersonDeclined' && event.others !== true;
	if (at === 'expired') return event.type === 'PacketExpired';
	const stop = state.plan.stops.findIndex((one) => one.id === at.stop);
	const passed = event.type === 'PacketCompleted' || (event.type === 'StopOpened' && event.stop > stop);
	return stop >= 0 && passed && actorsAt(state.plan, stop).some((person) => state.people[person.id]?.is === 'done');
}
