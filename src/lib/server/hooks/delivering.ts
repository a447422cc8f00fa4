import http from 'node:http';
import https from 'node:https';
import { Webhook } from 'standardwebhooks';
import { cleanText, cutText } from '../../core/clean-text';
import { isRefusal } from '../../core/refusal';
import { inTransaction } from '../db';
import type { House } from '../house';
import { rowOfEvent } from '../intakes';
import { judgeAddress, listedHosts, lookupOutside } from '../outside';
import type { HookKind } from './kinds';
import { secretsOf } from './store';
import { mayTell, queueNext, waits, type HookJob } from './telling';

/** The whole of one delivery, from looking the name up to the last byte of the answer. */
const LIMIT_SECONDS = 15;
/** So much of an answer is read; its status says all that counts. */
const READ = 64 * 1024;
const SHOWN = 500;
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
function post(house: House, hook: Kept, { id, body }: Message): Promise<Answer> {
	const url = judgeAddress(house, hook.address);
	if (isRefusal(url)) return Promise.resolve({ good: false, status: null, said: url.say });
	// its own moment, which receivers compare with theirs: the machine's, not the demo's
	const sentAt = new Date();
	const signature = secretsOf(house, hook)
		.map((secret) => new Webhook(secret).sign(id, sentAt, body))
		.join(' ');
	const listed = listedHosts(house).includes(url.host);
	return new Promise((resolve) => {
		let text = '';
		const no = (said: string) => resolve({ good: false, status: null, said: cutText(said, SHOWN) });
		const seconds = house.config.hookSeconds ?? LIMIT_SECONDS;
		const limit = AbortSignal.timeout(seconds * 1000);
		const request = (url.protocol === 'https:' ? https : http).request(
			url,
			{
				method: 'POST',
				signal: limit,
				// one that was left open may be shut by now
				agent: false,
				...(!listed && { lookup: lookupOutside }),
				headers: {
					'Content-Type': 'application/json',
					'Content-Length': Buffer.byteLength(body),
					'User-Agent': 'Pellum',
					'webhook-id': id,
					'webhook-timestamp': String(Math.floor(sentAt.getTime() / 1000)),
					'webhook-signature': signature
				}
			},
			(response) => {
				const status = response.statusCode ?? 0;
				const good = status >= 200 && status < 300;
				const end = () => {
					const said =
						status >= 300 && status < 400
							? `leads elsewhere, which is not followed: ${response.headers.location ?? ''}`
							: text;
					resolve({ good, status, said: cutText(cleanText(said), SHOWN) });
					response.destroy();
				};
				let size = 0;
				response.on('data', (chunk: Buffer) => {
					size += chunk.length;
					if (text.length < SHOWN) text += chunk.toString('utf8');
					if (size > READ) end();
				});
				response.on('end', end);
				response.on('error', end);
			}
		);
		request.on('error', (error: NodeJS.ErrnoException) =>
			no(limit.aborted ? `no answer within ${seconds} s` : error.message || (error.code ?? 'no connection'))
		);
		request.end(body);
	});
}
