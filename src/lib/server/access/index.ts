import { may, type Doing, type Thing } from '../../core/access';
import { filesIn, type Plan } from '../../core/packet';
import { refuse, type Refusal } from '../../core/refusal';
import type { Account } from '../accounts/levels';
import type { Db } from '../db';
import { looker, MAY_SEE_PACKET, membersOf } from '../folders';

export { heldBy, holdPlan, letGo, planOfPacket } from './holders';

/** What a door can open, by the name of its thing. */
export type Kind = Thing['is'];

type Template = Extract<Thing, { is: 'template' }>;

/**
 * As much of a thing as the table of access asks for; null where there is none. Of what holds a file, what this account may see
 * comes before the rest.
 */
export function thingOf(db: Db, kind: Kind, id: string, account: Account): Thing | null {
	switch (kind) {
		case 'packet':
			return packetThing(db, id);
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
		case 'intake': {
			const row = db.prepare<[string], { owner: string }>('SELECT owner FROM intakes WHERE id = ?').get(id);
			return row ? { is: 'intake', owner: row.owner } : null;
		}
		case 'file':
			return { is: 'file', heldBy: holdersOf(db, id, account) };
	}
}

function packetThing(db: Db, id: string): Extract<Thing, { is: 'packet' }> | null {
	const row = db
		.prepare<[string], { owner: string; folder: string }>('SELECT owner, folder FROM packets WHERE id = ?')
		.get(id);
	if (!row) return null;
	const people = db.prepare<[string], string>('SELECT email FROM packet_people WHERE packet = ?').pluck().all(id);
	return { is: 'packet', owner: row.owner, people, members: membersOf(db, row.folder) };
}

function templateThing(db: Db, id: string): Template | null {
	const row = db
		.prepare<[string], { owner: string; shared: Template['shared']; folder: string }>(
			'SELECT owner, shared, folder FROM templates WHERE id = ?'
		)
		.get(id);
	if (!row) return null;
	const { folder, ...rest } = row;
	const chosen = db.prepare<[string], string>('SELECT account FROM template_shares WHERE template = ?').pluck().all(id);
	return { is: 'template', ...rest, chosen, members: membersOf(db, folder) };
}

/** So many of each kind are looked at: a logo or a letterhead is held by thousands, and one that may be seen is enough. */
const MOST = 200;

function holdersOf(db: Db, digest: string, account: Account): Exclude<Thing, { is: 'file' }>[] {
	const packet = db
		.prepare<{ digest: string } & ReturnType<typeof looker>, string>(
			`SELECT p.id FROM holders h CROSS JOIN packet_plans l ON l.plan = h.id CROSS JOIN packets p ON p.id = l.packet
			 WHERE h.digest = @digest AND h.kind = 'plan' AND ${MAY_SEE_PACKET} LIMIT 1`
		)
		.pluck()
		.get({ digest, ...looker(db, account) });
	// one that may be seen is enough
	if (packet) return [packetThing(db, packet)!];
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
	const batches = db
		.prepare<[string, number], string>('SELECT batch FROM batch_documents WHERE paper = ? LIMIT ?')
		.pluck()
		.all(digest, MOST);
	const found = [
		...[...new Set(batches)].map((id) => thingOf(db, 'batch', id, account)),
		...drafts.map((id) => thingOf(db, 'draft', id, account)),
		...[...new Set(templates)].map((id) => templateThing(db, id))
	].filter((thing) => thing !== null);
	return found as Exclude<Thing, { is: 'file' }>[];
}

/** Whether this account may do it with the thing of this name; where there is no such thing, the one who asks finds that out. */
export function permitted(db: Db, account: Account, doing: Doing, kind: Kind, id: string): boolean {
	const thing = thingOf(db, kind, id, account);
	return thing === null || may(account, doing, thing);
}

/** The sentence for somebody who may not do it; for what services do by themselves, after the door has let somebody in. */
export function notPermitted(db: Db, account: Account, doing: Doing, kind: Kind, id: string): Refusal | null {
	if (permitted(db, account, doing, kind, id)) return null;
	return doing === 'judge'
		? refuse('not-yours', 'Who judges in its folder decides on this, or an owner of the office.')
		: refuse('not-yours', 'Who prepares in its folder may do this, its sender, or an owner of the office.');
}

/**
 * Refuses a plan that names a file which neither its draft holds nor anything that this account may see: a digest alone is no
 * key to a file.
 */
export function strangeFile(db: Db, account: Account, draft: string, plan: Plan): Refusal | null {
	const held = db.prepare("SELECT 1 FROM holders WHERE digest = ? AND kind = 'draft' AND id = ?");
	const strange = filesIn(plan).find(
		(digest) => !held.get(digest, draft) && !may(account, 'see', thingOf(db, 'file', digest, account)!)
	);
	if (!strange) return null;
	const name = [...plan.papers, ...plan.attachments].find((one) => one.digest === strange)?.name;
	return refuse(
		'unknown-paper',
		`${name ? `“${name}”` : 'A picture here'} is not a file of yours. Add it again.`,
		'papers'
	);
}
