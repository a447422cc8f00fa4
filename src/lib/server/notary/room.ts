import { meetingIn } from '../../core/calendar';
import { OATH, stepsOf } from '../../core/notary';
import {
	EVERYBODY,
	isGuestOfNotary,
	isInRoom,
	isSessionOpen,
	isWatched,
	localeOf,
	stagesOf,
	stillToShow,
	type RoomPerson,
	type RoomView,
	type SentPacket
} from '../../core/packet';
import { refuse, type Refusal } from '../../core/refusal';
import { beforeNotary, notaryIn } from '../../core/route';
import type { House } from '../house';
import { eventsOf } from '../packets/log';
import { languageTag } from '../signing/view';
import { unproved, type Visitor } from '../signing/visit';
import { hear, pageShown, wordsOfRoom } from './talk';
import { knownBy } from './known';
import { notaryOfPlan } from './notaries';
import { textToDraw } from './session';

/** Refuses `no-session` to whoever has no part in one. Whoever asks is heard of. */
export function roomView(house: House, visitor: Visitor, language = 'en'): RoomView | Refusal {
	const no = unproved(visitor);
	if (no) return no;
	const { person } = visitor;
	const packet = hear(house, visitor.packet, person.id);
	const { plan, session } = packet;
	const notary = notaryIn(plan);
	const commission = notaryOfPlan(house.db, plan);
	const mine = notary?.id === person.id;
	if (!notary?.notary || !commission || !(mine || beforeNotary(plan).some(({ id }) => id === person.id)))
		return refuse('no-session', 'There is no session before a notary here.');
	const { act } = notary.notary;
	const steps = stepsOf(act);
	const name = (id: string) => plan.people.find((one) => one.id === id)?.name ?? '';
	const { appointment } = session;
	const events = mine ? eventsOf(house.db, packet.packet) : [];
	return {
		title: plan.title,
		zone: packet.zone,
		locale: localeOf(plan),
		now: house.now().toISOString(),
		me: { id: person.id, name: person.name, notary: mine },
		notary: {
			name: commission.name,
			number: commission.number,
			jurisdiction: commission.jurisdiction,
			until: commission.until
		},
		act,
		steps,
		fee: session.begun?.fee ?? commission.fees[act] ?? '',
		oath: steps.includes('sworn') ? OATH : null,
		appointment: appointment && {
			...appointment,
			when: meetingIn(packet.zone, appointment.starts, languageTag(language, person))
		},
		is: isSessionOpen(packet) ? 'open' : packet.people[notary.id]?.is === 'waiting' ? 'not yet' : 'over',
		running: session.running,
		begun: session.begun !== null,
		present: session.present.includes(person.id),
		turn: session.turn,
		watched: isWatched(plan),
		people: stagesOf(packet).map((one) => ({
			...roomPerson(packet, one),
			known: knownBy(events, one.person)
		})),
		drawn: session.drawn?.text ?? null,
		toDraw: mine ? textToDraw(house, packet) : '',
		papers: plan.papers,
		fields: plan.fields.filter(
			(field) =>
				mine ||
				field.person === person.id ||
				field.person === EVERYBODY ||
				packet.answers[field.id] !== undefined ||
				beforeNotary(plan).some(({ id }) => id === field.person)
		),
		answers: packet.answers,
		page: pageShown(house, packet),
		words: wordsOfRoom(house, packet.packet).map((one) => ({
			id: one.id,
			name: name(one.person),
			mine: one.person === person.id,
			said: one.said,
			at: one.at
		}))
	};
}

function roomPerson(
	packet: SentPacket,
	{ person: id, stage, doubt }: ReturnType<typeof stagesOf>[number]
): Omit<RoomPerson, 'known'> {
	const { plan, session } = packet;
	const person = plan.people.find((one) => one.id === id)!;
	return {
		id,
		name: person.name,
		notary: person.duty === 'notarises',
		there: isInRoom(packet, person),
		guest: isGuestOfNotary(plan, person),
		stage,
		confirmed: session.confirmed[id] ?? '',
		sworn: session.sworn.includes(id),
		signed: packet.people[id]?.is === 'done',
		approved: session.approved.includes(id),
		doubt,
		toShow: stillToShow(packet, person).length > 0
	};
}
