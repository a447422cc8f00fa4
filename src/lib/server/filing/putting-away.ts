import { isOpen, type PutAway, type SentPacket } from '../../core/packet';
import { cutText, oneLine } from '../../core/clean-text';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { notPermitted, permitted } from '../access';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { act, office, packetState } from '../packets/act';
import { moveToFolder, withdraw } from '../packets/office';

/** Where packets lie: folder, type, archive, bin. One at a time, or many. */

export type Deed =
	| { do: 'archive'; reason?: string }
	| { do: 'bin'; reason?: string }
	| { do: 'restore' }
	| { do: 'folder'; folder: string }
	| { do: 'type'; type: string }
	/** null: as long as the rules say */
	| { do: 'keep'; until: string | null; why: string };

/**
 * Does it to one packet. What is out is withdrawn first, with the reason; refuses `reason-missing` without one.
 */
export function file(house: House, account: Account, id: string, deed: Deed): SentPacket | Refusal {
	const no = notPermitted(house.db, account, 'change', 'packet', id);
	if (no) return no;
	switch (deed.do) {
		case 'archive':
		case 'bin':
			return putAway(house, account, id, deed.do, deed.reason ?? '');
		case 'restore':
			return act(house, id, office(account), { do: 'restore' });
		case 'folder':
			return moveToFolder(house, account, id, deed.folder);
		case 'keep': {
			const judges = notPermitted(house.db, account, 'judge', 'packet', id);
			return judges ?? act(house, id, office(account), { do: 'keepUntil', until: deed.until, why: deed.why });
		}
		case 'type':
			return act(house, id, office(account), { do: 'nameType', type: cutText(oneLine(deed.type).trim(), 80) });
	}
}

function putAway(house: House, account: Account, id: string, to: PutAway, reason: string): SentPacket | Refusal {
	return inTransaction(house.db, () => {
		const before = packetState(house.db, id);
		if (before.status === 'none') return refuse('no-packet', 'There is no such packet.');
		if (isOpen(before)) {
			const gone = withdraw(house, account, id, reason);
			if (isRefusal(gone)) return gone;
		}
		return act(house, id, office(account), { do: 'putAway', to });
	});
}

/** What came of doing it to many: the ids for which it was done, and those that were refused with the sentence. */
export interface Filed {
	done: string[];
	refused: { id: string; title: string; say: string }[];
}

/** What a packet is called to whoever is told that something was refused: by its title only where they may see it. */
export function titleFor({ db }: House, account: Account | null, id: string): string {
	const title = db.prepare<[string], string>('SELECT title FROM packets WHERE id = ?').pluck().get(id);
	return title !== undefined && (account === null || permitted(db, account, 'see', 'packet', id)) ? title : 'A packet';
}

/** Each by itself: what one is refused for keeps nothing of the others from being done. Others get their turn between. */
export async function fileMany(house: House, account: Account, ids: readonly string[], deed: Deed): Promise<Filed> {
	const filed: Filed = { done: [], refused: [] };
	for (const [n, id] of [...new Set(ids)].entries()) {
		const done = file(house, account, id, deed);
		if (isRefusal(done)) filed.refused.push({ id, title: titleFor(house, account, id), say: done.say });
		else filed.done.push(id);
		if (n % 10 === 9) await new Promise((next) => setImmediate(next));
	}
	return filed;
}
