import { accountById, LINK_HOURS, newAccountLink, type LetterJob } from '../accounts';
import { inTransaction } from '../db';
import { accountLetter } from '../../words/account-mail';
import type { House } from '../house';
import { deliverBySmtp, deliverInside, deliversInside, type Delivery, type Message } from '../mail';
import { BY_ITSELF, note } from '../office-record';
import { organisation } from '../settings';

/** Sends a letter about an account, its link made just now. Null when done, or why it must be tried again. */
export async function sendLetter(house: House, key: string, job: LetterJob, done: () => void): Promise<string | null> {
	const finish = (message: Message | null, delivery: Delivery | null) => {
		const account = accountById(house, job.account);
		if (message && account && delivery?.is === 'refused')
			note(house, BY_ITSELF, { type: 'LetterRefused', account: account.id, name: account.name, why: delivery.why });
		done();
	};
	if (deliversInside(house)) {
		inTransaction(house.db, () => {
			const message = compose(house, key, job);
			finish(message, message && deliverInside(house, message));
		});
		return null;
	}
	const message = inTransaction(house.db, () => compose(house, key, job));
	const delivery = message && (await deliverBySmtp(house, message));
	if (delivery?.is === 'later') return delivery.why;
	inTransaction(house.db, () => finish(message, delivery));
	return null;
}

function compose(house: House, key: string, { account, purpose }: LetterJob): Message | null {
	const to = accountById(house, account);
	if (!to) return null;
	const { name: office, colour } = organisation(house.db);
	const link = purpose === 'changed' ? `${house.config.origin}/forgot` : newAccountLink(house, account, purpose);
	return {
		id: key.replaceAll(/[^\w.-]/g, '.'),
		to: to.email,
		replyTo: { name: office, address: house.config.mailFrom.replace(/^.*<(.*)>$/, '$1') },
		...accountLetter({
			purpose,
			to: to.name,
			office,
			hours: purpose === 'changed' ? 0 : LINK_HOURS[purpose],
			link,
			colour
		}),
		attachments: []
	};
}
