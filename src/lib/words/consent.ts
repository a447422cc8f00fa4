import { wordsOf } from './index';

/**
 * What a person agrees to before signing, in their language. A new wording gets a new version; the record keeps language,
 * version and hash, and the old texts stay here for as long as records name them.
 */
const VERSION = 1;
const LINES = ['consent.1', 'consent.2', 'consent.3', 'consent.4'] as const;

export function consentLines(language: string): string[] {
	const words = wordsOf(language);
	return LINES.map((line) => words(line));
}

/** The name a text has in the record, before its hash: `de-1`. */
export function consentVersion(language: string): string {
	return `${wordsOf(language).language}-${VERSION}`;
}
