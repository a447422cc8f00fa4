import type { Db } from '../db';

/** Which rows of the pages' words are a document's; undefined where its words are not kept. */
export const pagesKept = (db: Db, digest: string): { first: number; pages: number } | undefined =>
	db
		.prepare<[string], { first: number; pages: number }>('SELECT first, pages FROM paper_texts WHERE digest = ?')
		.get(digest);
