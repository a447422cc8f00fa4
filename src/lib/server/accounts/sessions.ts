import Bowser from 'bowser';
import { inTransaction, isBusy, isFull, type Db } from '../db';
import type { House } from '../house';
import { newId, newToken, tokenHash } from '../ids';
import { note, type Doer } from '../office-record';
import type { Account } from './levels';
import { safety } from './safety';

/**
 * Who is signed in where. Sessions run by the machine's own clock, so that moving the demo's clock signs nobody out; they end
 * when nobody has used them for a while, and at the latest after some days.
 */
export interface Session {
	id: string;
	account: Account;
	/** the second factor is still to come; or is required and not set up yet */
	wants: 'second' | 'set-up' | null;
	/** whether they have proved who they are within the last minutes */
	proved: boolean;
}

export interface SessionRow {
	id: string;
	address: string;
	device: string;
	createdAt: string;
	seenAt: string;
}

/** How long a proof holds for what asks for one. */
export const PROOF_MINUTES = 10;
/** When a session was used is written so often, in ms. */
const SEEN_EVERY = 60_000;

const ago = (ms: number): string => new Date(Date.now() - ms).toISOString();

/** A session's token for somebody who has shown who they are, or half of it. */
export function beginSession(
	house: House,
	account: string,
	from: { address: string; device: string },
	half: boolean
): string {
	const { token, hash } = newToken();
	const now = new Date();
	const ends = new Date(now.getTime() + (half ? PROOF_MINUTES * 60_000 : safety(house.db).longestDays * 86_400_000));
	house.db.prepare('DELETE FROM sessions WHERE expires_at < ?').run(now.toISOString());
	house.db
		.prepare(
			`INSERT INTO sessions (token_hash, account, created_at, expires_at, id, seen_at, address, device, proved_at, half)
			 VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`
		)
		.run(
			hash,
			account,
			now.toISOString(),
			ends.toISOString(),
			newId(now),
			now.toISOString(),
			from.address,
			from.device,
			half ? '' : now.toISOString(),
			half ? 1 : 0
		);
	return token;
}

/** The session behind a token; null where it has ended, was never one, or its account is closed. */
export function sessionOf(house: House, token: string): Session | null {
	const hash = tokenHash(token);
	const { second, idleHours, longestDays } = safety(house.db);
	const row = house.db
		.prepare<
			[string, string, string, string],
			Account & { session: string; seenAt: string; provedAt: string; half: number; factors: number }
		>(
			`SELECT a.id, a.name, a.email, a.level, s.id AS session, s.seen_at AS seenAt, s.proved_at AS provedAt, s.half,
			 a.totp IS NOT NULL OR EXISTS (SELECT 1 FROM passkeys p WHERE p.account = a.id) AS factors
			 FROM sessions s JOIN accounts a ON a.id = s.account
			 WHERE s.token_hash = ? AND s.expires_at > ? AND s.seen_at > ? AND s.created_at > ? AND a.closed_at IS NULL`
		)
		.get(hash, new Date().toISOString(), ago(idleHours * 3_600_000), ago(longestDays * 86_400_000));
	if (!row) return null;
	const { session, seenAt, provedAt, half, factors, ...account } = row;
	if (seenAt < ago(SEEN_EVERY)) seen(house, hash);
	const wants = half ? 'second' : factors === 0 && second.includes(account.level) ? 'set-up' : null;
	return { id: session, account, wants, proved: provedAt > ago(PROOF_MINUTES * 60_000) };
}

/** That it was used; where nothing can be written just now, the next look will do. */
function seen(house: House, hash: string): void {
	try {
		house.db.prepare('UPDATE sessions SET seen_at = ? WHERE token_hash = ?').run(new Date().toISOString(), hash);
	} catch (error) {
		if (!isBusy(error) && !isFull(error)) throw error;
	}
}

/** Whoever has this session has just proved who they are; a half session becomes a whole one under another token. */
export function provedIn(house: House, token: string, from: { address: string; device: string }): string {
	const hash = tokenHash(token);
	const row = house.db
		.prepare<[string], { account: string; half: number }>('SELECT account, half FROM sessions WHERE token_hash = ?')
		.get(hash);
	if (!row?.half) {
		house.db.prepare('UPDATE sessions SET proved_at = ? WHERE token_hash = ?').run(new Date().toISOString(), hash);
		return token;
	}
	return inTransaction(house.db, () => {
		house.db.prepare('DELETE FROM sessions WHERE token_hash = ?').run(hash);
		return beginSession(house, row.account, from, false);
	});
}

/** Those of an account that are under way, the last used first. */
export function sessionsOf(db: Db, account: string): SessionRow[] {
	return db
		.prepare<[string, string], SessionRow>(
			`SELECT id, address, device, created_at AS createdAt, seen_at AS seenAt FROM sessions
			 WHERE account = ? AND expires_at > ? AND half = 0 ORDER BY seen_at DESC`
		)
		.all(account, new Date().toISOString())
		.map((row) => ({ ...row, device: calledDevice(row.device) }));
}

/** What people call the program and the system that say this of themselves (RFC 9110 §10.1.5). */
function calledDevice(agent: string): string {
	if (!agent.trim()) return 'An unknown device';
	const { browser, os } = Bowser.parse(agent);
	return [browser.name ?? 'A program', os.name && `on ${os.name}`].filter(Boolean).join(' ');
}

export function signOut(house: House, token: string, by: Doer): void {
	const gone = house.db.prepare('DELETE FROM sessions WHERE token_hash = ? AND half = 0').run(tokenHash(token)).changes;
	if (gone > 0) note(house, by, { type: 'SignedOut' });
}

/** Ends sessions of an account: one by its id, or all but `except`. How many ended. */
export function endSessions(
	house: House,
	by: Doer,
	of: { id: string; name: string },
	which: { only: string } | { except: string }
): number {
	return inTransaction(house.db, () => {
		const ended =
			'only' in which
				? house.db.prepare('DELETE FROM sessions WHERE account = ? AND id = ?').run(of.id, which.only).changes
				: house.db.prepare('DELETE FROM sessions WHERE account = ? AND id <> ?').run(of.id, which.except).changes;
		if (ended > 0) note(house, by, { type: 'SessionsEnded', account: of.id, name: of.name, sessions: ended });
		return ended;
	});
}
