import { corrected } from './correcting/evolve';
import type { Recorded } from './events';
import type { Plan } from './plan';
import { inked, stillOut } from './inks';
import { agreement, judged, prove, shownOr } from './proofs';
import { arrived, cameBack } from './heard';
import { afterCorrection, forgotten, inSession } from './sessions';
import { become, freed, since, stand } from './standing';
import { initial, isOpen, NO_SESSION, NOTHING_SHOWN, type Packet, type SentPacket } from './state';

/** Finds a frozen plan by the SHA-256 of its canonical JSON. */
export type PlanLookup = (digest: string) => Plan;

/** The state after one more event. Pure; never refuses: what has happened has happened. */
export function evolve(state: Packet, event: Recorded, plans: PlanLookup): Packet {
	if (event.type === 'PacketSent') {
		const plan = plans(event.plan);
		return {
			status: 'out',
			stop: -1,
			packet: event.packet,
			reference: event.reference,
			plan,
			planDigest: event.plan,
			sender: event.sender,
			sentAt: event.at,
			deadline: event.deadline,
			zone: event.zone,
			folder: event.folder ?? plan.sending?.folder ?? '',
			type: plan.sending?.type ?? '',
			put: null,
			keep: null,
			amended: null,
			people: Object.fromEntries(plan.people.map((p) => [p.id, { is: 'waiting' }])),
			addresses: {},
			phones: {},
			bounced: {},
			answers: plan.answers ?? {},
			proofs: {},
			inks: {},
			session: NO_SESSION,
			handOvers: [],
			wordings: [],
			reminded: {},
			nudged: {},
			warned: false,
			renewalTold: false,
			correcting: null,
			corrections: 0,
			toTell: {},
			former: [],
			looked: [],
			sealed: {},
			evidence: null,
			begun: event.begun ?? null,
			followed: [],
			events: 1
		};
	}
	if (state.status === 'none') throw new Error(`a packet can't begin with ${event.type}`);
	return after({ ...state, events: state.events + 1 }, event, plans);
}

export function fold(events: Iterable<Recorded>, plans: PlanLookup): Packet {
	let state: Packet = initial;
	for (const event of events) state = evolve(state, event, plans);
	return state;
}

function after(state: SentPacket, event: Exclude<Recorded, { type: 'PacketSent' }>, plans: PlanLookup): Packet {
	switch (event.type) {
		case 'StopOpened':
			return stand(
				isOpen(state) ? { ...state, stop: event.stop } : state,
				event.people.map((id) => [id, { is: 'notified', since: event.at }])
			);
		case 'StopSkipped':
			return stand(
				state,
				event.people.map((id) => [id, { is: 'skipped', since: event.at, at: event.at, why: 'rule' }])
			);
		case 'PersonSpared':
			return stand(state, [
				[event.person, { is: 'skipped', since: since(state, event.person), at: event.at, why: 'group' }]
			]);
		case 'MessageSent':
			return arrived(state, event);
		case 'MessageRefused':
			return cameBack(state, event);
		case 'LinkTaken':
		case 'PagesSeen':
		case 'AnswersKept':
		case 'DeviceHanded':
		case 'GuestConfirmed':
			return state;
		case 'FollowedUp':
			return { ...state, followed: [...state.followed, event.id] };
		case 'CopyLookedAt':
			return { ...state, looked: [...state.looked, event.person] };
		case 'CodeWrong':
			return prove(state, event.person, (was) => ({ ...was, wrong: was.wrong + 1, lastWrong: event.at }));
		case 'CodeRight':
			return prove(state, event.person, (was) => ({ ...was, wrong: 0, lastWrong: null }));
		case 'IdentityHandedIn':
			return prove(state, event.person, (was) => ({ ...was, waiting: event.try, word: '' }));
		case 'IdentityJudged':
			return prove(state, event.person, (was) => judged(was, event));
		case 'QuestionsAnswered':
			return prove(state, event.person, (was) => shownOr(was, 'questions', event.enough));
		case 'IdentityKnown':
			return prove(state, event.person, (was) => shownOr(was, event.way, true));
		case 'JudgedByOne':
			return prove(state, event.person, (was) => ({ ...was, agreed: [...was.agreed, agreement(event)] }));
		case 'PicturesSeen':
		case 'PicturesDeleted':
			return state;
		case 'PersonRefused':
			return ended(state, event, '');
		case 'PersonHeld': {
			const held = stand(state, [[event.person, { is: 'held', since: since(state, event.person), at: event.at }]]);
			return isOpen(held) ? { ...held, status: 'held', at: event.at, person: event.person } : held;
		}
		case 'HoldReleased': {
			const released = prove(
				stand(state, [[event.person, { is: 'notified', since: since(state, event.person) }]]),
				event.person,
				(was) => ({ ...NOTHING_SHOWN, shown: was.shown, spared: event.how === 'let through', word: event.word ?? '' })
			);
			return released.status === 'held' ? freed(released) : released;
		}
		case 'PaperOpened': {
			const now = state.people[event.person];
			return now?.is === 'notified' || now?.is === 'unreachable'
				? stand(state, [[event.person, { is: 'opened', since: now.since, at: event.at, consented: null }]])
				: state;
		}
		case 'ConsentGiven': {
			const now = state.people[event.person];
			return now?.is === 'opened' ? stand(state, [[event.person, { ...now, consented: event.text }]]) : state;
		}
		case 'PaperFetched':
		case 'ReturnHandedIn':
		case 'ReturnChecked':
		case 'ReturnAskedAgain':
		case 'ReturnRefused':
		case 'ReturnAccepted':
			return inked(state, event);
		case 'SessionAppointed':
		case 'SessionBegun':
		case 'SessionPaused':
		case 'RoomEntered':
		case 'RoomLeft':
		case 'PersonConfirmed':
		case 'OathTaken':
		case 'TurnGiven':
		case 'FieldsPlaced':
		case 'ActDrawn':
		case 'ResultApproved':
		case 'ResultDoubted':
			return inSession(state, event);
		case 'PartOpenedAgain':
			return inSession(stand(state, [[event.who, { is: 'notified', since: since(state, event.who) }]]), event);
		case 'PersonFinished':
			return {
				...stand(state, [
					[event.person, { is: 'done', since: since(state, event.person), at: event.at, shown: event.shown }]
				]),
				answers: { ...state.answers, ...event.answers },
				session: state.session.turn === event.person ? { ...state.session, turn: null } : state.session
			};
		case 'PersonNamed':
			return become(state, event.person, {
				name: event.name,
				email: event.email,
				...(event.note && { note: event.note })
			});
		case 'PartHandedOver': {
			const { [event.person]: _address, ...addresses } = state.addresses;
			const { [event.person]: _phone, ...phones } = state.phones;
			const { [event.person]: _proof, ...proofs } = state.proofs;
			const { [event.person]: _ink, ...inks } = state.inks;
			const { [event.person]: _reminded, ...reminded } = state.reminded;
			const { [event.person]: _told, ...toTell } = state.toTell;
			const session = forgotten(state.session, event.person);
			const now = { ...state, addresses, phones, proofs, inks, reminded, toTell, session };
			return {
				...stand(become(now, event.person, { name: event.name, email: event.email, phone: '', note: '' }), [
					[event.person, { is: 'notified', since: event.at }]
				]),
				handOvers: [
					...state.handOvers,
					{
						person: event.person,
						from: event.was,
						to: { name: event.name, email: event.email },
						why: event.why,
						at: event.at
					}
				]
			};
		}
		case 'PersonDeclined':
			return ended(state, event, event.reason);
		case 'WordingAsked': {
			const { type: _type, n: _n, by: _by, from: _from, ...asked } = event;
			return { ...state, wordings: [...state.wordings, { ...asked, answer: null }] };
		}
		case 'WordingAnswered':
			return {
				...state,
				wordings: state.wordings.map((one) => (one.id === event.id ? { ...one, answer: event.say } : one))
			};
		case 'AddressCorrected': {
			const there = state.people[event.person];
			const now =
				there?.is === 'unreachable' || there?.is === 'opened'
					? stand(state, [[event.person, { is: 'notified', since: there.since }]])
					: state;
			const bounced = { ...now.bounced, [event.person]: [] };
			const { [event.person]: _told, ...toTell } = now.toTell;
			// it may be somebody else who reads it there
			const { [event.person]: _proof, ...proofs } = now.proofs;
			const { [event.person]: _ink, ...inks } = now.inks;
			const anew = { ...now, bounced, toTell, proofs, inks, session: forgotten(now.session, event.person) };
			return event.channel === 'text'
				? { ...anew, phones: { ...state.phones, [event.person]: event.now } }
				: { ...anew, addresses: { ...state.addresses, [event.person]: event.now } };
		}
		case 'FolderChanged':
			return { ...state, folder: event.now };
		case 'TypeChanged':
			return { ...state, type: event.now };
		case 'PacketPutAway':
			return { ...state, put: { where: event.to, at: event.at } };
		case 'PacketRestored':
			return { ...state, put: null };
		case 'PacketAmended':
			return { ...state, amended: { by: event.by_packet, reference: event.reference, at: event.at } };
		case 'RetentionSet': {
			const by = event.by.kind === 'office' ? event.by.name : '';
			return { ...state, keep: event.until === null ? null : { until: event.until, why: event.why, by } };
		}
		case 'DeadlineMoved':
			return { ...state, deadline: event.now, warned: false };
		case 'CorrectionBegun':
			return {
				...state,
				correcting: { by: event.by.kind === 'office' ? event.by.name : '', since: event.at, until: event.until }
			};
		case 'CorrectionGoesOn':
			return state.correcting ? { ...state, correcting: { ...state.correcting, until: event.until } } : state;
		case 'CorrectionLeft':
			return { ...state, correcting: null };
		case 'PlanCorrected':
			return corrected(
				{
					...state,
					inks: stillOut(state.inks, event.toTell),
					session: afterCorrection(state.session, state.plan, plans(event.plan))
				},
				event,
				plans(event.plan)
			);
		case 'CorrectionShown': {
			const { [event.person]: _shown, ...toTell } = state.toTell;
			return { ...state, toTell };
		}
		case 'Nudged':
			return { ...state, nudged: { ...state.nudged, [event.person]: event.at } };
		case 'Reminded':
			return {
				...state,
				reminded: { ...state.reminded, [event.person]: [...(state.reminded[event.person] ?? []), event.at] }
			};
		case 'DeadlineNear':
			return { ...state, warned: true };
		case 'TermEnding':
			return { ...state, renewalTold: true };
		case 'PacketCompleted':
			return { ...state, status: 'completed', at: event.at };
		case 'PacketWithdrawn':
			return { ...state, status: 'withdrawn', at: event.at, reason: event.reason, correcting: null };
		case 'PacketExpired':
			return { ...state, status: 'expired', at: event.at, correcting: null };
		case 'CopySealed':
			return { ...state, sealed: { ...state.sealed, [event.paper]: event.digest } };
		case 'EvidenceSealed':
			return { ...state, evidence: event.digest };
		case 'CopiesStamped': {
			const now = new Map(event.copies.map((copy) => [copy.what, copy.now]));
			const sealed = Object.fromEntries(
				Object.entries(state.sealed).map(([paper, digest]) => [paper, now.get(paper) ?? digest])
			);
			return { ...state, sealed, evidence: now.get('evidence') ?? state.evidence };
		}
		case 'CopyFetched':
			return state;
	}
}

/** One person's part ends; with it the whole, unless others of their group can still do it. */
function ended(
	state: SentPacket,
	event: Extract<Recorded, { type: 'PersonDeclined' | 'PersonRefused' }>,
	reason: string
): Packet {
	const declined = stand(state, [
		[event.person, { is: 'declined', since: since(state, event.person), at: event.at, reason }]
	]);
	if (!event.others) return { ...declined, status: 'declined', at: event.at, person: event.person, reason };
	return declined.status === 'held' ? freed(declined) : declined;
}
