import { refuse, type Refusal } from '../../core/refusal';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId, newToken, tokenHash } from '../ids';
import { queue } from '../jobs/outbox';
import type { Account } from './levels';

/** Links in letters with which somebody of the office chooses a password, and asking for such letters. */
export type LetterPurpose = 'invitation' | 'reset' | 'changed';
export type LinkPurpose = Exclude<LetterPurpose, 'changed'>;

export interface LetterJob {
	account: string;
	purpose: LetterPurpose | 'morning';
}

/** How long a link holds, in hours. */
export const LINK_HOURS: Record<LinkPurpose, number> = { invitation: 7 * 24, reset: 1 };

/** The letter is written, and its link made, when it goes. */
export function askLetter(house: House, account: string, purpose: LetterPurpose): void {
	queue(house, 'letter', `letter:${account}:${newId(new Date())}`, { account, purpose } satisfies LetterJob);
	house.changes.emit('jobs');
}

/** A new link for an account; of those before only the invitation's own letters stay good. */
export function newAccountLink(house: House, account: string, purpose: LinkPurpose): string {
	const { token, hash } = newToken();
	const now = Date.now();
	inTransaction(house.db, () => {
		house.db
			.prepare('DELETE FROM account_links WHERE account = ? AND (purpose = ? OR expires_at < ?)')
			.run(account, 'reset', new Date(now).toISOString());
		house.db
			.prepare('INSERT INTO account_links (token_hash, account, purpose, expires_at) VALUES (?, ?, ?, ?)')
			.run(hash, account, purpose, new Date(now + LINK_HOURS[purpose] * 3_600_000).toISOString());
	});
	return `${house.config.origin}/choose/${token}`;
}

/** Whose link it is. Refuses `no-link` for one that is none, has been used, or is too old. */
export function accountOfLink(house: House, token: string): (Account & { purpose: LinkPurpose }) | Refusal {
	return (
		house.db
			.prepare<[string, string], Account & { purpose: LinkPurpose }>(
				`SELECT a.id, a.name, a.email, a.level, l.purpose FROM account_links l JOIN accounts a ON a.id = l.account
				 WHERE l.token_hash = ? AND l.expires_at > ? AND a.closed_at IS NULL`
			)
			.get(tokenHash(token), new Date().toISOString()) ??
		refuse('no-link', 'This link has been used, or holds no longer. Ask for a new letter on the sign-in page.')
	);
}
