import { sameJson } from '../../core/audit';
import { senderAnswers } from '../../core/field';
import {
	addressOf,
	groundOf,
	isOpen,
	localeOf,
	personIn,
	phoneOf,
	presentPlan,
	rebased,
	type Correcting,
	type Plan,
	type SentPacket
} from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { notPermitted } from '../access';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import { holidayList } from '../holidays';
import type { House } from '../house';
import { organisation } from '../settings';
import { act, freezePlan, office, packetState } from './act';
import { commissionFaultOf } from '../notary/notaries';
import { unlikePart } from '../papers';
import { CHANGED, dropDraft, newDraft, NO_DRAFT, readDraft, type Draft } from './drafts';
import { trimmed, unprintablePart } from './sending';
import { revokeLinks } from './links';
import { unveil, veil } from './private-words';

/** Corrections of packets that are out. Each is a draft that names its packet; its base is the plan it stands on. */

/**
 * Shuts the packet and opens its correction: the one that was begun before, taken over to what holds now, or a new one.
 */
export function beginCorrection(house: House, account: Account, packet: string): Draft | Refusal {
	return inTransaction(house.db, () => {
		const no = notPermitted(house.db, account, 'change', 'packet', packet);
		if (no) return no;
		const shut = act(house, packet, office(account), { do: 'beginCorrection' });
		if (isRefusal(shut)) return shut;
		if (!isOpen(shut)) return ENDED;
		const present = unveil(house.db, presentPlan(shut));
		const begun = correctionOf(house, packet);
		if (!begun) return newDraft(house, account, present, { base: freezePlan(house.db, present), corrects: packet });
		const base = begun.base ?? present;
		if (sameJson(base, present)) return begun;
		house.db
			.prepare('UPDATE drafts SET plan = ?, base = ?, revision = revision + 1 WHERE id = ?')
			.run(JSON.stringify(rebased(base, begun.plan, present)), freezePlan(house.db, present), begun.id);
		return readDraft(house, begun.id)!;
	});
}

const ENDED = refuse('ended', 'This packet has ended, so it can’t be put right any more.');

/** The correction of a packet that is being made, or was left lying when its time ran out. */
export function correctionOf(house: House, packet: string): Draft | null {
	const id = correctionId(house, packet);
	return id === null ? null : readDraft(house, id);
}

/** The same by its draft's id alone, for whoever only has to know that there is one. */
export function correctionId(house: House, packet: string): string | null {
	return house.db.prepare<[string], { id: string }>('SELECT id FROM drafts WHERE corrects = ?').get(packet)?.id ?? null;
}

/** What the Bench has to know to keep a correction within its bounds. */
export function correctingOf(house: House, draft: Draft): Correcting | null {
	if (draft.corrects === null) return null;
	const packet = packetState(house.db, draft.corrects);
	if (packet.status === 'none') return null;
	return {
		packet: packet.packet,
		reference: packet.reference,
		ground: isOpen(packet)
			? groundOf({ ...packet, plan: unveil(house.db, packet.plan) }, organisation(house.db).exchange === true)
			: null,
		until: packet.correcting?.until ?? null,
		by: packet.correcting?.by ?? '',
		ended: !isOpen(packet)
	};
}

/** A change was saved: the packet stays shut from now. @returns until when, or null where it is open already */
export function goOnCorrecting(house: House, account: Account, packet: string): string | null {
	const on = act(house, packet, office(account), { do: 'goOnCorrecting' });
	return isRefusal(on) ? null : (on.correcting?.until ?? null);
}

/** Leaves it as it was: the packet opens unchanged and the correction is gone. */
export function leaveCorrection(house: House, account: Account, id: string): Refusal | null {
	return inTransaction(house.db, () => {
		const packet = readDraft(house, id)?.corrects;
		if (!packet) return NO_DRAFT;
		// one that has ended, or is open again, has nothing to be opened
		act(house, packet, office(account), { do: 'leaveCorrection' });
		dropDraft(house, id);
		return null;
	});
}

/** A correction whose packet has ended becomes a draft of its own, linked to it, so that its work is not lost. */
export function keepAsDraft(house: House, id: string): Draft | Refusal {
	return inTransaction(house.db, () => {
		const draft = readDraft(house, id);
		if (!draft?.corrects) return NO_DRAFT;
		house.db
			.prepare('UPDATE drafts SET corrects = NULL, base = NULL, plan = ?, revision = revision + 1 WHERE id = ?')
			.run(JSON.stringify({ ...draft.plan, follows: draft.corrects }), id);
		return readDraft(house, id)!;
	});
}

/**
 * The corrected plan takes the place of the one that was out. In the same transaction the links of those whose address
 * changed die, and so does every proof of a person of whom another one is asked now.
 */
export function sendCorrection(house: House, account: Account, id: string, revision: number): SentPacket | Refusal {
	return inTransaction(house.db, () => {
		const draft = readDraft(house, id);
		if (!draft?.corrects) return NO_DRAFT;
		if (draft.revision !== revision) return CHANGED;
		// it may have been moved to where they do nothing, since they began
		const not = notPermitted(house.db, account, 'change', 'packet', draft.corrects);
		if (not) return not;
		const before = packetState(house.db, draft.corrects);
		if (before.status === 'none' || !isOpen(before)) return ENDED;
		const plan = asSent(before, trimmed(draft.plan));
		const no = unprintablePart(house, plan) ?? unlikePart(house, plan) ?? commissionFaultOf(house, plan);
		if (no) return no;
		const frozen = veil(house.db, before.packet, plan);
		const corrected = act(house, before.packet, office(account), {
			do: 'correct',
			plan: frozen,
			planDigest: freezePlan(house.db, frozen),
			mayExchange: organisation(house.db).exchange === true,
			holidays: holidayList(house).map((one) => one.day)
		});
		if (isRefusal(corrected)) return corrected;
		for (const person of corrected.plan.people) shutOldWays(house, before, corrected, person.id);
		dropDraft(house, id);
		return corrected;
	});
}

/** What a correction can't touch at all stands as it did, and the sender's answers are made whole where they still may be. */
function asSent(packet: Extract<SentPacket, { status: 'out' | 'held' }>, wanted: Plan): Plan {
	const { from, follows, answers, amends } = presentPlan(packet);
	const { from: _from, follows: _follows, answers: _answers, amends: other, ...rest } = wanted;
	const finished = Object.values(packet.people).some((standing) => standing.is === 'done');
	return {
		...rest,
		...(from && { from }),
		...(follows && { follows }),
		// what it changes stays what it was; how, may be put right
		...(amends && { amends: other?.packet === amends.packet ? other : amends }),
		...(finished
			? answers && { answers }
			: {
					answers: senderAnswers(wanted, {
						person: packet.sender,
						now: packet.sentAt,
						zone: packet.zone,
						locale: localeOf(wanted)
					})
				})
	};
}

function shutOldWays(house: House, before: SentPacket, after: SentPacket, person: string): void {
	const was = personIn(before.plan, person);
	if (!was) return;
	if (addressOf(before, person) !== addressOf(after, person) || phoneOf(before, person) !== phoneOf(after, person))
		revokeLinks(house.db, after.packet, person, house.now());
	if (!sameJson(was.check, personIn(after.plan, person)?.check))
		house.db.prepare('DELETE FROM passes WHERE packet = ? AND person = ?').run(after.packet, person);
}
