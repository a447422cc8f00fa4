import { unveil } from './private-words';
import { addressOf, stillAt, isOpen, type Command, type Plan, type SentPacket } from '../../core/packet';
import { endOfDayIn } from '../../core/calendar';
import { dayOf } from '../../core/rule';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import type { Doing } from '../../core/access';
import { notPermitted } from '../access';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import { folderFault } from '../folders';
import type { House } from '../house';
import { act, office, packetState, planLookup } from './act';
import { newDraft, type Draft } from './drafts';
import { newLink, revokeLinks } from './links';

/** What the office does to a packet that has been sent. */

export function withdraw(house: House, account: Account, id: string, reason: string): SentPacket | Refusal {
	return asOffice(house, account, id, { do: 'withdraw', reason: reason.trim() });
}

/** A new address: the old links die in the same transaction, and a new message goes. */
export function correctAddress(
	house: House,
	account: Account,
	id: string,
	person: string,
	email: string
): SentPacket | Refusal {
	return inTransaction(house.db, () => {
		const before = packetState(house.db, id);
		const corrected = asOffice(house, account, id, { do: 'correctAddress', person, email: email.trim() });
		if (!isRefusal(corrected) && before.status !== 'none' && addressOf(before, person) !== addressOf(corrected, person))
			revokeLinks(house.db, id, person, house.now());
		return corrected;
	});
}

/** A way to the signing page for somebody of the office whose turn it is: their own link, made for this visit. */
export function ownLink(house: House, account: Account, id: string): string | Refusal {
	const packet = packetState(house.db, id);
	if (packet.status === 'none') return refuse('no-packet', 'There is no such packet.');
	const me = packet.plan.people.find(
		(p) =>
			addressOf(packet, p.id).toLowerCase() === account.email.toLowerCase() &&
			['notified', 'opened'].includes(packet.people[p.id]!.is)
	);
	if (!me || packet.status !== 'out') return refuse('not-your-turn', 'It is not your turn here.');
	return newLink(house.db, id, me.id, house.now());
}

export function recordFetch(house: House, account: Account, id: string, what: string): SentPacket | Refusal {
	return act(house, id, office(account), { do: 'recordFetched', person: null, what });
}

function asOffice(
	house: House,
	account: Account,
	id: string,
	command: Command,
	doing: Doing = 'change'
): SentPacket | Refusal {
	return notPermitted(house.db, account, doing, 'packet', id) ?? act(house, id, office(account), command);
}

/** Into another folder, of those this account puts things into; '' takes it out of its folder. Who sees it moves with it. */
export function moveToFolder(house: House, account: Account, id: string, folder: string): SentPacket | Refusal {
	return folderFault(house.db, account, folder) ?? asOffice(house, account, id, { do: 'moveToFolder', folder });
}

export function correctPhone(house: House, account: Account, id: string, person: string, phone: string) {
	return asOffice(house, account, id, { do: 'correctPhone', person, phone: phone.trim() });
}

export function nudge(house: House, account: Account, id: string, person: string): SentPacket | Refusal {
	return asOffice(house, account, id, { do: 'nudge', person });
}

/** Nudges everybody whom it waits for; says how many were, and that the others were less than an hour ago. */
export function nudgeAll(house: House, account: Account, id: string): { nudged: number; lately: number } | Refusal {
	const packet = packetState(house.db, id);
	if (packet.status === 'none') return refuse('no-packet', 'There is no such packet.');
	if (!isOpen(packet)) return refuse('nobody-waits', 'It waits for nobody any more.');
	const waiting = stillAt(packet);
	const nudged = waiting.filter((person) => !isRefusal(nudge(house, account, id, person))).length;
	return nudged === 0 && waiting.length > 0
		? refuse('nudged-lately', 'Everybody it waits for was nudged less than an hour ago, or can’t be reached.')
		: { nudged, lately: waiting.length - nudged };
}

/** @param day ISO 8601, the new last day */
export function moveDeadline(house: House, account: Account, id: string, day: string): SentPacket | Refusal {
	const packet = packetState(house.db, id);
	if (packet.status === 'none') return refuse('no-packet', 'There is no such packet.');
	if (!dayOf(day)) return refuse('day-bad', 'The calendar has no such day.', 'to');
	return asOffice(house, account, id, { do: 'moveDeadline', to: endOfDayIn(day, packet.zone) });
}

export function answerWording(house: House, account: Account, id: string, wish: string, say: string) {
	return asOffice(house, account, id, { do: 'answerWording', id: wish, say });
}

/** The link of somebody to whom the office hands it on: a new one at each time, all of them good. */
export function takeLink(house: House, account: Account, id: string, person: string): { link: string } | Refusal {
	return inTransaction(house.db, () => {
		const taken = asOffice(house, account, id, { do: 'takeLink', person });
		return isRefusal(taken)
			? taken
			: { link: `${house.config.origin}/s/${newLink(house.db, id, person, house.now())}` };
	});
}

/** Withdraws it, and opens a draft with the same plan that links to it. People's own namings and hand-overs are not in it. */
export function newVersion(house: House, account: Account, id: string, reason: string): Draft | Refusal {
	return inTransaction(house.db, () => {
		const no = notPermitted(house.db, account, 'change', 'packet', id);
		if (no) return no;
		const before = packetState(house.db, id);
		if (before.status === 'none') return refuse('no-packet', 'There is no such packet.');
		if (before.status === 'completed')
			return refuse('completed', 'This has been completed; nothing can be changed any more.');
		if (isOpen(before)) {
			const gone = withdraw(house, account, id, reason);
			if (isRefusal(gone)) return gone;
		}
		const sent = unveil(house.db, planLookup(house.db)(before.planDigest));
		const plan: Plan = {
			...sent,
			follows: id,
			...(before.folder && { sending: { ...sent.sending, folder: before.folder } })
		};
		return newDraft(house, account, plan);
	});
}
