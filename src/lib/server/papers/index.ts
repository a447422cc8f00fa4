import { canonicalJson } from '../../core/audit';
import { isRefusal, type Refusal } from '../../core/refusal';
import type { PageSize, PaperReading } from '../../core/page';
import { drawnInWorker, glance, intakeInWorker } from '../../press';
import { keepBlob, readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';
import { bareName } from '../names';

/** A document as the Bench gets it: where its pages are, and what was taken out of it. */
export interface TakenPaper {
	digest: string;
	name: string;
	pages: PageSize[];
	stripped: string[];
}

/** A file that can only go along as it is; `why` says what keeps it from being filled in. */
export interface TakenAttachment {
	attached: true;
	digest: string;
	name: string;
	why: string;
}

/**
 * Takes a PDF in and keeps it under its digest. One with a signature of its own is kept untouched, as an attachment:
 * filling it in would break that signature. Refuses as the press does, with the document's name.
 */
export async function addPaper(
	house: House,
	fileName: string,
	bytes: Uint8Array
): Promise<TakenPaper | TakenAttachment | Refusal> {
	const name = paperName(fileName);
	const no = glance(bytes);
	if (no) return { ...no, say: `“${name}”: ${no.say}` };
	const taken = await intakeInWorker(bytes);
	if (isRefusal(taken) && taken.code === 'pdf-signed') {
		const digest = keepBlob(house.db, bytes, 'application/pdf', house.now());
		house.db.prepare('INSERT OR IGNORE INTO attachments (digest) VALUES (?)').run(digest);
		return { attached: true, digest, name, why: taken.say };
	}
	if (isRefusal(taken)) return { ...taken, say: `“${name}”: ${taken.say}` };
	inTransaction(house.db, () => {
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
	});
	return { digest: taken.digest, name, pages: taken.pages, stripped: taken.stripped };
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
	const row = house.db.prepare<[string], { pages: string }>('SELECT pages FROM papers WHERE digest = ?').get(digest);
	return row !== undefined && canonicalJson(JSON.parse(row.pages)) === canonicalJson(pages);
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
			.replace(/\.pdf$/i, '')
			.trim()
			.slice(0, 200) || 'Document'
	);
}
