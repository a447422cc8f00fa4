import type { Names, Plan } from '../../core/packet';
import type { Db } from '../db';
import { newToken, sha256Text } from '../ids';

/**
 * Words to one person alone. The record goes along with everybody's copy, so a plan that is frozen has their digest in their
 * place, made with a salt that only the house keeps: who has the words and the salt can prove them, nobody can guess them.
 */
const VEILED = /^sha256:([0-9a-f]{64})$/;

/** The digest that stands for the words; the same for the same words to the same person of a packet. */
function veiled(db: Db, packet: string, person: string, words: string): string {
	const kept = db
		.prepare<[string, string], { digest: string; words: string }>(
			'SELECT digest, words FROM private_words WHERE packet = ? AND person = ?'
		)
		.all(packet, person)
		.find((one) => one.words === words);
	if (kept) return `sha256:${kept.digest}`;
	const salt = newToken().token;
	const digest = saltedDigest(salt, words);
	db.prepare('INSERT INTO private_words (digest, packet, person, salt, words) VALUES (?, ?, ?, ?, ?)').run(
		digest,
		packet,
		person,
		salt,
		words
	);
	return `sha256:${digest}`;
}

/** SHA-256 of salt, line feed and words. */
export const saltedDigest = (salt: string, words: string): string => sha256Text(`${salt}\n${words}`);

/** The digest in words that are veiled; null for any others. */
export const veiledDigest = (note: string): string | null => VEILED.exec(note)?.[1] ?? null;

/** The words that a digest stands for; what is none, such as the words of a packet sent by an older Pellum, as it is. */
export function unveiled(db: Db, note: string): string {
	const digest = veiledDigest(note);
	if (!digest) return note;
	return (
		db.prepare<[string], { words: string }>('SELECT words FROM private_words WHERE digest = ?').get(digest)?.words ??
		note
	);
}

/** The plan as it is frozen: each word to one person alone by its digest. */
export function veil(db: Db, packet: string, plan: Plan): Plan {
	return withWords(plan, (words, person) => veiled(db, packet, person, words));
}

/** The plan as whoever prepares it reads it. */
export function unveil(db: Db, plan: Plan): Plan {
	return withWords(plan, (words) => unveiled(db, words));
}

/** What only one person reads: a word to them, and a letter of their own in the place of everybody's. */
export const PRIVATE = ['note', 'subject', 'message'] as const;

function withWords(plan: Plan, change: (words: string, person: string) => string): Plan {
	const people = plan.people.map((one) => {
		const own = PRIVATE.filter((part) => one[part]);
		return own.length === 0
			? one
			: { ...one, ...Object.fromEntries(own.map((part) => [part, change(one[part]!, one.id)])) };
	});
	return { ...plan, people };
}

/** The same for whoever is named on the way, and the word to them. */
export function veilNames(db: Db, packet: string, names: Names): Names {
	return Object.fromEntries(
		Object.entries(names).map(([person, one]) => {
			const note = one.note?.trim();
			return [person, note ? { ...one, note: veiled(db, packet, person, note) } : one];
		})
	);
}
