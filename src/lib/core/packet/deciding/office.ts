import { isOver } from '../../calendar';
import { refuse } from '../../refusal';
import { dayOf } from '../../rule';
import { actorsAt, stopOf } from '../../route';
import { isAddress } from '../address';
import type { Command } from '../commands';
import type { PacketEvent } from '../events';
import { personIn } from '../plan';
import { isPhone } from '../phone';
import { addressOf, isOpen, phoneOf, type SentPacket } from '../state';
import { whileOpen, type Decided } from './turn';

/** What the office may do to a packet that is out. */

const HOUR = 3_600_000;

export function correctAddress(state: SentPacket, command: Extract<Command, { do: 'correctAddress' }>): Decided {
	return correctable(state, command.person, (open) => {
		if (!isAddress(command.email))
			return refuse('bad-address', `“${command.email}” can't be an e-mail address.`, 'email');
		if (personIn(open.plan, command.person)?.duty === 'notarises')
			return refuse(
				'notary-address',
				'A notary’s address is that of their commission. Put the packet right and choose another notary instead.',
				'email'
			);
		const was = addressOf(open, command.person);
		if (was === command.email) return [];
		const beside = actorsAt(open.plan, stopOf(open.plan, command.person));
		if (
			beside.some((p) => p.id !== command.person && addressOf(open, p.id).toLowerCase() === command.email.toLowerCase())
		)
			return refuse('twice-at-stop', `${command.email} stands at this stop already.`, 'email');
		return [{ type: 'AddressCorrected', person: command.person, was, now: command.email }];
	});
}

export function correctPhone(state: SentPacket, command: Extract<Command, { do: 'correctPhone' }>): Decided {
	return correctable(state, command.person, (open) => {
		if (!isPhone(command.phone))
			return refuse('bad-phone', `“${command.phone}” can't be a telephone number with its country code.`, 'phone');
		const was = phoneOf(open, command.person);
		return was === command.phone
			? []
			: [{ type: 'AddressCorrected', person: command.person, was, now: command.phone, channel: 'text' }];
	});
}

function correctable(state: SentPacket, id: string, then: Parameters<typeof whileOpen>[1]): Decided {
	return unlessCorrecting(state, (open) => {
		const person = personIn(open.plan, id);
		if (!person) return refuse('no-person', 'This packet has no such person.');
		if (open.people[id]?.is === 'done')
			return refuse('finished-part-locked', `${person.name} has finished; that part is locked.`);
		return then(open);
	});
}

/** Runs `then` unless somebody is correcting the whole: what is changed here would be lost in it. */
function unlessCorrecting(state: SentPacket, then: Parameters<typeof whileOpen>[1]): Decided {
	return whileOpen(state, (open) =>
		open.correcting
			? refuse(
					'being-corrected',
					`${open.correcting.by} is putting this right. Change it there, or wait until it is sent.`
				)
			: then(open)
	);
}

/** A reminder by hand; to one person once an hour at most. */
export function nudge(state: SentPacket, command: Extract<Command, { do: 'nudge' }>, now: string): Decided {
	return unlessCorrecting(state, (open) => {
		const person = personIn(open.plan, command.person);
		const standing = open.people[command.person]?.is;
		if (!person || (standing !== 'notified' && standing !== 'opened') || open.status === 'held')
			return refuse('nobody-waits', 'It is not waiting for that person now.');
		const last = open.nudged[command.person];
		if (last !== undefined && Date.parse(now) - Date.parse(last) < HOUR)
			return refuse('nudged-lately', `${person.name} was nudged less than an hour ago. Give them the hour.`);
		return [{ type: 'Nudged', person: command.person }];
	});
}

/** The link of somebody to whom the sender hands it on. */
export function takeLink(state: SentPacket, command: Extract<Command, { do: 'takeLink' }>): Decided {
	const person = personIn(state.plan, command.person);
	const standing = state.people[command.person]?.is;
	if (!person || standing === undefined) return refuse('no-person', 'This packet has no such person.');
	if (person.deliver !== 'link')
		return refuse('not-by-link', `${person.name} gets a message; the link is theirs alone.`);
	if (standing === 'waiting' && state.status === 'out' && person.duty !== 'gets a copy')
		return refuse('not-their-turn', `It is not ${person.name}’s turn yet. The link is there when it is.`);
	return [{ type: 'LinkTaken', person: command.person }];
}

export function moveDeadline(
	state: SentPacket,
	command: Extract<Command, { do: 'moveDeadline' }>,
	now: string
): Decided {
	return unlessCorrecting(state, (open): Decided => {
		if (isOver(command.to, now)) return refuse('deadline-past', 'That day has passed. Choose a later one.', 'to');
		return open.deadline === command.to ? [] : [{ type: 'DeadlineMoved', was: open.deadline, now: command.to }];
	});
}

/** Where it lies is the office's own matter: at any time, also after the end. */
export function moveToFolder(state: SentPacket, { folder }: Extract<Command, { do: 'moveToFolder' }>): Decided {
	return state.folder === folder ? [] : [{ type: 'FolderChanged', was: state.folder, now: folder }];
}

/** What the office sorts it by, at any time. */
export function nameType(state: SentPacket, { type }: Extract<Command, { do: 'nameType' }>): Decided {
	return state.type === type ? [] : [{ type: 'TypeChanged', was: state.type, now: type }];
}

/** Out of the way, or into the bin. Whatever people still wait for is withdrawn first, so that nobody waits for nothing. */
export function putAway(state: SentPacket, { to }: Extract<Command, { do: 'putAway' }>): Decided {
	if (isOpen(state))
		return refuse('still-out', 'This is still out. Withdraw it first, with a reason that reaches those who have it.');
	return state.put?.where === to ? [] : [{ type: 'PacketPutAway', to }];
}

/** Changed by another packet that is complete: that one holds now, and this one is put out of the way by itself. */
export function noteAmended(state: SentPacket, { by, reference }: Extract<Command, { do: 'noteAmended' }>): Decided {
	if (state.status !== 'completed') return refuse('not-complete', 'Only what was completed is amended.');
	if (state.amended?.by === by) return [];
	return [
		{ type: 'PacketAmended', by_packet: by, reference },
		...(state.put ? [] : [{ type: 'PacketPutAway', to: 'archive' } as const])
	];
}

/** Kept until another day than the rules say, or as they say again; why is in the record. */
export function keepUntil(state: SentPacket, { until, why }: Extract<Command, { do: 'keepUntil' }>): Decided {
	if (isOpen(state)) return refuse('still-out', 'This is still out. How long it is kept is told once it has ended.');
	if (until !== null && !dayOf(until)) return refuse('day-bad', 'The calendar has no such day.', 'until');
	if (why.trim() === '') return refuse('reason-missing', 'Say why. It stands in the record.', 'why');
	return (state.keep?.until ?? null) === until ? [] : [{ type: 'RetentionSet', until, why: why.trim() }];
}

/** Back where it was. What has ended stays ended. */
export function restore(state: SentPacket): Decided {
	return state.put === null ? [] : [{ type: 'PacketRestored', was: state.put.where }];
}

export function answerWording(state: SentPacket, command: Extract<Command, { do: 'answerWording' }>): Decided {
	return whileOpen(state, (open): Decided => {
		const asked = open.wordings.find((one) => one.id === command.id);
		if (!asked) return refuse('no-wording', 'There is no such request.');
		if (asked.answer !== null) return refuse('wording-answered', 'That has been answered already.');
		const say = command.say.trim();
		return say === ''
			? refuse('answer-missing', 'Write what you answer.', 'say')
			: [{ type: 'WordingAnswered', id: command.id, say }];
	});
}

export function recordSealed(state: SentPacket, command: Extract<Command, { do: 'recordSealed' }>): Decided {
	if (state.status !== 'completed') return refuse('not-complete', 'Only a completed packet is sealed.');
	if (state.evidence !== null) return [];
	return [
		...Object.entries(command.papers).map(([paper, digest]): PacketEvent => ({ type: 'CopySealed', paper, digest })),
		{ type: 'EvidenceSealed', digest: command.evidence }
	];
}

/** Another time-stamp over copies as they are now; of others, which somebody was quicker with, nothing comes. */
export function recordStamped(
	state: SentPacket,
	{ copies, until, method }: Extract<Command, { do: 'recordStamped' }>
): Decided {
	if (state.status !== 'completed' || state.evidence === null)
		return refuse('not-sealed', 'Only sealed copies get another time-stamp.');
	const now: Record<string, string> = { ...state.sealed, evidence: state.evidence };
	const whole = copies.length === Object.keys(now).length && copies.every(({ what, was }) => now[what] === was);
	return whole ? [{ type: 'CopiesStamped', copies, until, method }] : [];
}
