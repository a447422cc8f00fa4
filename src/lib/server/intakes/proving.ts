import { mayStart } from '../../core/intake';
import { isAddress } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { queue } from '../jobs/outbox';
import { count, TOO_OFTEN } from '../limits';
import { CODE_MINUTES, codeFits, hashedCode, sixDigits } from '../packets/codes';
import { locked, unlocked } from '../secrets';
import { caseAt, type Case } from './case';

/** A visitor proves their address: by a code in a letter that leads back to what they entered. */

/** What letters to visitors are locked for: they hold the way back to a case. */
const LETTERS = 'letters to visitors';

export interface CaseLetterJob {
	case: string;
	email: string;
	name: string;
	language: string;
	/** the page's link and the case's secret: the way back to what was entered */
	token: string;
}

/** Sends a code to the visitor's address. Refuses an address that may not start here, and too many codes. */
export async function askCaseCode(
	house: House,
	token: string,
	{ email, name, language }: { email: string; name: string; language: string },
	address: string
): Promise<Refusal | null> {
	const one = caseAt(house, token);
	if (isRefusal(one)) return one;
	const to = email.trim();
	if (!isAddress(to)) return refuse('bad-address', `“${to}” can't be an e-mail address.`, 'email', { email: to });
	const no = strangerFault(one, to);
	if (no) return no;
	const often =
		!(await count('caseCode', one.id)) ||
		!(await count('caseCodeFor', to.toLowerCase())) ||
		!(await count('caseCodeFrom', address));
	if (often) return TOO_OFTEN;
	// the job holds the way back only under this Pellum's key
	const job: CaseLetterJob = { case: one.id, email: to, name: name.trim(), language, token };
	queue(house, 'case', `case:${one.id}:${newId(house.now())}`, {
		case: one.id,
		locked: locked(house, LETTERS, JSON.stringify(job))
	});
	house.changes.emit('jobs');
	return null;
}

/** Why somebody of this address may not start: it is of another domain, or not the one that the sheet knows. */
export function strangerFault(one: Case, email: string): Refusal | null {
	if (!mayStart(one.setting, email))
		return refuse(
			'not-your-domain',
			'Only addresses of certain organisations can start here. Use yours of there.',
			'email'
		);
	if (one.setting.door.by === 'sheet' && one.email !== '' && one.email.toLowerCase() !== email.toLowerCase())
		return refuse(
			'not-invited',
			'This page is for people who were sent a link of their own. Open it from your message.'
		);
	return null;
}

/** A new code for the address of a case, in place of any other; only its hash is kept. */
export function newCaseCode(house: House, id: string, email: string): string {
	const code = sixDigits();
	house.db
		.prepare('INSERT OR REPLACE INTO case_codes (id, email, hash, expires_at, wrong) VALUES (?, ?, ?, ?, 0)')
		.run(id, email, hashedCode(house, code), new Date(house.now().getTime() + CODE_MINUTES * 60_000).toISOString());
	return code;
}

const WRONG_CODES = 5;

/** Whether the code is right: then the address is proved, and what is entered is kept from now on. */
export function proveCase(house: House, token: string, code: string): Refusal | null {
	return inTransaction(house.db, () => {
		const one = caseAt(house, token);
		if (isRefusal(one)) return one;
		const row = house.db
			.prepare<[string], { email: string; hash: string; expires_at: string; wrong: number }>(
				'SELECT email, hash, expires_at, wrong FROM case_codes WHERE id = ?'
			)
			.get(one.id);
		if (!row || row.expires_at < house.now().toISOString() || row.wrong >= WRONG_CODES)
			return refuse('code-old', 'That code holds no longer. Ask for a new one.');
		if (!codeFits(house, code, row.hash)) {
			house.db.prepare('UPDATE case_codes SET wrong = wrong + 1 WHERE id = ?').run(one.id);
			const left = WRONG_CODES - row.wrong - 1;
			return left > 0
				? refuse('code-wrong', 'That is not the code.', undefined, { left })
				: refuse('code-old', 'That code holds no longer. Ask for a new one.');
		}
		house.db.prepare('DELETE FROM case_codes WHERE id = ?').run(one.id);
		house.db
			.prepare('UPDATE cases SET email = ?, proved_at = ?, seen_at = ? WHERE id = ?')
			.run(row.email, house.now().toISOString(), house.now().toISOString(), one.id);
		return null;
	});
}

/** What a waiting letter is to say. */
export const letterJob = (house: House, locked: string): CaseLetterJob =>
	JSON.parse(unlocked(house, LETTERS, locked)) as CaseLetterJob;
