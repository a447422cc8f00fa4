import { caseLetter } from '../../words/case-mail';
import { chosenLanguage, wordsOf } from '../../words';
import { isRefusal } from '../../core/refusal';
import { accountById } from '../accounts';
import type { House } from '../house';
import { caseById, letterJob, newCaseCode, readIntake } from '../intakes';
import type { Message } from '../mail';
import { sendAndEnd } from '../mail/sending';
import { CODE_MINUTES } from '../packets/codes';
import { organisation } from '../settings';

/** Sends a visitor the code that proves their address, made just now. Null when done, or why it must be tried again. */
export async function sendCaseLetter(
	house: House,
	key: string,
	job: { case: string; locked: string },
	done: () => void
): Promise<string | null> {
	return sendAndEnd(house, () => compose(house, key, job.locked), done);
}

/** The message, or null where the case was handed in or is gone. */
function compose(house: House, key: string, locked: string): Message | null {
	const { case: id, email, name, language, token } = letterJob(house, locked);
	const one = caseById(house, id);
	if (isRefusal(one) || one.packet !== null) return null;
	const intake = readIntake(house, one.intake);
	const owner = isRefusal(intake) ? null : accountById(house, intake.owner);
	if (isRefusal(intake) || !owner) return null;
	const { name: office, colour } = organisation(house.db);
	return {
		id: key.replaceAll(/[^\w.-]/g, '.'),
		to: email,
		replyTo: { name: owner.name, address: owner.email },
		...caseLetter(
			{
				to: name,
				heading: one.setting.heading,
				from: owner,
				office,
				code: newCaseCode(house, id, email),
				minutes: CODE_MINUTES,
				link: `${house.config.origin}/i/${intake.slug}/${token}`,
				colour
			},
			wordsOf(chosenLanguage(language))
		),
		attachments: []
	};
}
