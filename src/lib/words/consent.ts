import type { Duty } from '../core/packet';
import { wordsOf } from './index';

/**
 * What a person agrees to before their part, in their language: whoever signs agrees to sign electronically, whoever approves, fills
 * in or confirms to do that. A new wording gets a new version; the record keeps language, version and hash, and the old texts stay
 * in `consents/` for as long as records name them.
 */
const VERSION = 2;

export function consentLines(language: string, duty: Duty): string[] {
	const words = wordsOf(language);
	const lines =
		duty === 'signs'
			? (['consent.1', 'consent.2', 'consent.3', 'consent.4'] as const)
			: (['consent.1 other', 'consent.2 other', 'consent.3', 'consent.4'] as const);
	return lines.map((line) => words(line));
}

/** The name a text has in the record, before its hash: `de-2`, or `de-2-other` where no signature is asked for. */
export function consentVersion(language: string, duty: Duty): string {
	return `${wordsOf(language).language}-${VERSION}${duty === 'signs' ? '' : '-other'}`;
}
