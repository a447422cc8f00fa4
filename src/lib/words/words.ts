import type { Refusal, Values } from '../core/refusal';
import english from './languages/en.json';

/** The names of all texts; English is what the others are measured by. */
export type WordKey = keyof typeof english;
/** The texts of one language. */
export type Texts = Record<WordKey, string>;

/** A language in use: its texts with values filled in. */
export interface Words {
	/** BCP 47 */
	language: string;
	direction: 'ltr' | 'rtl';
	/** the text of a key, its `{names}` replaced by their values */
	(key: WordKey, values?: Values): string;
	/** a refusal in this language; in English where it has no text of its own */
	refusal(refusal: Pick<Refusal, 'code' | 'say' | 'values'>): string;
	/** names with commas and an "and", as this language does it */
	list(names: string[]): string;
}

/** The languages of the signing page and its letters, by their BCP 47 names, English first. Each has a file. */
export const LANGUAGES = [
	'en',
	'ar',
	'cs',
	'da',
	'de',
	'es',
	'fr',
	'it',
	'nb',
	'nl',
	'pl',
	'pt',
	'sv',
	'uk',
	'zh'
] as const;
export type Language = (typeof LANGUAGES)[number];

const RIGHT_TO_LEFT = ['ar', 'he'];

export function wordsIn(language: string, texts: Texts): Words {
	const say = (key: WordKey, values: Values = {}) =>
		texts[key].replaceAll(/\{([\w ]+)\}/g, (whole, name: string) => (name in values ? String(values[name]) : whole));
	const direction: Words['direction'] = RIGHT_TO_LEFT.includes(language) ? 'rtl' : 'ltr';
	return Object.assign(say, {
		language,
		direction,
		refusal: ({ code, say: sentence, values = {} }: Pick<Refusal, 'code' | 'say' | 'values'>) => {
			const key = `error.${code}` as WordKey;
			if (!Object.hasOwn(texts, key)) return sentence;
			const said = say(key, values);
			// a text that wants a value which is not there would say less than the English one
			return /\{[\w ]+\}/.test(said) ? sentence : said;
		},
		list: (names: string[]) => new Intl.ListFormat(language, { type: 'conjunction' }).format(names)
	});
}

export const ENGLISH = wordsIn('en', english);
