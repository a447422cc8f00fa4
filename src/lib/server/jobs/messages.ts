import { dayIn } from '../../core/calendar';
import { addressOf, personIn, type MessagePurpose, type SentPacket } from '../../core/packet';
import { acts } from '../../core/route';
import { letter } from '../../words/mail';
import { inTransaction } from '../db';
import type { House } from '../house';
import { deliverBySmtp, deliverInside, deliversInside, type Delivery, type Message } from '../mail';
import { act, packetState } from '../packets/act';
import { copiesOf, copyFile } from '../packets/copies';
import { letterFor } from '../packets/letters';
import { newLink } from '../packets/links';
import { organisation } from '../settings';

export interface MessageJob {
	packet: string;
	person: string;
	purpose: MessagePurpose;
}

/** Attachments above this go by link only: many mail systems take no more. */
const MOST_ATTACHED = 10 * 1024 * 1024;

/**
 * Sends one message and records it. With the Mailbox stand-in everything is one transaction; by SMTP the record is
 * written after the server has taken it, so that a crash between the two repeats a message rather than losing it.
 * @returns null when done, or why it must be tried again
 */
export async function sendMessage(
	house: House,
	key: string,
	job: MessageJob,
	done: () => void
): Promise<string | null> {
	if (deliversInside(house)) {
		inTransaction(house.db, () => {
			const message = compose(house, key, job);
			if (message) record(house, job, message.to, deliverInside(house, message));
			done();
		});
		return null;
	}
	const message = inTransaction(house.db, () => compose(house, key, job));
	const delivery: Delivery | null = message ? await deliverBySmtp(house, message) : null;
	if (delivery?.is === 'later') return delivery.why;
	inTransaction(house.db, () => {
		if (message && delivery) record(house, job, message.to, delivery);
		done();
	});
	return null;
}

function record(house: House, { packet, person, purpose }: MessageJob, to: string, delivery: Delivery): void {
	act(
		house,
		packet,
		{ kind: 'pellum' },
		{ do: 'recordMessage', person, purpose, to, ...(delivery.is === 'refused' && { refused: delivery.why }) }
	);
}

/** The message, or null where it has become pointless (the turn has passed, the packet has ended). */
function compose(house: House, key: string, { packet: id, person: who, purpose }: MessageJob): Message | null {
	const packet = packetState(house.db, id);
	if (packet.status === 'none') return null;
	const person = personIn(packet.plan, who);
	if (!person || !stillWanted(packet, who, purpose)) return null;
	const { colour } = organisation(house.db);
	const token = newLink(house.db, id, who, house.now());
	const until = packet.deadline && dayIn(packet.zone, packet.deadline);
	const words = letter({
		purpose,
		to: person,
		sender: packet.sender,
		title: packet.plan.title,
		reference: packet.reference,
		...letterFor(packet, person),
		until,
		others: packet.plan.people
			.filter((p) => p.id !== who && acts(p.duty))
			.map((p) => p.name || p.role || '')
			.filter(Boolean),
		link: `${house.config.origin}/s/${token}`,
		reason: endReason(packet),
		colour
	});
	return {
		id: key.replaceAll(/[^\w.-]/g, '.'),
		to: addressOf(packet, who),
		replyTo: { name: packet.sender.name, address: packet.sender.email },
		...words,
		attachments: purpose === 'copies' ? copies(house, packet) : []
	};
}

function stillWanted(packet: SentPacket, person: string, purpose: MessagePurpose): boolean {
	if (purpose !== 'your turn' && purpose !== 'nudge') return true;
	const standing = packet.people[person]?.is;
	return packet.status === 'out' && (standing === 'notified' || standing === 'opened' || standing === 'unreachable');
}

function endReason(packet: SentPacket): string {
	if (packet.status === 'withdrawn') return packet.reason;
	if (packet.status === 'declined')
		return `${personIn(packet.plan, packet.person)?.name ?? 'Somebody'} declined: ${packet.reason}`;
	return '';
}

function copies(house: House, packet: SentPacket): Message['attachments'] {
	const found = copiesOf(packet).flatMap(({ what }) => copyFile(house, packet, what) ?? []);
	return found.reduce((sum, a) => sum + a.bytes.length, 0) <= MOST_ATTACHED ? found : [];
}
