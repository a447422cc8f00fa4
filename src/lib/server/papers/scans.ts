import { shownSize, type PageDrawing, type PageSize, type PrintedWord, type Scans } from '../../core/page';
import { languagesFor, pageInWorker, readScan, SCAN_SCALE, type ScanReading } from '../../press';
import { readBlob } from '../blobs';
import { inTransaction } from '../db';
import { queue } from '../jobs/outbox';
import type { House } from '../house';

/** A reading job of the outbox. */
export interface ReadingJob {
	packet: string;
	paper: string;
}

interface Kept {
	pages: number[];
	languages: string;
}

/** Notes which pages of a document are pictures and asks for them to be read, once. */
export function wantReading(house: House, digest: string, pages: number[], locale: string | undefined): void {
	if (pages.length === 0) return;
	inTransaction(house.db, () => {
		const kept: Kept = { pages, languages: languagesFor(locale) };
		house.db.prepare('UPDATE papers SET scans = ? WHERE digest = ?').run(JSON.stringify(kept), digest);
		const job: ReadingJob = { packet: '', paper: digest };
		queue(house, 'read', `read ${digest}`, job);
	});
	house.changes.emit('jobs');
}

/** What a machine has read of a document's pictures so far; null where it has none. */
export function scansOf(house: House, digest: string): Scans | null {
	const kept = keptOf(house, digest);
	if (!kept) return null;
	const rows = readPages(house, digest);
	return {
		pages: kept.pages,
		done: rows.length,
		read: rows.flatMap(({ page, reading }) =>
			reading ? [{ page, sure: reading.sure, lean: reading.lean, turn: reading.turn }] : []
		)
	};
}

/** Adds what was read to what is printed, page by page. Pictures have no words of their own, so nothing stands twice. */
export function withScans(
	house: House,
	digest: string,
	printed: { words: PrintedWord[][]; drawn: PageDrawing[] }
): { words: PrintedWord[][]; drawn: PageDrawing[] } {
	if (!keptOf(house, digest)) return printed;
	const words = [...printed.words];
	const drawn = [...printed.drawn];
	for (const { page, reading } of readPages(house, digest)) {
		if (!reading) continue;
		words[page] = [...(words[page] ?? []), ...reading.words];
		const own = drawn[page] ?? { lines: [], boxes: [] };
		drawn[page] = {
			...own,
			lines: [...own.lines, ...reading.drawn.lines],
			boxes: [...own.boxes, ...reading.drawn.boxes]
		};
	}
	return { words, drawn };
}

/** Reads what is left of a document's pictures, page by page, each kept as soon as it is read. */
export async function readScans(house: House, { paper }: ReadingJob, done: () => void): Promise<null> {
	const kept = keptOf(house, paper);
	const file = readBlob(house.db, paper);
	const sizes = house.db.prepare<[string], { pages: string }>('SELECT pages FROM papers WHERE digest = ?').get(paper);
	if (kept && file && sizes) {
		const there = new Set(readPages(house, paper).map((one) => one.page));
		const pages = JSON.parse(sizes.pages) as PageSize[];
		for (const page of kept.pages.filter((one) => !there.has(one) && pages[one])) {
			const reading = await readOne(file.bytes, page, pages[page]!, kept.languages);
			if (!house.db.open) return null;
			house.db
				.prepare('INSERT OR REPLACE INTO paper_scans (paper, page, reading, at) VALUES (?, ?, ?, ?)')
				.run(paper, page, reading && JSON.stringify(reading), house.now().toISOString());
		}
	}
	done();
	return null;
}

/** A page that can't be read is given up, so that the others are read all the same. */
async function readOne(
	bytes: Uint8Array,
	page: number,
	size: PageSize,
	languages: string
): Promise<ScanReading | null> {
	try {
		const png = await pageInWorker({ bytes, page, width: Math.round(shownSize(size).width * SCAN_SCALE) });
		return await readScan(png, size, languages);
	} catch {
		return null;
	}
}

function keptOf(house: House, digest: string): Kept | null {
	const row = house.db
		.prepare<[string], { scans: string | null }>('SELECT scans FROM papers WHERE digest = ?')
		.get(digest);
	return row?.scans ? (JSON.parse(row.scans) as Kept) : null;
}

function readPages(house: House, digest: string): { page: number; reading: ScanReading | null }[] {
	return house.db
		.prepare<[string], { page: number; reading: string | null }>(
			'SELECT page, reading FROM paper_scans WHERE paper = ? ORDER BY page'
		)
		.all(digest)
		.map(({ page, reading }) => ({ page, reading: reading ? (JSON.parse(reading) as ScanReading) : null }));
}
