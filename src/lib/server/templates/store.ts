import { isAddress, preflightTemplate, type Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { freezePlan, packetState, planLookup } from '../packets/act';
import { dropDraft, newDraft, readDraft, saveDraft, type Draft } from '../packets/drafts';
import { forgetTemplate } from './recognition';
import { MAY_SEE, seer } from './version';

export const SHARED = ['owner', 'chosen', 'office'] as const;
export type Shared = (typeof SHARED)[number];

export interface Template {
	id: string;
	owner: string;
	title: string;
	description: string;
	folder: string;
	shared: Shared;
	/** 0: not in use yet */
	version: number;
	plan: Plan | null;
	changedAt: string;
	binned: boolean;
}

interface Row extends Omit<Template, 'plan' | 'binned'> {
	plan: string | null;
	binnedAt: string | null;
}

const GONE = refuse('no-template', 'This template is gone, or not shared with you.');
const NOT_YOURS = refuse(
	'not-your-template',
	'Only its owner changes this template. Duplicate it to have one of your own.'
);

/** A template that this account may use; refuses `no-template` for one that is not there or not theirs to see. */
export function readTemplate(house: House, account: Account, id: string): Template | Refusal {
	const row = house.db
		.prepare<Record<string, string | number>, Row>(
			`SELECT id, owner, title, description, folder, shared, version, plan, changed_at AS changedAt, binned_at AS binnedAt
			 FROM templates t WHERE id = @id AND ${MAY_SEE}`
		)
		.get({ id, ...seer(account) });
	if (!row) return GONE;
	const { plan, binnedAt, ...rest } = row;
	return { ...rest, plan: plan === null ? null : planLookup(house.db)(plan), binned: binnedAt !== null };
}

/** The template, where this account may change it. */
export function ownTemplate(house: House, account: Account, id: string): Template | Refusal {
	const template = readTemplate(house, account, id);
	if (isRefusal(template)) return template;
	return mayChange(account, template) ? template : NOT_YOURS;
}

export function mayChange(account: Account, template: Pick<Template, 'owner'>): boolean {
	return template.owner === account.id || account.level === 'owner';
}

/** A new template with its working copy; nobody can use it before it is put in use. */
export function newTemplate(house: House, account: Account, plan: Plan, title = plan.title): Draft {
	return inTransaction(house.db, () => {
		const id = newId(house.now());
		const now = house.now().toISOString();
		house.db
			.prepare('INSERT INTO templates (id, owner, title, created_at, changed_at) VALUES (?, ?, ?, ?, ?)')
			.run(id, account.id, title || 'Untitled', now, now);
		return newDraft(house, account, { ...plan, title }, { template: id });
	});
}

/** The working copy of a template, made of the version in use where there is none. One for each template. */
export function workingCopy(house: House, account: Account, id: string): Draft | Refusal {
	const template = ownTemplate(house, account, id);
	if (isRefusal(template)) return template;
	const open = house.db.prepare<[string], { id: string }>('SELECT id FROM drafts WHERE template = ?').get(id);
	return open ? readDraft(house, open.id)! : newDraft(house, account, template.plan ?? undefined, { template: id });
}

/** Saves what stands on the Bench: a draft, or a template that is being changed, by those only who may change it. */
export function saveBench(
	house: House,
	account: Account,
	id: string,
	revision: number,
	plan: unknown
): Draft | Refusal {
	const template = readDraft(house, id)?.template;
	const mine = template ? ownTemplate(house, account, template) : null;
	return isRefusal(mine) ? mine : saveDraft(house, account, id, revision, plan);
}

/** A template as a new one of one's own, to be changed without touching the first. */
export function duplicateTemplate(house: House, account: Account, id: string): Draft | Refusal {
	const template = readTemplate(house, account, id);
	if (isRefusal(template)) return template;
	const copy = template.plan ?? (isRefusal(ownTemplate(house, account, id)) ? null : workingPlan(house, id));
	return copy ? newTemplate(house, account, copy, `${template.title}, copy`.slice(0, 200)) : GONE;
}

function workingPlan(house: House, template: string): Plan | null {
	const open = house.db.prepare<[string], { id: string }>('SELECT id FROM drafts WHERE template = ?').get(template);
	return open ? readDraft(house, open.id)!.plan : null;
}

/** A template from a draft, which stays as it is. */
export function templateFromDraft(house: House, account: Account, id: string): Draft | Refusal {
	const draft = readDraft(house, id);
	return draft ? newTemplate(house, account, asRoles(house, draft.plan)) : refuse('no-draft', 'This draft is gone.');
}

/** A template from a packet that was sent, in any state. */
export function templateFromPacket(house: House, account: Account, id: string): Draft | Refusal {
	const packet = packetState(house.db, id);
	return packet.status === 'none'
		? refuse('no-packet', 'There is no such packet.')
		: newTemplate(house, account, asRoles(house, packet.plan));
}

/** People become roles; those of the office stay who they are. What was answered for one packet is left out. */
function asRoles(house: House, plan: Plan): Plan {
	const office = new Set(
		house.db
			.prepare<[], { email: string }>('SELECT email FROM accounts WHERE closed_at IS NULL')
			.all()
			.map((row) => row.email.toLowerCase())
	);
	const { answers: _answers, from: _from, locked: _locked, ...rest } = plan;
	return {
		...rest,
		people: plan.people.map((person, i) => {
			const role = person.role || person.jobTitle || person.name || `Person ${i + 1}`;
			const stays = isAddress(person.email) && office.has(person.email.toLowerCase());
			return stays ? { ...person, role } : { ...person, role, name: '', email: '' };
		})
	};
}

/**
 * Puts the working copy in use as the next version; what was made from earlier ones stays as it was. Refuses what
 * preflight finds, and `changed-elsewhere` where the copy has moved on since `revision`.
 */
export function putInUse(
	house: House,
	account: Account,
	draftId: string,
	revision: number,
	note: string
): { template: string; version: number } | Refusal {
	return inTransaction(house.db, () => {
		const draft = readDraft(house, draftId);
		if (!draft?.template) return GONE;
		if (draft.revision !== revision)
			return refuse('changed-elsewhere', 'This template has been changed in another tab. Look at that first.');
		const template = ownTemplate(house, account, draft.template);
		if (isRefusal(template)) return template;
		const first = preflightTemplate(draft.plan).find((finding) => !finding.mild);
		if (first) return refuse(first.code, first.say, 'id' in first.place ? first.place.id : first.place.what);
		const version = keepVersion(house, account, template, draft.plan, note);
		dropDraft(house, draft.id);
		return { template: template.id, version };
	});
}

function keepVersion(house: House, account: Account, template: Template, wanted: Plan, note: string): number {
	const { from: _from, ...plan } = wanted;
	const version = lastVersion(house, template.id) + 1;
	const digest = freezePlan(house.db, plan);
	const now = house.now().toISOString();
	house.db
		.prepare('INSERT INTO template_versions (template, version, plan, account, at, note) VALUES (?, ?, ?, ?, ?, ?)')
		.run(template.id, version, digest, account.id, now, note.slice(0, 500));
	house.db
		.prepare('UPDATE templates SET version = ?, plan = ?, title = ?, changed_at = ? WHERE id = ?')
		.run(version, digest, plan.title, now, template.id);
	forgetTemplate(house);
	return version;
}

function lastVersion(house: House, template: string): number {
	return house.db
		.prepare<[string], { n: number }>('SELECT coalesce(max(version), 0) AS n FROM template_versions WHERE template = ?')
		.get(template)!.n;
}

export interface VersionRow {
	version: number;
	at: string;
	by: string;
	note: string;
}

/** Versions, newest first. */
export function versionsOf(house: House, template: string): VersionRow[] {
	return house.db
		.prepare<[string], VersionRow>(
			`SELECT v.version, v.at, a.name AS by, v.note FROM template_versions v JOIN accounts a ON a.id = v.account
			 WHERE v.template = ? ORDER BY v.version DESC`
		)
		.all(template);
}

/** Brings an earlier version back, as the next one. */
export function bringBack(
	house: House,
	account: Account,
	id: string,
	version: number
): { template: string; version: number } | Refusal {
	return inTransaction(house.db, () => {
		const template = ownTemplate(house, account, id);
		if (isRefusal(template)) return template;
		const row = house.db
			.prepare<[string, number], { plan: string }>(
				'SELECT plan FROM template_versions WHERE template = ? AND version = ?'
			)
			.get(id, version);
		if (!row) return refuse('no-version', 'There is no such version of this template.');
		const plan = planLookup(house.db)(row.plan);
		return { template: id, version: keepVersion(house, account, template, plan, `Version ${version} again`) };
	});
}

/** What a template is said to be, where it lies, and who may use it. */
export interface About {
	description: string;
	folder: string;
	shared: Shared;
	/** accounts, where it is shared with chosen ones */
	accounts: string[];
	/** whose it is from now on; left as it is where nobody is named who prepares packets */
	owner?: string;
}

export function describeTemplate(house: House, account: Account, id: string, about: About): Refusal | null {
	return inTransaction(house.db, () => {
		const template = ownTemplate(house, account, id);
		if (isRefusal(template)) return template;
		house.db
			.prepare('UPDATE templates SET description = ?, folder = ?, shared = ? WHERE id = ?')
			.run(about.description.trim().slice(0, 1000), about.folder.trim().slice(0, 80), about.shared, id);
		if (about.owner)
			house.db
				.prepare(
					`UPDATE templates SET owner = @owner WHERE id = @id AND EXISTS
					 (SELECT 1 FROM accounts WHERE id = @owner AND closed_at IS NULL AND level <> 'viewer')`
				)
				.run({ owner: about.owner, id });
		house.db.prepare('DELETE FROM template_shares WHERE template = ?').run(id);
		if (about.shared === 'chosen')
			for (const one of about.accounts)
				house.db
					.prepare('INSERT OR IGNORE INTO template_shares (template, account) SELECT ?, id FROM accounts WHERE id = ?')
					.run(id, one);
		return null;
	});
}

export function sharesOf(house: House, template: string): string[] {
	return house.db
		.prepare<[string], { account: string }>('SELECT account FROM template_shares WHERE template = ?')
		.all(template)
		.map((row) => row.account);
}

/** Puts a template in the bin, or takes it out of it. Packets made from it are not touched. */
export function binTemplate(house: House, account: Account, id: string, bin: boolean): Refusal | null {
	const template = ownTemplate(house, account, id);
	if (isRefusal(template)) return template;
	house.db.prepare('UPDATE templates SET binned_at = ? WHERE id = ?').run(bin ? house.now().toISOString() : null, id);
	forgetTemplate(house);
	return null;
}
