import { Webhook } from 'standardwebhooks';
import { cleanText, cutText } from '../../core/clean-text';
import { isRefusal } from '../../core/refusal';
import { inTransaction } from '../db';
import type { House } from '../house';
import { rowOfEvent } from '../intakes';
import { askOutside, judgeAddress } from '../outside';
import type { HookKind } from './kinds';
import { secretsOf } from './store';
import { mayTell, queueNext, waits, type HookJob } from './telling';

/** So much of an answer is read; its status says all that counts. */
const READ = 64 * 1024;
const SHOWN = 500;
/** whole letters of so many take no more than that */
const SHOWN_BYTES = 4 * SHOWN;
const DAYS = 3;
/** Pauses between tries: 10 s, 40 s, 160 s … at most eight hours. */
const pauseAfter = (failures: number): number => Math.min(8 * 3_600_000, 10_000 * 4 ** Math.min(failures, 10));

interface Due {
	id: number;
	n: number;
	kind: HookKind;
	at: string;
	tries: number;
	reference: string;
}

interface Kept {
	account: string;
	address: string;
	locked: string;
	lockedBefore: string | null;
	beforeUntil: string | null;
	endedAt: string | null;
	failures: number;
	restsUntil: string | null;
}

/** Tells a hook the next of a packet. What fails waits, with all else for this hook, and is given up after three days. */
export async function tellNext(house: House, { hook: id, packet }: HookJob, done: () => void): Promise<null> {
	const hook = house.db
		.prepare<[string], Kept>(
			`SELECT account, address, locked, locked_before AS lockedBefore, before_until AS beforeUntil, ended_at AS endedAt, failures,
			 rests_until AS restsUntil FROM hooks WHERE id = ?`
		)
		.get(id);
	const due = house.db
		.prepare<[string, string], Due>(
			`SELECT d.id, d.n, d.kind, d.at, d.tries, p.reference FROM hook_deliveries d CROSS JOIN packets p ON p.id = d.packet
			 WHERE d.hook = ? AND d.packet = ? AND d.state = 'waits' ORDER BY d.n LIMIT 1`
		)
		.get(id, packet);
	if (!hook || hook.endedAt !== null || !due) {
		done();
		return null;
	}
	const now = house.now().toISOString();
	if (hook.restsUntil !== null && hook.restsUntil > now) {
		inTransaction(house.db, () => {
			queueNext(house, id, packet, `${due.n} until ${hook.restsUntil}`, hook.restsUntil!);
			done();
		});
		return null;
	}
	// between the event and its message the account may have been closed, or shut out of the packet's folder
	const answer = mayTell(house, hook.account, packet)
		? await post(house, hook, messageOf(house, due, packet))
		: { good: false, status: null, said: 'Its account may not see this packet any more.' };
	inTransaction(house.db, () => {
		settle(house, { id, packet, hook, due }, answer);
		done();
	});
	house.changes.emit('jobs');
	return null;
}

interface Answer {
	good: boolean;
	status: number | null;
	said: string;
}

function settle(
	house: House,
	{ id, packet, hook, due }: { id: string; packet: string; hook: Kept; due: Due },
	{ good, status, said }: Answer
): void {
	const now = house.now();
	const over = !good && now.getTime() - Date.parse(due.at) > DAYS * 86_400_000;
	const state = good ? 'delivered' : over ? 'given up' : 'waits';
	house.db
		.prepare(
			'UPDATE hook_deliveries SET state = ?, tries = tries + 1, status = ?, answer = ?, done_at = ? WHERE id = ?'
		)
		.run(state, status, said, state === 'waits' ? null : now.toISOString(), due.id);
	const failures = good ? 0 : hook.failures + 1;
	const rests = good ? null : new Date(now.getTime() + pauseAfter(hook.failures)).toISOString();
	house.db.prepare('UPDATE hooks SET failures = ?, rests_until = ? WHERE id = ?').run(failures, rests, id);
	// what is given up comes before the next as a gap in the numbers
	if (waits(house, id, packet))
		queueNext(house, id, packet, `${due.id}.${due.tries + 1} at ${now.getTime()}`, rests ?? now.toISOString());
}

interface Message {
	id: string;
	body: string;
}

/** A message as it is signed: the same at each try. What it carries of answers is a row that the office has asked for. */
function messageOf(house: House, { n, kind, at, reference }: Due, packet: string): Message {
	const row = kind === 'packet.followed' ? rowOfEvent(house, packet, n) : null;
	return {
		id: `msg_${packet}_${n}`,
		body: JSON.stringify({ type: kind, timestamp: at, data: { packet, reference, n, ...(row && { row }) } })
	};
}

/** Sends it, signed; follows no redirect, and reads little of the answer. */
async function post(house: House, hook: Kept, { id, body }: Message): Promise<Answer> {
	const url = judgeAddress(house, hook.address);
	if (isRefusal(url)) return { good: false, status: null, said: url.say };
	// its own moment, which receivers compare with theirs: the machine's, not the demo's
	const sentAt = new Date();
	const signature = secretsOf(house, hook)
		.map((secret) => new Webhook(secret).sign(id, sentAt, body))
		.join(' ');
	const came = await askOutside(house, url, {
		method: 'POST',
		headers: {
			'Content-Type': 'application/json',
			'webhook-id': id,
			'webhook-timestamp': String(Math.floor(sentAt.getTime() / 1000)),
			'webhook-signature': signature
		},
		body,
		most: READ
	});
	if (came.status === null) return { good: false, status: null, said: cutText(came.why, SHOWN) };
	const { status, bytes, location } = came;
	const said =
		status >= 300 && status < 400
			? `leads elsewhere, which is not followed: ${location}`
			: bytes.subarray(0, SHOWN_BYTES).toString('utf8');
	return { good: status >= 200 && status < 300, status, said: cutText(cleanText(said), SHOWN) };
}
