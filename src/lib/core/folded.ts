/** Text as it is compared and searched: without case, accents and ligatures, in every script. */
export function folded(text: string): string {
	// most words are plain, and need none of it
	if (/^[\x20-\x7e]*$/.test(text)) return text.toLowerCase();
	return text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
}
