import { refuse, type Refusal } from '../../core/refusal';
import type { House } from '../house';
import { sha256Bytes, sha256Text } from '../ids';

/**
 * The same asked again under the same Idempotency-Key is done once, and answered as it was (the IETF's httpapi draft). An answer
 * is kept for a day.
 */

const HOURS = 24;
/** What was begun and never answered can be asked anew after so long: the process has ended in the middle of it. */
const BEGUN_MINUTES = 10;
const AT_A_TIME = 500;

export interface Once {
	key: string;
	idem: string;
	asked: string;
}

/** What an answer is kept under. Refuses `bad-idempotency-key`. */
export function onceOf(key: string, request: Request, path: string, body: unknown): Once | null | Refusal {
	const given = request.headers.get('idempotency-key');
	if (given === null) return null;
	// a structured string (RFC 9651) or the bare word
	const idem = given.trim().replace(/^"(.*)"$/, '$1');
	if (!/^[\x21-\x7e]{1,200}$/.test(idem))
		return refuse('bad-idempotency-key', 'An Idempotency-Key has 1 to 200 plain letters, digits and signs.');
	const said = body instanceof Uint8Array ? sha256Bytes(body) : JSON.stringify(body ?? null);
	return { key, idem, asked: sha256Text(`${request.method} ${path} ${said}`) };
}

/** The answer from before, or null where it is to be done now, of which a note is made. Refuses `other-request`, `under-way`. */
export function before(house: House, { key, idem, asked }: Once): { status: number; body: string } | null | Refusal {
	const row = house.db
		.prepare<[string, string], { asked: string; status: number; body: string; at: string }>(
			'SELECT asked, status, body, at FROM api_answers WHERE key = ? AND idem = ?'
		)
		.get(key, idem);
	const now = house.now();
	if (row && row.at > new Date(now.getTime() - HOURS * 3_600_000).toISOString()) {
		if (row.asked !== asked)
			return refuse('other-request', 'This Idempotency-Key was used for something else. Use a new one.');
		if (row.status > 0) return row;
		if (row.at > new Date(now.getTime() - BEGUN_MINUTES * 60_000).toISOString())
			return refuse('under-way', 'The same is being done at this moment. Ask again in a moment.');
	}
	keep(house, { key, idem, asked }, 0, '');
	return null;
}

/** Keeps an answer; one that failed is not kept, so that it can be asked again. */
export function keep(house: House, { key, idem, asked }: Once, status: number, body: string): void {
	house.db
		.prepare(
			`INSERT INTO api_answers (key, idem, asked, status, body, at) VALUES (?, ?, ?, ?, ?, ?)
			 ON CONFLICT (key, idem) DO UPDATE SET asked = excluded.asked, status = excluded.status, body = excluded.body, at = excluded.at`
		)
		.run(key, idem, asked, status, body, house.now().toISOString());
}

export function forget(house: House, { key, idem }: Once): void {
	house.db.prepare('DELETE FROM api_answers WHERE key = ? AND idem = ?').run(key, idem);
}

/** Answers that nobody asks for again go. */
export function sweepAnswers(house: House): void {
	const old = new Date(house.now().getTime() - HOURS * 3_600_000).toISOString();
	house.db
		.prepare('DELETE FROM api_answers WHERE (key, idem) IN (SELECT key, idem FROM api_answers WHERE at < ? LIMIT ?)')
		.run(old, AT_A_TIME);
}
