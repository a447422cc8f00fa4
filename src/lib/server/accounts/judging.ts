import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { refuse, type Refusal } from '../../core/refusal';

/**
 * Which passwords are taken, as NIST SP 800-63B-4 §3.1.1.2 wants it: long, any characters, none cut in silence, judged against
 * lists of known ones and against the words of this account and this house; no rules on kinds of characters.
 */
const LEAST = 12;
const MOST = 512;
/** Judging takes longer with the length; what begins hard to guess is hard to guess. */
const JUDGED = 100;
/** 0 to 4: how hard to guess; 3 withstands many thousand guesses a second for years. */
const HARD_ENOUGH = 3;

let judge: Promise<ZxcvbnFactory> | undefined;

/** The lists are large and wanted seldom. */
async function loaded(): Promise<ZxcvbnFactory> {
	const [common, english] = await Promise.all([import('@zxcvbn-ts/language-common'), import('@zxcvbn-ts/language-en')]);
	return new ZxcvbnFactory({
		dictionary: { ...common.dictionary, ...english.dictionary },
		graphs: common.adjacencyGraphs,
		translations: english.translations
	});
}

/**
 * Refuses `short-password`, `long-password` and `easy-password`, each with what to do.
 * @param about name, address, organisation: what somebody who wants in would try first
 */
export async function judgePassword(password: string, about: string[]): Promise<Refusal | null> {
	const letters = [...password.normalize('NFKC')].length;
	if (letters < LEAST)
		return refuse(
			'short-password',
			`The password needs ${LEAST} characters or more; three or four words will do.`,
			'password'
		);
	if (letters > MOST) return refuse('long-password', `The password may have ${MOST} characters at most.`, 'password');
	const words = ['pellum', ...about]
		.flatMap((text) => [text, ...text.split(/[^\p{L}\p{N}]+/u)])
		.filter((w) => w.length > 2)
		.sort((a, b) => b.length - a.length);
	const rest = words.reduce((left, word) => left.replaceAll(word.toLowerCase(), ''), password.toLowerCase());
	if ([...rest].length < LEAST / 2) return easy('Your name, your address and the office are what others try first.');
	const { score, feedback } = (await (judge ??= loaded())).check(password.slice(0, JUDGED), words);
	return score >= HARD_ENOUGH ? null : easy(feedback.warning ?? feedback.suggestions[0] ?? '');
}

const easy = (why: string): Refusal =>
	refuse(
		'easy-password',
		`That password is too easy to guess. ${why} Take a few words that don't belong together.`,
		'password'
	);
