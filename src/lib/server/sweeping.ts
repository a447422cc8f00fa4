import { inTransaction } from './db';
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
			 UNION ALL SELECT 1 FROM batches WHERE file = @digest
			 UNION ALL SELECT 1 FROM batch_documents WHERE file = @digest LIMIT 1`
		)
		.get({ digest });
	return named === undefined && organisation(db).logo !== digest;
}
