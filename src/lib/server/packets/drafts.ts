import { sameJson } from '../../core/audit';
import { lockedChange } from '../../core/template';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { emptyPlan, preflight, type DraftRow, type Plan } from '../../core/packet';
import { holdPlan, letGo } from '../access';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { isAttachment, isKnownPaper, looksOf } from '../papers';
import { freezePlan, planLookup } from './act';
import { planOfVersion } from '../templates/made-from';
import { checkedPlan } from './plan-border';

export interface Draft {
	id: string;
	owner: string;
	revision: number;
	plan: Plan;
	savedAt: string;
	/** the template that is being changed; null for a packet to be */
	template: string | null;
	/** the plan it was made from, whose locks hold */
	base: Plan | null;
	/** the template was laid over it here, and may be taken off again */
	adopted: boolean;
	/** when it goes by itself, ISO 8601; null where it doesn't */
	sendAt: string | null;
	/** why it did not go when its time came; null where it has not been tried */
	sendFault: string | null;
	/** the packet that is out and is being corrected here; null for a packet to be */
	corrects: string | null;
	/** since when it is in the bin; null where it isn't */
	binnedAt: string | null;
}

interface Row {
	id: string;
	owner: string;
	revision: number;
	plan: string;
	saved_at: string;
	template: string | null;
	base: string | null;
	adopted: number;
	send_at: string | null;
	send_fault: string | null;
	corrects: string | null;
	binned_at: string | null;
}

const COLUMNS =
	'id, owner, revision, plan, saved_at, template, base, adopted, send_at, send_fault, corrects, binned_at';

/**
 * A new draft. `template`: it is the working copy of that template. `corrects`: it is the correction of that packet. `base`:
 * the frozen plan that it was made from, by digest; what that one locks stays as it is.
 */
export function newDraft(
	house: House,
	account: Account,
	plan: Plan = emptyPlan(),
	{
		template = null,
		base = null,
		corrects = null
	}: { template?: string | null; base?: string | null; corrects?: string | null } = {}
): Draft {
	const id = newId(house.now());
	house.db
		.prepare(
			'INSERT INTO drafts (id, owner, revision, plan, saved_at, template, base, corrects) VALUES (?, ?, 1, ?, ?, ?, ?, ?)'
		)
		.run(id, account.id, JSON.stringify(plan), house.now().toISOString(), template, base, corrects);
	holdPlan(house.db, 'draft', id, plan);
	return readDraft(house, id)!;
}

export function readDraft(house: House, id: string): Draft | null {
	const row = house.db.prepare<[string], Row>(`SELECT ${COLUMNS} FROM drafts WHERE id = ?`).get(id);
	if (!row) return null;
	const {
		saved_at: savedAt,
		plan,
		base,
		adopted,
		send_at: sendAt,
		send_fault: sendFault,
		binned_at: binnedAt,
		...rest
	} = row;
	return {
		...rest,
		plan: JSON.parse(plan) as Plan,
		savedAt,
		sendAt,
		sendFault,
		binnedAt,
		base: base === null ? null : planLookup(house.db)(base),
		adopted: adopted === 1
	};
}

export const NO_DRAFT = refuse('no-draft', 'This draft is gone: it has been sent or put away.');

export const BINNED = refuse('binned', 'This draft is in the bin. Take it back from there to go on with it.');

export const CHANGED = refuse(
	'changed-elsewhere',
	'This draft has been changed in another tab. What you have here is kept until you choose.'
);

/**
 * The plan whose locks hold: the one the draft was made from, for good; or that of a template which has been laid over it
 * here, until it is taken off again.
 */
function baseFor(house: House, account: Account, draft: Draft, plan: Plan): Plan | null | Refusal {
	if (draft.template !== null || (draft.base !== null && !draft.adopted)) return draft.base;
	const from = plan.from?.[0];
	if (!from || plan.from!.length > 1) return null;
	const same = sameJson(draft.base?.from ?? [], plan.from);
	return same ? draft.base : planOfVersion(house, account, from.template, from.version);
}

/** A plan made from a template keeps what that has locked, and says where it is from. */
export function keepsLocks(draft: Draft, plan: Plan): Refusal | null {
	if (!sameJson(plan.from ?? [], draft.base?.from ?? []))
		return refuse('locked', 'Which template this was made from can’t be changed.');
	return draft.base && lockedChange(draft.base, plan);
}

/** Drafts of an account, newest first, with what is still to be done on each. */
export function draftsOf(house: House, account: Account, most = 20): DraftRow[] {
	return house.db
		.prepare<[string, number], Row & { reference: string | null }>(
			`SELECT ${COLUMNS}, (SELECT reference FROM packets p WHERE p.id = corrects) AS reference
			 FROM drafts WHERE owner = ? AND binned_at IS NULL AND template IS NULL ORDER BY saved_at DESC LIMIT ?`
		)
		.all(account.id, most)
		.map((row) => {
			const plan = JSON.parse(row.plan) as Plan;
			return {
				id: row.id,
				title: plan.title || 'Untitled',
				savedAt: row.saved_at,
				sendAt: row.send_at,
				fault: row.send_fault,
				corrects: row.reference,
				open: preflight(plan, account, (digest) => looksOf(house, digest)?.unlike ?? []).filter((f) => !f.mild).length
			};
		});
}

/**
 * Saves a draft as revision + 1. Refuses `changed-elsewhere` where the draft has moved on since `revision`
 * was read (another tab, another person): nothing is overwritten, and the caller still has its own plan.
 * @param may what else is asked of the plan, once its shape is known
 */
export function saveDraft(
	house: House,
	account: Account,
	id: string,
	revision: number,
	wanted: unknown,
	may: (plan: Plan) => Refusal | null = () => null
): Draft | Refusal {
	const plan = checkedPlan(wanted);
	if (isRefusal(plan)) return plan;
	const strange = plan.papers.find((paper) => !isKnownPaper(house, paper.digest, paper.pages));
	if (strange)
		return refuse('unknown-paper', `“${strange.name}” is not a document of this Pellum. Add it again.`, 'papers');
	const lost = plan.attachments.find((attachment) => !isAttachment(house, attachment.digest));
	if (lost) return refuse('unknown-paper', `“${lost.name}” is not a file of this Pellum. Add it again.`, 'attachments');
	const foreign = may(plan);
	if (foreign) return foreign;
	return inTransaction(house.db, () => {
		const now = readDraft(house, id);
		if (!now) return NO_DRAFT;
		if (now.revision !== revision) return CHANGED;
		if (now.binnedAt !== null) return BINNED;
		if (now.sendAt !== null)
			return refuse('is-scheduled', 'This goes by itself at its time. Take it back first to change it.');
		const base = baseFor(house, account, now, plan);
		if (isRefusal(base)) return base;
		const no = keepsLocks({ ...now, base }, plan);
		if (no) return no;
		house.db
			.prepare('UPDATE drafts SET plan = ?, revision = ?, saved_at = ?, base = ?, adopted = ? WHERE id = ?')
			.run(
				JSON.stringify(plan),
				revision + 1,
				house.now().toISOString(),
				base && freezePlan(house.db, base),
				base !== null && (now.base === null || now.adopted) ? 1 : 0,
				id
			);
		holdPlan(house.db, 'draft', id, plan);
		return readDraft(house, id)!;
	});
}

export function dropDraft(house: House, id: string): void {
	house.db.prepare('DELETE FROM drafts WHERE id = ?').run(id);
	letGo(house.db, id);
}
