import { dayIn, meetingIn } from '../../core/calendar';
import {
	addressOf,
	anybodyIn,
	isOpen,
	personIn,
	phoneOf,
	SENDER,
	stillAt,
	termEndOf,
	type PlanPerson,
	type SentPacket
} from '../../core/packet';
import { acts, notaryIn } from '../../core/route';
import { chosenLanguage, wordsOf } from '../../words';
import { letter, textMessage, type Letter, type MailFacts } from '../../words/mail';
import { officeLetter, type OfficeFacts } from '../../words/office-mail';
import type { House } from '../house';
import { sha256Text } from '../ids';
import type { Delivery, Message } from '../mail';
import { sendAndEnd } from '../mail/sending';
import { phoneRefuses, putInPhone } from '../mail/phone';
import { appointmentFile, notaryOfPlan } from '../notary';
import { act, packetState } from '../packets/act';
import { CODE_MINUTES, newCode } from '../packets/codes';
import { copiesOf, copyFile } from '../packets/copies';
import type { MessageTask } from '../packets/effects';
import { letterFor } from '../packets/letters';
import { newLink } from '../packets/links';
import { eventsOf } from '../packets/log';
import { unveiled } from '../packets/private-words';
import { organisation } from '../settings';

export type MessageJob = MessageTask & { packet: string };

/** Attachments above this go by link only: many mail systems take no more. */
const MOST_ATTACHED = 10 * 1024 * 1024;

/** Sends one message and records it. Null when done, or why it must be tried again. */
export async function sendMessage(
	house: House,
	key: string,
	wanted: MessageJob,
	done: () => void
): Promise<string | null> {
	// jobs written before there were text messages say nothing of the way
	const job = { ...wanted, channel: wanted.channel ?? 'mail' };
	return sendAndEnd(
		house,
		() => compose(house, key, job),
		(message, delivery) => {
			if (message && delivery) record(house, job, message.to, delivery);
			done();
		},
		job.channel === 'text' ? deliverText : undefined
	);
}

function deliverText(house: House, message: Message): Delivery {
	if (phoneRefuses(house, message.to))
		return { is: 'refused', why: 'the Phone stand-in was told to refuse this number' };
	putInPhone(house, message);
	return { is: 'delivered' };
}

function record(house: House, job: MessageJob, to: string, delivery: Delivery): void {
	const { packet, person, purpose, channel } = job;
	act(
		house,
		packet,
		{ kind: 'pellum' },
		{
			do: 'recordMessage',
			person,
			purpose,
			to,
			channel,
			...(delivery.is === 'refused' && { refused: delivery.why })
		}
	);
}

/** The message, or null where it has become pointless (the turn has passed, the packet has ended). */
function compose(house: House, key: string, job: MessageJob): Message | null {
	const packet = packetState(house.db, job.packet);
	if (packet.status === 'none') return null;
	const id = key.replaceAll(/[^\w.-]/g, '.');
	if (job.person === SENDER) return toSender(house, id, packet, job);
	const person = anybodyIn(packet, job.person);
	if (!person || !stillWanted(packet, job)) return null;
	const to = job.channel === 'text' ? phoneOf(packet, person.id) : addressOf(packet, person.id);
	if (to === '') return null;
	const facts = factsFor(house, packet, person, job);
	const words = wordsOf(chosenLanguage(person.locale, packet.plan.locale));
	const written: Letter =
		job.channel === 'text' ? { subject: '', text: textMessage(facts, words), html: '' } : letter(facts, words);
	return {
		id,
		to,
		replyTo: { name: packet.sender.name, address: packet.sender.email },
		...written,
		attachments: job.channel === 'mail' ? attached(house, packet, facts, words.language) : []
	};
}

function factsFor(house: House, packet: SentPacket, person: PlanPerson, job: MessageJob): MailFacts {
	const { purpose } = job;
	const answered = packet.wordings.filter((one) => one.person === person.id && one.answer !== null).pop();
	return {
		purpose,
		to: person,
		sender: packet.sender,
		title: packet.plan.title,
		reference: packet.reference,
		...letterFor(house.db, packet, person),
		note: unveiled(house.db, person.note ?? ''),
		until: packet.deadline && dayIn(packet.zone, packet.deadline, languageTag(packet, person)),
		others: packet.plan.people
			.filter((p) => p.id !== person.id && acts(p.duty) && packet.people[p.id]?.is !== 'skipped')
			.map((p) => p.name || p.role || '')
			.filter(Boolean),
		link: `${house.config.origin}/s/${newLink(house.db, job.packet, person.id, house.now())}`,
		ended: ended(packet),
		...(purpose === 'code' && {
			code: { code: newCode(house, job.packet, person.id), minutes: CODE_MINUTES }
		}),
		...(purpose === 'your turn' && { say: packet.proofs[person.id]?.word ?? '' }),
		...(purpose === 'paper again' && packet.inks[person.id] && { again: packet.inks[person.id] }),
		...(purpose === 'paper refused' && { say: packet.inks[person.id]?.word ?? '' }),
		...(purpose === 'appointment' && { appointment: appointmentFor(house, packet, languageTag(packet, person)) }),
		...(purpose === 'wording answered' && answered?.answer && { say: answered.answer }),
		colour: organisation(house.db).colour
	};
}

/** The language in which days are written to a person. */
function languageTag(packet: SentPacket, person: PlanPerson): string {
	return person.locale ?? packet.plan.locale ?? 'en-GB';
}

function stillWanted(packet: SentPacket, { person, purpose }: MessageJob): boolean {
	const standing = packet.people[person]?.is ?? '';
	switch (purpose) {
		case 'your turn':
		case 'nudge':
		case 'reminder':
		case 'ending':
		case 'code':
		case 'wording answered':
		case 'paper again':
		case 'paper refused':
			return packet.status === 'out' && ['notified', 'opened', 'unreachable'].includes(standing);
		case 'state so far':
			return isOpen(packet);
		case 'appointment':
			return isOpen(packet) && packet.session.appointment !== null && !['skipped', 'declined'].includes(standing);
		default:
			return true;
	}
}

function ended(packet: SentPacket): MailFacts['ended'] {
	if (packet.status === 'withdrawn') return { name: packet.sender.name, reason: packet.reason };
	if (packet.status === 'declined' && packet.reason !== '')
		return { name: personIn(packet.plan, packet.person)?.name ?? '', reason: packet.reason };
	return { name: '', reason: '' };
}

/** A letter to whoever sent the packet, about one of its events. */
function toSender(house: House, id: string, packet: SentPacket, job: MessageJob): Message | null {
	const event = eventsOf(house.db, job.packet).find((one) => one.n === job.about);
	if (!event) return null;
	const called = (person: string) => personIn(packet.plan, person)?.name || 'somebody';
	const about = ((): Partial<OfficeFacts> => {
		switch (event.type) {
			case 'PartHandedOver':
				return { name: event.was.name, other: `${event.name}, ${event.email}`, words: event.why };
			case 'WordingAsked':
				return {
					name: called(event.person),
					words: [`“${event.words}”`, event.instead && `should read “${event.instead}”`, event.why]
						.filter(Boolean)
						.join('. ')
				};
			case 'PersonHeld':
				return {
					name: called(event.person),
					words: event.why ? 'something has to be looked at before it goes on.' : ''
				};
			case 'ReturnChecked':
				return {
					name: called(event.person),
					words:
						event.doubts.length === 0
							? 'Nothing is in doubt: every page is there, unchanged, and signed at each place.'
							: `Look at it: ${[...new Set(event.doubts.map((doubt) => doubt.what))].join(', ')}.`
				};
			case 'DeadlineNear':
				return {
					name: isOpen(packet) ? stillAt(packet).map(called).join(' and ') : '',
					day: packet.deadline ? dayIn(packet.zone, packet.deadline) : ''
				};
			case 'TermEnding':
				return { day: dayIn(packet.zone, `${termEndOf(packet) ?? event.ends}T12:00:00Z`) };
			default:
				return {};
		}
	})();
	const written = officeLetter({
		purpose: job.purpose as OfficeFacts['purpose'],
		to: packet.sender.name,
		title: packet.plan.title,
		reference: packet.reference,
		name: '',
		other: '',
		words: '',
		day: '',
		link: `${house.config.origin}/packets/${job.packet}`,
		colour: organisation(house.db).colour,
		...about
	});
	return {
		id,
		to: packet.sender.email,
		replyTo: { name: packet.sender.organisation, address: packet.sender.email },
		...written,
		attachments: []
	};
}

/** The copies, or an appointment as a calendar file. */
function attached(
	house: House,
	packet: SentPacket,
	{ purpose, link }: MailFacts,
	language: string
): Message['attachments'] {
	if (purpose === 'copies') return copies(house, packet);
	const file = purpose === 'appointment' ? appointmentFile(house, packet, `${link}/room`, language) : null;
	return file
		? [{ name: 'appointment.ics', media: 'text/calendar', digest: sha256Text(file), bytes: Buffer.from(file) }]
		: [];
}

function appointmentFor(house: House, packet: SentPacket, tag: string): MailFacts['appointment'] {
	const { appointment } = packet.session;
	const notary = notaryOfPlan(house.db, packet.plan);
	const asked = notaryIn(packet.plan)?.notary;
	return {
		when: appointment ? meetingIn(packet.zone, appointment.starts, tag) : '',
		minutes: appointment?.minutes ?? 0,
		notary: notary?.name ?? '',
		fee: (asked && notary?.fees[asked.act]) ?? ''
	};
}

function copies(house: House, packet: SentPacket): Message['attachments'] {
	const found = copiesOf(house.db, packet).flatMap(({ what }) => copyFile(house, packet, what) ?? []);
	return found.reduce((sum, a) => sum + a.bytes.length, 0) <= MOST_ATTACHED ? found : [];
}
