import { cleanText, cutText } from '../../core/clean-text';
import type { Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import { folderFault, folderNamed } from '../folders';
import type { House } from '../house';
import { planLookup } from '../packets/act';
import { relearn } from './recognition';
import { MAY_SEE, seer } from './seeing';

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

export const GONE = refuse('no-template', 'This template is gone, or not shared with you.');
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
		.get({ id, ...seer(house.db, account) });
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

/** Its folder is made, open, where there is none of that name. */
export function describeTemplate(
	house: House,
	account: Account,
	id: string,
	about: About,
	address = ''
): Refusal | null {
	return inTransaction(house.db, () => {
		const template = ownTemplate(house, account, id);
		if (isRefusal(template)) return template;
		const folder = folderNamed(house, { account, address }, about.folder);
		const no = folder === template.folder ? null : folderFault(house.db, account, folder);
		if (no) return no;
		house.db
			.prepare('UPDATE templates SET description = ?, folder = ?, shared = ? WHERE id = ?')
			.run(cutText(cleanText(about.description.trim()), 1000), folder, about.shared, id);
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
	relearn(house, id);
	return null;
}
