import { amendmentInWords } from '../../core/amend';
import { isoDay, momentIn } from '../../core/calendar';
import type { SentPacket } from '../../core/packet';
import { refuse, type Refusal } from '../../core/refusal';
import { readingCopyInWorker, stampedPaperInWorker } from '../../press';
import { permitted } from '../access';
import type { Account } from '../accounts';
import { readBlob } from '../blobs';
import type { House } from '../house';
import { packetState } from '../packets/act';
import { stampsOf } from '../packets/marks';
import { organisation } from '../settings';
import { chainOfPacket } from './chain';

/** What holds now, as one document to be read: the pages of the last amendment, on which all changes stand, and what it was made from. */
export async function whatHolds(
	house: House,
	account: Account,
	id: string
): Promise<{ name: string; bytes: Uint8Array } | Refusal> {
	const { order, holds } = chainOfPacket(house.db, id);
	const last = holds ? packetState(house.db, holds.id) : { status: 'none' as const };
	if (!holds || last.status !== 'completed') return refuse('not-complete', 'Nothing of this has been completed.');
	// it may lie in another folder than what was asked about
	const unseen = order.find((link) => !permitted(house.db, account, 'see', 'packet', link.id));
	if (unseen) return refuse('not-yours', 'Part of what holds lies in a folder that you don’t see into.');
	const papers: Uint8Array[] = [];
	for (const paper of last.plan.papers) {
		const stamps = stampsOf(house.db, last.plan, last.answers, paper.id, isoDay(last.zone, last.at));
		papers.push(await stampedPaperInWorker({ paper: readBlob(house.db, paper.digest)!.bytes, stamps }));
	}
	const parts = order
		.map((link) => packetState(house.db, link.id))
		.filter((state): state is Extract<SentPacket, { status: 'completed' }> => state.status === 'completed');
	const title = last.plan.amends?.title ?? last.plan.title;
	const bytes = await readingCopyInWorker({
		heading: `What holds as of ${last.reference}`,
		title,
		organisation: organisation(house.db).name,
		at: house.now().toISOString(),
		chain: parts.map((state) => ({
			reference: state.reference,
			what: state.plan.amends ? `amendment ${state.plan.amends.number}` : 'what was agreed first',
			when: momentIn(state.zone, state.at),
			changes: state.plan.amends ? amendmentInWords({ papers: state.plan.papers, amends: state.plan.amends }) : [],
			digests: state.plan.papers.flatMap(({ id: paper, name }) =>
				state.sealed[paper] ? [{ name, digest: state.sealed[paper]! }] : []
			)
		})),
		papers
	});
	return { name: `${title} as it holds.pdf`, bytes };
}
