import { folded } from '../core/folded';

/** An FTS5 expression that finds each word as a beginning; '' where there is none. Quoted, so that nothing is syntax. */
export function searchExpression(search: string): string {
	const words = folded(search.slice(0, 200)).match(/[\p{L}\p{N}]+/gu) ?? [];
	return words
		.slice(0, 10)
		.map((word) => `"${word}"*`)
		.join(' ');
}
