import { filesIn, type Plan } from '../../core/packet';
import type { Refusal } from '../../core/refusal';
import type { Db } from '../db';

/** Which drafts and frozen plans hold which files. */

/** A draft, or a plan by its digest, holds these files from now on; what it held before it still does. */
export function hold(db: Db, kind: 'draft' | 'plan', id: string, digests: string[]): void {
	const one = db.prepare<[string, string, string]>('INSERT OR IGNORE INTO holders (digest, kind, id) VALUES (?, ?, ?)');
	for (const digest of digests) one.run(digest, kind, id);
}

export function holdPlan(db: Db, kind: 'draft' | 'plan', id: string, plan: Plan): void {
	hold(db, kind, id, filesIn(plan));
}

/** What was handed in for a draft is held by it before it is saved; a refusal is handed on. */
export function heldBy<T extends object>(db: Db, draft: string, kept: T | Refusal): T | Refusal {
	const { digest, file } = kept as { digest?: string; file?: string };
	// it may have been sent or put away meanwhile
	if (!db.prepare('SELECT 1 FROM drafts WHERE id = ?').get(draft)) return kept;
	hold(
		db,
		'draft',
		draft,
		[digest, file].filter((one) => one !== undefined)
	);
	return kept;
}

/** A draft that is gone holds nothing. */
export function letGo(db: Db, draft: string): void {
	db.prepare("DELETE FROM holders WHERE kind = 'draft' AND id = ?").run(draft);
}

/** These plans are a packet's. */
export function planOfPacket(db: Db, packet: string, plans: string[]): void {
	for (const plan of plans)
		db.prepare('INSERT OR IGNORE INTO packet_plans (plan, packet) VALUES (?, ?)').run(plan, packet);
}
