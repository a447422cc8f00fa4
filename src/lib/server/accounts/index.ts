import { isAddress } from '../../core/packet';
import { refuse, type Refusal } from '../../core/refusal';
import type { House } from '../house';
import { inTransaction } from '../db';
import { newId, newReference, newToken, tokenHash } from '../ids';
import { hashPassword, passwordFits } from './password';

/** owner: everything; preparer: makes and sends; viewer: sees. */
export const LEVELS = ['owner', 'preparer', 'viewer'] as const;
export type Level = (typeof LEVELS)[number];

export interface Account {
	id: string;
	name: string;
	email: string;
	level: Level;
}

const SESSION_DAYS = 14;
const LEAST_PASSWORD = 10;

export function hasAccounts(house: House): boolean {
	return house.db.prepare('SELECT 1 FROM accounts LIMIT 1').get() !== undefined;
}

const codes = new WeakMap<object, string>();

/**
 * What the first owner shows to be one who runs this Pellum: printed where it was started, good until there is an account.
 * Made when first asked for.
 */
export function setUpCode(house: House): string {
	let code = codes.get(house.db);
	if (!code) codes.set(house.db, (code = `${newReference().slice(2)}-${newReference().slice(2)}`));
	return code;
}

/** The first owner. Refuses `wrong-code`, what {@link addAccount} refuses, and `set-up` where somebody was faster. */
export async function addFirstOwner(
	house: House,
	code: string,
	wanted: { name: string; email: string; password: string }
): Promise<Account | Refusal> {
	if (code.trim().toUpperCase() !== setUpCode(house))
		return refuse('wrong-code', 'That is not the code printed where Pellum was started.', 'code');
	return addAccount(house, { ...wanted, level: 'owner' }, () =>
		hasAccounts(house) ? refuse('set-up', 'Somebody has set this Pellum up just now. Sign in, or ask them.') : null
	);
}

export function listAccounts(house: House): (Account & { closed: boolean })[] {
	return house.db
		.prepare<[], Account & { closed: number }>(
			'SELECT id, name, email, level, closed_at IS NOT NULL AS closed FROM accounts ORDER BY closed, name'
		)
		.all()
		.map((row) => ({ ...row, closed: row.closed === 1 }));
}

/** Refuses a name or address that is missing, an address in use, a password under ten characters. */
export async function addAccount(
	house: House,
	wanted: { name: string; email: string; level: Level; password: string },
	may: () => Refusal | null = () => null
): Promise<Account | Refusal> {
	const name = wanted.name.trim();
	const email = wanted.email.trim().toLowerCase();
	if (name === '') return refuse('no-name', 'Give a name.', 'name');
	if (!isAddress(email)) return refuse('bad-address', `“${wanted.email}” can't be an e-mail address.`, 'email');
	if (wanted.password.length < LEAST_PASSWORD)
		return refuse('short-password', `The password needs ${LEAST_PASSWORD} characters or more.`, 'password');
	if (isTaken(house, email)) return TAKEN(email);
	const account: Account = { id: newId(house.now()), name, email, level: wanted.level };
	const password = await hashPassword(wanted.password);
	// judged again with the lock held: much may have happened while the password was hashed
	return inTransaction(house.db, () => {
		const no = may() ?? (isTaken(house, email) ? TAKEN(email) : null);
		if (no) return no;
		house.db
			.prepare('INSERT INTO accounts (id, name, email, level, password, created_at) VALUES (?, ?, ?, ?, ?, ?)')
			.run(account.id, name, email, account.level, password, house.now().toISOString());
		return account;
	});
}

const isTaken = (house: House, email: string): boolean =>
	house.db.prepare('SELECT 1 FROM accounts WHERE email = ?').get(email) !== undefined;
const TAKEN = (email: string): Refusal => refuse('address-taken', `${email} has an account already.`, 'email');

/** Closes an account and ends its sessions. The last owner can't be closed. */
export function closeAccount(house: House, id: string): Refusal | null {
	const account = house.db
		.prepare<[string], Account>('SELECT id, name, email, level FROM accounts WHERE id = ? AND closed_at IS NULL')
		.get(id);
	if (!account) return refuse('no-account', 'There is no such account.');
	const owners = house.db
		.prepare<[], { n: number }>("SELECT count(*) AS n FROM accounts WHERE level = 'owner' AND closed_at IS NULL")
		.get()!.n;
	if (account.level === 'owner' && owners === 1) return refuse('last-owner', 'The last owner can’t be closed.');
	house.db.prepare('UPDATE accounts SET closed_at = ? WHERE id = ?').run(house.now().toISOString(), id);
	house.db.prepare('DELETE FROM sessions WHERE account = ?').run(id);
	return null;
}

/** A session's token for the right address and password; null for anything else, after the same work; `busy` unjudged. */
export async function signIn(house: House, email: string, password: string): Promise<string | 'busy' | null> {
	const row = house.db
		.prepare<[string], { id: string; password: string }>(
			'SELECT id, password FROM accounts WHERE email = ? AND closed_at IS NULL'
		)
		.get(email.trim());
	const ok = await passwordFits(password, row?.password ?? null);
	if (ok === 'busy') return 'busy';
	if (!row || !ok) return null;
	const { token, hash } = newToken();
	const now = house.now();
	const expires = new Date(Date.now() + SESSION_DAYS * 86_400_000);
	house.db.prepare('DELETE FROM sessions WHERE expires_at < ?').run(new Date().toISOString());
	house.db
		.prepare('INSERT INTO sessions (token_hash, account, created_at, expires_at) VALUES (?, ?, ?, ?)')
		.run(hash, row.id, now.toISOString(), expires.toISOString());
	return token;
}

/** Sessions run by the machine's own clock, so that moving the demo's clock signs nobody out. */
export function accountOf(house: House, token: string): Account | null {
	return (
		house.db
			.prepare<[string, string], Account>(
				`SELECT a.id, a.name, a.email, a.level FROM sessions s JOIN accounts a ON a.id = s.account
				 WHERE s.token_hash = ? AND s.expires_at > ? AND a.closed_at IS NULL`
			)
			.get(tokenHash(token), new Date().toISOString()) ?? null
	);
}

export function accountById(house: House, id: string): Account | null {
	return (
		house.db
			.prepare<[string], Account>('SELECT id, name, email, level FROM accounts WHERE id = ? AND closed_at IS NULL')
			.get(id) ?? null
	);
}

export function signOut(house: House, token: string): void {
	house.db.prepare('DELETE FROM sessions WHERE token_hash = ?').run(tokenHash(token));
}
