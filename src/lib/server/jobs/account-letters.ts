import { accountById, LINK_HOURS, newAccountLink, type Account, type LetterJob, type LetterPurpose } from '../accounts';
import { dayIn } from '../../core/calendar';
import { accountLetter } from '../../words/account-mail';
import { morningLetter } from '../../words/morning-mail';
import type { Letter } from '../../words/mail';
import { needsYou } from '../desk';
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
	const letter = purpose === 'morning' ? morning(house, to) : about(house, to, purpose);
	return (
		letter && {
			id: key.replaceAll(/[^\w.-]/g, '.'),
			to: to.email,
			replyTo: {
				name: organisation(house.db).name,
				address: house.config.mailFrom.replace(/^.*<(.*)>$/, '$1')
			},
			...letter,
			attachments: []
		}
	);
}

function about(house: House, to: Account, purpose: LetterPurpose): Letter {
	const { name: office, colour } = organisation(house.db);
	const link = purpose === 'changed' ? `${house.config.origin}/forgot` : newAccountLink(house, to.id, purpose);
	return accountLetter({
		purpose,
		to: to.name,
		office,
		hours: purpose === 'changed' ? 0 : LINK_HOURS[purpose],
		link,
		colour
	});
}

/** What needs somebody now; null where nothing does. */
function morning(house: House, to: Account): Letter | null {
	const { name: office, colour, zone } = organisation(house.db);
	return morningLetter({
		to: to.name,
		office,
		needs: needsYou(house, to),
		day: (at) => dayIn(zone, at),
		link: `${house.config.origin}/desk`,
		colour
	});
}
