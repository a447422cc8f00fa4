import { readFileSync, writeFileSync } from 'node:fs';
import { DUTIES } from '../src/lib/core/packet';
import type { Values } from '../src/lib/core/refusal';
import { LANGUAGES, wordsOf } from '../src/lib/words';
import { letter, textMessage } from '../src/lib/words/mail';
import { PURPOSES, SAMPLE_FACTS } from '../src/lib/words/sample-letter';
import type { WordKey } from '../src/lib/words/words';

/**
 * npm run words -- LANGUAGE [FILE]: every text of a language in its place, beside the English one, with its key; and every letter as
 * people get it. For whoever grew up with the language and reads it through.
 */
const [language = '', file = `words-${language}.html`] = process.argv.slice(2);
if (!(LANGUAGES as readonly string[]).includes(language)) {
	console.error(`Which language? One of ${LANGUAGES.join(', ')}.`);
	process.exit(1);
}

const PLACES: Record<string, string> = {
	mail: 'Letters',
	text: 'Text messages',
	duty: 'Who does what',
	page: 'Head of the page',
	menu: 'The menu',
	first: 'What is seen first',
	consent: 'The consent',
	todo: 'The list of what is to do',
	finish: 'The last button',
	mark: 'Making a signature',
	done: 'When it is done',
	end: 'When it has stopped',
	error: 'What can go wrong'
};
const SAMPLE: Values = {
	name: 'Maren Lindqvist',
	sender: 'Odile Farrow',
	organisation: 'Brindlevale Touring Orchestra',
	title: 'Guest engagement',
	reference: 'P-7K3QM',
	address: 'odile@brindlevale.example',
	until: '8 December 2026',
	day: '2026-12-08',
	country: 'GB',
	types: ['PDF', 'PNG', 'JPEG'],
	reason: '…',
	say: '…',
	names: 'Tamsin Okoro',
	link: 'https://…'
};
const english = JSON.parse(readFileSync('src/lib/words/languages/en.json', 'utf8')) as Record<WordKey, string>;
const words = wordsOf(language);
const own = wordsOf('en');
const escape = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('\n', '<br>');

const drawn = (of: typeof words, key: WordKey, n: number) => {
	const values: Values = { ...SAMPLE };
	for (const [, name] of english[key].matchAll(/\{(\w+)(?=[},])/g)) values[name!] ??= n;
	return escape(of(key, values));
};
const rows = (Object.keys(english) as WordKey[]).map((key, i, all) => {
	const place = key.split('.')[0]!;
	const head = all[i - 1]?.split('.')[0] === place ? '' : `<tr><th colspan="3">${PLACES[place] ?? place}</th></tr>`;
	const numbers = english[key].includes(', plural,') ? [1, 2, 5, 21] : [3];
	const cell = (of: typeof words) => numbers.map((n) => drawn(of, key, n)).join('<br>');
	return `${head}<tr><td><code>${key}</code></td><td>${cell(own)}</td><td dir="${words.direction}" lang="${language}">${cell(words)}</td></tr>`;
});
const letters = PURPOSES.flatMap((purpose) =>
	(purpose === 'your turn' ? DUTIES : (['signs'] as const)).map((duty) => {
		const facts = { ...SAMPLE_FACTS, purpose, to: { name: 'Maren Lindqvist', duty } };
		const { subject, text } = letter(facts, words);
		return `<section dir="${words.direction}"><h3>${purpose}, ${duty}</h3><p><b>${escape(subject)}</b></p><p>${escape(text)}</p><p><i>${escape(textMessage(facts, words))}</i></p></section>`;
	})
);
writeFileSync(
	file,
	`<!doctype html><meta charset="utf-8"><title>${language}</title><style>body{font:15px/1.5 sans-serif;max-width:70em;margin:2em auto}table{border-collapse:collapse;width:100%}td,th{border-bottom:1px solid #ddd;padding:4px 8px;text-align:start;vertical-align:top}code{font-size:12px;color:#666}section{border-top:1px solid #999;margin-top:1em}</style><h1>${language}</h1><p>A correction is one line in <code>src/lib/words/languages/${language}.json</code>: the same key, the same values in braces.</p><table>${rows.join('\n')}</table><h2>Letters and text messages</h2>${letters.join('\n')}`
);
console.log(`${file}: open it in a browser.`);
