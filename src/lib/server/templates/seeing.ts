import type { Account } from '../accounts';

/** Which templates an account may see: a condition on `templates t`, with @me and @all (1 for owners of the office). */
export const MAY_SEE = `(t.owner = @me OR @all = 1 OR t.shared = 'office' OR (t.shared = 'chosen'
	AND EXISTS (SELECT 1 FROM template_shares s WHERE s.template = t.id AND s.account = @me)))`;

export const seer = (account: Account) => ({ me: account.id, all: account.level === 'owner' ? 1 : 0 });
