import { deadlineAfter, isoDay } from '../calendar';
import { refuse } from '../refusal';
import { guestsOf } from '../route';
import type { Command } from './commands';
import { finish, opening } from './deciding/finishing';
import { beginCorrection, correct, goOnCorrecting, leaveCorrection, noteShown } from './deciding/correcting';
import {
	answerQuestions,
	deletePictures,
	enterCode,
	handInIdentity,
	judgeIdentity,
	knowIdentity,
	release,
	seePictures
} from './deciding/identity';
import {
	answerWording,
	correctAddress,
	correctPhone,
	keepUntil,
	moveDeadline,
	moveToFolder,
	nameType,
	noteAmended,
	nudge,
	putAway,
	recordSealed,
	recordStamped,
	restore,
	takeLink
} from './deciding/office';
import {
	appointSession,
	approveResult,
	beginSession,
	confirmPerson,
	doubtResult,
	drawAct,
	enterRoom,
	giveTurn,
	leaveRoom,
	openPartAgain,
	pauseSession,
	placeFields,
	takeOath
} from './deciding/notary';
import { acceptReturn, askReturn, checkReturn, fetchPaper, handInReturn, refuseReturn } from './deciding/paper';
import { decline, handOver } from './deciding/passing-on';
import { onceAgreed, onTurn, whileOpen, type Decided } from './deciding/turn';
import { graveFault } from './preflight';
import type { Packet, SentPacket } from './state';
import { keepTime } from './time';

/**
 * What happens when a command meets a state: events, or a refusal with a sentence for a person.
 * Pure: the moment comes in as `now` (ISO 8601, UTC). An empty list means that it has been done already.
 */
export function decide(state: Packet, command: Command, now: string): Decided {
	if (command.do === 'send') return send(state, command, now);
	if (state.status === 'none') return refuse('no-packet', 'There is no such packet.');
	switch (command.do) {
		case 'recordMessage': {
			const { person, purpose, to, channel, refused } = command;
			return refused === undefined
				? [{ type: 'MessageSent', person, purpose, to, channel }]
				: [{ type: 'MessageRefused', person, purpose, to, why: refused, channel }];
		}
		case 'recordFollowUp':
			return state.followed.includes(command.id)
				? []
				: [{ type: 'FollowedUp', id: command.id, what: command.what, about: command.about }];
		case 'recordFetched':
			return [{ type: 'CopyFetched', person: command.person, what: command.what }];
		case 'recordSealed':
			return recordSealed(state, command);
		case 'recordStamped':
			return recordStamped(state, command);
		case 'takeLink':
			return takeLink(state, command);
		case 'openPaper':
			return onTurn(state, command.person, now, (_out, standing) =>
				standing.is === 'opened' ? [] : [{ type: 'PaperOpened', person: command.person, from: command.from }]
			);
		case 'lookAtCopy':
			return state.looked.includes(command.person)
				? []
				: [{ type: 'CopyLookedAt', person: command.person, from: command.from }];
		case 'consent':
			return onTurn(state, command.person, now, (_out, standing) => {
				if (standing.is !== 'opened') return refuse('not-opened', 'Open the document first.');
				// given once: in another language it says the same; a new version is agreed to anew
				return standing.consented && versionOf(standing.consented) === versionOf(command.text)
					? []
					: [{ type: 'ConsentGiven', person: command.person, text: command.text, from: command.from }];
			});
		case 'seePages':
			return onceAgreed(state, command.person, now, () =>
				command.pages.length === 0
					? []
					: [{ type: 'PagesSeen', person: command.person, pages: command.pages, from: command.from }]
			);
		case 'keepAnswers':
			return onceAgreed(state, command.person, now, () =>
				command.fields.length === 0
					? []
					: [{ type: 'AnswersKept', person: command.person, fields: command.fields, from: command.from }]
			);
		case 'enterCode':
			return enterCode(state, command, now);
		case 'handInIdentity':
			return handInIdentity(state, command, now);
		case 'judgeIdentity':
			return judgeIdentity(state, command);
		case 'answerQuestions':
			return answerQuestions(state, command, now);
		case 'knowIdentity':
			return knowIdentity(state, command, now);
		case 'seePictures':
			return seePictures(command);
		case 'deletePictures':
			return deletePictures(command);
		case 'fetchPaper':
			return fetchPaper(state, command, now);
		case 'handInReturn':
			return handInReturn(state, command, now);
		case 'checkReturn':
			return checkReturn(state, command);
		case 'acceptReturn':
			return acceptReturn(state, command, now);
		case 'askReturn':
			return askReturn(state, command);
		case 'refuseReturn':
			return refuseReturn(state, command);
		case 'appointSession':
			return appointSession(state, command, now);
		case 'enterRoom':
			return enterRoom(state, command, now);
		case 'leaveRoom':
			return leaveRoom(state, command);
		case 'beginSession':
			return beginSession(state, command, now);
		case 'pauseSession':
			return pauseSession(state, command, now);
		case 'confirmPerson':
			return confirmPerson(state, command, now);
		case 'takeOath':
			return takeOath(state, command, now);
		case 'giveTurn':
			return giveTurn(state, command, now);
		case 'placeFields':
			return placeFields(state, command, now);
		case 'openPartAgain':
			return openPartAgain(state, command, now);
		case 'drawAct':
			return drawAct(state, command, now);
		case 'approveResult':
			return approveResult(state, command, now);
		case 'doubtResult':
			return doubtResult(state, command, now);
		case 'release':
			return release(state, command);
		case 'handDevice':
			return onceAgreed(state, command.person, now, (out, person) =>
				guestsOf(out.plan, person.id).some((guest) => guest.id === command.guest)
					? [{ type: 'DeviceHanded', person: person.id, guest: command.guest, from: command.from }]
					: refuse('not-your-guest', 'You don’t host that person.')
			);
		case 'finish':
			return finish(state, command, now);
		case 'handOver':
			return handOver(state, command, now);
		case 'decline':
			return decline(state, command, now);
		case 'askWording':
			return askWording(state, command, now);
		case 'answerWording':
			return answerWording(state, command);
		case 'correctAddress':
			return correctAddress(state, command);
		case 'correctPhone':
			return correctPhone(state, command);
		case 'moveDeadline':
			return moveDeadline(state, command, now);
		case 'moveToFolder':
			return moveToFolder(state, command);
		case 'nameType':
			return nameType(state, command);
		case 'putAway':
			return putAway(state, command);
		case 'restore':
			return restore(state);
		case 'noteAmended':
			return noteAmended(state, command);
		case 'keepUntil':
			return keepUntil(state, command);
		case 'beginCorrection':
			return beginCorrection(state, now);
		case 'goOnCorrecting':
			return goOnCorrecting(state, now);
		case 'leaveCorrection':
			return leaveCorrection(state);
		case 'correct':
			return correct(state, command, now);
		case 'noteShown':
			return noteShown(state, command);
		case 'nudge':
			return nudge(state, command, now);
		case 'withdraw':
			return whileOpen(state, () =>
				command.reason.trim() === ''
					? refuse('reason-missing', 'Say why it is withdrawn; everyone who has acted is told.', 'reason')
					: [{ type: 'PacketWithdrawn', reason: command.reason }]
			);
		case 'keepTime':
			return keepTime(state, now);
	}
}

function send(state: Packet, command: Extract<Command, { do: 'send' }>, now: string): Decided {
	if (state.status !== 'none') return refuse('already-sent', 'This packet has been sent already.');
	const no = graveFault(command.plan);
	if (no) return no;
	const { plan, zone } = command;
	const opens = opening(plan, -1, plan.answers ?? {}, isoDay(zone, now));
	if (opens.some((event) => event.type === 'PacketCompleted'))
		return refuse('nobody-acts', 'By its rules nobody would have anything to do. Look at the stops’ rules.');
	const working = plan.sending?.workingDays ? [command.holidays ?? []] : [];
	return [
		{
			type: 'PacketSent',
			packet: command.packet,
			reference: command.reference,
			plan: command.planDigest,
			sender: command.sender,
			deadline: plan.days === null ? null : deadlineAfter(now, plan.days, zone, ...working),
			zone,
			...(command.folder && { folder: command.folder }),
			...(command.taken && command.taken.length > 0 && { taken: command.taken }),
			...(command.begun && { begun: command.begun })
		},
		...opens
	];
}

/** Another wording is asked for; it changes nothing but that the sender knows. */
/** Each wish is a letter to the sender. */
const MOST_WISHES = 30;

function askWording(state: SentPacket, command: Extract<Command, { do: 'askWording' }>, now: string): Decided {
	return onceAgreed(state, command.person, now, (out) => {
		if (out.plan.sending?.wording !== true)
			return refuse('no-wording-asked', 'The sender has not opened the wording to changes. Decline, or ask them.');
		if (out.wordings.filter((one) => one.person === command.person).length >= MOST_WISHES)
			return refuse('too-often', 'You have asked for many changes already. Wait for the sender’s answer.');
		const { do: _do, ...asked } = command;
		if (!out.plan.papers.some((p) => p.id === asked.paper && asked.page < p.pages.length))
			return refuse('no-page', 'That page is not part of this.');
		if (asked.words.trim() === '') return refuse('words-missing', 'Mark the words you want changed.', 'words');
		if (asked.instead.trim() === '' && asked.why.trim() === '')
			return refuse('instead-missing', 'Say what should stand there instead, or why.', 'instead');
		return [{ type: 'WordingAsked', ...asked }];
	});
}

/** The version of a consent, without its language and hash: `de-2-other 3f…` is `2-other`. */
const versionOf = (text: string): string => /^[^-\s]+-(\S+)/.exec(text)?.[1] ?? text;
