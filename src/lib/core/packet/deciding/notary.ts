import { ACTS, commissionFault, isInHours, stepsOf } from '../../notary';
import { isOver } from '../../calendar';
import { onPage } from '../../page';
import { refuse, type Refusal } from '../../refusal';
import { actorsOf, beforeNotary, notaryIn } from '../../route';
import type { Command } from '../commands';
import { personIn, type Field, type PlanPerson } from '../plan';
import { comersOf, isInRoom, isSessionOpen, isWatched } from '../sessions';
import { addressOf, isShut, type SentPacket } from '../state';
import { stillToShow } from './identity';
import { whileOpen, type Decided, type Out } from './turn';

/** A session before a notary: who may do what in it, and when. Nothing of it is lost when it goes on another day. */

type Of<Do extends Command['do']> = Extract<Command, { do: Do }>;

/** Somebody of the session while it is their stop's turn, whatever they have done already. */
function inRoom(
	state: SentPacket,
	id: string,
	now: string,
	then: (out: Out, person: PlanPerson, notary: PlanPerson) => Decided
): Decided {
	return whileOpen(state, (open) => {
		const notary = notaryIn(open.plan);
		const person = personIn(open.plan, id);
		if (!notary?.notary || !person || !(person === notary || beforeNotary(open.plan).includes(person)))
			return refuse('no-session', 'There is no session before a notary here.');
		if (isOver(open.deadline, now))
			return refuse('expired', 'The time for this has run out. Ask the sender for a new one.');
		if (open.status === 'held')
			return refuse('held', 'The sender is looking at something here first. You get a message when it goes on.');
		if (isShut(open, now))
			return refuse('being-corrected', 'This is being put right. Try again shortly; what you entered is kept.');
		if (!isSessionOpen(open)) return refuse('no-session-now', 'The session has not come up yet, or is over.');
		return then(open, person, notary);
	});
}

/** What the notary does while the session goes on. */
function presiding(
	state: SentPacket,
	id: string,
	now: string,
	then: (out: Out, notary: PlanPerson) => Decided
): Decided {
	return inRoom(state, id, now, (out, person, notary) => {
		if (person !== notary) return refuse('not-notary', 'Only the notary can do that.');
		return out.session.running
			? then(out, notary)
			: refuse('not-begun', 'Begin the session first; all that was done stands.');
	});
}

const isDone = (out: Out, id: string): boolean => out.people[id]?.is === 'done';
export function appointSession(
	state: SentPacket,
	{ starts, minutes, commission }: Of<'appointSession'>,
	now: string
): Decided {
	return whileOpen(state, (open) => {
		const notary = notaryIn(open.plan);
		if (!notary?.notary) return refuse('no-session', 'There is no session before a notary here.');
		if (Number.isNaN(Date.parse(starts)) || starts <= now)
			return refuse('appointment-past', 'Choose a time that is still to come.', 'starts');
		if (open.deadline !== null && starts > open.deadline)
			return refuse('appointment-late', 'That is after the last day of the packet. Move that first.', 'starts');
		const no = commissionFault(commission, starts);
		if (no) return no;
		if (!isInHours(commission, starts, minutes))
			return refuse('not-in-hours', 'The notary does not work at that time. Look at their hours.', 'starts');
		const was = open.session.appointment;
		return was?.starts === starts && was.minutes === minutes
			? []
			: [{ type: 'SessionAppointed', person: notary.id, starts, minutes, was: was?.starts ?? null }];
	});
}

export function enterRoom(state: SentPacket, { person: id, from }: Of<'enterRoom'>, now: string): Decided {
	return inRoom(state, id, now, (out, person) => {
		const standing = out.people[person.id]!;
		if (['skipped', 'declined', 'waiting'].includes(standing.is))
			return refuse('not-needed', 'Your part is no longer needed.');
		if (standing.is !== 'done' && (standing.is !== 'opened' || standing.consented === null))
			return refuse('no-consent', 'Agree to do this electronically first.');
		return out.session.present.includes(id) ? [] : [{ type: 'RoomEntered', person: id, from }];
	});
}

export function leaveRoom(state: SentPacket, { person, how }: Of<'leaveRoom'>): Decided {
	return state.session.present.includes(person) ? [{ type: 'RoomLeft', person, how }] : [];
}

export function beginSession(
	state: SentPacket,
	{ person: id, commission, from }: Of<'beginSession'>,
	now: string
): Decided {
	return inRoom(state, id, now, (out, person, notary) => {
		if (person !== notary) return refuse('not-notary', 'Only the notary can do that.');
		if (!out.session.present.includes(id)) return refuse('not-in-room', 'Go into the room first.');
		if (out.session.running) return [];
		const no = commissionFault(commission, now) ?? takesPartToo(out, notary);
		if (no) return no;
		const { name, number, jurisdiction, until, fees } = commission;
		return [
			{
				type: 'SessionBegun',
				person: id,
				commission: { name, number, jurisdiction, until },
				fee: fees[notary.notary!.act] ?? '',
				from
			}
		];
	});
}

/** A part may have been handed over, or an address put right, since it was sent. */
function takesPartToo(out: Out, notary: PlanPerson): Refusal | null {
	const own = addressOf(out, notary.id).toLowerCase();
	return actorsOf(out.plan).some((one) => one.id !== notary.id && addressOf(out, one.id).toLowerCase() === own)
		? refuse('notary-signs', 'You take part in this yourself, and can’t notarise it. Refuse it, with that reason.')
		: null;
}

export function pauseSession(state: SentPacket, { person, why }: Of<'pauseSession'>, now: string): Decided {
	return presiding(state, person, now, () =>
		why.trim() === ''
			? refuse('reason-missing', 'Say why it goes on another day; everybody can read it.', 'why')
			: [{ type: 'SessionPaused', person, why: why.trim() }]
	);
}

/** Runs `then` for somebody who comes before the notary and is there. */
function withComer(out: Out, who: string, then: (comer: PlanPerson) => Decided): Decided {
	const comer = comersOf(out).find(({ id }) => id === who);
	if (!comer) return refuse('no-person', 'This packet has no such person.');
	return isInRoom(out, comer)
		? then(comer)
		: refuse('not-there', `${comer.name} is not in the room. Wait, or go on another day; nothing is lost.`);
}

export function confirmPerson(state: SentPacket, { person, who, how }: Of<'confirmPerson'>, now: string): Decided {
	return presiding(state, person, now, (out) =>
		withComer(out, who, (comer) => {
			if (stillToShow(out, comer).length > 0)
				return refuse('not-shown-yet', `${comer.name} has not shown yet who they are.`);
			if (how.trim() === '') return refuse('how-missing', `Say how you know that it is ${comer.name}.`, 'how');
			return out.session.confirmed[who] === how.trim()
				? []
				: [{ type: 'PersonConfirmed', person, who, how: how.trim() }];
		})
	);
}

export function takeOath(state: SentPacket, { person: id, words, from }: Of<'takeOath'>, now: string): Decided {
	return inRoom(state, id, now, (out, person, notary) => {
		if (person === notary || !ACTS[notary.notary!.act].oath) return refuse('no-oath', 'No oath is taken here.');
		if (out.session.sworn.includes(id)) return [];
		if (!out.session.running || !(id in out.session.confirmed))
			return refuse('not-confirmed', 'Wait until the notary has confirmed who you are.');
		return [{ type: 'OathTaken', person: id, words, from }];
	});
}

export function giveTurn(state: SentPacket, { person, who }: Of<'giveTurn'>, now: string): Decided {
	return presiding(state, person, now, (out, notary) =>
		withComer(out, who, (comer) => {
			if (isDone(out, who)) return refuse('signed-already', `${comer.name} has signed already.`);
			const missing = before(out, notary, who);
			if (missing) return missing;
			return out.session.turn === who ? [] : [{ type: 'TurnGiven', person, who }];
		})
	);
}

/** What somebody has to have gone through before they sign in front of the notary. */
function before(out: Out, notary: PlanPerson, who: string): Refusal | null {
	const name = personIn(out.plan, who)?.name ?? '';
	if (!(who in out.session.confirmed)) return refuse('confirm-first', `Confirm first that it is ${name}.`);
	return stepsOf(notary.notary!.act).includes('sworn') && !out.session.sworn.includes(who)
		? refuse('not-sworn', `${name} has not taken the oath yet.`)
		: null;
}

export function placeFields(state: SentPacket, { person, plan, fields }: Of<'placeFields'>, now: string): Decided {
	return presiding(state, person, now, (out) => {
		for (const field of fields) {
			const owner = comersOf(out).find(({ id }) => id === field.person);
			const paper = out.plan.papers.find(({ id }) => id === field.paper);
			if (!owner || !paper || field.page >= paper.pages.length)
				return refuse('no-place', 'Say whose it is, and on which page.');
			if (isDone(out, owner.id))
				return refuse('signed-already', `${owner.name} has signed already. Let them do it once more first.`);
			if (!onPage(paper.pages[field.page]!, field.rect)) return OFF_PAGE;
		}
		return fields.length === 0 ? [] : [{ type: 'FieldsPlaced', person, plan, fields }];
	});
}

const OFF_PAGE = refuse('off-page', 'That reaches over the edge of the page. Choose another place.');

export function openPartAgain(state: SentPacket, { person, who, why }: Of<'openPartAgain'>, now: string): Decided {
	return presiding(state, person, now, (out) => {
		const comer = comersOf(out).find(({ id }) => id === who);
		if (!comer || !isDone(out, who)) return refuse('not-signed-yet', 'They have not signed yet.');
		return why.trim() === ''
			? refuse('reason-missing', 'Say why; they can read it.', 'why')
			: [{ type: 'PartOpenedAgain', person, who, why: why.trim() }];
	});
}

export function drawAct(state: SentPacket, command: Of<'drawAct'>, now: string): Decided {
	return presiding(state, command.person, now, (out) => {
		const open = comersOf(out).find(({ id }) => !isDone(out, id));
		if (open) return refuse('not-all-signed', `${open.name} has not signed yet.`);
		const unknown = comersOf(out).find(({ id }) => !(id in out.session.confirmed));
		if (unknown) return refuse('confirm-first', `Confirm first that it is ${unknown.name}.`);
		if (command.text.trim() === '') return refuse('text-missing', 'The act has no text yet.', 'text');
		const { person, plan, fields, text, added } = command;
		if (added && out.plan.papers.find(({ id }) => id === added.paper)?.digest !== added.was)
			return refuse('paper-changed', 'The document is another one by now. Look at it again.');
		const sheet = (field: Field) => {
			const pages = out.plan.papers.find(({ id }) => id === field.paper)?.pages ?? [];
			return (
				pages[field.page] ?? (field.paper === added?.paper && field.page === pages.length ? added.page : undefined)
			);
		};
		if (fields.some((field) => !sheet(field))) return refuse('no-page', 'That page is not part of this.');
		if (fields.some((field) => !onPage(sheet(field)!, field.rect))) return OFF_PAGE;
		return [{ type: 'ActDrawn', person, plan, fields, text: text.trim(), ...(added && { added }) }];
	});
}

export function approveResult(state: SentPacket, { person: id, from }: Of<'approveResult'>, now: string): Decided {
	return judging(state, id, now, (out) =>
		out.session.approved.includes(id) ? [] : [{ type: 'ResultApproved', person: id, from }]
	);
}

export function doubtResult(state: SentPacket, { person: id, why, from }: Of<'doubtResult'>, now: string): Decided {
	return judging(state, id, now, () =>
		why.trim() === ''
			? refuse('why-missing', 'Say what is wrong; the notary reads it.', 'why')
			: [{ type: 'ResultDoubted', person: id, why: why.trim(), from }]
	);
}

/** The people see what the notary has drawn up, and say whether it is right; also after the session. */
function judging(state: SentPacket, id: string, now: string, then: (out: Out) => Decided): Decided {
	return inRoom(state, id, now, (out, person, notary) => {
		if (person === notary || !isDone(out, id) || !out.session.drawn)
			return refuse('nothing-drawn', 'There is nothing to approve yet.');
		return then(out);
	});
}

/** Why somebody who comes before the notary can't finish their part now; null where they can, or there is no notary. */
export function notBeforeNotary(out: Out, person: PlanPerson): Refusal | null {
	if (!isWatched(out.plan) || !beforeNotary(out.plan).includes(person)) return null;
	const { running, turn } = out.session;
	return running && turn === person.id && isInRoom(out, person)
		? null
		: refuse(
				'not-before-notary',
				'This is signed before the notary, in the session. What you entered is kept; sign when the notary asks you to.'
			);
}

/** Why the notary can't finish the act now. */
export function notaryCannot(out: Out, notary: PlanPerson, command: Of<'finish'>, now: string): Refusal | null {
	if (notary.duty !== 'notarises') return null;
	const { session } = out;
	if (!session.running) return refuse('not-begun', 'Begin the session first; all that was done stands.');
	if (!command.commission) return refuse('no-commission', 'This notary has no commission here any more.');
	const no = commissionFault(command.commission, now);
	if (no) return no;
	if (!session.drawn) return refuse('nothing-drawn-up', 'Draw up the act first.');
	const doubts = comersOf(out).find(({ id }) => id in session.doubts);
	if (doubts) return refuse('result-doubted', `${doubts.name} says that something is wrong with it.`);
	const waits = comersOf(out).find(({ id }) => !session.approved.includes(id));
	return waits ? refuse('not-approved', `${waits.name} has not approved the result yet.`) : null;
}
