import type { Amends } from '../../core/amend';
import { isoDay } from '../../core/calendar';
import { emptyPlan, isOpen, termEndOf, type Paper, type Plan, type SentPacket } from '../../core/packet';
import { dayOf } from '../../core/rule';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { stampedPaperInWorker } from '../../press';
import { notPermitted } from '../access';
import type { Account } from '../accounts';
import { readBlob } from '../blobs';
import type { House } from '../house';
import { packetState } from '../packets/act';
import { newDraft, type Draft } from '../packets/drafts';
import { stampsOf } from '../packets/marks';
import { unveil } from '../packets/private-words';
import { addPaper } from '../papers';
import { chainOfPacket } from './chain';

/** Beginning to change what was completed: a draft on the pages as they were sealed, for those who signed them. */

export interface AmendWish {
	does: Amends['does'];
	/** of what ends or goes on: the last day, ISO 8601 */
	day?: string;
	why?: string;
}

/**
 * A draft that changes what holds now: the packet itself, or the last amendment of it. Refuses what was not completed, what is being
 * sealed, and a second amendment while one is out.
 */
export async function beginAmendment(
	house: House,
	account: Account,
	id: string,
	wish: AmendWish
): Promise<Draft | Refusal> {
	const { order, holds } = chainOfPacket(house.db, id);
	if (packetState(house.db, id).status === 'none')
		return refuse('no-packet', 'It is not here any more, so there is nothing that could be changed.');
	const packet = holds ? packetState(house.db, holds.id) : { status: 'none' as const };
	if (!holds || packet.status !== 'completed')
		return refuse(
			'not-complete',
			'Only what everybody has completed is amended. What has ended otherwise is sent anew.'
		);
	const no = notPermitted(house.db, account, 'change', 'packet', holds.id);
	if (no) return no;
	if (packet.evidence === null)
		return refuse('being-sealed', 'Its copies are being sealed just now. Try again when they are there.');
	const out = order.find((link) => link.status === 'out' || link.status === 'held');
	if (out)
		return refuse(
			'amendment-out',
			`${out.reference} changes it already and is still out. Put that one right, or withdraw it first.`
		);
	if (wish.does !== 'changes' && !dayOf(wish.day ?? ''))
		return refuse('day-bad', 'Say the last day on which it holds.', 'day');
	const papers: Paper[] = [];
	for (const paper of packet.plan.papers) {
		const taken = await asItWasSealed(house, packet, paper);
		if (isRefusal(taken)) return taken;
		papers.push(taken);
	}
	const number = order.filter((link) => link.amends !== null && link.status === 'completed').length + 1;
	return newDraft(house, account, amendingPlan(house, packet, papers, number, wish));
}

/** Its pages with all that was answered on them, as a document of their own. */
async function asItWasSealed(
	house: House,
	packet: SentPacket & { at: string },
	paper: Paper
): Promise<Paper | Refusal> {
	const stamps = stampsOf(house.db, packet.plan, packet.answers, paper.id, isoDay(packet.zone, packet.at));
	const bytes = await stampedPaperInWorker({ paper: readBlob(house.db, paper.digest)!.bytes, stamps });
	const taken = await addPaper(house, `${paper.name}.pdf`, bytes);
	if (isRefusal(taken)) return taken;
	if ('attached' in taken) return refuse('pdf-signed', taken.why);
	return { id: paper.id, name: paper.name, digest: taken.digest, pages: taken.pages };
}

function amendingPlan(
	house: House,
	packet: Extract<SentPacket, { status: 'completed' }>,
	papers: Paper[],
	number: number,
	wish: AmendWish
): Plan {
	const before = unveil(house.db, packet.plan);
	const signed = new Set(
		before.people.filter(({ id, duty }) => duty === 'signs' && packet.people[id]?.is === 'done').map(({ id }) => id)
	);
	const told = new Set(before.people.filter(({ duty }) => duty === 'gets a copy').map(({ id }) => id));
	const stops = before.stops
		.map((stop) => ({ id: stop.id, people: stop.people.filter((id) => signed.has(id) || told.has(id)) }))
		.filter((stop) => stop.people.length > 0);
	const people = before.people
		.filter(({ id }) => signed.has(id) || told.has(id))
		.map(({ id, name, email, duty, organisation, jobTitle, role, locale, phone, deliver, check, identity }) => ({
			id,
			name,
			email: packet.addresses[id] ?? email,
			duty,
			...(organisation !== undefined && { organisation }),
			...(jobTitle !== undefined && { jobTitle }),
			...(role !== undefined && { role }),
			...(locale !== undefined && { locale }),
			...(phone !== undefined && { phone: packet.phones[id] ?? phone }),
			// whoever signed in front of somebody is written to this time
			...(deliver !== undefined && deliver !== 'in person' && { deliver }),
			...(check !== undefined && { check }),
			...(identity !== undefined && { identity })
		}));
	const notice = noticeFault(house, packet, wish);
	return {
		...emptyPlan(),
		title: `Amendment ${number} to ${originalTitle(packet)}`,
		papers,
		people,
		stops,
		...(before.locale && { locale: before.locale }),
		sending: {
			...(packet.type && { type: packet.type }),
			...(packet.folder && { folder: packet.folder }),
			...(wish.does === 'renews' && before.sending?.term && { term: before.sending.term })
		},
		amends: {
			packet: packet.packet,
			reference: packet.reference,
			title: originalTitle(packet),
			number,
			does: wish.does,
			...(wish.day && wish.does !== 'changes' && { day: wish.day }),
			...(wish.why?.trim() && { why: wish.why.trim() }),
			...(notice && { notice }),
			parties: people.filter(({ duty }) => duty === 'signs').map(({ id, name }) => ({ id, name })),
			papers: papers.map(({ digest }) => digest),
			changes: []
		}
	};
}

const originalTitle = ({ plan }: SentPacket): string => plan.amends?.title ?? plan.title;

/** Until when notice would have had to be given for that day, where it has passed; from the notice that the term has. */
function noticeFault(house: House, packet: SentPacket, { does, day }: AmendWish): string | null {
	const days = packet.plan.sending?.term?.notice;
	if (does !== 'ends' || !day || !days || isOpen(packet)) return null;
	if (termEndOf(packet) === day) return null;
	const due = new Date(Date.parse(day) - days * 86_400_000).toISOString().slice(0, 10);
	return due < isoDay(packet.zone, house.now().toISOString()) ? due : null;
}

/**
 * Whether a plan may be sent as the amendment that it says it is: of a packet that this account may change, that was completed, and that
 * nothing else has changed or is about to.
 */
export function amendsFault(house: House, account: Account, plan: Plan): Refusal | null {
	if (!plan.amends) return null;
	const { order, holds } = chainOfPacket(house.db, plan.amends.packet);
	const no = notPermitted(house.db, account, 'change', 'packet', plan.amends.packet);
	if (no) return no;
	if (!holds || !order.some((link) => link.id === plan.amends!.packet))
		return refuse('no-packet', 'What this would change is not here any more, or was never completed.');
	if (holds.id !== plan.amends.packet)
		return refuse(
			'amended-meanwhile',
			`${holds.reference} has changed it meanwhile. Begin the amendment from that one.`
		);
	const out = order.find((link) => link.amends === holds.id && (link.status === 'out' || link.status === 'held'));
	return out ? refuse('amendment-out', `${out.reference} changes it already and is still out.`) : null;
}
