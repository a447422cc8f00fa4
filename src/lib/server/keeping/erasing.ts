import type { Plan } from '../../core/packet';
import { forgetRow } from '../batches';
import type { Db } from '../db';
import type { House } from '../house';
import { uncount } from '../pace';
import { dropAttachment, dropPaper, dropUnused } from '../sweeping';

/**
 * Takes everything that was kept of a packet out of the database: documents, answers, pictures, letters, names. Its events lose their
 * words and keep their hashes. Runs in the caller's transaction, after the packet stands among what has been disposed of.
 */
export function erase(house: House, packet: string): void {
	const { db } = house;
	const files = filesNamed(db, packet);
	const plans = db.prepare<[string], string>('SELECT plan FROM packet_plans WHERE packet = ?').pluck().all(packet);
	const papers = plans.flatMap((plan) => papersOf(db, plan));
	fromBatch(house, packet);
	fromIntake(db, packet);
	lettersOf(db, packet);
	const n = db.prepare<[string], number>('SELECT n FROM packet_numbers WHERE packet = ?').pluck().get(packet);
	if (n !== undefined) wordsOf(db, n);
	for (const sql of [
		// pictures of identity documents and of pages go with what they belong to
		'DELETE FROM identity_tries WHERE packet = ?',
		'DELETE FROM identities_known WHERE packet = ?',
		'DELETE FROM paper_outs WHERE packet = ?',
		'DELETE FROM handed_in WHERE packet = ?',
		'DELETE FROM saved_answers WHERE packet = ?',
		'DELETE FROM private_words WHERE packet = ?',
		'DELETE FROM links WHERE packet = ?',
		'DELETE FROM codes WHERE packet = ?',
		'DELETE FROM passes WHERE packet = ?',
		'DELETE FROM packet_wordings WHERE packet = ?',
		'DELETE FROM packet_returns WHERE packet = ?',
		'DELETE FROM packet_sessions WHERE packet = ?',
		'DELETE FROM room_words WHERE packet = ?',
		'DELETE FROM room_pages WHERE packet = ?',
		'DELETE FROM room_seen WHERE packet = ?',
		'DELETE FROM packet_people WHERE packet = ?',
		'DELETE FROM packet_plans WHERE packet = ?',
		'UPDATE drafts SET corrects = NULL WHERE corrects = ?',
		'DELETE FROM sealed_files WHERE packet = ?',
		'DELETE FROM lasting WHERE of = ?',
		'DELETE FROM hold_packets WHERE packet = ?',
		"DELETE FROM troubles WHERE what = 'clock' AND id = ?",
		'DELETE FROM packets WHERE id = ?',
		"UPDATE events SET body = '' WHERE packet = ?"
	])
		db.prepare(sql).run(packet);
	uncount(house, packet);
	for (const plan of plans) dropPlan(db, plan);
	for (const paper of new Set(papers)) dropPaper(house, paper);
	for (const file of files) {
		dropAttachment(db, file);
		dropUnused(house, file);
	}
}

/** Digests of all files that its events, its plans and its answers name. */
function filesNamed(db: Db, packet: string): Set<string> {
	const bodies = db.prepare<[string], string>('SELECT body FROM events WHERE packet = ?').pluck().all(packet);
	const plans = db
		.prepare<[string], string>(
			'SELECT l.json FROM packet_plans p CROSS JOIN plans l ON l.digest = p.plan WHERE p.packet = ?'
		)
		.pluck()
		.all(packet);
	const handed = db.prepare<[string], string>('SELECT digest FROM handed_in WHERE packet = ?').pluck().all(packet);
	return new Set([...[...bodies, ...plans].flatMap((text) => text.match(/\b[0-9a-f]{64}\b/g) ?? []), ...handed]);
}

/** The documents of a plan, by digest. */
export function papersOf(db: Db, plan: string): string[] {
	const json = db.prepare<[string], string>('SELECT json FROM plans WHERE digest = ?').pluck().get(plan);
	return json === undefined ? [] : (JSON.parse(json) as Plan).papers.map((paper) => paper.digest);
}

/** The row of the sheet it was sent from is empty then; the file itself holds everybody, and goes. */
function fromBatch(house: House, packet: string): void {
	const { db } = house;
	const of = db
		.prepare<[string], { batch: string; who: string }>('SELECT batch, who FROM batch_packets WHERE packet = ?')
		.get(packet);
	if (!of) return;
	forgetRow(house, of.batch, of.who);
	db.prepare('DELETE FROM batch_packets WHERE batch = ? AND who = ?').run(of.batch, of.who);
}

function fromIntake(db: Db, packet: string): void {
	db.prepare('DELETE FROM cases WHERE packet = ?').run(packet);
	db.prepare('DELETE FROM intake_rows WHERE packet = ?').run(packet);
}

/** Letters in the outbox and in the stand-ins' own books, which are called after the packet. */
function lettersOf(db: Db, packet: string): void {
	for (const sql of [
		"DELETE FROM jobs WHERE key > ? || ':' AND key < ? || ';'",
		"DELETE FROM mailbox WHERE message_id > ? || '.' AND message_id < ? || '/'",
		"DELETE FROM phone WHERE message_id > ? || '.' AND message_id < ? || '/'"
	])
		db.prepare(sql).run(packet, packet);
	db.prepare('DELETE FROM hook_deliveries WHERE packet = ?').run(packet);
	db.prepare('DELETE FROM receiver WHERE instr(body, ?) > 0').run(packet);
}

function wordsOf(db: Db, n: number): void {
	db.prepare('DELETE FROM packets_text WHERE rowid = ?').run(n);
	db.prepare('DELETE FROM packets_full WHERE rowid = ?').run(n);
	db.prepare('DELETE FROM packet_words WHERE n = ?').run(n);
	db.prepare('DELETE FROM packet_order WHERE n = ?').run(n);
	db.prepare('DELETE FROM packet_numbers WHERE n = ?').run(n);
}

/** Puts a plan away that nobody has any more: no packet, no template, no draft, no case. */
export function dropPlan(db: Db, plan: string): void {
	const held = db
		.prepare(
			`SELECT 1 FROM packet_plans WHERE plan = @plan UNION ALL SELECT 1 FROM template_versions WHERE plan = @plan
			 UNION ALL SELECT 1 FROM templates WHERE plan = @plan UNION ALL SELECT 1 FROM drafts WHERE base = @plan
			 UNION ALL SELECT 1 FROM cases WHERE plan = @plan LIMIT 1`
		)
		.get({ plan });
	if (held) return;
	db.prepare("DELETE FROM holders WHERE kind = 'plan' AND id = ?").run(plan);
	db.prepare('DELETE FROM plans WHERE digest = ?').run(plan);
}
