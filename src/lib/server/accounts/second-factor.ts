import { createHmac } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import QRCode from 'qrcode';
import { refuse, type Refusal } from '../../core/refusal';
import { inTransaction, type Db } from '../db';
import type { House } from '../house';
import { newReference } from '../ids';
import { note, type Doer } from '../office-record';
import { keyFor, locked, unlocked } from '../secrets';
import { organisation } from '../settings';
import type { Account } from './levels';

/** Codes from a device (TOTP, RFC 6238: SHA-1, six digits, thirty seconds, which every such program knows) and recovery codes. */
const PERIOD = 30;
const RECOVERY_CODES = 10;

export interface Factors {
	codes: boolean;
	passkeys: number;
	recoveryCodes: number;
}

export function factorsOf(db: Db, account: string): Factors {
	const row = db
		.prepare<[string], { codes: number; passkeys: number; recoveryCodes: number }>(
			`SELECT totp IS NOT NULL AS codes, (SELECT count(*) FROM passkeys WHERE account = a.id) AS passkeys,
			 (SELECT count(*) FROM recovery_codes WHERE account = a.id) AS recoveryCodes FROM accounts a WHERE id = ?`
		)
		.get(account);
	return { codes: row?.codes === 1, passkeys: row?.passkeys ?? 0, recoveryCodes: row?.recoveryCodes ?? 0 };
}

export const hasFactor = (factors: Factors): boolean => factors.codes || factors.passkeys > 0;

/** What a device needs to make codes, not in force before one of its codes has been shown. */
export async function newCodes(house: House, account: Account): Promise<{ secret: string; picture: string }> {
	const secret = new Secret({ size: 20 }).base32;
	const uri = totpOf(house, account, secret).toString();
	return { secret, picture: await QRCode.toDataURL(uri, { margin: 1, scale: 6, errorCorrectionLevel: 'M' }) };
}

/** Codes are asked for from now on. Refuses `wrong-code`. Gives the recovery codes, which are shown once. */
export function beginCodes(house: House, by: Doer, account: Account, secret: string, code: string): string[] | Refusal {
	if (!/^[A-Z2-7]{32}$/.test(secret)) return refuse('wrong-code', 'That can’t be. Begin again.', 'code');
	const step = stepOf(house, account, secret, code);
	if (step === null)
		return refuse('wrong-code', 'That is not the code the device shows now. Look that its clock is right.', 'code');
	return inTransaction(house.db, () => {
		house.db
			.prepare('UPDATE accounts SET totp = ?, totp_step = ? WHERE id = ?')
			.run(locked(house, 'totp', secret), step, account.id);
		note(house, by, { type: 'CodesBegun', account: account.id });
		return newRecoveryCodes(house, by, account.id);
	});
}

/** Ten codes in place of any there were; only keyed hashes of them are kept. */
export function newRecoveryCodes(house: House, by: Doer, account: string): string[] {
	const codes = Array.from({ length: RECOVERY_CODES }, () => `${newReference().slice(2)}-${newReference().slice(2)}`);
	inTransaction(house.db, () => {
		house.db.prepare('DELETE FROM recovery_codes WHERE account = ?').run(account);
		for (const code of codes)
			house.db
				.prepare('INSERT INTO recovery_codes (account, hash) VALUES (?, ?)')
				.run(account, recoveryHash(house, code));
		note(house, by, { type: 'RecoveryCodesMade', account });
	});
	return codes;
}

/** What the code is, used up with it; null where it is none. A code of the device is taken once, a recovery code too. */
export function takeCode(house: House, account: Account, code: string): 'code' | 'recovery code' | null {
	const row = house.db
		.prepare<[string], { totp: string | null; used: number }>(
			'SELECT totp, totp_step AS used FROM accounts WHERE id = ?'
		)
		.get(account.id);
	if (row?.totp) {
		const step = stepOf(house, account, unlocked(house, 'totp', row.totp), code);
		const taken =
			step !== null &&
			house.db.prepare('UPDATE accounts SET totp_step = ? WHERE id = ? AND totp_step < ?').run(step, account.id, step)
				.changes === 1;
		if (taken) return 'code';
	}
	const gone = house.db
		.prepare('DELETE FROM recovery_codes WHERE account = ? AND hash = ?')
		.run(account.id, recoveryHash(house, code)).changes;
	return gone > 0 ? 'recovery code' : null;
}

/** Takes all second factors of an account away, for whoever has lost them; what is required is set up anew at the next sign-in. */
export function removeFactors(house: House, by: Doer, account: Pick<Account, 'id' | 'name'>): void {
	inTransaction(house.db, () => {
		house.db.prepare('UPDATE accounts SET totp = NULL WHERE id = ?').run(account.id);
		house.db.prepare('DELETE FROM recovery_codes WHERE account = ?').run(account.id);
		house.db.prepare('DELETE FROM passkeys WHERE account = ?').run(account.id);
		note(house, by, { type: 'CodesEnded', account: account.id, name: account.name });
	});
}

function totpOf(house: House, account: Account, secret: string): TOTP {
	return new TOTP({
		issuer: `Pellum, ${organisation(house.db).name}`,
		label: account.email,
		secret: Secret.fromBase32(secret),
		period: PERIOD
	});
}

/** The step of time a code belongs to, now or one beside it; null where it is none. */
function stepOf(house: House, account: Account, secret: string, code: string): number | null {
	const off = totpOf(house, account, secret).validate({ token: code.replaceAll(/\s/g, ''), window: 1 });
	return off === null ? null : Math.floor(Date.now() / 1000 / PERIOD) + off;
}

function recoveryHash(house: House, code: string): string {
	const plain = code.toUpperCase().replaceAll(/[^A-Z0-9]/g, '');
	return createHmac('sha256', keyFor(house, 'recovery')).update(plain).digest('hex');
}
