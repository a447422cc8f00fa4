import { canonicalJson } from '../../core/audit';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import type { PageSize, PaperReading } from '../../core/page';
import { drawnInWorker, takeInInWorker, reorderInWorker, type PagePlace, type TakenIn } from '../../press';
import { keepBlob, readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';
import { bareName } from '../names';
import { asPdf } from './as-pdf';

/** A document as the Bench gets it: where its pages are, and what was taken out of it. */
export interface TakenPaper {
	digest: string;
	name: string;
	pages: PageSize[];
	stripped: string[];
	/** what else a person should know of how it was taken in */
	notes: string[];
	/** texts marked yellow in what it was made from */
	shaded?: string[];
}

/** A file that can only go along as it is; `why` says what keeps it from being filled in. */
export interface TakenAttachment {
	attached: true;
	digest: string;
	name: string;
	why: string;
}

/**
 * Takes a document in: a PDF, a Word document, a picture, or several pictures as its pages; told by content, whatever it
 * is called. What was no PDF is kept beside the PDF that was made of it. A PDF with a signature of its own is kept
 * untouched, as an attachment: filling it in would break that signature. Refuses as the press does, with the name.
 */
export async function addPaper(
	house: House,
	fileName: string,
	files: Uint8Array | Uint8Array[]
): Promise<TakenPaper | TakenAttachment | Refusal> {
	const name = paperName(fileName);
	const made = await asPdf([files].flat());
	if (isRefusal(made)) return { ...made, say: `“${name}”: ${made.say}` };
	const { pdf } = made;
	const taken = await takeInInWorker(pdf);
	if (isRefusal(taken) && taken.code === 'pdf-signed') {
		const digest = keepBlob(house.db, pdf, 'application/pdf', house.now());
		house.db.prepare('INSERT OR IGNORE INTO attachments (digest) VALUES (?)').run(digest);
		return { attached: true, digest, name, why: taken.say };
	}
	if (isRefusal(taken)) return { ...taken, say: `“${name}”: ${taken.say}` };
	inTransaction(house.db, () => {
		keepTaken(house, taken);
		for (const { bytes, media } of made.sources) {
			const source = keepBlob(house.db, bytes, media, house.now());
			house.db
				.prepare('INSERT OR IGNORE INTO paper_sources (paper, source, name) VALUES (?, ?, ?)')
				.run(taken.digest, source, bareName(fileName));
		}
	});
	const words = taken.words.reduce((sum, page) => sum + page.length, 0);
	return {
		digest: taken.digest,
		name,
		pages: taken.pages,
		stripped: taken.stripped,
		notes: made.note(words).map((say) => `“${name}”: ${say}`),
		...(made.shaded.length > 0 && { shaded: made.shaded })
	};
}

function keepTaken(house: House, taken: TakenIn): void {
	keepBlob(house.db, taken.bytes, 'application/pdf', house.now(), taken.digest);
	const thumbnail = keepBlob(house.db, taken.thumbnail, 'image/png', house.now());
	house.db
		.prepare(
			`INSERT INTO papers (digest, pages, words, thumbnail, stripped, drawn) VALUES (?, ?, ?, ?, ?, ?)
			 ON CONFLICT (digest) DO UPDATE SET drawn = excluded.drawn`
		)
		.run(
			taken.digest,
			JSON.stringify(taken.pages),
			JSON.stringify(taken.words),
			thumbnail,
			JSON.stringify(taken.stripped),
			JSON.stringify({ drawn: taken.drawn, widgets: taken.widgets })
		);
}

/** A document with its pages in another order, turned or left out, as a new one; the old one stays. */
export async function reorderPaper(
	house: House,
	digest: string,
	name: string,
	pages: PagePlace[]
): Promise<TakenPaper | Refusal> {
	const bytes = isPaper(house, digest) ? readBlob(house.db, digest)?.bytes : undefined;
	const count = pagesOf(house, digest).length;
	if (!bytes || pages.some((page) => page.from >= count))
		return refuse('unknown-paper', `“${name}” is not a document of this Pellum. Add it again.`);
	const taken = await takeInInWorker(await reorderInWorker(bytes, pages));
	if (isRefusal(taken)) return { ...taken, say: `“${name}”: ${taken.say}` };
	inTransaction(house.db, () => {
		keepTaken(house, taken);
		house.db
			.prepare(
				'INSERT OR IGNORE INTO paper_sources (paper, source, name) SELECT ?, source, name FROM paper_sources WHERE paper = ?'
			)
			.run(taken.digest, digest);
	});
	return { digest: taken.digest, name, pages: taken.pages, stripped: [], notes: [] };
}

/** What a document was made from, where that was no PDF. */
export function sourcesOf(house: House, digest: string): { digest: string; name: string }[] {
	return house.db
		.prepare<[string], { digest: string; name: string }>(
			'SELECT source AS digest, name FROM paper_sources WHERE paper = ? ORDER BY rowid'
		)
		.all(digest);
}

function pagesOf(house: House, digest: string): PageSize[] {
	const row = house.db.prepare<[string], { pages: string }>('SELECT pages FROM papers WHERE digest = ?').get(digest);
	return row ? (JSON.parse(row.pages) as PageSize[]) : [];
}

/** What is known of a document's pages: words, lines, boxes, the form fields it had. Null where there is no such document. */
export async function readingOf(house: House, digest: string): Promise<PaperReading | null> {
	const row = house.db
		.prepare<[string], { words: string; drawn: string | null }>('SELECT words, drawn FROM papers WHERE digest = ?')
		.get(digest);
	if (!row) return null;
	let drawn = row.drawn;
	if (drawn === null) {
		// taken in before lines were kept: they are read now, once
		const bytes = readBlob(house.db, digest)!.bytes;
		drawn = JSON.stringify({ drawn: await drawnInWorker(bytes), widgets: [] });
		house.db.prepare('UPDATE papers SET drawn = ? WHERE digest = ?').run(drawn, digest);
	}
	return { words: JSON.parse(row.words), ...JSON.parse(drawn) } as PaperReading;
}

/** Whether a plan may name this document with these pages: it was taken in here, and has exactly them. */
export function isKnownPaper(house: House, digest: string, pages: PageSize[]): boolean {
	return pages.length > 0 && canonicalJson(pagesOf(house, digest)) === canonicalJson(pages);
}

/** Whether the digest is that of a file which was kept as an attachment. */
export function isAttachment(house: House, digest: string): boolean {
	return house.db.prepare('SELECT 1 FROM attachments WHERE digest = ?').get(digest) !== undefined;
}

/** Whether the digest is a document's, and not that of a picture or a sealed copy. */
export function isPaper(house: House, digest: string): boolean {
	return house.db.prepare('SELECT 1 FROM papers WHERE digest = ?').get(digest) !== undefined;
}

export function thumbnailOf(house: House, digest: string): Buffer | undefined {
	return house.db
		.prepare<[string], { bytes: Buffer }>(
			'SELECT b.bytes FROM papers p JOIN blobs b ON b.digest = p.thumbnail WHERE p.digest = ?'
		)
		.get(digest)?.bytes;
}

/** A file's name as a document's: without its ending, path, control characters and direction marks. */
export function paperName(fileName: string): string {
	return (
		bareName(fileName)
			.replace(/\.(pdf|docx|png|jpe?g)$/i, '')
			.trim()
			.slice(0, 200) || 'Document'
	);
}
