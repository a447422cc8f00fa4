import {
	anybodyIn,
	channelsOf,
	isOpen,
	SENDER,
	type Channel,
	type MessagePurpose,
	type PlanPerson,
	type Recorded,
	type SentPacket
} from '../../core/packet';
import { acts, beforeNotary, notaryIn, stopOf } from '../../core/route';

/** What a message job has to know; the rest is looked up when it is sent. `person` may be the sender. */
export interface MessageTask {
	person: string;
	purpose: MessagePurpose;
	channel: Channel;
	/** the event it is about, where the state does not tell */
	about?: number;
}

/** Work that an event brings about outside the database; done by the job runner, once under each key. */
export type Effect =
	| { kind: 'message'; key: string; payload: MessageTask }
	| { kind: 'seal'; key: string; payload: Record<string, never> }
	/** what an intake says follows by itself: looked up when it is done */
	| { kind: 'follow'; key: string; payload: { about: number } }
	/** pictures by which people showed who they are, to be deleted when their time is over */
	| { kind: 'forget'; key: string; payload: Record<string, never> }
	/** its words, to be found by */
	| { kind: 'words'; key: string; payload: Record<string, never> }
	/** what it changes is told so, and put away */
	| { kind: 'keeping'; key: string; payload: { do: 'amended' } }
	/** whatever a notary whom the stand-in plays does next */
	| { kind: 'notary'; key: string; payload: Record<string, never> };

/** What must be done after an event, given the state after it. */
export function effectsOf(state: SentPacket, event: Recorded): Effect[] {
	const follows: Effect[] =
		state.begun && FOLLOWED.includes(event.type)
			? [{ kind: 'follow', key: `${event.n}:follow`, payload: { about: event.n } }]
			: [];
	const forgets: Effect[] =
		!isOpen(state) && ENDS.includes(event.type) && state.plan.people.some((person) => person.identity?.document)
			? [{ kind: 'forget', key: 'forget pictures', payload: {} }]
			: [];
	const plays: Effect[] =
		PLAYED.includes(event.type) && isOpen(state) && notaryIn(state.plan)
			? [{ kind: 'notary', key: `${event.n}:notary`, payload: {} }]
			: [];
	const words: Effect[] =
		!isOpen(state) && [...ENDS, 'FolderChanged'].includes(event.type)
			? [{ kind: 'words', key: `${event.n}:words`, payload: {} }]
			: [];
	const amends: Effect[] =
		event.type === 'EvidenceSealed' && state.plan.amends
			? [{ kind: 'keeping', key: 'amended', payload: { do: 'amended' } }]
			: [];
	return [...follows, ...forgets, ...plays, ...words, ...amends, ...messagesAfter(state, event)];
}

/** After which events a notary may have something to do. */
const PLAYED: Recorded['type'][] = [
	'StopOpened',
	'RoomEntered',
	'OathTaken',
	'PersonFinished',
	'PartOpenedAgain',
	'ResultApproved',
	'HoldReleased'
];

/** By which a packet ends. */
const ENDS: Recorded['type'][] = [
	'PacketCompleted',
	'PersonDeclined',
	'PersonRefused',
	'PacketWithdrawn',
	'PacketExpired'
];

/** After which events of a case something may follow. */
const FOLLOWED: Recorded['type'][] = [
	'StopOpened',
	'PacketCompleted',
	'EvidenceSealed',
	'PersonDeclined',
	'PacketExpired'
];

function messagesAfter(state: SentPacket, event: Recorded): Effect[] {
	/** one message for each way by which this person is to be reached */
	const message = (person: string, purpose: MessagePurpose): Effect[] =>
		waysTo(anybodyIn(state, person), purpose).map((channel) => ({
			kind: 'message',
			key: `${event.n}:${purpose}:${person}${channel === 'text' ? ':text' : ''}`,
			payload: { person, purpose, channel }
		}));
	const toSender = (purpose: MessagePurpose): Effect[] => [
		{
			kind: 'message',
			key: `${event.n}:${purpose}:${SENDER}`,
			payload: { person: SENDER, purpose, channel: 'mail', about: event.n }
		}
	];
	switch (event.type) {
		case 'StopOpened':
			return [
				...event.people.flatMap((person) => message(person, 'your turn')),
				...(event.copies ?? []).flatMap((person) => message(person, 'state so far'))
			];
		case 'AddressCorrected': {
			const has = isOpen(state) && ['notified', 'opened', 'unreachable'].includes(state.people[event.person]?.is ?? '');
			return has ? message(event.person, 'your turn').filter((e) => channelOf(e) === (event.channel ?? 'mail')) : [];
		}
		case 'PartHandedOver':
			return [...message(event.person, 'your turn'), ...toSender('handed over')];
		case 'PersonSpared':
			return message(event.person, 'spared');
		case 'PlanCorrected':
			return event.gone.filter((one) => one.heard).flatMap(({ person }) => message(person.id, 'let go'));
		case 'Nudged':
			return message(event.person, 'nudge');
		case 'Reminded':
			return message(event.person, 'reminder');
		case 'DeadlineNear':
			return [...event.people.flatMap((person) => message(person, 'ending')), ...toSender('ending')];
		case 'TermEnding':
			return toSender('term ending');
		case 'WordingAsked':
			return toSender('wording');
		case 'WordingAnswered': {
			const asked = state.wordings.find((one) => one.id === event.id);
			return asked ? message(asked.person, 'wording answered') : [];
		}
		case 'PersonHeld':
			// who entered wrong codes sees it on the page; who handed something in may have gone since
			return [...toSender('held'), ...(event.why ? message(event.person, 'being looked at') : [])];
		case 'ReturnChecked':
			return toSender('paper back');
		case 'ReturnAskedAgain':
			return message(event.person, 'paper again');
		case 'ReturnRefused':
			return message(event.person, 'paper refused');
		case 'SessionAppointed':
			return [...beforeNotary(state.plan).map(({ id }) => id), event.person].flatMap((person) =>
				message(person, 'appointment')
			);
		case 'HoldReleased':
			return message(event.person, 'your turn');
		case 'PacketCompleted':
			return [{ kind: 'seal', key: 'seal', payload: {} }];
		case 'EvidenceSealed':
			return everyone(state).flatMap((person) => message(person, 'copies'));
		case 'PersonDeclined':
			return event.others ? [] : told(state, event.person).flatMap((person) => message(person, 'declined'));
		case 'PersonRefused':
			return event.others
				? message(event.person, 'declined')
				: told(state).flatMap((person) => message(person, 'declined'));
		case 'PacketWithdrawn':
			return told(state).flatMap((person) => message(person, 'withdrawn'));
		case 'PacketExpired':
			return told(state).flatMap((person) => message(person, 'expired'));
		default:
			return [];
	}
}

function channelOf(effect: Effect): Channel | null {
	return effect.kind === 'message' ? effect.payload.channel : null;
}

/**
 * How a message goes to a person. The copies go by mail to whoever has an address, also where their turn came by another
 * way; a guest in person is written to for nothing else.
 */
export function waysTo(person: PlanPerson | undefined, purpose: MessagePurpose): Channel[] {
	if (!person) return [];
	const ways = channelsOf(person.deliver);
	if (purpose !== 'copies') return ways;
	if (person.email !== '') return [...new Set<Channel>(['mail', ...ways])];
	return ways.filter((way) => way === 'text');
}

/** Everybody on the route who was not left out, and has an end to hear of. */
function everyone(state: SentPacket): string[] {
	return state.plan.people
		.filter((person) => stopOf(state.plan, person.id) >= 0 && state.people[person.id]?.is !== 'skipped')
		.map((person) => person.id);
}

/** Those who have had it: nobody is told of the end of something they never heard of. */
function told(state: SentPacket, but?: string): string[] {
	return state.plan.people
		.filter(
			(person) =>
				acts(person.duty) &&
				person.id !== but &&
				!['waiting', 'skipped'].includes(state.people[person.id]?.is ?? 'waiting')
		)
		.map((person) => person.id);
}
