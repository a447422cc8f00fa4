import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { DUTIES } from '../core/packet';
import { unprintable } from '../press/fonts';
import { acceptedLanguages, chosenLanguage, LANGUAGES, nameOfLanguage, pageTextsOf, textsOf, wordsOf } from './index';
import { letter, textMessage, type MailFacts } from './mail';
import { PURPOSES, SAMPLE_FACTS } from './sample-letter';
import type { Values } from '../core/refusal';
import { ENGLISH, type Part, type Said, type WordKey } from './words';

type Raw = Record<WordKey, string>;
const raw = (language: string) => JSON.parse(readFileSync(`src/lib/words/languages/${language}.json`, 'utf8')) as Raw;
const english = raw('en');
const keys = Object.keys(english) as WordKey[];
const valuesOf = (text: string) => [...new Set([...text.matchAll(/\{(\w+)(?=[},])/g)].map(([, name]) => name!))].sort();
/** What some languages say without the name: a greeting that would need another case of it. */
const MAY_LEAVE: Partial<Record<WordKey, string[]>> = { 'mail.dear': ['cs', 'pl', 'uk'] };
/** Words that are the same in English and in some other language. */
const ALIKE = ['code.code', 'naming.name', 'naming.email', 'answer.file', 'read.others'];

/** The branches by number that a text has, by what they are about. */
function pluralsIn(said: Said): Record<string, Part[]>[] {
	if (typeof said === 'string') return [];
	return said.flatMap((part) => (typeof part === 'string' || part[1] !== 'plural' ? [] : [part[2]!]));
}

describe.each(LANGUAGES)('%s, drawn', (language) => {
	const words = wordsOf(language);
	it('has each kind of number that its grammar knows, with the same values in each branch', () => {
		const wanted = new Intl.PluralRules(language).resolvedOptions().pluralCategories.slice().sort();
		let found = 0;
		for (const [key, said] of Object.entries(textsOf(language)))
			for (const branches of pluralsIn(said)) {
				found += 1;
				expect(Object.keys(branches).sort(), key).toEqual(wanted);
				// a number of its own kind may be said in a word, anything else is in every branch
				const others = Object.values(branches).map((parts) =>
					parts.flatMap((part) => (typeof part === 'string' || part[0] === '#' ? [] : [part[0]])).sort()
				);
				expect(new Set(others.map(String)).size, key).toBe(1);
			}
		expect(found).toBeGreaterThanOrEqual(5);
	});
	it.each([0, 1, 2, 5, 11, 21])('says every text with %i and with names of both directions', (n) => {
		for (const key of keys)
			for (const name of ['Maren Lindqvist', 'مريم حداد']) {
				const given: Values = { ...NUMBERED, ...Object.fromEntries(COUNTED.map((one) => [one, n])) };
				for (const value of valuesOf(english[key])) given[value] ??= name;
				const said = words(key, given);
				expect(said, key).not.toMatch(/[{}#]|\bundefined\b/);
				// a name of the other direction can't turn what is around it (UAX #9 §2.3)
				const turns = words.direction === 'rtl' ? said.includes('Maren') : said.includes('مريم');
				if (turns) expect(said, key).toMatch(/\u2068[^\u2069]*(Maren|مريم)[^\u2069]*\u2069/);
			}
	});
	it('has the quotes and spaces of its own writing', () => {
		const texts = Object.values(raw(language)).join('\n');
		if (language === 'fr') expect(texts).not.toMatch(/« | »| [:;?!]/);
		if (language === 'da' || language === 'sv') expect(texts).not.toMatch(/[“„«]/);
		if (language === 'zh') expect(texts).not.toMatch(/“\{title\}|(^|[^…])…($|[^…])/m);
		if (['de', 'cs', 'pl'].includes(language)) expect(texts).not.toMatch(/[«»]/);
		expect(texts).not.toMatch(/ {2}|["']/);
	});
});
/** What is counted in a text, and what is written by the language itself. */
const COUNTED = ['left', 'all', 'seconds', 'minutes', 'most', 'least', 'length', 'count', 'n', 'megabytes'];
const NUMBERED: Values = { day: '2026-12-08', country: 'GB', types: ['PDF', 'PNG'], link: 'http://127.0.0.1/s/x' };

describe.each(LANGUAGES.filter((one) => one !== 'en'))('%s', (language) => {
	const texts = raw(language);
	it('has every text, none of them empty, each with the values of the English one', () => {
		expect(Object.keys(texts)).toEqual(keys);
		for (const key of keys) {
			expect(texts[key].trim(), key).not.toBe('');
			const may = MAY_LEAVE[key]?.includes(language) ? [] : valuesOf(english[key]);
			expect(valuesOf(texts[key]), key).toEqual(may);
		}
	});
	it('is written in its own words', () => {
		const same = keys.filter((key) => texts[key] === english[key]);
		expect(same.filter((key) => !ALIKE.includes(key))).toEqual([]);
	});
	it('can be printed, all of it', () => {
		expect(unprintable(Object.values(texts).join(' '))).toEqual([]);
	});
	it('fills a letter and a text message of every kind and duty without anything left open', () => {
		for (const duty of DUTIES)
			for (const purpose of PURPOSES) {
				const facts: MailFacts = { ...SAMPLE_FACTS, purpose, to: { name: 'Maren', duty } };
				const { subject, text, html } = letter(facts, wordsOf(language));
				for (const part of [subject, text, html.slice(html.indexOf('<main')), textMessage(facts, wordsOf(language))])
					expect(part, `${purpose} ${duty}`).not.toMatch(/\{[\w ]+\}|\bundefined\b|\bnull\b/);
				expect(html).toContain(`lang="${language}" dir="${language === 'ar' ? 'rtl' : 'ltr'}"`);
			}
	});
});

describe('languages', () => {
	it('are fifteen or more, each a file and no file without one', () => {
		const files = readdirSync('src/lib/words/languages').map((name) => name.replace('.json', ''));
		expect(files.sort()).toEqual([...LANGUAGES].sort());
		expect(LANGUAGES.length).toBeGreaterThanOrEqual(15);
	});
	it('are called by their own names', () => {
		expect(['de', 'ar', 'uk', 'zh'].map(nameOfLanguage)).toEqual(['Deutsch', 'العربية', 'Українська', '中文']);
	});
	it.each([
		[['de-CH', 'fr'], 'de'],
		[[null, undefined, 'pt-BR'], 'pt'],
		[['no-NO'], 'nb'],
		[['xx', 'zh-Hans-CN'], 'zh'],
		[['xx'], 'en'],
		[[], 'en']
	])('%j is met by %s', (wishes, language) => expect(chosenLanguage(...wishes)).toBe(language));
	it('that a browser asks for are read best first, and what is no language is left out', () => {
		expect(acceptedLanguages('en;q=0.5, de-AT, *;q=0.1, fr;q=0.9, x;q=1, it;q=0')).toEqual(['de-AT', 'fr', 'en']);
		expect(acceptedLanguages(null)).toEqual([]);
	});
	it('say a refusal that has its text, and in English one that has none, or lacks a value', () => {
		const words = wordsOf('de');
		expect(words.refusal({ code: 'file-empty', say: 'The file is empty.' })).toBe('Die Datei ist leer.');
		expect(words.refusal({ code: 'number-small', say: 'At least 3.', values: { least: '3' } })).toBe('Mindestens 3.');
		expect(words.refusal({ code: 'number-small', say: 'At least 3.' })).toBe('At least 3.');
		expect(words.refusal({ code: 'of-the-office', say: 'As it is.' })).toBe('As it is.');
	});
	it('write days, countries and kinds of files themselves', () => {
		const said = (language: string, code: string, values: Values) =>
			wordsOf(language).refusal({ code, say: '', values });
		expect(said('it', 'day-early', { day: '2026-12-08' })).toBe('Prima data possibile: 8 dicembre 2026.');
		expect(said('uk', 'day-late', { day: '2026-12-08' })).toBe('Найпізніший день: 8 грудня 2026.');
		expect(said('de', 'pattern-postcode', { country: 'GB' })).toContain('(Vereinigtes Königreich)');
		expect(said('fr', 'file-type', { types: ['PDF', 'PNG', 'JPEG'] })).toContain('PDF, PNG ou JPEG');
	});
	it('say each number as their grammar has it', () => {
		const left = (language: string, n: number) =>
			wordsOf(language)
				.refusal({ code: 'code-wrong', say: '', values: { left: n } })
				.split('. ')[1];
		expect([1, 2, 5].map((n) => left('pl', n))).toEqual([
			'Pozostała 1 próba.',
			'Pozostały 2 próby.',
			'Pozostało 5 prób.'
		]);
		expect([1, 2].map((n) => left('en', n))).toEqual(['You can try once more.', 'You can try 2 more times.']);
		expect(left('ar', 2)).toBe('بقيت محاولتان.');
	});
	it('keep the consents of an older version, word for word, as records name them', () => {
		const kept = JSON.parse(readFileSync('src/lib/words/consents/1.json', 'utf8')) as Record<string, string[]>;
		expect(Object.keys(kept).sort()).toEqual([...LANGUAGES].sort());
		const digest = createHash('sha256').update(JSON.stringify(kept)).digest('hex');
		expect(digest).toBe('f70523c4ed00ac7ae0ba3ecf558ba839a39099c6731cd302a03a1b75c6807d5b');
	});
	it('join names as they do', () => {
		expect(ENGLISH.list(['A', 'B', 'C'])).toBe('A, B, and C');
		expect(wordsOf('de').list(['A', 'B', 'C'])).toBe('A, B und C');
	});
});

it('a page is given all that its source asks for and no letter; in English nothing, which it carries', () => {
	expect(pageTextsOf('en')).toBeNull();
	const given = Object.keys(pageTextsOf('de')!);
	expect(given.length).toBeLessThan(Object.keys(textsOf('de')).length - 20);
	const sources = ['src/lib/ui/signing', 'src/routes/s'].flatMap((folder) =>
		readdirSync(folder, { recursive: true, encoding: 'utf8' })
			.filter((name) => /\.(svelte|ts)$/.test(name))
			.map((name) => readFileSync(path.join(folder, name), 'utf8'))
	);
	const asked = sources.flatMap((text) => [...text.matchAll(/['`]((?:mail|text)\.[a-z .]+)/g)].map(([, key]) => key!));
	expect(asked.length).toBeGreaterThan(2);
	for (const key of asked)
		expect(
			given.some((one) => one.startsWith(key)),
			key
		).toBe(true);
});
