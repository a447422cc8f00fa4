import type { Plan } from '../../core/packet';
import { refuse, type Refusal } from '../../core/refusal';
import type { Account } from '../accounts';
import type { House } from '../house';
import { planLookup } from '../packets/act';

/** Which templates an account may see: a condition on `templates t`, with @me and @all (1 for owners of the office). */
export const MAY_SEE = `(t.owner = @me OR @all = 1 OR t.shared = 'office' OR (t.shared = 'chosen'
	AND EXISTS (SELECT 1 FROM template_shares s WHERE s.template = t.id AND s.account = @me)))`;

export const seer = (account: Account) => ({ me: account.id, all: account.level === 'owner' ? 1 : 0 });

/** The plan of a version as packets are made from it, naming it. Refuses `no-template` for one this account may not use. */
export function planOfVersion(house: House, account: Account, template: string, version: number): Plan | Refusal {
	const row = house.db
		.prepare<Record<string, string | number>, { plan: string }>(
			`SELECT v.plan FROM template_versions v JOIN templates t ON t.id = v.template
			 WHERE v.template = @template AND v.version = @version AND ${MAY_SEE}`
		)
		.get({ template, version, ...seer(account) });
	return row
		? { ...planLookup(house.db)(row.plan), from: [{ template, version }] }
		: refuse('no-template', 'This template is gone, or not shared with you.');
}
