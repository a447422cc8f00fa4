/** Text as it is searched: without case and accents, in every script (SQLite's own folding knows Latin only). */
export function folded(text: string): string {
	return text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
}

/** An FTS5 expression that finds each word as a beginning; '' where there is none. Quoted, so that nothing is syntax. */
export function searchExpression(search: string): string {
	const words = folded(search.slice(0, 200)).match(/[\p{L}\p{N}]+/gu) ?? [];
	return words
		.slice(0, 10)
		.map((word) => `"${word}"*`)
		.join(' ');
}
