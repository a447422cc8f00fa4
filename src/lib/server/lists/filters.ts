import { listAccounts, type Account } from '../accounts';
import { foldersFor, looker, MAY_SEE_PACKET } from '../folders';
import { NOTHING } from '../../core/folded';
import type { House } from '../house';
import { templateNames } from '../templates';

/** What a list of packets can be filtered by, apart from how long they wait. */
export interface FilterChoices {
	templates: { id: string; title: string }[];
	folders: string[];
	senders: { id: string; name: string }[];
	/** what is in the records has been sorted by */
	types: string[];
}

/** So many templates are offered, the last used first. */
const MOST = 200;

/** The choices this account has: no template or folder that it may not see. */
export const filterChoices = (house: House, account: Account): FilterChoices => ({
	templates: account.level === 'viewer' ? [] : templateNames(house, account, { most: MOST }),
	folders: foldersFor(house, account),
	senders: listAccounts(house).map(({ id, name }) => ({ id, name })),
	types: typesIn(house, account)
});

const MOST_TYPES = 60;

/** The types of what stands in the records, from one to the next along their index; each as the last packet has it that may be seen. */
export function typesIn(house: House, account: Account): string[] {
	const next = house.db.prepare<[string, string], { value: string }>(
		"SELECT value FROM packet_order WHERE put = '' AND sort = 'type' AND value > ? AND value < ? ORDER BY value LIMIT 1"
	);
	const called = house.db
		.prepare<object, string>(
			`SELECT p.type FROM packet_order o CROSS JOIN packet_numbers m ON m.n = o.n CROSS JOIN packets p ON p.id = m.packet
			 WHERE o.put = '' AND o.sort = 'type' AND o.value = @value AND ${MAY_SEE_PACKET} ORDER BY o.n DESC LIMIT 1`
		)
		.pluck();
	const seen = looker(house.db, account);
	const found: string[] = [];
	let at = '';
	for (let i = 0; i < MOST_TYPES; i += 1) {
		const one = next.get(at, NOTHING);
		if (!one) break;
		at = one.value;
		const type = called.get({ ...seen, value: at });
		if (type) found.push(type);
	}
	return found;
}
