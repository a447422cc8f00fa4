import { hasAll, pieceFound, searchedWords, type FoundPiece } from '../../core/found';
import type { PacketsAsked } from '../../core/packet';
import type { Account } from '../accounts';
import type { Db } from '../db';
import { looker, MAY_SEE_PACKET } from '../folders';
import { FITS, fittingTo } from '../lists';
import type { House } from '../house';
import { PAGE, ROW_COLUMNS, rowOf, type KeptRow, type PacketRow } from '../packets/rows';
import { searchExpression } from '../search';
import type { PaperNamed } from './indexing';
import { pagesKept } from './pages';

/** Finding what has ended by all that stands in it. */

/** Where the words stand, besides title, people and reference. */
export interface Found extends FoundPiece {
	/** the document and its page (from 0); null: among the answers */
	paper: string | null;
	page: number | null;
}

export interface FoundPage {
	rows: (PacketRow & { found: Found | null })[];
	/** where to go on; null at the end. A page may be short with more to come */
	next: { at: string; n: number } | null;
}

/** So many packets that have the words are looked at for one page. */
const LOOKED_AT = 2000;

/** In the archive as well, but in the bin only where that is asked for. */
const LIES = "CASE WHEN @lies = '' THEN p.put IS NOT 'bin' ELSE p.put = @lies END";

/** Those of them that fit the filter, last sent first. A search that has no words finds nothing. */
export function findEnded(
	house: House,
	account: Account,
	search: string,
	{ filter = {}, after }: Pick<PacketsAsked, 'filter' | 'after'> = {}
): FoundPage {
	const before = after?.n ?? Number.MAX_SAFE_INTEGER;
	const match = searchExpression(search);
	if (match === '') return { rows: [], next: null };
	const words = searchedWords(search);
	const found: (KeptRow & { n: number })[] = [];
	let seen = 0;
	let last = before;
	for (const { fits, ...row } of house.db
		.prepare<object, KeptRow & { n: number; fits: 0 | 1 }>(
			`SELECT ${ROW_COLUMNS}, t.rowid AS n, (p.ended_at IS NOT NULL AND ${LIES} AND ${FITS} AND ${MAY_SEE_PACKET}) AS fits
			 FROM packets_full t CROSS JOIN packet_numbers m ON m.n = t.rowid CROSS JOIN packets p ON p.id = m.packet
			 WHERE packets_full MATCH @match AND t.rowid < @n ORDER BY t.rowid DESC LIMIT @most`
		)
		.iterate({
			...looker(house.db, account),
			...fittingTo(house, filter),
			lies: filter.put ?? '',
			match,
			n: before,
			most: LOOKED_AT
		})) {
		seen += 1;
		last = row.n;
		if (fits) found.push(row);
		if (found.length === PAGE) break;
	}
	return {
		rows: found.map(({ n, ...kept }) => {
			const row = rowOf(kept);
			return { ...row, found: whereFound(house.db, n, row, match, words) };
		}),
		next: found.length === PAGE || seen === LOOKED_AT ? { at: '', n: last } : null
	};
}

/** Nothing where title, reference and people have all the words already. */
function whereFound(db: Db, n: number, row: PacketRow, match: string, words: string[]): Found | null {
	const people = row.thread.flat().map((one) => one.name);
	if (hasAll([row.title, row.reference, row.folder, ...people].join(' '), words)) return null;
	const kept = db
		.prepare<[number], { papers: string; answers: string }>('SELECT papers, answers FROM packet_words WHERE n = ?')
		.get(n);
	if (!kept) return null;
	const line = kept.answers.split('\n').find((one) => hasAll(one, words));
	if (line) return { ...pieceFound(line, words)!, paper: null, page: null };
	for (const { digest, name } of JSON.parse(kept.papers) as PaperNamed[]) {
		const page = pageWith(db, digest, match);
		const piece = page && pieceFound(page.plain, words);
		if (page && piece) return { ...piece, paper: name, page: page.page };
	}
	return null;
}

/** The first page of a document that has all the words. */
function pageWith(db: Db, digest: string, match: string): { plain: string; page: number } | null {
	const kept = pagesKept(db, digest);
	if (!kept) return null;
	const found = db
		.prepare<[string, number, number], { n: number; plain: string }>(
			'SELECT rowid AS n, plain FROM pages_text WHERE pages_text MATCH ? AND rowid BETWEEN ? AND ? ORDER BY rowid LIMIT 1'
		)
		.get(match, kept.first, kept.first + kept.pages - 1);
	return found ? { plain: found.plain, page: found.n - kept.first } : null;
}
