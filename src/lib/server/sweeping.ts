import { inTransaction, type Db } from './db';
import type { House } from './house';
import { packetState } from './packets/act';
import { organisation } from './settings';

/** What people handed in and nobody used goes, a day after its packet has ended. */
const AFTER = 86_400_000;
const AT_A_TIME = 200;

/** @returns how many files went */
export function sweepUnused(house: House): number {
	const { db } = house;
	const before = new Date(house.now().getTime() - AFTER).toISOString();
	const packets = db
		.prepare<[string, number], string>(
			`SELECT DISTINCT h.packet FROM handed_in h INDEXED BY handed_in_unjudged CROSS JOIN packets p ON p.id = h.packet
			 WHERE h.used IS NULL AND p.ended_at < ? LIMIT ?`
		)
		.pluck()
		.all(before, AT_A_TIME);
	let gone = 0;
	for (const packet of packets)
		inTransaction(db, () => {
			const state = packetState(db, packet);
			// any answer that names it, as a file or as the picture of a signature
			const used = new Set(state.status === 'none' ? [] : JSON.stringify(state.answers).match(/[0-9a-f]{64}/g));
			const rows = db.prepare<[string], string>('SELECT digest FROM handed_in WHERE packet = ?').pluck().all(packet);
			for (const digest of new Set(rows)) {
				if (used.has(digest))
					db.prepare('UPDATE handed_in SET used = 1 WHERE packet = ? AND digest = ?').run(packet, digest);
				else {
					db.prepare('DELETE FROM handed_in WHERE packet = ? AND digest = ?').run(packet, digest);
					gone += dropUnused(house, digest);
				}
			}
		});
	return gone;
}

/** Puts a file away that nothing names any more; how many that were. */
export function dropUnused(house: House, digest: string): number {
	if (!isUnused(house, digest)) return 0;
	return house.db.prepare('DELETE FROM blobs WHERE digest = ?').run(digest).changes;
}

/** Puts a document away that no plan, no draft and no batch has any more: its words, its looks, what it was made from, its file. */
export function dropPaper(house: House, digest: string): void {
	const { db } = house;
	const held = db
		.prepare(
			'SELECT 1 FROM holders WHERE digest = @digest UNION ALL SELECT 1 FROM batch_documents WHERE paper = @digest LIMIT 1'
		)
		.get({ digest });
	const row = db
		.prepare<[string], { thumbnail: string; original: string | null }>(
			'SELECT thumbnail, original FROM papers WHERE digest = ?'
		)
		.get(digest);
	if (held || !row) return;
	const sources = db.prepare<[string], string>('SELECT source FROM paper_sources WHERE paper = ?').pluck().all(digest);
	const text = db
		.prepare<[string], { first: number; pages: number }>('SELECT first, pages FROM paper_texts WHERE digest = ?')
		.get(digest);
	if (text) {
		const page = db.prepare('DELETE FROM pages_text WHERE rowid = ?');
		for (let n = 0; n < text.pages; n += 1) page.run(text.first + n);
	}
	for (const sql of [
		'DELETE FROM paper_texts WHERE digest = ?',
		'DELETE FROM paper_looks WHERE paper = ?',
		'DELETE FROM paper_scans WHERE paper = ?',
		'DELETE FROM paper_sources WHERE paper = ?',
		'DELETE FROM papers WHERE digest = ?'
	])
		db.prepare(sql).run(digest);
	for (const file of [digest, row.thumbnail, row.original, ...sources]) if (file) dropUnused(house, file);
}

/** A file that went along unchanged is none any more where nothing holds it. */
export function dropAttachment(db: Db, digest: string): void {
	db.prepare(
		'DELETE FROM attachments WHERE digest = @digest AND NOT EXISTS (SELECT 1 FROM holders h WHERE h.digest = @digest)'
	).run({ digest });
}

/**
 * Puts away every file that nothing names, a day after it came: what was added and not kept, what was replaced. A few at a time, so that
 * nobody waits. @returns how many files went
 */
export async function sweepFiles(house: House): Promise<number> {
	const { db } = house;
	const before = new Date(house.now().getTime() - AFTER).toISOString();
	const next = db.prepare<[string, string, number], string>(
		'SELECT digest FROM blobs WHERE digest > ? AND created_at < ? ORDER BY digest LIMIT ?'
	);
	let gone = 0;
	for (let at = ''; ;) {
		const few = next.pluck().all(at, before, AT_A_TIME);
		inTransaction(db, () => few.forEach((digest) => (gone += dropUnused(house, digest))));
		if (few.length < AT_A_TIME) return gone;
		at = few.at(-1)!;
		await new Promise((go) => setTimeout(go, 20));
	}
}

/** Whether nothing else is this file: the same bytes are kept once, whoever brought them. */
function isUnused({ db }: House, digest: string): boolean {
	const named = db
		.prepare(
			`SELECT 1 FROM handed_in WHERE digest = @digest UNION ALL SELECT 1 FROM holders WHERE digest = @digest
			 UNION ALL SELECT 1 FROM papers WHERE digest = @digest UNION ALL SELECT 1 FROM papers WHERE thumbnail = @digest
			 UNION ALL SELECT 1 FROM papers WHERE original = @digest UNION ALL SELECT 1 FROM paper_sources WHERE source = @digest
			 UNION ALL SELECT 1 FROM attachments WHERE digest = @digest
			 UNION ALL SELECT 1 FROM paper_outs WHERE file = @digest UNION ALL SELECT 1 FROM paper_outs WHERE digest = @digest
			 UNION ALL SELECT 1 FROM notaries WHERE seal = @digest
			 UNION ALL SELECT 1 FROM sealed_files WHERE digest = @digest AND later IS NULL
			 UNION ALL SELECT 1 FROM disposals WHERE certificate = @digest
			 UNION ALL SELECT 1 FROM batches WHERE file = @digest
			 UNION ALL SELECT 1 FROM batch_documents WHERE file = @digest LIMIT 1`
		)
		.get({ digest });
	return named === undefined && organisation(db).logo !== digest;
}
