import type { Level } from '../accounts/levels';

/** What a key may, each by itself; never more than the account that it comes for. */
export const RIGHTS = ['look', 'prepare', 'send', 'record'] as const;
export type Right = (typeof RIGHTS)[number];

/** What each right is for, in words. */
export const RIGHT_SAYS: Record<Right, string> = {
	look: 'see templates, packets and batches, and how they stand',
	prepare: 'add documents and sheets, write drafts',
	send: 'send, nudge, withdraw and put right',
	record: 'take out records, answers and sealed copies, and what is known of a person'
};

/** The least level of an account for each. */
export const RIGHT_LEVEL: Record<Right, Level> = {
	look: 'viewer',
	prepare: 'preparer',
	send: 'preparer',
	record: 'viewer'
};
