import { appointmentOf } from '../../core/icalendar';
import type { SentPacket } from '../../core/packet';
import { wordsOf } from '../../words';
import type { House } from '../house';

/**
 * The appointment of a session as a calendar file (RFC 5545) in the reader's language; null where none is set.
 * @param link where the room is
 */
export function appointmentFile(house: House, packet: SentPacket, link: string, language: string): string | null {
	const { appointment } = packet.session;
	const name = wordsOf(language)('mail.appointment.subject', { title: packet.plan.title });
	return (
		appointment &&
		appointmentOf(
			{ id: `session-${packet.packet}`, ...appointment, name, text: '', link, sequence: packet.events },
			house.now().toISOString()
		)
	);
}
