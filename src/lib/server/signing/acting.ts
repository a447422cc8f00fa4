import { canonicalJson } from '../../core/audit';
import type { Answers } from '../../core/field';
import type { Commission } from '../../core/notary';
import type { From, Names, SentPacket } from '../../core/packet';
import { isRefusal, type Refusal } from '../../core/refusal';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId, sha256Text } from '../ids';
import { act } from '../packets/act';
import { enterInJournal } from '../notary/journal';
import { newLink, revokeLinks } from '../packets/links';
import { checkLetters, checkPrintable } from '../packets/marks';
import { veilNames } from '../packets/private-words';
import { caseFault } from '../intakes';
import { forgetSaved, notHandedIn } from './keeping';
import { unproved, type Visitor } from './visit';

/** What a person does on the signing page that counts. */

const asPerson = ({ person }: Visitor) => ({ kind: 'person', person: person.id }) as const;

/** Finishes for this person. Pressed twice it is done once. */
export function finish(
	house: House,
	visitor: Visitor,
	given: Answers,
	from: From,
	{
		names = {},
		guests = {},
		commission
	}: { names?: Names; guests?: Record<string, string>; commission?: Commission } = {}
): SentPacket | Refusal {
	const { packet, person } = visitor;
	const no =
		unproved(visitor) ??
		notHandedIn(house, visitor, given) ??
		caseFault(house, packet, person.id, given) ??
		checkPrintable(house.db, packet.plan, given) ??
		unprintableName(names);
	if (no) return no;
	const shown = sha256Text(
		canonicalJson({
			plan: packet.planDigest,
			papers: packet.plan.papers.map((p) => p.digest),
			earlier: packet.answers,
			own: given
		})
	);
	return act(
		house,
		packet.packet,
		asPerson(visitor),
		{
			do: 'finish',
			person: person.id,
			answers: given,
			names: veilNames(house.db, packet.packet, names),
			guests,
			shown,
			from,
			...(commission && { commission })
		},
		{ also: () => forgetSaved(house, packet.packet, person.id) }
	);
}

function unprintableName(names: Names): Refusal | null {
	for (const [id, { name }] of Object.entries(names)) {
		const no = checkLetters(name, id);
		if (no) return no;
	}
	return null;
}

export function decline(house: House, visitor: Visitor, reason: string, from: From): SentPacket | Refusal {
	return (
		unproved(visitor) ??
		act(
			house,
			visitor.packet.packet,
			asPerson(visitor),
			{ do: 'decline', person: visitor.person.id, reason: reason.trim(), from },
			{
				also: (ended) => {
					// what a notary won't do stands in their journal
					if (visitor.person.duty === 'notarises') enterInJournal(house, ended, reason.trim());
				}
			}
		)
	);
}

/** The old links die in the same transaction, and what was entered is not passed on. */
export function handOver(
	house: House,
	visitor: Visitor,
	to: { name: string; email: string; why: string },
	from: From
): SentPacket | Refusal {
	const { packet, person } = visitor;
	const no = unproved(visitor) ?? checkLetters(to.name, 'name');
	if (no) return no;
	return inTransaction(house.db, () => {
		const done = act(house, packet.packet, asPerson(visitor), { do: 'handOver', person: person.id, ...to, from });
		if (isRefusal(done)) return done;
		revokeLinks(house.db, packet.packet, person.id, house.now(), to.name.trim());
		forgetSaved(house, packet.packet, person.id);
		return done;
	});
}

export function askWording(
	house: House,
	visitor: Visitor,
	wish: { paper: string; page: number; words: string; instead: string; why: string },
	from: From
): SentPacket | Refusal {
	return (
		unproved(visitor) ??
		act(house, visitor.packet.packet, asPerson(visitor), {
			do: 'askWording',
			person: visitor.person.id,
			id: newId(house.now()),
			...wish,
			from
		})
	);
}

/** They have been shown what was corrected since they opened it. */
export function noteShown(house: House, visitor: Visitor, from: From): SentPacket | Refusal {
	return (
		unproved(visitor) ??
		act(house, visitor.packet.packet, asPerson(visitor), { do: 'noteShown', person: visitor.person.id, from })
	);
}

/** How long a guest's link on the host's device holds. */
const GUEST_HOURS = 2;

/** The host hands the device to a guest: a link of the guest's own, for a while. */
export function handDevice(house: House, visitor: Visitor, guest: string, from: From): { token: string } | Refusal {
	const no = unproved(visitor);
	if (no) return no;
	return inTransaction(house.db, () => {
		const done = act(house, visitor.packet.packet, asPerson(visitor), {
			do: 'handDevice',
			person: visitor.person.id,
			guest,
			from
		});
		return isRefusal(done)
			? done
			: { token: newLink(house.db, visitor.packet.packet, guest, house.now(), GUEST_HOURS) };
	});
}

/** Somebody with nothing to do looks at their copy: once in the record. */
export function lookAtCopy(house: House, visitor: Visitor, from: From): void {
	if (visitor.proved && visitor.person.duty === 'gets a copy')
		act(house, visitor.packet.packet, asPerson(visitor), { do: 'lookAtCopy', person: visitor.person.id, from });
}
