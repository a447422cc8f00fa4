import { describe, expect, it } from 'vitest';
import { readdirSync } from 'node:fs';
import { DUTIES, type MessagePurpose } from '../core/packet';
import { unprintable } from '../press/fonts';
import { acceptedLanguages, chosenLanguage, LANGUAGES, nameOfLanguage, textsOf, wordsOf } from './index';
import { letter, textMessage, type MailFacts } from './mail';
import { ENGLISH } from './words';

const english = textsOf('en');
const values = (text: string) => [...new Set(text.match(/\{[\w ]+\}/g) ?? [])].sort();
/** Words that are the same in English and in some other language. */
const ALIKE = ['code.code', 'naming.name', 'naming.email', 'answer.file'];

describe.each(LANGUAGES.filter((one) => one !== 'en'))('%s', (language) => {
	const texts = textsOf(language);
	it('has every text, none of them empty, each with the values of the English one', () => {
		expect(Object.keys(texts)).toEqual(Object.keys(english));
		for (const [key, text] of Object.entries(texts)) {
			expect(text.trim(), key).not.toBe('');
			expect(values(text), key).toEqual(values(english[key as keyof typeof english]));
		}
	});
	it('is written in its own words', () => {
		const same = Object.keys(english).filter(
			(key) => texts[key as keyof typeof english] === english[key as keyof typeof english]
		);
		expect(same.filter((key) => !ALIKE.includes(key))).toEqual([]);
	});
	it('can be printed, all of it', () => {
		expect(unprintable(Object.values(texts).join(' '))).toEqual([]);
	});
	it('fills a letter and a text message of every kind and duty without anything left open', () => {
		for (const duty of DUTIES)
			for (const purpose of PURPOSES) {
				const facts: MailFacts = { ...FACTS, purpose, to: { name: 'Maren', duty } };
				const { subject, text, html } = letter(facts, wordsOf(language));
				for (const part of [subject, text, html.slice(html.indexOf('<main')), textMessage(facts, wordsOf(language))])
					expect(part, `${purpose} ${duty}`).not.toMatch(/\{[\w ]+\}|\bundefined\b|\bnull\b/);
				expect(html).toContain(`lang="${language}" dir="${language === 'ar' ? 'rtl' : 'ltr'}"`);
			}
	});
});

const PURPOSES: MessagePurpose[] = [
	'your turn',
	'nudge',
	'ending',
	'code',
	'state so far',
	'spared',
	'let go',
	'wording answered',
	'copies',
	'declined',
	'withdrawn',
	'expired'
];
const FACTS: Omit<MailFacts, 'purpose' | 'to'> = {
	sender: { name: 'Odile Farrow', email: 'odile@brindlevale.example', organisation: 'Brindlevale' },
	title: 'Engagement',
	reference: 'P-7K3QM',
	subject: '',
	message: 'Hello',
	note: 'Only you',
	until: '4 December 2026',
	others: ['Tamsin', 'Ruben'],
	link: 'http://127.0.0.1/s/x',
	ended: { name: 'Tamsin', reason: 'no' },
	code: { code: '123456', minutes: 10 },
	say: 'so be it',
	colour: '#14525c'
};

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
	it('join names as they do', () => {
		expect(ENGLISH.list(['A', 'B', 'C'])).toBe('A, B, and C');
		expect(wordsOf('de').list(['A', 'B', 'C'])).toBe('A, B und C');
	});
});
