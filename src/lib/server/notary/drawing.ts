import { dayIn } from '../../core/calendar';
import { actText } from '../../core/notary';
import { actFields, drawnPlan, localeOf, type Field, type PageAdded, type SentPacket } from '../../core/packet';
import { fromShown, keepOnPage, toShown, type PageSize } from '../../core/page';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { beforeNotary, notaryIn } from '../../core/route';
import { takeInInWorker, withPageInWorker } from '../../press';
import { readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';
import { act, freezePlan, packetState } from '../packets/act';
import { NOBODY } from '../packets/somebody';
import { checkLetters } from '../packets/marks';
import { keepTaken } from '../papers';
import type { Visitor } from '../signing/visit';
import { notaryOfPlan } from './notaries';
import { showPage } from './talk';

/** The act: its text with the notary's seal, on a page that has room for it or on one of its own at the end. */

/** Where it is to stand, points of the page as it is stored; null: on a page of its own. */
export type ActPlace = { paper: string; page: number; rect: Field['rect'] } | null;

/** The text as the notary may put it, from what is known now. */
export function proposedText(house: House, packet: SentPacket): string {
	const { plan, session } = packet;
	const notary = notaryOfPlan(house.db, plan);
	const asked = notaryIn(plan)?.notary;
	if (!notary || !asked) return '';
	return actText({
		act: asked.act,
		people: beforeNotary(plan)
			.filter(({ id }) => packet.people[id]?.is === 'done')
			.map(({ id, name }) => ({ name, how: session.confirmed[id] ?? '' })),
		notary: { ...notary, until: dayIn(packet.zone, `${notary.until}T12:00:00Z`, localeOf(plan)) },
		venue: notary.venue,
		day: dayIn(packet.zone, house.now().toISOString(), localeOf(plan)),
		title: plan.title,
		pages: plan.papers.reduce((sum, paper) => sum + paper.pages.length, 0)
	});
}

export const NO_PAGE = refuse('no-page', 'That page is not part of this.');

/** A place that reaches over the edge of its page, moved on to it. */
export const broughtOn = (page: PageSize, rect: Field['rect']): Field['rect'] =>
	fromShown(page, keepOnPage(page, toShown(page, rect)));

/** Margins and height of the act on a page of its own, in points. */
const OWN = { side: 60, top: 80, height: 240 };

export async function drawUp(
	house: House,
	{ packet, person }: Visitor,
	text: string,
	place: ActPlace
): Promise<SentPacket | Refusal> {
	const no = checkLetters(text, 'text');
	if (no) return no;
	const seal = notaryOfPlan(house.db, packet.plan)?.seal ?? null;
	const page = place ? null : await ownPage(house, packet);
	if (page && isRefusal(page)) return page;
	return inTransaction(house.db, () => {
		// others may have gone on while a page was made
		const now = packetState(house.db, packet.packet);
		if (now.status === 'none') return NOBODY;
		if (page?.added) keepTaken(house, page.taken!, { differ: [], blank: [], hidden: [] });
		const where = place ?? page!.place;
		const there = now.plan.papers.find((one) => one.id === where.paper)?.pages[where.page] ?? page?.added?.page;
		if (!there) return NO_PAGE;
		const rect = broughtOn(there, where.rect);
		const fields = actFields({ ...where, rect }, text.trim(), seal, place ? 9 : 11);
		return act(
			house,
			packet.packet,
			{ kind: 'person', person: person.id },
			{
				do: 'drawAct',
				person: person.id,
				plan: freezePlan(house.db, drawnPlan(now.plan, fields, page?.added)),
				fields,
				text,
				...(page?.added && { added: page.added })
			},
			{ also: () => showPage(house, packet.packet, where) }
		);
	});
}

/** A page at the end of the last document, of the size of the one before it; the one that was added earlier is used again. */
async function ownPage(house: House, { plan, session }: SentPacket) {
	const paper = plan.papers.at(-1)!;
	const last = paper.pages.at(-1)!;
	const rect = {
		x: OWN.side,
		y: last.height - OWN.top - OWN.height,
		width: Math.max(120, last.width - 2 * OWN.side),
		height: OWN.height
	};
	if (session.added) return { place: { ...session.added, rect }, added: undefined, taken: undefined };
	const longer = await withPageInWorker({
		paper: new Uint8Array(readBlob(house.db, paper.digest)!.bytes),
		width: last.width,
		height: last.height
	});
	const taken = await takeInInWorker(longer);
	if (isRefusal(taken)) return taken;
	const added: PageAdded = {
		paper: paper.id,
		was: paper.digest,
		now: taken.digest,
		page: { width: last.width, height: last.height, rotate: 0 }
	};
	return { place: { paper: paper.id, page: paper.pages.length, rect }, added, taken };
}
