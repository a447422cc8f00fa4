import type { Answers } from '../../core/field';
import type { PageCode, SheetOut, SheetSeen, SheetWord } from '../../core/paper';
import type { Db } from '../db';

/** What went out to somebody to be signed in ink, and the pictures that came back of it. */

export interface OutKept {
	id: string;
	packet: string;
	person: string;
	madeFrom: string;
	digest: string;
	file: string;
	sheets: SheetOut[];
	/** the documents by their digests when it went out, in their order */
	papers: { paper: string; digest: string }[];
	typed: Answers;
	/** the fields that were printed on them */
	stamped: string[];
	at: string;
}

interface OutRow {
	id: string;
	packet: string;
	person: string;
	made_from: string;
	digest: string;
	file: string;
	sheets: string;
	papers: string;
	typed: string;
	stamped: string;
	at: string;
}

const OUT = 'id, packet, person, made_from, digest, file, sheets, papers, typed, stamped, at';
const outOf = (row: OutRow): OutKept => ({
	id: row.id,
	packet: row.packet,
	person: row.person,
	madeFrom: row.made_from,
	digest: row.digest,
	file: row.file,
	sheets: JSON.parse(row.sheets) as SheetOut[],
	papers: JSON.parse(row.papers) as OutKept['papers'],
	typed: JSON.parse(row.typed) as Answers,
	stamped: JSON.parse(row.stamped) as string[],
	at: row.at
});

export function keepOut(db: Db, out: OutKept): void {
	db.prepare(`INSERT INTO paper_outs (${OUT}) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`).run(
		out.id,
		out.packet,
		out.person,
		out.madeFrom,
		out.digest,
		out.file,
		JSON.stringify(out.sheets),
		JSON.stringify(out.papers),
		JSON.stringify(out.typed),
		JSON.stringify(out.stamped),
		out.at
	);
}

export function readOut(db: Db, id: string): OutKept | null {
	const row = db.prepare<[string], OutRow>(`SELECT ${OUT} FROM paper_outs WHERE id = ?`).get(id);
	return row ? outOf(row) : null;
}

/** What went out to a person last. */
export function lastOut(db: Db, packet: string, person: string): OutKept | null {
	const row = db
		.prepare<[string, string], OutRow>(
			`SELECT ${OUT} FROM paper_outs WHERE packet = ? AND person = ? ORDER BY at DESC LIMIT 1`
		)
		.get(packet, person);
	return row ? outOf(row) : null;
}

/** What can be said of a picture as soon as it is there. */
export interface FlatKept {
	codes: PageCode[];
	light: number;
	sharp: number;
	width: number;
	height: number;
	edges: boolean;
	/** corners of the first code in the picture */
	corners: { x: number; y: number }[] | null;
}

/** What was found of a picture; `words`: those that were read, where they stand on the page. */
export type SeenKept = SheetSeen & { words: SheetWord[] };

export interface PictureKept {
	id: string;
	out: string;
	name: string;
	media: string;
	digest: string;
	flat: FlatKept | null;
	seen: SeenKept | null;
	/** into how many pages a PDF was taken apart; null before, and of a picture */
	parts: number | null;
	at: string;
	handedAt: string | null;
}

interface PictureRow {
	id: string;
	out: string;
	name: string;
	media: string;
	digest: string;
	flat: string | null;
	seen: string | null;
	parts: number | null;
	at: string;
	handed_at: string | null;
}

export function keepPicture(
	db: Db,
	one: Pick<PictureKept, 'id' | 'out' | 'name' | 'media' | 'digest' | 'flat' | 'at' | 'handedAt'>,
	bytes: Uint8Array
): void {
	db.prepare(
		'INSERT INTO paper_pictures (id, out, name, media, digest, bytes, flat, at, handed_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)'
	).run(
		one.id,
		one.out,
		one.name,
		one.media,
		one.digest,
		bytes,
		one.flat && JSON.stringify(one.flat),
		one.at,
		one.handedAt
	);
}

/** In the order in which they came. */
export function picturesOf(db: Db, out: string): PictureKept[] {
	return db
		.prepare<[string], PictureRow>(
			'SELECT id, out, name, media, digest, flat, seen, parts, at, handed_at FROM paper_pictures WHERE out = ? ORDER BY rowid'
		)
		.all(out)
		.map(({ flat, seen, handed_at, ...row }) => ({
			...row,
			flat: flat === null ? null : (JSON.parse(flat) as FlatKept),
			seen: seen === null ? null : (JSON.parse(seen) as SeenKept),
			handedAt: handed_at
		}));
}

export function countPictures(db: Db, out: string): number {
	return db.prepare<[string], number>('SELECT count(*) FROM paper_pictures WHERE out = ?').pluck().get(out)!;
}

export function pictureBytes(db: Db, out: string, id: string, which: 'bytes' | 'laid'): Buffer | null {
	const row = db
		.prepare<[string, string], { bytes: Buffer; laid: Buffer | null }>(
			'SELECT bytes, laid FROM paper_pictures WHERE out = ? AND id = ?'
		)
		.get(out, id);
	return row?.[which] ?? null;
}

export function keepSeen(db: Db, id: string, seen: SeenKept, laid: Uint8Array | null): void {
	db.prepare('UPDATE paper_pictures SET seen = ?, laid = ? WHERE id = ?').run(JSON.stringify(seen), laid, id);
}

/** Pages are wanted again: what is there of them gives way to what comes. */
export function markOld(db: Db, out: string, pages: readonly number[]): void {
	db.prepare(
		`UPDATE paper_pictures SET seen = json_set(seen, '$.old', json('true'))
		 WHERE out = ? AND seen ->> '$.number' IN (SELECT value FROM json_each(?))`
	).run(out, JSON.stringify(pages));
}

export function markHandedIn(db: Db, out: string, at: string): void {
	db.prepare('UPDATE paper_pictures SET handed_at = ? WHERE out = ? AND handed_at IS NULL').run(at, out);
}

/** Only what was not handed in yet. */
export function dropPicture(db: Db, out: string, id: string): void {
	db.prepare('DELETE FROM paper_pictures WHERE out = ? AND id = ? AND handed_at IS NULL').run(out, id);
}

/** A PDF has been taken apart into so many pages; it stays as it came. */
export function markTakenApart(db: Db, id: string, parts: number): void {
	db.prepare('UPDATE paper_pictures SET parts = ? WHERE id = ?').run(parts, id);
}
