import { endOfDayIn, isOver, morningOf, nextReminder, termEnd } from '../calendar';
import type { PacketEvent } from './events';
import { isOpen, type OpenPacket, type SentPacket } from './state';

/** What waits for its time in a packet, with the event it brings. */
interface Due {
	at: string;
	event: PacketEvent;
}

/** All that time will bring by itself as things stand, in no order. A packet that is held or being corrected reminds nobody. */
function dues(packet: SentPacket): Due[] {
	if (packet.status === 'completed') return renewal(packet);
	if (!isOpen(packet)) return [];
	if (packet.correcting) return [{ at: packet.correcting.until, event: { type: 'CorrectionLeft', why: 'time' } }];
	const { deadline, zone, sentAt, plan } = packet;
	const found: Due[] = [];
	const warning = plan.sending?.warning;
	if (deadline !== null && warning !== undefined && !packet.warned && packet.status === 'out') {
		const at = morningOf(deadline, -warning, zone);
		if (at > sentAt) found.push({ at, event: { type: 'DeadlineNear', people: waitedFor(packet) } });
	}
	if (packet.status === 'out') found.push(...reminders(packet));
	return found;
}

/** Those who have it and can act: who could not be reached is not written to again. */
function waitedFor(packet: OpenPacket): string[] {
	return (packet.plan.stops[packet.stop]?.people ?? []).filter((id) =>
		['notified', 'opened'].includes(packet.people[id]!.is)
	);
}

function reminders(packet: OpenPacket): Due[] {
	const rule = packet.plan.sending?.reminders;
	if (!rule) return [];
	return waitedFor(packet).flatMap((person): Due[] => {
		const standing = packet.people[person]!;
		if (standing.is !== 'notified' && standing.is !== 'opened') return [];
		const at = nextReminder({
			since: standing.since,
			opened: standing.is === 'opened' ? standing.at : null,
			sent: packet.reminded[person] ?? [],
			rule,
			deadline: packet.deadline,
			zone: packet.zone
		});
		return at === null ? [] : [{ at, event: { type: 'Reminded', person } }];
	});
}

/** The last day on which a completed packet's agreement holds, ISO 8601; null where it has no term. */
export function termEndOf(packet: SentPacket): string | null {
	const term = packet.plan.sending?.term;
	return term && packet.status === 'completed' ? termEnd(packet.at, term.months, packet.zone) : null;
}

function renewal(packet: SentPacket): Due[] {
	const ends = termEndOf(packet);
	const notice = packet.plan.sending?.term?.notice ?? null;
	if (ends === null || notice === null || packet.renewalTold) return [];
	return [{ at: morningOf(endOfDayIn(ends, packet.zone), -notice, packet.zone), event: { type: 'TermEnding', ends } }];
}

/** The next moment at which a packet does something by itself, ISO 8601 in UTC; null where none is to come. */
export function nextMoment(packet: SentPacket): string | null {
	const moments = dues(packet).map((due) => due.at);
	if (isOpen(packet) && packet.deadline !== null) moments.push(packet.deadline);
	return moments.sort()[0] ?? null;
}

/** What time has brought by now; the end goes before all else. */
export function keepTime(packet: SentPacket, now: string): PacketEvent[] {
	if (isOpen(packet) && isOver(packet.deadline, now)) return [{ type: 'PacketExpired' }];
	return dues(packet)
		.filter((due) => due.at <= now)
		.map((due) => due.event);
}
