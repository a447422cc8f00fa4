import ar from './languages/ar.json';
import cs from './languages/cs.json';
import da from './languages/da.json';
import de from './languages/de.json';
import en from './languages/en.json';
import es from './languages/es.json';
import fr from './languages/fr.json';
import it from './languages/it.json';
import nb from './languages/nb.json';
import nl from './languages/nl.json';
import pl from './languages/pl.json';
import pt from './languages/pt.json';
import sv from './languages/sv.json';
import uk from './languages/uk.json';
import zh from './languages/zh.json';
import { compiled, ofPages } from './compile';
import { wordsIn, type Language, type Texts, type WordKey, type Words } from './words';

export { LANGUAGES, type Texts, type Words } from './words';

const FILES: Record<Language, Record<WordKey, string>> = { en, ar, cs, da, de, es, fr, it, nb, nl, pl, pt, sv, uk, zh };
/** Each language as it is first asked for. */
const texts = new Map<string, Texts>();
const WORDS = new Map<string, Words>();

/** A language by its own name, such as “Deutsch”. */
export function nameOfLanguage(language: string): string {
	const name = new Intl.DisplayNames(language, { type: 'language' }).of(language) ?? language;
	return name[0]!.toLocaleUpperCase(language) + name.slice(1);
}

const known = (language: string): language is Language => Object.hasOwn(FILES, language);

/** The texts of a language, ready to be filled; English where there are none. */
export function textsOf(language: string): Texts {
	const name = known(language) ? language : 'en';
	const found = texts.get(name) ?? compiled(FILES[name]);
	texts.set(name, found);
	return found;
}

/** The texts that a page in this language needs besides those it carries; null where those are it. */
export function pageTextsOf(language: string): Texts | null {
	return language === 'en' ? null : ofPages(textsOf(language));
}

/** All texts of pages, with those that no page carries: of an intake's questions and of a notary's room. In English too. */
export function visitTextsOf(language: string): Texts {
	return ofPages(textsOf(language), true);
}

export function wordsOf(language: string): Words {
	const name = known(language) ? language : 'en';
	const found = WORDS.get(name) ?? wordsIn(name, textsOf(name));
	WORDS.set(name, found);
	return found;
}

/** The first wish that there are texts for: `de-CH` is met by `de`. English where none is. */
export function chosenLanguage(...wishes: (string | null | undefined)[]): string {
	for (const wish of wishes) {
		const base = wish?.split('-')[0]!.toLowerCase();
		const found = base === 'no' ? 'nb' : base;
		if (found && known(found)) return found;
	}
	return 'en';
}

/** What a browser asks for, best first (RFC 9110 §12.5.4). */
export function acceptedLanguages(header: string | null): string[] {
	return (header ?? '')
		.split(',')
		.map((part) => {
			const [name = '', ...rest] = part.trim().split(';');
			const q = rest.map((r) => r.trim()).find((r) => r.startsWith('q='));
			return { name: name.trim(), q: q ? Number(q.slice(2)) : 1 };
		})
		.filter(({ name, q }) => /^[a-z]{2,3}(-\w+)*$/i.test(name) && q > 0)
		.sort((a, b) => b.q - a.q)
		.map(({ name }) => name);
}
