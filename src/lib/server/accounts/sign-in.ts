import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import type { House } from '../house';
import { count, forgive, giveBack } from '../limits';
import { note } from '../office-record';
import type { Account } from './levels';
import { takePasskey } from './passkeys';
import { accountById } from './people';
import { passwordFits } from './password';
import { factorsOf, hasFactor, takeCode } from './second-factor';
import { beginSession, provedIn } from './sessions';

export interface From {
	address: string;
	device: string;
}

const OFTEN = refuse('too-often', 'Too many tries. Wait a quarter of an hour, then try again.');
const BUSY = refuse('busy', 'Many are signing in at the moment. Try again in a few seconds.');
const WRONG = refuse('wrong-password', 'Address and password do not go together. Check both.');

/**
 * Signs in by address and password: a session's token, half of one where a second factor is to come. Each try is counted before
 * it is judged, so that of a thousand at once ten are judged; an address without an account takes the same work.
 */
export async function signIn(house: House, email: string, password: string, from: From): Promise<string | Refusal> {
	const who = email.trim().toLowerCase();
	const row = house.db
		.prepare<[string], Account & { password: string }>(
			'SELECT id, name, email, level, password FROM accounts WHERE email = ? AND closed_at IS NULL'
		)
		.get(who);
	const refused = (why: 'password' | 'too often') =>
		note(house, { account: null, address: from.address }, { type: 'SignInRefused', account: row?.id ?? null, why });
	const tries = [
		['account', `${who} ${from.address}`],
		['everywhere', who],
		['signIn', from.address]
	] as const;
	for (const [limit, by] of tries)
		if (!(await count(limit, by))) {
			// said once in a while, not as often as somebody tries
			if (await count('told', `${limit} ${by}`)) refused('too often');
			return OFTEN;
		}
	const ok = await passwordFits(password, row?.password || null);
	if (ok === true || ok === 'busy') for (const [limit, by] of tries) await giveBack(limit, by);
	if (ok === 'busy') return BUSY;
	if (!row || !ok) {
		refused('password');
		return WRONG;
	}
	await forgive('account', `${who} ${from.address}`);
	const { password: _password, ...account } = row;
	const half = hasFactor(factorsOf(house.db, account.id));
	if (!half) note(house, { account, address: from.address }, { type: 'SignedIn', how: 'password' });
	return beginSession(house, account.id, from, half);
}

/** The second factor of a half session: the whole session's token. */
export async function finishSignIn(
	house: House,
	token: string,
	account: Account,
	from: From,
	by: { code: string } | { passkey: unknown }
): Promise<string | Refusal> {
	if (!(await count('second', account.id))) return OFTEN;
	const second = 'code' in by ? takeCode(house, account, by.code) : await takePasskey(house, account.id, by.passkey);
	if (second === null || isRefusal(second)) {
		const why = 'code' in by ? 'code' : 'passkey';
		note(house, { account: null, address: from.address }, { type: 'SignInRefused', account: account.id, why });
		return second ?? refuse('wrong-code', 'That is not the code now, nor one of your recovery codes.', 'code');
	}
	await forgive('second', account.id);
	note(
		house,
		{ account, address: from.address },
		{ type: 'SignedIn', how: 'password', second: 'code' in by ? (second as 'code' | 'recovery code') : 'passkey' }
	);
	return provedIn(house, token, from);
}

/** Signs in by a passkey alone, which is both factors. */
export async function signInByPasskey(house: House, response: unknown, from: From): Promise<string | Refusal> {
	if (!(await count('signIn', from.address))) return OFTEN;
	const id = await takePasskey(house, null, response);
	const account = isRefusal(id) ? null : accountById(house, id);
	if (!account) {
		note(house, { account: null, address: from.address }, { type: 'SignInRefused', account: null, why: 'passkey' });
		return isRefusal(id) ? id : WRONG;
	}
	await giveBack('signIn', from.address);
	note(house, { account, address: from.address }, { type: 'SignedIn', how: 'passkey' });
	return beginSession(house, account.id, from, false);
}

/**
 * Proves anew that it is them, for what asks for it: by password, with a code where codes are set up, or by a passkey. The proof
 * holds for some minutes in this session.
 */
export async function proveAgain(
	house: House,
	token: string,
	account: Account,
	from: From,
	by: { password: string; code: string } | { passkey: unknown }
): Promise<Refusal | null> {
	if (!(await count('second', account.id))) return OFTEN;
	if ('passkey' in by) {
		const id = await takePasskey(house, account.id, by.passkey);
		if (isRefusal(id)) return id;
	} else {
		const row = house.db
			.prepare<[string], { password: string }>('SELECT password FROM accounts WHERE id = ?')
			.get(account.id);
		const fits = await passwordFits(by.password, row?.password || null);
		if (fits === 'busy') return BUSY;
		if (!fits) return refuse('wrong-password', 'That is not your password.', 'password');
		if (factorsOf(house.db, account.id).codes && takeCode(house, account, by.code) === null)
			return refuse('wrong-code', 'That is not the code now, nor one of your recovery codes.', 'code');
	}
	await forgive('second', account.id);
	provedIn(house, token, from);
	return null;
}
