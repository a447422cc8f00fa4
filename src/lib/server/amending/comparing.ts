import { differences, type Difference } from '../../core/amend';
import { refuse, type Refusal } from '../../core/refusal';
import { permitted } from '../access';
import type { Account } from '../accounts';
import type { House } from '../house';
import { packetState } from '../packets/act';
import { wordsOfPaper } from '../papers';

/** Two documents of the office held against each other, word by word. */

export interface Compared {
	/** what each is called: the packet's title and reference */
	sides: { id: string; title: string; reference: string; papers: { id: string; name: string }[]; paper: string }[];
	differences: Difference[];
	/** there were more than are shown */
	more: number;
}

const MOST = 400;

/** @param wanted packet and document, two of them; the first document where none is named */
export function comparePapers(
	house: House,
	account: Account,
	wanted: readonly { packet: string; paper: string }[]
): Compared | Refusal {
	const sides: Compared['sides'] = [];
	const texts: string[][][] = [];
	for (const { packet, paper } of wanted) {
		const state = packetState(house.db, packet);
		if (state.status === 'none' || !permitted(house.db, account, 'see', 'packet', packet))
			return refuse('no-packet', 'One of the two is not here any more, or not for you to see.');
		const { papers, title } = state.plan;
		const one = papers.find(({ id }) => id === paper) ?? papers.find(({ id }) => id !== state.plan.amends?.summary);
		if (!one) return refuse('no-paper', `“${title}” has no document of its own.`);
		sides.push({
			id: packet,
			title,
			reference: state.reference,
			papers: papers.map(({ id, name }) => ({ id, name })),
			paper: one.id
		});
		texts.push(wordsOfPaper(house, one.digest).map((page) => page.map((word) => word.text)));
	}
	const found = differences(texts[0] ?? [], texts[1] ?? []);
	return { sides, differences: found.slice(0, MOST), more: Math.max(0, found.length - MOST) };
}
