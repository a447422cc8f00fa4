import { appointmentOf } from '../../core/icalendar';
import type { SentPacket } from '../../core/packet';
import type { House } from '../house';

/** The appointment of a session as a calendar file (RFC 5545); null where none is set. @param link where the room is */
export function appointmentFile(house: House, packet: SentPacket, link: string, says: { name: string; text: string }) {
	const { appointment } = packet.session;
	return (
		appointment &&
		appointmentOf(
			{ id: `session-${packet.packet}`, ...appointment, ...says, link, sequence: packet.events },
			house.now().toISOString()
		)
	);
}
