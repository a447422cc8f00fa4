import { listAccounts, type Account } from '../accounts';
import { foldersFor } from '../folders';
import type { House } from '../house';
import { templateNames } from '../templates';

/** What a list of packets can be filtered by, apart from how long they wait. */
export interface FilterChoices {
	templates: { id: string; title: string }[];
	folders: string[];
	senders: { id: string; name: string }[];
}

/** So many templates are offered, the last used first. */
const MOST = 200;

/** The choices this account has: no template or folder that it may not see. */
export const filterChoices = (house: House, account: Account): FilterChoices => ({
	templates: account.level === 'viewer' ? [] : templateNames(house, account, { most: MOST }),
	folders: foldersFor(house, account),
	senders: listAccounts(house).map(({ id, name }) => ({ id, name }))
});
