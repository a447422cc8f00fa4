import type { Likely, Thread } from '../../core/packet';
import type { Db } from '../db';
import type { Derived } from './read-tables';

/** A packet as a list shows it. */
export interface PacketRow extends Pick<
	Derived,
	| 'title'
	| 'status'
	| 'folder'
	| 'type'
	| 'put'
	| 'putAt'
	| 'amendedBy'
	| 'template'
	| 'sentAt'
	| 'since'
	| 'deadline'
	| 'shutUntil'
	| 'endedAt'
	| 'thread'
> {
	id: string;
	reference: string;
	/** the account that has sent it */
	owner: string;
	/** its name */
	sender: string;
	ownReference: string;
	/** the last day of the agreement; null: none, or not yet known */
	termEnd: string | null;
	/** what the template was called then */
	templateTitle: string;
	/** bytes of the sealed copies and the evidence sheet */
	size: number;
	/** the last day on which it is kept; null: for as long as nobody bins it */
	keptUntil: string | null;
	/** when it will likely be done; null: it is over, or nobody has reckoned it yet */
	likely: Likely | null;
}

export interface KeptRow extends Omit<PacketRow, 'thread' | 'likely'> {
	thread: string;
	likely: string;
	unusual: string;
}

/** What is read of `packets p` for a row. */
export const ROW_COLUMNS =
	'p.id, p.reference, p.title, p.status, p.folder, p.type, p.put, p.put_at AS putAt, p.amended_by AS amendedBy, p.template, p.own_reference AS ownReference, p.term_end AS termEnd, p.template_title AS templateTitle, p.size, p.kept_until AS keptUntil, p.owner, p.sent_at AS sentAt, p.since, p.deadline, p.shut_until AS shutUntil, p.ended_at AS endedAt, p.thread, p.likely, p.unusual, (SELECT a.name FROM accounts a WHERE a.id = p.owner) AS sender';

/** How many rows a list shows at once. */
export const PAGE = 50;

export function rowOf<T extends KeptRow>({ thread, likely, unusual, ...row }: T) {
	return { ...row, thread: JSON.parse(thread) as Thread, likely: likelyIn(likely, unusual) };
}

/** What a row says of when its packet will likely be done; null where nobody has reckoned it. */
export function likelyIn(likely: string, unusual: string): Likely | null {
	if (likely === '') return null;
	return { ...(JSON.parse(likely) as Omit<Likely, 'unusual'>), unusual: Number(unusual) };
}

/** The rows of these packets, in the order of their ids here. */
export function rowsOf(db: Db, ids: string[]): PacketRow[] {
	const one = db.prepare<[string], KeptRow>(`SELECT ${ROW_COLUMNS} FROM packets p WHERE p.id = ?`);
	return ids.flatMap((id) => one.all(id)).map(rowOf);
}
