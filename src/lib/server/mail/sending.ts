import { inTransaction } from '../db';
import type { House } from '../house';
import { deliverBySmtp, deliverInside, deliversInside, type Delivery, type Message } from '.';

/**
 * Sends the message of a job and ends the job. With a stand-in everything is one transaction; by SMTP the end is written after the
 * server has taken it, so that a crash between the two repeats a message rather than losing it.
 * @param compose the message, made just now; null where it has become pointless
 * @param end writes what came of it, and that the job is done
 * @param standIn takes the message whatever the mail is set to
 * @returns null when done, or why it must be tried again
 */
export async function sendAndEnd(
	house: House,
	compose: () => Message | null,
	end: (message: Message | null, delivery: Delivery | null) => void,
	standIn: typeof deliverInside | null = deliversInside(house) ? deliverInside : null
): Promise<string | null> {
	if (standIn) {
		inTransaction(house.db, () => {
			const message = compose();
			end(message, message && standIn(house, message));
		});
		return null;
	}
	const message = inTransaction(house.db, compose);
	const delivery = message && (await deliverBySmtp(house, message));
	if (delivery?.is === 'later') return delivery.why;
	inTransaction(house.db, () => end(message, delivery));
	return null;
}
