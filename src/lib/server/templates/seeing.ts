import type { Account } from '../accounts';
import type { Db } from '../db';
import { closedTo } from '../folders';

/**
 * Which templates an account may see: a condition on `templates t`, with @me, @all (1 for owners of the office) and the closed
 * folders in which they don't prepare.
 */
export const MAY_SEE = `(t.owner = @me OR @all = 1
	OR (t.shared = 'office' AND t.folder NOT IN (SELECT value FROM json_each(@closed)))
	OR (t.shared = 'chosen' AND EXISTS (SELECT 1 FROM template_shares s WHERE s.template = t.id AND s.account = @me)))`;

export function seer(db: Db, account: Account): { me: string; all: number; closed: string } {
	const closed = JSON.stringify(closedTo(db, account, 'prepares'));
	return { me: account.id, all: account.level === 'owner' ? 1 : 0, closed };
}
