import { numbersIn } from '../core/intl';
import { dayIn } from '../core/calendar';
import { isolated } from '../core/clean-text';
import type { Refusal, Value, Values } from '../core/refusal';
import english from './languages/en.json';

/** The names of all texts; English is what the others are measured by. */
export type WordKey = keyof typeof english;
/** A piece of a text: words, a value by its name ('#' is the number of the branch), or branches by a number's kind or a word. */
export type Part =
	string | [value: string] | [value: string, by: 'plural' | 'select', branches: Record<string, Part[]>];
/** A text with `{names}` of values in it, or its pieces where it has branches (see compile.ts). */
export type Said = string | Part[];
/** The texts of one language. */
export type Texts = Record<WordKey, Said>;

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
	/** sentences one after the other */
	joined(sentences: string[]): string;
	/** clauses of one sentence */
	clauses(clauses: string[]): string;
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

/** What is written by the language itself: a day (ISO 8601), a country (ISO 3166), a few things of which one will do. */
const WRITTEN: Record<string, (value: string, language: string) => string> = {
	day: (day, language) => dayIn('UTC', `${day}T12:00:00Z`, tagOf(language)),
	country: (code, language) => new Intl.DisplayNames(tagOf(language), { type: 'region' }).of(code) ?? code
};

/** English is that of the office. */
const tagOf = (language: string) => (language === 'en' ? 'en-GB' : language);

/** What can't turn anything within a text from right to left: such letters alone, or a bare number. */
const RIGHT_ALONE = /^(\d+|[\p{Script=Arabic}\p{Script=Hebrew}\s]+)$/u;

export function wordsIn(language: string, texts: Texts): Words {
	const direction: Words['direction'] = RIGHT_TO_LEFT.includes(language) ? 'rtl' : 'ltr';
	// a value stays in itself, whichever way it is read; an address to press is left as it is
	const apart = (name: string, value: string) => {
		if (name === 'link') return value;
		if (direction === 'ltr') return isolated(value);
		return RIGHT_ALONE.test(value) ? value : `\u2068${value}\u2069`;
	};
	const shown = (name: string, value: Value) =>
		apart(
			name,
			Array.isArray(value)
				? new Intl.ListFormat(tagOf(language), { type: 'disjunction' }).format(value)
				: (WRITTEN[name]?.(String(value), language) ?? String(value))
		);
	const rules = new Intl.PluralRules(language);
	const fill = (parts: Part[], values: Values, n = 0): string =>
		parts
			.map((part) => {
				if (typeof part === 'string') return part;
				const [name, by, branches] = part;
				if (name === '#') return numbersIn(tagOf(language)).format(n);
				const value = values[name];
				if (value === undefined) return `{${name}}`;
				if (!by) return shown(name, value);
				const kind = by === 'plural' ? rules.select(Number(value)) : String(value);
				return fill(branches?.[kind] ?? branches?.['other'] ?? [], values, Number(value));
			})
			.join('');
	const say = (key: WordKey, values: Values = {}) => {
		const text = texts[key];
		if (typeof text !== 'string') return fill(text, values);
		return text.replaceAll(/\{(\w+)\}/g, (whole, name: string) =>
			name in values ? shown(name, values[name]!) : whole
		);
	};
	const sentences = language === 'zh' ? '' : ' ';
	return Object.assign(say, {
		language,
		direction,
		refusal: ({ code, say: sentence, values = {} }: Pick<Refusal, 'code' | 'say' | 'values'>) => {
			const key = `error.${code}` as WordKey;
			if (!Object.hasOwn(texts, key)) return sentence;
			const said = say(key, values);
			// a text that wants a value which is not there would say less than the English one
			return /\{\w+\}/.test(said) ? sentence : said;
		},
		list: (names: string[]) => new Intl.ListFormat(language, { type: 'conjunction' }).format(names),
		joined: (all: string[]) => all.filter(Boolean).join(sentences),
		clauses: (all: string[]) => all.join(({ zh: '；', ar: '؛ ' } as Record<string, string>)[language] ?? '; ')
	});
}

export const ENGLISH = wordsIn('en', english);
