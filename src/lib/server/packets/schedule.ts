import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { graveFault } from '../../core/packet';
import { accountById, type Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { BINNED, readDraft, type Draft } from './drafts';
import { sendDraft } from './sending';

/** Drafts that go by themselves at a time. Until then they stay drafts, but nobody changes them without taking them back. */

/** Refuses a time that has passed, and a draft that could not be sent now. */
export function scheduleDraft(
	house: House,
	account: Account,
	id: string,
	revision: number,
	at: string
): Draft | Refusal {
	return inTransaction(house.db, () => {
		const draft = readDraft(house, id);
		if (!draft) return refuse('no-draft', 'This draft is gone: it has been sent or put away.');
		if (draft.revision !== revision)
			return refuse('changed-elsewhere', 'This draft has been changed in another tab. Look at it again first.');
		if (draft.binnedAt !== null) return BINNED;
		if (draft.corrects !== null)
			return refuse('is-correction', 'What is put right goes at once: until then nobody can sign.');
		if (draft.template !== null) return refuse('is-template', 'A template is not sent. Put it in use instead.');
		if (Number.isNaN(Date.parse(at)) || Date.parse(at) <= house.now().getTime())
			return refuse('time-past', 'That moment has passed. Choose a later one.', 'at');
		const no = graveFault(draft.plan, account);
		if (no) return no;
		house.db
			.prepare('UPDATE drafts SET send_at = ?, send_fault = NULL, owner = ? WHERE id = ?')
			.run(new Date(at).toISOString(), account.id, id);
		return readDraft(house, id)!;
	});
}

/** Takes it back: it is a draft like any other again. */
export function unscheduleDraft(house: House, id: string): Draft | Refusal {
	house.db.prepare('UPDATE drafts SET send_at = NULL, send_fault = NULL WHERE id = ?').run(id);
	return readDraft(house, id) ?? refuse('no-draft', 'This draft is gone: it has been sent or put away.');
}

/** Sends a draft whose time has come. What can't go stays a draft and says why on the Desk. */
export function sendDue(house: House, { id, owner, revision }: { id: string; owner: string; revision: number }): void {
	const account = accountById(house, owner);
	const sent = account
		? sendDraft(house, account, id, revision)
		: refuse('no-account', 'The account that scheduled it is closed.');
	if (isRefusal(sent)) {
		house.db.prepare('UPDATE drafts SET send_at = NULL, send_fault = ? WHERE id = ?').run(sent.say, id);
		house.changes.emit('packet', '');
	}
}
