import type { Answers } from '../../core/field';
import {
	ASKED,
	exchangedPlan,
	type From,
	type PaperExchanged,
	type PlanPerson,
	type SentPacket
} from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { inkedPaperInWorker, takeInInWorker, type TakenInText } from '../../press';
import type { Account } from '../accounts';
import { readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';
import { keepTaken } from '../papers';
import { act, freezePlan, judgeOf, office, packetState } from '../packets/act';
import { NOBODY } from '../packets/somebody';
import { forgetSaved } from '../signing/keeping';
import { judged } from './judged';
import { picturesOf, pictureBytes, type OutKept, type PictureKept } from './store';

/** The scanned pages become the document: made first, since that takes a while, then taken with all that follows in one step. */

/** Who accepts it, and what they have confirmed; null where nothing was in doubt and it goes on by itself. */
export interface Accepting {
	account: Account | null;
	/** of fields that somebody has read by their own eyes */
	confirmed: Answers;
	note: string;
	from: From;
}

export async function takeForDocument(
	house: House,
	out: OutKept,
	{ account, confirmed, note, from }: Accepting
): Promise<SentPacket | Refusal> {
	const pictures = picturesOf(house.db, out.id);
	const { pages } = judged(out, pictures);
	const missing = pages.indexOf(null);
	if (missing >= 0) return refuse('page-missing', `Page ${missing + 1} is missing. Ask for it; the others are kept.`);
	const made: { paper: string; was: string; taken: TakenInText }[] = [];
	for (const { paper, digest } of out.papers) {
		const inked = await withInk(house, out, paper, digest, pages as string[], pictures);
		if (isRefusal(inked)) return inked;
		made.push({ paper, was: digest, taken: inked });
	}
	const papers: PaperExchanged[] = made.map(({ paper, was, taken }) => ({ paper, was, now: taken.digest }));
	return inTransaction(house.db, () => {
		// others may have gone on while it was made
		const packet = packetState(house.db, out.packet);
		if (packet.status === 'none') return NOBODY;
		const written = writtenOn(packet, out);
		for (const { taken } of made) keepTaken(house, taken, { differ: [], blank: [], hidden: [] });
		return act(
			house,
			out.packet,
			account ? office(account) : { kind: 'pellum' },
			{
				do: 'acceptReturn',
				person: out.person,
				out: out.id,
				papers,
				// whoever may see the packet may see its pages: a plan holds its files
				plan: freezePlan(house.db, exchangedPlan(packet.plan, papers, written)),
				written,
				answers: { ...out.typed, ...confirmed },
				note,
				from,
				...(account && { judge: judgeOf(account) })
			},
			{ also: () => forgetSaved(house, out.packet, out.person) }
		);
	});
}

/** One document with the pictures of its pages, taken in like any other. */
async function withInk(
	house: House,
	out: OutKept,
	paper: string,
	digest: string,
	pages: string[],
	seen: readonly PictureKept[]
) {
	const bytes = await inkedPaperInWorker({
		paper: new Uint8Array(readBlob(house.db, digest)!.bytes),
		pages: out.sheets.flatMap((sheet, number) => {
			const picture = pages[number]!;
			if (sheet.paper !== paper) return [];
			return [
				{
					page: sheet.page,
					jpeg: new Uint8Array(pictureBytes(house.db, out.id, picture, 'laid')!),
					words: seen.find((one) => one.id === picture)?.seen?.words ?? []
				}
			];
		})
	});
	return takeInInWorker(bytes);
}

/** What stands on those pages from now on: what was printed when they went out, and what this person wrote there. */
function writtenOn(packet: SentPacket, out: OutKept): string[] {
	const printed = new Set(out.papers.map((one) => one.paper));
	const places = new Set(out.sheets.flatMap((sheet) => sheet.places.map((place) => place.field)));
	return packet.plan.fields
		.filter((field) => field.paper !== ASKED && printed.has(field.paper) && field.kind !== 'attachment')
		.filter((field) => places.has(field.id) || out.stamped.includes(field.id))
		.map((field) => field.id);
}

/** From where it came, where nobody pressed a button for it. */
export const fromOf = (packet: SentPacket, person: PlanPerson): From => ({
	address: '',
	device: `paper of ${person.name}, ${packet.reference}`
});
