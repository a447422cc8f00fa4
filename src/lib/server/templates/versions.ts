import { cutText } from '../../core/clean-text';
import { preflightTemplate, type Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { freezePlan, planLookup } from '../packets/act';
import { dropDraft, readDraft } from '../packets/drafts';
import { relearn } from './recognition';
import { GONE, ownTemplate, type Template } from './store';

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
		.run(template.id, version, digest, account.id, now, cutText(note, 500));
	house.db
		.prepare('UPDATE templates SET version = ?, plan = ?, title = ?, changed_at = ? WHERE id = ?')
		.run(version, digest, plan.title, now, template.id);
	relearn(house, template.id);
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

/** The plan as a version has it. */
export function planOfVersion(house: House, template: string, version: number): Plan | Refusal {
	const digest = house.db
		.prepare<[string, number], string>('SELECT plan FROM template_versions WHERE template = ? AND version = ?')
		.pluck()
		.get(template, version);
	return digest === undefined
		? refuse('no-version', 'There is no such version of this template.')
		: planLookup(house.db)(digest);
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
		const plan = planOfVersion(house, id, version);
		if (isRefusal(plan)) return plan;
		return { template: id, version: keepVersion(house, account, template, plan, `Version ${version} again`) };
	});
}
