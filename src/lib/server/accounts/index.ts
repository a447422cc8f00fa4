import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';
import { isAddress } from '../../core/packet';
import { refuse, type Refusal } from '../../core/refusal';
import type { House } from '../house';
import { newId, newToken, tokenHash } from '../ids';

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
/** OWASP's minimum for scrypt at the time of writing: N = 2^17, r = 8, p = 1; needs 128 MB for a moment. */
const COST: ScryptOptions = { N: 2 ** 17, r: 8, p: 1, maxmem: 192 * 1024 * 1024 };

export function hasAccounts(house: House): boolean {
	return house.db.prepare('SELECT 1 FROM accounts LIMIT 1').get() !== undefined;
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
	wanted: { name: string; email: string; level: Level; password: string }
): Promise<Account | Refusal> {
	const name = wanted.name.trim();
	const email = wanted.email.trim().toLowerCase();
	if (name === '') return refuse('no-name', 'Give a name.', 'name');
	if (!isAddress(email)) return refuse('bad-address', `“${wanted.email}” can't be an e-mail address.`, 'email');
	if (wanted.password.length < LEAST_PASSWORD)
		return refuse('short-password', `The password needs ${LEAST_PASSWORD} characters or more.`, 'password');
	if (house.db.prepare('SELECT 1 FROM accounts WHERE email = ?').get(email))
		return refuse('address-taken', `${email} has an account already.`, 'email');
	const account: Account = { id: newId(house.now()), name, email, level: wanted.level };
	const password = await hashPassword(wanted.password);
	house.db
		.prepare('INSERT INTO accounts (id, name, email, level, password, created_at) VALUES (?, ?, ?, ?, ?, ?)')
		.run(account.id, name, email, account.level, password, house.now().toISOString());
	return account;
}

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

/** A session's token for the right address and password; null for anything else, after the same work. */
export async function signIn(house: House, email: string, password: string): Promise<string | null> {
	const row = house.db
		.prepare<[string], { id: string; password: string }>(
			'SELECT id, password FROM accounts WHERE email = ? AND closed_at IS NULL'
		)
		.get(email.trim());
	const ok = await passwordFits(password, row?.password ?? NOBODY);
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

async function hashPassword(password: string): Promise<string> {
	const salt = randomBytes(16);
	return `${salt.toString('base64')}$${(await derive(password, salt)).toString('base64')}`;
}

const NOBODY = `${Buffer.alloc(16).toString('base64')}$${Buffer.alloc(32).toString('base64')}`;

async function passwordFits(password: string, stored: string): Promise<boolean> {
	const [salt, key] = stored.split('$').map((part) => Buffer.from(part, 'base64')) as [Buffer, Buffer];
	return timingSafeEqual(await derive(password, salt), key);
}

function derive(password: string, salt: Buffer): Promise<Buffer> {
	return new Promise((resolve, reject) =>
		scrypt(password.normalize('NFKC'), salt, 32, COST, (error, key) => (error ? reject(error) : resolve(key)))
	);
}
