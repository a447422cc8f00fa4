import { randomBytes } from 'node:crypto';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { note, type Doer } from '../office-record';
import { locked, unlocked } from '../secrets';
import { judgeAddress } from '../outside';
import { KINDS_OF_HOOKS, type HookKind } from './kinds';
import { queueNext } from './telling';

/** Hooks of an account, and what each was told. */

export interface Hook {
	id: string;
	address: string;
	kinds: HookKind[];
	madeAt: string;
	/** how many tries in a row have failed, and until when nothing is tried */
	failures: number;
	restsUntil: string | null;
}

export interface Delivery {
	id: number;
	packet: string;
	reference: string;
	kind: HookKind;
	at: string;
	state: 'waits' | 'delivered' | 'given up';
	tries: number;
	/** the HTTP status of the last answer; null where none came */
	status: number | null;
	/** what was answered last, or why nothing came */
	answer: string;
	doneAt: string | null;
}

const MOST_HOOKS = 20;
/** After a change, messages are signed with both secrets for so long. */
const BOTH_HOURS = 24;
const USE = 'hook';

export function hooksOf(house: House, account: Account): Hook[] {
	return house.db
		.prepare<[string], Omit<Hook, 'kinds'> & { kinds: string }>(
			`SELECT id, address, kinds, made_at AS madeAt, failures, rests_until AS restsUntil FROM hooks
			 WHERE account = ? AND ended_at IS NULL`
		)
		.all(account.id)
		.map((row) => ({ ...row, kinds: JSON.parse(row.kinds) as HookKind[] }))
		.sort((a, b) => (a.madeAt < b.madeAt ? -1 : 1));
}

/** A secret as Standard Webhooks writes one: `whsec_` and 32 random bytes in base 64. */
const newSecret = (): string => `whsec_${randomBytes(32).toString('base64')}`;

/** Has an address told of what happens. Refuses what {@link judgeAddress} does, `no-kinds`, `too-many-hooks`. */
export function makeHook(
	house: House,
	by: Doer & { account: Account },
	address: string,
	kinds: readonly string[]
): { id: string; secret: string } | Refusal {
	const url = judgeAddress(house, address);
	if (isRefusal(url)) return url;
	const wanted = KINDS_OF_HOOKS.filter((kind) => kinds.includes(kind));
	if (wanted.length === 0) return refuse('no-kinds', 'Say of what it is to be told.', 'kinds');
	return inTransaction(house.db, () => {
		if (hooksOf(house, by.account).length >= MOST_HOOKS)
			return refuse('too-many-hooks', `${MOST_HOOKS} addresses are enough. End one that nobody needs.`);
		const [id, secret] = [newId(house.now()), newSecret()];
		note(house, by, { type: 'HookMade', hook: id, address: url.href, account: by.account.id });
		house.db
			.prepare('INSERT INTO hooks (id, account, address, kinds, locked, made_at) VALUES (?, ?, ?, ?, ?, ?)')
			.run(id, by.account.id, url.href, JSON.stringify(wanted), locked(house, USE, secret), house.now().toISOString());
		return { id, secret };
	});
}

const NO_HOOK = refuse('no-hook', 'There is no such address any more.');

function own(house: House, account: Account, id: string): Hook | Refusal {
	return hooksOf(house, account).find((hook) => hook.id === id) ?? NO_HOOK;
}

/** Another secret; the one before is good for a day more, so that nothing is lost while it is put in. */
export function renewSecret(house: House, account: Account, id: string): { secret: string } | Refusal {
	const hook = own(house, account, id);
	if (isRefusal(hook)) return hook;
	const secret = newSecret();
	const until = new Date(house.now().getTime() + BOTH_HOURS * 3_600_000).toISOString();
	house.db
		.prepare('UPDATE hooks SET locked_before = locked, before_until = ?, locked = ? WHERE id = ?')
		.run(until, locked(house, USE, secret), id);
	return { secret };
}

/** Tells it of nothing any more; what waits is given up. */
export function endHook(house: House, by: Doer & { account: Account }, id: string): Refusal | null {
	return inTransaction(house.db, () => {
		const hook = own(house, by.account, id);
		if (isRefusal(hook)) return hook;
		note(house, by, { type: 'HookEnded', hook: id, address: hook.address, account: by.account.id });
		house.db.prepare('UPDATE hooks SET ended_at = ? WHERE id = ?').run(house.now().toISOString(), id);
		return null;
	});
}

/** What a hook was told, the newest first. */
export function deliveriesOf(house: House, account: Account, id: string, most = 50): Delivery[] {
	if (isRefusal(own(house, account, id))) return [];
	return house.db
		.prepare<[string, number], Delivery>(
			`SELECT d.id, d.packet, p.reference, d.kind, d.at, d.state, d.tries, d.status, d.answer, d.done_at AS doneAt
			 FROM hook_deliveries d CROSS JOIN packets p ON p.id = d.packet WHERE d.hook = ? ORDER BY d.id DESC LIMIT ?`
		)
		.all(id, most);
}

/** Tells it once more, under the same id, whatever came of it before. */
export function tellAgain(house: House, account: Account, id: string, delivery: number): Refusal | null {
	return inTransaction(house.db, () => {
		if (isRefusal(own(house, account, id))) return NO_HOOK;
		const row = house.db
			.prepare<[string, number], { packet: string }>(
				`UPDATE hook_deliveries SET state = 'waits', tries = 0, done_at = NULL WHERE hook = ? AND id = ?
				 RETURNING packet`
			)
			.get(id, delivery);
		if (!row) return refuse('no-delivery', 'There is no such message.');
		house.db.prepare('UPDATE hooks SET rests_until = NULL, failures = 0 WHERE id = ?').run(id);
		queueNext(house, id, row.packet, `again ${house.now().getTime()}`);
		house.changes.emit('jobs');
		return null;
	});
}

/** So many days what was told is listed. */
const LISTED_DAYS = 30;
const AT_A_TIME = 500;

export function sweepDeliveries(house: House): void {
	const old = new Date(house.now().getTime() - LISTED_DAYS * 86_400_000).toISOString();
	house.db
		.prepare(
			`DELETE FROM hook_deliveries WHERE id IN
			 (SELECT id FROM hook_deliveries INDEXED BY hook_deliveries_old WHERE done_at < ? LIMIT ?)`
		)
		.run(old, AT_A_TIME);
}

/** The secrets with which a message is signed now, the newest first. */
export function secretsOf(
	house: House,
	hook: { locked: string; lockedBefore: string | null; beforeUntil: string | null }
): string[] {
	const both = hook.lockedBefore !== null && (hook.beforeUntil ?? '') > house.now().toISOString();
	return [hook.locked, ...(both ? [hook.lockedBefore!] : [])].map((one) => unlocked(house, USE, one));
}
