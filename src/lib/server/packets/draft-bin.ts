import { refuse, type Refusal } from '../../core/refusal';
import type { Plan } from '../../core/packet';
import { notPermitted } from '../access';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { dropDraft, NO_DRAFT } from './drafts';

/** Drafts that somebody has put into the bin: sent by nothing, found nowhere else, taken back until their days are over. */

export interface BinnedDraft {
	id: string;
	title: string;
	binnedAt: string;
}

/** What was to go by itself does not any more. Refuses what changes a template or a packet that is out: that is left on the Bench. */
export function binDraft(house: House, account: Account, id: string): { done: true } | Refusal {
	return inTransaction(house.db, () => {
		const no = notPermitted(house.db, account, 'change', 'draft', id);
		if (no) return no;
		const row = house.db
			.prepare<[string], { template: string | null; corrects: string | null }>(
				'SELECT template, corrects FROM drafts WHERE id = ?'
			)
			.get(id);
		if (!row) return NO_DRAFT;
		if (row.template !== null || row.corrects !== null)
			return refuse('not-a-draft', 'This changes a template or a packet that is out. Leave it on the Bench.');
		house.db
			.prepare('UPDATE drafts SET binned_at = ?, send_at = NULL, send_fault = NULL WHERE id = ? AND binned_at IS NULL')
			.run(house.now().toISOString(), id);
		house.changes.emit('packet', '');
		return { done: true as const };
	});
}

export function restoreDraft(house: House, account: Account, id: string): { done: true } | Refusal {
	const no = notPermitted(house.db, account, 'change', 'draft', id);
	if (no) return no;
	house.db.prepare('UPDATE drafts SET binned_at = NULL WHERE id = ?').run(id);
	house.changes.emit('packet', '');
	return { done: true as const };
}

/** Those of an account, last put there first. */
export function binnedDrafts(house: House, account: Account, most = 50): BinnedDraft[] {
	return house.db
		.prepare<[string, number], { id: string; plan: string; binnedAt: string }>(
			`SELECT id, plan, binned_at AS binnedAt FROM drafts WHERE owner = ? AND binned_at IS NOT NULL
			 ORDER BY binned_at DESC LIMIT ?`
		)
		.all(account.id, most)
		.map(({ plan, ...row }) => ({ ...row, title: (JSON.parse(plan) as Plan).title || 'Untitled' }));
}

/** Those that were put there before this moment go for good; how many that were. */
export function dropBinned(house: House, before: string, most: number): number {
	const old = house.db
		.prepare<[string, number], string>(
			'SELECT id FROM drafts INDEXED BY drafts_binned_at WHERE binned_at IS NOT NULL AND binned_at < ? LIMIT ?'
		)
		.pluck()
		.all(before, most);
	for (const id of old) inTransaction(house.db, () => dropDraft(house, id));
	return old.length;
}
