import { mayIn, type Power } from '../../core/access';
import type { Account } from '../accounts/levels';
import type { Db } from '../db';
import { membersOf } from './store';

/**
 * That an account may see a packet: a condition on `packets p`, with what {@link looker} gives. The same as `may(…, 'see', …)` of
 * core/access, asked of a whole list at once.
 */
export const MAY_SEE_PACKET = `(p.folder NOT IN (SELECT value FROM json_each(@hidden)) OR p.owner = @me
	OR EXISTS (SELECT 1 FROM packet_people x INDEXED BY people_packets WHERE x.email = @email COLLATE NOCASE AND x.packet = p.id))`;

/** The closed folders in which an account hasn't got this power. */
export function closedTo(db: Db, account: Account, least: Power): string[] {
	if (account.level === 'owner') return [];
	return db
		.prepare<[], string>('SELECT name FROM folders WHERE open = 0')
		.pluck()
		.all()
		.filter((name) => !mayIn(account, least, membersOf(db, name)));
}

export function looker(db: Db, account: Account): { me: string; email: string; hidden: string } {
	return { me: account.id, email: account.email, hidden: JSON.stringify(closedTo(db, account, 'sees')) };
}
