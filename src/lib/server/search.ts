import { searchedWords } from '../core/found';

/** An FTS5 expression that finds each word as a beginning; '' where there is none. Quoted, so that nothing is syntax. */
export const searchExpression = (search: string): string =>
	searchedWords(search)
		.map((word) => `"${word}"*`)
		.join(' ');
