import { isAddress } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { inTransaction, type Db } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { note, type Doer } from '../office-record';
import { organisation } from '../settings';
import { judgePassword } from './judging';
import { askLetter } from './letters';
import type { Account, Level } from './levels';
import { hashPassword } from './password';

/** Accounts of the office: whose there are, made, changed and closed. */
interface AccountRow extends Account {
	closed: boolean;
	/** has not chosen a password yet, nor come through the directory */
	invited: boolean;
	second: boolean;
}

export function hasAccounts(house: House): boolean {
	return house.db.prepare('SELECT 1 FROM accounts LIMIT 1').get() !== undefined;
}

export function listAccounts(house: House): AccountRow[] {
	return house.db
		.prepare<[], Account & { closed: number; invited: number; second: number }>(
			`SELECT id, name, email, level, closed_at IS NOT NULL AS closed, password = '' AND subject IS NULL AS invited,
			 totp IS NOT NULL OR EXISTS (SELECT 1 FROM passkeys p WHERE p.account = a.id) AS second
			 FROM accounts a`
		)
		.all()
		.map((row) => ({ ...row, closed: row.closed === 1, invited: row.invited === 1, second: row.second === 1 }))
		.sort((a, b) => Number(a.closed) - Number(b.closed) || a.name.localeCompare(b.name));
}

export function accountById(house: House, id: string): Account | null {
	return (
		house.db
			.prepare<[string], Account>('SELECT id, name, email, level FROM accounts WHERE id = ? AND closed_at IS NULL')
			.get(id) ?? null
	);
}

/** Who asked for a job, and by which API key, as the job keeps it. */
export interface AskedBy {
	account: string;
	/** the key's name */
	key?: string;
}

export const askedBy = ({ id, key }: Account): AskedBy => ({ account: id, ...(key !== undefined && { key }) });

/** Who has a job done, by which key; null where they have no account any more. */
export function accountOf(house: House, { account, key }: AskedBy): Account | null {
	const found = accountById(house, account);
	return found && { ...found, ...(key !== undefined && { key }) };
}

export function accountByEmail(db: Db, email: string): Account | null {
	return (
		db
			.prepare<[string], Account>('SELECT id, name, email, level FROM accounts WHERE email = ? AND closed_at IS NULL')
			.get(email.trim()) ?? null
	);
}

interface Wanted {
	name: string;
	email: string;
	level: Level;
}

/** Refuses a name or an address that is missing, and an address in use. */
function judged(house: House, { name, email, level }: Wanted): Wanted | Refusal {
	const clean = { name: name.trim(), email: email.trim().toLowerCase(), level };
	if (clean.name === '') return refuse('no-name', 'Give a name.', 'name');
	if (!isAddress(clean.email)) return refuse('bad-address', `“${email}” can't be an e-mail address.`, 'email');
	return isTaken(house, clean.email) ? TAKEN(clean.email) : clean;
}

const isTaken = (house: House, email: string): boolean =>
	house.db.prepare('SELECT 1 FROM accounts WHERE email = ?').get(email) !== undefined;
const TAKEN = (email: string): Refusal => refuse('address-taken', `${email} has an account already.`, 'email');

/**
 * Writes it down, in the caller's transaction, after it has been judged.
 * @param by null where whoever it is makes it themselves
 */
export function insertAccount(
	house: House,
	by: Doer | null,
	{ name, email, level }: Wanted,
	how: 'invited' | 'directory' | 'set-up',
	{ password = '', subject = null }: { password?: string; subject?: string | null }
): Account {
	const account: Account = { id: newId(house.now()), name, email, level };
	note(house, by ?? { account, address: '' }, { type: 'AccountMade', account: account.id, name, email, level, how });
	house.db
		.prepare(
			'INSERT INTO accounts (id, name, email, level, password, subject, created_at) VALUES (?, ?, ?, ?, ?, ?, ?)'
		)
		.run(account.id, name, email, level, password, subject, house.now().toISOString());
	return account;
}

/** An account with a password: the first owner's, and the demo's. Refuses what {@link judged} and {@link judgePassword} do. */
export async function addAccount(
	house: House,
	wanted: Wanted & { password: string },
	may: () => Refusal | null = () => null
): Promise<Account | Refusal> {
	const clean = judged(house, wanted);
	if (isRefusal(clean)) return clean;
	const weak = await judgePassword(wanted.password, [clean.name, clean.email, organisation(house.db).name]);
	if (weak) return weak;
	const password = await hashPassword(wanted.password);
	// judged again with the lock held: much may have happened while the password was hashed
	return inTransaction(house.db, () => {
		const no = may() ?? (isTaken(house, clean.email) ? TAKEN(clean.email) : null);
		return no ?? insertAccount(house, null, clean, 'set-up', { password });
	});
}

/** An account whose owner chooses the password by a link in a letter, which is sent. */
export function inviteAccount(house: House, by: Doer, wanted: Wanted): Account | Refusal {
	const clean = judged(house, wanted);
	if (isRefusal(clean)) return clean;
	return inTransaction(house.db, () => {
		const account = insertAccount(house, by, clean, 'invited', {});
		askLetter(house, account.id, 'invitation');
		return account;
	});
}

/** Sends the invitation again. Refuses `no-account` where they have a password already. */
export function inviteAgain(house: House, by: Doer, id: string): Account | Refusal {
	const one = listAccounts(house).find((a) => a.id === id && !a.closed && a.invited);
	if (!one)
		return refuse('no-account', 'There is nobody to invite: they have chosen a password, or the account is closed.');
	note(house, by, { type: 'InvitedAgain', account: one.id, name: one.name });
	askLetter(house, one.id, 'invitation');
	return one;
}

const NONE = refuse('no-account', 'There is no such account.');

/** Refuses to make the last owner anything else. */
export function changeLevel(house: House, by: Doer, id: string, level: Level): Refusal | null {
	return inTransaction(house.db, () => {
		const account = accountById(house, id);
		if (!account) return NONE;
		if (account.level === level) return null;
		if (account.level === 'owner' && owners(house.db) === 1)
			return refuse('last-owner', 'The last owner stays one. Make somebody else an owner first.');
		house.db.prepare('UPDATE accounts SET level = ? WHERE id = ?').run(level, id);
		note(house, by, { type: 'LevelChanged', account: id, name: account.name, from: account.level, to: level });
		return null;
	});
}

/** Closes an account, ends its sessions and its links. The last owner can't be closed. */
export function closeAccount(house: House, by: Doer, id: string): Refusal | null {
	return inTransaction(house.db, () => {
		const account = accountById(house, id);
		if (!account) return NONE;
		if (account.level === 'owner' && owners(house.db) === 1)
			return refuse('last-owner', 'The last owner can’t be closed.');
		house.db.prepare('UPDATE accounts SET closed_at = ? WHERE id = ?').run(house.now().toISOString(), id);
		house.db.prepare('DELETE FROM sessions WHERE account = ?').run(id);
		house.db.prepare('DELETE FROM account_links WHERE account = ?').run(id);
		note(house, by, { type: 'AccountClosed', account: id, name: account.name });
		return null;
	});
}

const owners = (db: Db): number =>
	db.prepare<[], { n: number }>("SELECT count(*) AS n FROM accounts WHERE level = 'owner' AND closed_at IS NULL").get()!
		.n;
