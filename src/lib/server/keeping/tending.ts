import { readdirSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { inTransaction } from '../db';
import { keepingSetting } from '../filing';
import type { House } from '../house';
import { refreshLists } from '../keys';
import { askDue } from '../lasting';
import { dropBinned } from '../packets/draft-bin';
import { dropDraft } from '../packets/drafts';
import { readSetting, writeSetting } from '../settings';
import { dropPaper, sweepFiles } from '../sweeping';
import { disposeByItself } from './disposal';
import { goingByThemselves } from './due';
import { weigh } from './weight';
import { dropPlan, papersOf } from './erasing';

/** What is done each hour by itself, a little at a time: what is over goes, what nobody needs is put away. */

const AT_A_TIME = 100;
const DAY = 86_400_000;

export async function tendKeeping(house: House): Promise<void> {
	const before = new Date(house.now().getTime() - keepingSetting(house.db).binDays * DAY).toISOString();
	dropBinned(house, before, AT_A_TIME);
	dropTemplates(house, before);
	const going = goingByThemselves(house, AT_A_TIME);
	if (going.length > 0) await disposeByItself(house, going, 'The time for which it is kept was over.');
	askDue(house);
	await refreshLists(house);
	const today = house.now().toISOString().slice(0, 10);
	if (readSetting(house.db, 'swept') === today) return;
	writeSetting(house.db, 'swept', today);
	await sweepFiles(house);
	dropOldCopies(house);
	await weigh(house);
}

/**
 * Templates that have been in the bin for their days. One from which something was made that is still here stays, since that tells its
 * name by it; so does one that a batch or an intake goes on with.
 */
function dropTemplates(house: House, before: string): void {
	const { db } = house;
	const old = db
		.prepare<[string, number], string>(
			`SELECT t.id FROM templates t WHERE t.binned_at < ? AND NOT EXISTS (SELECT 1 FROM batches b WHERE b.template = t.id)
			 AND NOT EXISTS (SELECT 1 FROM intakes i WHERE i.template = t.id)
			 AND NOT EXISTS (SELECT 1 FROM packets p WHERE p.template = t.id) LIMIT ?`
		)
		.pluck()
		.all(before, AT_A_TIME);
	for (const id of old)
		inTransaction(db, () => {
			const plans = db
				.prepare<[string], string>('SELECT plan FROM template_versions WHERE template = ?')
				.pluck()
				.all(id);
			const drafts = db.prepare<[string], string>('SELECT id FROM drafts WHERE template = ?').pluck().all(id);
			for (const draft of drafts) dropDraft(house, draft);
			for (const sql of [
				'DELETE FROM template_shares WHERE template = ?',
				'DELETE FROM template_versions WHERE template = ?',
				'DELETE FROM templates WHERE id = ?'
			])
				db.prepare(sql).run(id);
			const papers = plans.flatMap((plan) => papersOf(db, plan));
			for (const plan of new Set(plans)) dropPlan(db, plan);
			for (const paper of new Set(papers)) dropPaper(house, paper);
		});
}

/** Copies from before an upgrade are there to go back to for a month; longer they would keep what has been disposed of. */
function dropOldCopies({ config, db }: House): void {
	if (db.memory) return;
	for (const name of readdirSync(config.folder)) {
		const file = path.join(config.folder, name);
		if (/^pellum\.db\.v\d+$/.test(name) && Date.now() - statSync(file).mtimeMs > 30 * DAY)
			rmSync(file, { force: true });
	}
}

/** The contentless index forgets words only as its segments are merged: until nothing is left to merge, a piece at a time. */
export async function mergeWords({ db }: House, done: () => void): Promise<null> {
	const changes = db.prepare<[], number>('SELECT total_changes()').pluck();
	const merge = db.prepare("INSERT INTO packets_full (packets_full, rank) VALUES ('merge', ?)");
	// a negative number first: all segments are to become one (FTS5, “The 'merge' Command”)
	for (let pages = -300; ; pages = 300) {
		const before = changes.get()!;
		merge.run(pages);
		if (changes.get()! - before < 2) break;
		await new Promise((go) => setImmediate(go));
	}
	// what the log of writes still holds of it is overwritten with the next ones
	if (!db.memory) db.pragma('wal_checkpoint(TRUNCATE)');
	done();
	return null;
}
