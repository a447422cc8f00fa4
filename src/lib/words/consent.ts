/**
 * What a person agrees to before signing. A new wording gets a new version; the record keeps version and hash,
 * and the old texts stay here for as long as records name them.
 */
export const CONSENT = {
	version: 'en-1',
	text: [
		'I agree to sign this electronically. My electronic signature stands in place of one in ink.',
		'I can read and download the documents before I sign, and I get a copy by e-mail when everyone is done.',
		'What I do here is recorded: when I open, agree and finish, from which network address and device.',
		'I may stop at any time before I finish, and ask the sender for paper instead.'
	]
} as const;

export function consentText(): string {
	return CONSENT.text.join('\n');
}
