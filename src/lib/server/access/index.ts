import { may, type Doing, type Thing } from '../../core/access';
import { filesIn, type Plan } from '../../core/packet';
import { refuse, type Refusal } from '../../core/refusal';
import type { Account } from '../accounts/levels';
import type { Db } from '../db';

export { heldBy, holdPlan, letGo, planOfPacket } from './holders';

/** What a door can open, by the name of its thing. */
export type Kind = Thing['is'];

type Template = Extract<Thing, { is: 'template' }>;

/** As much of a thing as the table of access asks for; null where there is none. */
export function thingOf(db: Db, kind: Kind, id: string): Thing | null {
	switch (kind) {
		case 'packet':
			return db.prepare('SELECT 1 FROM packets WHERE id = ?').get(id) ? { is: 'packet' } : null;
		case 'template':
			return templateThing(db, id);
		case 'draft': {
			const row = db
				.prepare<[string], { owner: string; template: string | null }>(
					'SELECT owner, template FROM drafts WHERE id = ?'
				)
				.get(id);
			return (
				(row && { is: 'draft', owner: row.owner, working: row.template ? templateThing(db, row.template) : null }) ||
				null
			);
		}
		case 'batch': {
			const row = db.prepare<[string], { owner: string }>('SELECT owner FROM batches WHERE id = ?').get(id);
			return row ? { is: 'batch', owner: row.owner } : null;
		}
		case 'file':
			return { is: 'file', heldBy: holdersOf(db, id) };
	}
}

function templateThing(db: Db, id: string): Template | null {
	const row = db
		.prepare<[string], { owner: string; shared: Template['shared'] }>(
			'SELECT owner, shared FROM templates WHERE id = ?'
		)
		.get(id);
	if (!row) return null;
	const chosen = db.prepare<[string], string>('SELECT account FROM template_shares WHERE template = ?').pluck().all(id);
	return { is: 'template', ...row, chosen };
}

/** So many of each kind are looked at: a logo or a letterhead is held by thousands, and one that may be seen is enough. */
const MOST = 200;

function holdersOf(db: Db, digest: string): Exclude<Thing, { is: 'file' }>[] {
	const packet = db
		.prepare(
			"SELECT 1 FROM holders h CROSS JOIN packet_plans p ON p.plan = h.id WHERE h.digest = ? AND h.kind = 'plan' LIMIT 1"
		)
		.get(digest);
	// whoever asks may see packets, so nothing else need be looked for
	if (packet) return [{ is: 'packet' }];
	const drafts = db
		.prepare<[string, number], string>("SELECT id FROM holders WHERE digest = ? AND kind = 'draft' LIMIT ?")
		.pluck()
		.all(digest, MOST);
	const templates = db
		.prepare<[string, number], string>(
			`SELECT v.template FROM holders h CROSS JOIN template_versions v ON v.plan = h.id
			 WHERE h.digest = ? AND h.kind = 'plan' LIMIT ?`
		)
		.pluck()
		.all(digest, MOST);
	const found = [
		...drafts.map((id) => thingOf(db, 'draft', id)),
		...[...new Set(templates)].map((id) => templateThing(db, id))
	].filter((thing) => thing !== null);
	return found as Exclude<Thing, { is: 'file' }>[];
}

/** Whether this account may do it with the thing of this name; where there is no such thing, the one who asks finds that out. */
export function permitted(db: Db, account: Account, doing: Doing, kind: Kind, id: string): boolean {
	const thing = thingOf(db, kind, id);
	return thing === null || may(account, doing, thing);
}

/**
 * Refuses a plan that names a file which neither its draft holds nor anything that this account may see: a digest alone is no
 * key to a file.
 */
export function strangeFile(db: Db, account: Account, draft: string, plan: Plan): Refusal | null {
	const held = db.prepare("SELECT 1 FROM holders WHERE digest = ? AND kind = 'draft' AND id = ?");
	const strange = filesIn(plan).find(
		(digest) => !held.get(digest, draft) && !may(account, 'see', thingOf(db, 'file', digest)!)
	);
	if (!strange) return null;
	const name = [...plan.papers, ...plan.attachments].find((one) => one.digest === strange)?.name;
	return refuse(
		'unknown-paper',
		`${name ? `“${name}”` : 'A picture here'} is not a file of yours. Add it again.`,
		'papers'
	);
}
