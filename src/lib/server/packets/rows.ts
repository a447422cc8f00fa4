import type { Thread } from '../../core/packet';
import type { Db } from '../db';
import type { Derived } from './read-tables';

/** A packet as a list shows it. */
export interface PacketRow extends Pick<
	Derived,
	'title' | 'status' | 'folder' | 'template' | 'sentAt' | 'since' | 'deadline' | 'shutUntil' | 'endedAt' | 'thread'
> {
	id: string;
	reference: string;
	/** the account that has sent it */
	owner: string;
	/** its name */
	sender: string;
}

export interface KeptRow extends Omit<PacketRow, 'thread'> {
	thread: string;
}

/** What is read of `packets p` for a row. */
export const ROW_COLUMNS =
	'p.id, p.reference, p.title, p.status, p.folder, p.template, p.owner, p.sent_at AS sentAt, p.since, p.deadline, p.shut_until AS shutUntil, p.ended_at AS endedAt, p.thread, (SELECT a.name FROM accounts a WHERE a.id = p.owner) AS sender';

/** How many rows a list shows at once. */
export const PAGE = 50;

export function rowOf<T extends KeptRow>(row: T): Omit<T, 'thread'> & { thread: Thread } {
	return { ...row, thread: JSON.parse(row.thread) as Thread };
}

/** The rows of these packets, in the order of their ids here. */
export function rowsOf(db: Db, ids: string[]): PacketRow[] {
	const one = db.prepare<[string], KeptRow>(`SELECT ${ROW_COLUMNS} FROM packets p WHERE p.id = ?`);
	return ids.flatMap((id) => one.all(id)).map(rowOf);
}
