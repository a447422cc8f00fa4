import { folded } from '../../core/folded';
import { inTransaction } from '../db';
import type { House } from '../house';
import { dropUnused } from '../sweeping';

/**
 * Takes the rows of one person out of a batch's sheet: their cells are empty from then on, and the file itself, in which everybody
 * stands, is not kept any longer. The others stay as they were read. @param who the address or number by which the row is somebody's
 */
export function forgetRow(house: House, batch: string, who: string): void {
	const { db } = house;
	inTransaction(db, () => {
		const rows = db
			.prepare<[string], { n: number; cells: string }>('SELECT n, cells FROM batch_rows WHERE batch = ?')
			.all(batch);
		const empty = db.prepare(
			'UPDATE batch_rows SET cells = ?, given = NULL, righted = NULL, fault = NULL WHERE batch = ? AND n = ?'
		);
		for (const { n, cells } of rows) {
			const texts = JSON.parse(cells) as string[];
			if (texts.some((text) => folded(text).includes(folded(who))))
				empty.run(JSON.stringify(texts.map(() => '')), batch, n);
		}
		const file = db.prepare<[string], string>('SELECT file FROM batches WHERE id = ?').pluck().get(batch);
		if (!file) return;
		db.prepare("UPDATE batches SET file = '' WHERE id = ?").run(batch);
		dropUnused(house, file);
	});
}
