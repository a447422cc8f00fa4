import { unveil } from '../packets/private-words';
import { cutText } from '../../core/clean-text';
import type { Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { asRoles } from '../../core/template';
import { strangeFile } from '../access';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { packetState } from '../packets/act';
import { newDraft, readDraft, saveDraft, type Draft } from '../packets/drafts';
import { GONE, mayChange, ownTemplate, readTemplate } from './store';

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
	return openCopy(house, id) ?? newDraft(house, account, template.plan ?? undefined, { template: id });
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
	return isRefusal(mine)
		? mine
		: saveDraft(house, account, id, revision, plan, (checked) => strangeFile(house.db, account, id, checked));
}

/** A template as a new one of one's own, to be changed without touching the first. */
export function duplicateTemplate(house: House, account: Account, id: string): Draft | Refusal {
	const template = readTemplate(house, account, id);
	if (isRefusal(template)) return template;
	// one that was never in use is only its owner's to copy
	const copy = template.plan ?? (mayChange(account, template) ? openCopy(house, id)?.plan : undefined);
	return copy ? newTemplate(house, account, copy, cutText(`${template.title}, copy`, 200)) : GONE;
}

/** The working copy that is open; null where there is none. */
function openCopy(house: House, template: string): Draft | null {
	const open = house.db.prepare<[string], { id: string }>('SELECT id FROM drafts WHERE template = ?').get(template);
	return open ? readDraft(house, open.id) : null;
}

/** A template from a draft, which stays as it is. */
export function templateFromDraft(house: House, account: Account, id: string): Draft | Refusal {
	const draft = readDraft(house, id);
	return draft
		? newTemplate(house, account, asRoles(draft.plan, officeOf(house)))
		: refuse('no-draft', 'This draft is gone.');
}

/** A template from a packet that was sent, in any state. */
export function templateFromPacket(house: House, account: Account, id: string): Draft | Refusal {
	const packet = packetState(house.db, id);
	return packet.status === 'none'
		? refuse('no-packet', 'There is no such packet.')
		: newTemplate(house, account, asRoles(unveil(house.db, packet.plan), officeOf(house)));
}

/** The addresses of the office's own people. */
function officeOf(house: House): Set<string> {
	return new Set(
		house.db
			.prepare<[], { email: string }>('SELECT email FROM accounts WHERE closed_at IS NULL')
			.all()
			.map((row) => row.email.toLowerCase())
	);
}
