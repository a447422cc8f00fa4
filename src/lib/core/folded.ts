/** Text as it is compared and searched: without case, accents and ligatures, in every script. */
export function folded(text: string): string {
	return text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
}
