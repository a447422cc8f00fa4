import { accountById, LINK_HOURS, newAccountLink, type LetterJob } from '../accounts';
import { accountLetter } from '../../words/account-mail';
import type { House } from '../house';
import type { Message } from '../mail';
import { sendAndEnd } from '../mail/sending';
import { BY_ITSELF, note } from '../office-record';
import { organisation } from '../settings';

/** Sends a letter about an account, its link made just now. Null when done, or why it must be tried again. */
export async function sendLetter(house: House, key: string, job: LetterJob, done: () => void): Promise<string | null> {
	return sendAndEnd(
		house,
		() => compose(house, key, job),
		(message, delivery) => {
			const account = accountById(house, job.account);
			if (message && account && delivery?.is === 'refused')
				note(house, BY_ITSELF, { type: 'LetterRefused', account: account.id, name: account.name, why: delivery.why });
			done();
		}
	);
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
