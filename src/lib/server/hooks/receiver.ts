import { Webhook } from 'standardwebhooks';
import { cutText } from '../../core/clean-text';
import type { House } from '../house';
import { secretsOf } from './store';

/** The receiver that ships with Pellum: it keeps what comes, and says whether it is signed as it must be. */

export interface Received {
	id: number;
	at: string;
	message: string;
	/** signed with the secret of one of the hooks that lead here */
	good: boolean;
	body: string;
}

/** The address of the receiver. */
export const receiverAddress = (house: House): string => `${house.config.origin}/stand-ins/receiver`;

/** Keeps a message, the last hundred of them. The same id a second time is the same message. */
export function receive(house: House, headers: Headers, body: string): boolean {
	const hooks = house.db
		.prepare<[string], { locked: string; lockedBefore: string | null; beforeUntil: string | null }>(
			`SELECT locked, locked_before AS lockedBefore, before_until AS beforeUntil FROM hooks INDEXED BY hooks_now
			 WHERE ended_at IS NULL AND address = ?`
		)
		.all(receiverAddress(house));
	const given = Object.fromEntries(headers);
	const good = hooks
		.flatMap((hook) => secretsOf(house, hook))
		.some((secret) => {
			try {
				new Webhook(secret).verify(body, given);
				return true;
			} catch {
				return false;
			}
		});
	house.db
		.prepare('INSERT INTO receiver (at, message, good, body) VALUES (?, ?, ?, ?)')
		.run(house.now().toISOString(), cutText(given['webhook-id'] ?? '', 100), good ? 1 : 0, cutText(body, 4000));
	house.db.prepare('DELETE FROM receiver WHERE id <= (SELECT max(id) FROM receiver) - 100').run();
	house.changes.emit('packet', '');
	return good;
}

/** The newest first. */
export function receivedMessages(house: House, most = 20): Received[] {
	return house.db
		.prepare<[number], Omit<Received, 'good'> & { good: number }>(
			'SELECT id, at, message, good, body FROM receiver ORDER BY id DESC LIMIT ?'
		)
		.all(most)
		.map((row) => ({ ...row, good: row.good === 1 }));
}
