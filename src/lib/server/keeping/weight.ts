import type { House } from '../house';
import { readSetting, writeSetting } from '../settings';

/** How much is kept, in bytes, by what it is. */
export interface Weight {
	at: string;
	/** the database as a whole */
	all: number;
	/** sealed copies and evidence sheets; documents with their pictures; everything else that is a file */
	sealed: number;
	documents: number;
	others: number;
	files: number;
}

export function weightOf(house: House): Weight | null {
	const kept = readSetting(house.db, 'weight');
	return kept === undefined ? null : (JSON.parse(kept) as Weight);
}

/** Weighs what is kept, once a day, a few files at a time. */
export async function weigh(house: House): Promise<Weight> {
	const { db } = house;
	const next = db.prepare<[string, number], { digest: string; bytes: number; sealed: 0 | 1; document: 0 | 1 }>(
		`SELECT b.digest, length(b.bytes) AS bytes, EXISTS (SELECT 1 FROM sealed_files s WHERE s.digest = b.digest) AS sealed,
		 EXISTS (SELECT 1 FROM papers p WHERE p.digest = b.digest) AS document
		 FROM blobs b WHERE b.digest > ? ORDER BY b.digest LIMIT ?`
	);
	const weight: Weight = {
		at: house.now().toISOString(),
		all: (db.pragma('page_count', { simple: true }) as number) * (db.pragma('page_size', { simple: true }) as number),
		sealed: 0,
		documents: 0,
		others: 0,
		files: 0
	};
	for (let at = ''; ;) {
		const few = next.all(at, 500);
		for (const one of few) {
			weight.files += 1;
			weight[one.sealed ? 'sealed' : one.document ? 'documents' : 'others'] += one.bytes;
		}
		if (few.length < 500) break;
		at = few.at(-1)!.digest;
		await new Promise((go) => setImmediate(go));
	}
	writeSetting(db, 'weight', JSON.stringify(weight));
	return weight;
}
