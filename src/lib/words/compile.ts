import { parse, TYPE, type MessageFormatElement } from '@formatjs/icu-messageformat-parser';
import type { Part, Said } from './words';

/**
 * Texts made ready to be filled: those with branches by number or word (ICU MessageFormat: plural, select) are taken apart once, so
 * that no page carries the parser. What has no branches stays a string. Throws where a text is not well-formed.
 */
export function compiled<Key extends string>(texts: Record<Key, Said>): Record<Key, Said> {
	const all = Object.entries<Said>(texts).map(([key, text]) => [
		key,
		typeof text === 'string' && /\{\w+, (plural|select),/.test(text)
			? parse(text, { ignoreTag: true }).map((one) => partOf(one))
			: text
	]);
	return Object.fromEntries(all) as Record<Key, Said>;
}

/** Whether a text stands in letters and text messages alone, so that no page has to carry it. */
const isOfLetters = (key: string): boolean =>
	/^(mail|text)\./.test(key) && !/^mail\.(asks\.|subject\.|account$)/.test(key);

/** Texts of an intake's questions and of a notary's room, with what is refused there alone: those pages are given them. */
const OF_THEIR_OWN =
	/^((intake|room)\.|error\.(no-session|no-session-now|not-confirmed|no-oath|nothing-drawn|why-missing|not-in-room|too-much-said)$)/;

/** The texts without those of letters and, on the signing page, those that few have a use for. */
export function ofPages<Key extends string>(texts: Record<Key, Said>, visits = false): Record<Key, Said> {
	return Object.fromEntries(
		Object.entries<Said>(texts).filter(([key]) => !isOfLetters(key) && (visits || !OF_THEIR_OWN.test(key)))
	) as Record<Key, Said>;
}

function partOf(one: MessageFormatElement): Part {
	switch (one.type) {
		case TYPE.literal:
			return one.value;
		case TYPE.argument:
			return [one.value];
		case TYPE.pound:
			return ['#'];
		case TYPE.plural:
		case TYPE.select: {
			const branches = Object.entries(one.options).map(([name, { value }]) => [name, value.map(partOf)]);
			return [one.value, one.type === TYPE.plural ? 'plural' : 'select', Object.fromEntries(branches)];
		}
		default:
			throw new Error('a text knows values, plural and select only');
	}
}
