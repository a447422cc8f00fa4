import type { Account } from './accounts';
import type { House } from './house';
import { listSettings } from './lists';
import { isNamed } from './settings';

/** The way from an empty Pellum to a first packet, for its owner; each thing is ticked by what is there, not by a click. */
export interface FirstSteps {
	named: boolean;
	prepared: boolean;
	sent: boolean;
	sealed: boolean;
}

/** Where a list of first steps is kept as put away, among what an account has put away of the Desk. */
export const STEPS = 'steps';

/** Null for everybody but owners, once all is done, or where it has been put away. */
export function firstSteps(house: House, account: Account): FirstSteps | null {
	if (account.level !== 'owner' || listSettings(house, account, 'desk').hidden.includes(STEPS)) return null;
	const { db } = house;
	const sealed = db.prepare("SELECT 1 FROM packet_counts WHERE status = 'completed' AND n > 0").get() !== undefined;
	if (sealed) return null;
	const sent = db.prepare('SELECT 1 FROM packet_counts WHERE n > 0').get() !== undefined;
	const drafted = db
		.prepare<[string]>('SELECT 1 FROM drafts INDEXED BY drafts_by_owner WHERE owner = ? AND binned_at IS NULL LIMIT 1')
		.get(account.id);
	return { named: isNamed(db), prepared: sent || drafted !== undefined, sent, sealed };
}
