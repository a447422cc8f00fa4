import {
	generateAuthenticationOptions,
	generateRegistrationOptions,
	verifyAuthenticationResponse,
	verifyRegistrationResponse,
	type AuthenticationResponseJSON,
	type RegistrationResponseJSON
} from '@simplewebauthn/server';
import { isIP } from 'node:net';
import { refuse, type Refusal } from '../../core/refusal';
import { inTransaction, type Db } from '../db';
import type { House } from '../house';
import { note, type Doer } from '../office-record';
import { organisation } from '../settings';
import type { Account } from './levels';

/** Passkeys (Web Authentication level 3): a key in somebody's device that opens with their finger, face or PIN, hence both factors. */
export interface PasskeyRow {
	id: string;
	name: string;
	createdAt: string;
	usedAt: string | null;
}

const MOST = 20;
/** What was asked and not answered yet: for what, for whom, until when. Memory is enough for one process. */
const asked = new Map<string, { use: 'add' | 'sign in'; account: string | null; until: number }>();
const MINUTES = 5;
const MOST_ASKED = 10_000;

const NO = refuse('bad-passkey', 'That passkey did not fit. Try it again, or sign in another way.');

/** A passkey belongs to a name; an address of digits has none. */
export function passkeysPossible(house: House): boolean {
	const { hostname, protocol } = new URL(house.config.origin);
	return isIP(hostname.replaceAll(/[[\]]/g, '')) === 0 && (protocol === 'https:' || hostname === 'localhost');
}

const partyOf = (house: House): string => new URL(house.config.origin).hostname;

export function passkeysOf(db: Db, account: string): PasskeyRow[] {
	return db
		.prepare<[string], PasskeyRow>(
			'SELECT id, name, created_at AS createdAt, used_at AS usedAt FROM passkeys WHERE account = ? ORDER BY created_at'
		)
		.all(account);
}

function remember(challenge: string, use: 'add' | 'sign in', account: string | null): void {
	const now = Date.now();
	for (const [old, { until }] of asked) if (until < now || asked.size >= MOST_ASKED) asked.delete(old);
	asked.set(challenge, { use, account, until: now + MINUTES * 60_000 });
}

/** Whether this was asked, for this and of this one; each question is answered once. */
function wasAsked(challenge: string, use: 'add' | 'sign in', account: string | null): boolean {
	const one = asked.get(challenge);
	asked.delete(challenge);
	return one !== undefined && one.use === use && one.account === account && one.until >= Date.now();
}

/** What the browser hands to the device to make a new one. */
export async function askForNew(house: House, account: Account): Promise<object> {
	const options = await generateRegistrationOptions({
		rpName: `Pellum, ${organisation(house.db).name}`,
		rpID: partyOf(house),
		userName: account.email,
		userDisplayName: account.name,
		userID: new TextEncoder().encode(account.id),
		attestationType: 'none',
		excludeCredentials: passkeysOf(house.db, account.id).map(({ id }) => ({ id })),
		authenticatorSelection: { residentKey: 'required', userVerification: 'required' }
	});
	remember(options.challenge, 'add', account.id);
	return options;
}

/** Keeps a new passkey. Refuses one that was not asked for or does not verify, and more than twenty. */
export async function addPasskey(
	house: House,
	by: Doer,
	account: Account,
	response: unknown,
	called: string
): Promise<{ id: string } | Refusal> {
	if (passkeysOf(house.db, account.id).length >= MOST)
		return refuse('too-many', 'There are twenty passkeys already. Remove one first.');
	try {
		const { verified, registrationInfo } = await verifyRegistrationResponse({
			response: response as RegistrationResponseJSON,
			expectedChallenge: (challenge) => wasAsked(challenge, 'add', account.id),
			expectedOrigin: house.config.origin,
			expectedRPID: partyOf(house),
			requireUserVerification: true
		});
		if (!verified) return NO;
		const { id, publicKey, counter } = registrationInfo.credential;
		return inTransaction(house.db, () => {
			const { changes } = house.db
				.prepare(
					'INSERT OR IGNORE INTO passkeys (id, account, name, public_key, counter, created_at) VALUES (?, ?, ?, ?, ?, ?)'
				)
				.run(id, account.id, called, Buffer.from(publicKey), counter, new Date().toISOString());
			if (changes === 0) return NO;
			note(house, by, { type: 'PasskeyAdded', account: account.id, called });
			return { id };
		});
	} catch {
		return NO;
	}
}

/** What the browser hands to the device to sign in, or to prove that it is `account`. */
export async function askForOne(house: House, account: string | null): Promise<object> {
	const options = await generateAuthenticationOptions({
		rpID: partyOf(house),
		userVerification: 'required',
		allowCredentials: account ? passkeysOf(house.db, account).map(({ id }) => ({ id })) : []
	});
	remember(options.challenge, 'sign in', account);
	return options;
}

/** Whose passkey has answered; a refusal where it is nobody's, or not `account`'s. */
export async function takePasskey(house: House, account: string | null, response: unknown): Promise<string | Refusal> {
	const id = (response as { id?: unknown } | null)?.id;
	const row = house.db
		.prepare<[string], { account: string; public_key: Buffer; counter: number }>(
			`SELECT p.account, p.public_key, p.counter FROM passkeys p JOIN accounts a ON a.id = p.account
			 WHERE p.id = ? AND a.closed_at IS NULL`
		)
		.get(typeof id === 'string' ? id : '');
	if (!row || (account !== null && row.account !== account)) return NO;
	try {
		const { verified, authenticationInfo } = await verifyAuthenticationResponse({
			response: response as AuthenticationResponseJSON,
			expectedChallenge: (challenge) => wasAsked(challenge, 'sign in', account),
			expectedOrigin: house.config.origin,
			expectedRPID: partyOf(house),
			credential: { id: id as string, publicKey: new Uint8Array(row.public_key), counter: row.counter },
			requireUserVerification: true
		});
		if (!verified) return NO;
		house.db
			.prepare('UPDATE passkeys SET counter = ?, used_at = ? WHERE id = ?')
			.run(authenticationInfo.newCounter, new Date().toISOString(), id);
		return row.account;
	} catch {
		return NO;
	}
}

/** False where there is no such passkey of theirs. */
export function removePasskey(house: House, by: Doer, account: Account, id: string): boolean {
	return inTransaction(house.db, () => {
		const called = passkeysOf(house.db, account.id).find((one) => one.id === id)?.name;
		if (called === undefined) return false;
		house.db.prepare('DELETE FROM passkeys WHERE id = ? AND account = ?').run(id, account.id);
		note(house, by, { type: 'PasskeyRemoved', account: account.id, called });
		return true;
	});
}
