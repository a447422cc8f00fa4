import { senderAnswers } from '../../core/field';
import { lettersFault, localeOf, SENDER, type Begun, type Plan, type SentPacket } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import type { Account } from '../accounts';
import { amendsFault } from '../amending/begin';
import { blobMeta } from '../blobs';
import { inTransaction, joiningTransaction } from '../db';
import { folderFault } from '../folders';
import { holidayList } from '../holidays';
import type { House } from '../house';
import { newId, newReference } from '../ids';
import { commissionFaultOf } from '../notary/notaries';
import { takenAs, unlikePart } from '../papers';
import { organisation } from '../settings';
import { act, freezePlan, office } from './act';
import { BINNED, CHANGED, dropDraft, keepsLocks, NO_DRAFT, readDraft } from './drafts';
import { checkLetters, checkPrintable } from './marks';
import { veil } from './private-words';

/** Sends a draft: freezes its plan, writes the first event, and the draft is gone. One transaction. */
export function sendDraft(house: House, account: Account, id: string, revision: number): SentPacket | Refusal {
	return inTransaction(house.db, () => {
		const draft = readDraft(house, id);
		if (!draft) return NO_DRAFT;
		if (draft.revision !== revision) return CHANGED;
		if (draft.binnedAt !== null) return BINNED;
		if (draft.corrects !== null)
			return refuse('is-correction', 'This puts a packet right that is out. Send the changes instead.');
		if (draft.template !== null)
			return refuse('is-template', 'This is a template being changed. Put it in use, and use it to send something.');
		const no = keepsLocks(draft, draft.plan);
		if (no) return no;
		const sent = sendPlan(house, account, trimmed(draft.plan));
		if (!isRefusal(sent)) dropDraft(house, id);
		return sent;
	});
}

/** A template whose plan has gone out has been used once more. */
function countUse(house: House, { plan, sentAt }: SentPacket): void {
	for (const { template } of plan.from ?? [])
		house.db.prepare('UPDATE templates SET uses = uses + 1, last_used_at = ? WHERE id = ?').run(sentAt, template);
}

/** Sends a plan as a new packet of this account's, by itself where a visitor has begun it. */
export function sendPlan(
	house: House,
	account: Account,
	wanted: Plan,
	{ batch, begun }: { batch?: string; begun?: Begun } = {}
): SentPacket | Refusal {
	return joiningTransaction(house.db, () => {
		const { name, zone, seenPages } = organisation(house.db);
		const now = house.now().toISOString();
		const plan: Plan = {
			...wanted,
			...(seenPages && { sending: { ...wanted.sending, seenPages } }),
			answers: senderAnswers(wanted, {
				person: { ...account, organisation: name },
				now,
				zone,
				locale: localeOf(wanted)
			})
		};
		const folder = folderOf(house, plan);
		const no =
			folderFault(house.db, account, folder) ??
			commissionFaultOf(house, plan) ??
			amendsFault(house, account, plan) ??
			unprintablePart(house, plan) ??
			unlikePart(house, plan);
		if (no) return no;
		const packet = newId(house.now());
		const frozen = veil(house.db, packet, plan);
		const sent = act(
			house,
			packet,
			begun ? { kind: 'pellum' } : office(account),
			{
				do: 'send',
				packet,
				reference: freeReference(house),
				plan: frozen,
				planDigest: freezePlan(house.db, frozen),
				sender: { name: account.name, email: account.email, organisation: name },
				zone,
				folder,
				taken: takenAs(house, plan),
				...(plan.sending?.workingDays && { holidays: holidayList(house).map((one) => one.day) }),
				...(begun && { begun })
			},
			{ batch }
		);
		if (!isRefusal(sent)) countUse(house, sent);
		return sent;
	});
}

/** Where a plan's packet goes: into the folder its sender chose, or else into that of the template it was made from. */
function folderOf(house: House, plan: Plan): string {
	const from = plan.from?.[0]?.template;
	if (plan.sending?.folder !== undefined || from === undefined) return plan.sending?.folder ?? '';
	return house.db.prepare<[string], string>('SELECT folder FROM templates WHERE id = ?').pluck().get(from) ?? '';
}

/** What the sender wrote or put there that couldn't be printed. */
export function unprintablePart(house: House, plan: Plan): Refusal | null {
	const own = Object.fromEntries(
		plan.fields.flatMap((f) => (f.person === SENDER && plan.answers?.[f.id] ? [[f.id, plan.answers[f.id]!]] : []))
	);
	const no = checkPrintable(house.db, plan, own);
	if (no) return no;
	// judged here, since what goes into the record has a private letter's digest in its place
	const letter = lettersFault(plan);
	if (letter) return letter;
	for (const field of plan.fields) {
		if (field.kind === 'note') {
			const letters = checkLetters(String(field.settings['text'] ?? ''), field.id);
			if (letters) return letters;
		}
		const picture = field.kind === 'image' ? field.settings['picture'] : undefined;
		if (typeof picture === 'string' && blobMeta(house.db, picture)?.media !== 'image/png')
			return refuse('picture-lost', `The picture of “${field.label}” is not here any more. Add it again.`, field.id);
	}
	return null;
}

function freeReference(house: House): string {
	for (;;) {
		const reference = newReference();
		if (!house.db.prepare('SELECT 1 FROM packets WHERE reference = ?').get(reference)) return reference;
	}
}

/** Blanks round names and addresses are nobody's wish. */
export function trimmed(plan: Plan): Plan {
	return {
		...plan,
		title: plan.title.trim(),
		people: plan.people.map((person) => ({
			...person,
			name: person.name.trim(),
			email: person.email.trim(),
			...(person.phone !== undefined && { phone: person.phone.trim() })
		}))
	};
}
