import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { inTransaction } from '../db';
import type { House } from '../house';
import { note, type Doer } from '../office-record';
import { organisation } from '../settings';
import { judgePassword } from './judging';
import { accountOfLink, askLetter } from './letters';
import type { Account } from './levels';
import { accountByEmail } from './people';
import { hashPassword, passwordFits } from './password';

/**
 * Chooses a password by the link in a letter: sessions and links that there were end, and whoever's it is is told by mail.
 * A second factor stays asked for.
 */
export async function chooseByLink(
	house: House,
	from: string,
	token: string,
	password: string
): Promise<Account | Refusal> {
	const found = accountOfLink(house, token);
	if (isRefusal(found)) return found;
	const weak = await judgePassword(password, [found.name, found.email, organisation(house.db).name]);
	if (weak) return weak;
	const hash = await hashPassword(password);
	return inTransaction(house.db, () => {
		// used by somebody else while it was hashed
		const still = accountOfLink(house, token);
		if (isRefusal(still)) return still;
		replace(house, { account: still, address: from }, still, hash, null, true);
		return still;
	});
}

/** Changes a password by the one before; all other sessions end. Refuses `wrong-password`, `busy` and what is easy to guess. */
export async function changePassword(
	house: House,
	by: Doer & { account: Account },
	session: string,
	before: string,
	password: string
): Promise<Refusal | null> {
	const { account } = by;
	const fits = await provePassword(house, account.id, before);
	if (fits === 'busy') return refuse('busy', 'Many are signing in at the moment. Try again in a few seconds.');
	if (!fits) return refuse('wrong-password', 'That is not your password now.', 'before');
	const weak = await judgePassword(password, [account.name, account.email, organisation(house.db).name]);
	if (weak) return weak;
	const hash = await hashPassword(password);
	inTransaction(house.db, () => replace(house, by, account, hash, session, false));
	return null;
}

/** Whether it is the account's password; of an account without one none is. */
export async function provePassword(house: House, account: string, password: string): Promise<boolean | 'busy'> {
	const row = house.db
		.prepare<[string], { password: string }>('SELECT password FROM accounts WHERE id = ?')
		.get(account);
	return passwordFits(password, row?.password || null);
}

/** Asks for a letter to whoever has an account at this address; nothing tells whether anybody has. */
export function askReset(house: House, from: string, email: string): void {
	const account = accountByEmail(house.db, email);
	if (!account) return;
	inTransaction(house.db, () => {
		note(house, { account: null, address: from }, { type: 'ResetAsked', account: account.id, name: account.name });
		askLetter(house, account.id, 'reset');
	});
}

function replace(
	house: House,
	by: Doer,
	{ id, name }: Account,
	hash: string,
	keep: string | null,
	byLetter: boolean
): void {
	house.db.prepare('UPDATE accounts SET password = ? WHERE id = ?').run(hash, id);
	house.db.prepare('DELETE FROM sessions WHERE account = ? AND id <> ?').run(id, keep ?? '');
	house.db.prepare('DELETE FROM account_links WHERE account = ?').run(id);
	note(house, by, { type: 'PasswordChosen', account: id, name, by_letter: byLetter });
	askLetter(house, id, 'changed');
}
