import { cutText } from '../../core/clean-text';
import { canonicalJson } from '../../core/audit';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { shownSize, type PageSize, type PaperReading } from '../../core/page';
import {
	compareInWorker,
	drawnInWorker,
	reorderInWorker,
	takeInInWorker,
	type Following,
	type PagePlace,
	type TakenInText
} from '../../press';
import { keepBlob, readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';
import { bareName } from '../names';
import { asPdf } from './as-pdf';
import { comparingOf, looksOf, type KeptComparing } from './looks';
import { scansOf, wantReading, withScans } from './scans';

/** A document as the Bench gets it: where its pages are, and what was taken out of it. */
export interface TakenPaper {
	digest: string;
	name: string;
	pages: PageSize[];
	stripped: string[];
	/** what else a person should know of how it was taken in */
	notes: string[];
	/** pages that look different from the file, from 0 */
	unlike: number[];
	/** pages that are pictures, whose words are read in a while */
	scans: number[];
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

/** How documents are taken in: what is wanted of a Word document's tracked changes, and who follows it. */
export interface AddWish extends Following {
	changes?: 'ask' | 'accepted' | 'before';
	/** the packet's language, in which pictures are read besides English */
	locale?: string;
}

/**
 * Takes a document in: a PDF, a Word document, a picture, or several pictures as its pages; told by content, whatever it
 * is called. Every page is compared with what the file shows. What was no PDF is kept beside the PDF that was made of it.
 * A PDF with a signature of its own is kept untouched, as an attachment: filling it in would break that signature.
 * Refuses as the press does, with the name.
 */
export async function addPaper(
	house: House,
	fileName: string,
	files: Uint8Array | Uint8Array[],
	wish: AddWish = {}
): Promise<TakenPaper | TakenAttachment | Refusal> {
	const name = paperName(fileName);
	const named = (refusal: Refusal): Refusal => ({ ...refusal, say: `“${name}”: ${refusal.say}` });
	const made = await asPdf([files].flat(), wish);
	if (isRefusal(made)) return named(made);
	const { pdf } = made;
	const taken = await takeInInWorker(pdf, undefined, wish);
	if (isRefusal(taken) && taken.code === 'pdf-signed') {
		const digest = keepBlob(house.db, pdf, 'application/pdf', house.now());
		house.db.prepare('INSERT OR IGNORE INTO attachments (digest) VALUES (?)').run(digest);
		return { attached: true, digest, name, why: taken.say };
	}
	if (isRefusal(taken)) return named(taken);
	const compared = await compareInWorker(
		{
			original: pdf,
			taken: taken.bytes,
			widths: taken.pages.map((page) => shownSize(page).width),
			hidden: taken.hidden
		},
		wish
	);
	if (isRefusal(compared)) return named(compared);
	inTransaction(house.db, () => {
		keepTaken(house, taken, { ...compared, hidden: taken.hidden });
		if (compared.differ.length > 0) {
			const original = keepBlob(house.db, pdf, 'application/pdf', house.now());
			house.db.prepare('UPDATE papers SET original = ? WHERE digest = ?').run(original, taken.digest);
		}
		for (const { bytes, media } of made.sources) {
			const source = keepBlob(house.db, bytes, media, house.now());
			house.db
				.prepare('INSERT OR IGNORE INTO paper_sources (paper, source, name) VALUES (?, ?, ?)')
				.run(taken.digest, source, bareName(fileName));
		}
	});
	wantReading(house, taken.digest, taken.pictures, wish.locale);
	return {
		digest: taken.digest,
		name,
		pages: taken.pages,
		stripped: taken.stripped,
		notes: [...made.note(taken.words.count), ...blankSay(compared.blank, taken.pages.length)].map(
			(say) => `“${name}”: ${say}`
		),
		unlike: looksOf(house, taken.digest)?.unlike ?? [],
		scans: taken.pictures,
		...(made.shaded.length > 0 && { shaded: made.shaded })
	};
}

/** Pages on which nothing shows are often meant; somebody should hear of them all the same. */
function blankSay(blank: number[], of: number): string[] {
	if (blank.length === 0) return [];
	if (blank.length === of) return [of === 1 ? 'nothing shows on its page.' : 'nothing shows on any of its pages.'];
	const pages = blank.slice(0, 10).map((page) => page + 1);
	return [`nothing shows on page ${pages.join(', ')}${blank.length > 10 ? ' and others' : ''}.`];
}

export function keepTaken(house: House, taken: TakenInText, compared: KeptComparing): void {
	keepBlob(house.db, taken.bytes, 'application/pdf', house.now(), taken.digest);
	const thumbnail = keepBlob(house.db, taken.thumbnail, 'image/png', house.now());
	house.db
		.prepare(
			`INSERT INTO papers (digest, pages, words, thumbnail, stripped, drawn, compared) VALUES (?, ?, ?, ?, ?, ?, ?)
			 ON CONFLICT (digest) DO UPDATE SET drawn = excluded.drawn, compared = excluded.compared`
		)
		.run(
			taken.digest,
			JSON.stringify(taken.pages),
			taken.words.json,
			thumbnail,
			JSON.stringify(taken.stripped),
			taken.drawnJson,
			JSON.stringify(compared)
		);
}

export const unknownPaper = (name: string): Refusal =>
	refuse('unknown-paper', `“${name}” is not a document of this Pellum. Add it again.`);

/** A document with its pages in another order, turned or left out, as a new one; the old one stays. */
export async function reorderPaper(
	house: House,
	digest: string,
	name: string,
	pages: PagePlace[],
	locale?: string
): Promise<TakenPaper | Refusal> {
	const bytes = isPaper(house, digest) ? readBlob(house.db, digest)?.bytes : undefined;
	const count = pagesOf(house, digest).length;
	if (!bytes || pages.some((page) => page.from >= count)) return unknownPaper(name);
	const taken = await takeInInWorker(await reorderInWorker(bytes, pages));
	if (isRefusal(taken)) return { ...taken, say: `“${name}”: ${taken.say}` };
	const before = comparingOf(house, digest);
	inTransaction(house.db, () => {
		keepTaken(house, taken, reordered(before, pages));
		house.db.prepare('UPDATE papers SET original = ? WHERE digest = ?').run(before?.original ?? null, taken.digest);
		for (const [to, { from }] of pages.entries())
			house.db
				.prepare(
					`INSERT OR IGNORE INTO paper_looks (paper, page, account, name, at)
					 SELECT ?, ?, account, name, at FROM paper_looks WHERE paper = ? AND page = ?`
				)
				.run(taken.digest, to, digest, from);
		house.db
			.prepare(
				'INSERT OR IGNORE INTO paper_sources (paper, source, name) SELECT ?, source, name FROM paper_sources WHERE paper = ?'
			)
			.run(taken.digest, digest);
	});
	const unlike = looksOf(house, taken.digest)?.unlike ?? [];
	wantReading(house, taken.digest, taken.pictures, locale);
	return { digest: taken.digest, name, pages: taken.pages, stripped: [], notes: [], unlike, scans: taken.pictures };
}

/** What is known of how pages look, in their new order. */
function reordered(before: KeptComparing | null, pages: PagePlace[]): KeptComparing {
	const at = (list: number[] = []) => pages.flatMap(({ from }, to) => (list.includes(from) ? [to] : []));
	return {
		differ: at(before?.differ),
		blank: at(before?.blank),
		hidden: before?.hidden ?? [],
		from: pages.map(({ from }) => before?.from?.[from] ?? from)
	};
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
	const { widgets, ...rest } = JSON.parse(drawn) as Omit<PaperReading, 'words'>;
	const printed = withScans(house, digest, {
		words: JSON.parse(row.words) as PaperReading['words'],
		drawn: rest.drawn
	});
	const scans = scansOf(house, digest);
	return { ...printed, widgets, ...(scans && { scans }) };
}

/** The words of a document's pages, those that were read from pictures among them; none where there is no such document. */
export function wordsOfPaper(house: House, digest: string): PaperReading['words'] {
	const row = house.db.prepare<[string], { words: string }>('SELECT words FROM papers WHERE digest = ?').get(digest);
	return row
		? withScans(house, digest, { words: JSON.parse(row.words) as PaperReading['words'], drawn: [] }).words
		: [];
}

/** What was taken out of a document as it was taken in, or set on its pages, in words. */
export function strippedOf(house: House, digest: string): string[] {
	const row = house.db
		.prepare<[string], { stripped: string }>('SELECT stripped FROM papers WHERE digest = ?')
		.get(digest);
	return row ? (JSON.parse(row.stripped) as string[]) : [];
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
	const bare = bareName(fileName)
		.replace(/\.(pdf|docx|png|jpe?g)$/i, '')
		.trim();
	return cutText(bare, 200) || 'Document';
}

export { acceptLooks, looksOf, pageLook, takenAs, unlikePart } from './looks';
export { readScans, scansOf, type ReadingJob } from './scans';
