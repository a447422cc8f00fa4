import type { Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { joined, type Joining, type Part } from '../../core/template';
import { permitted } from '../access';
import type { Account } from '../accounts';
import type { House } from '../house';
import { freezePlan } from '../packets/act';
import { newDraft, readDraft, type Draft } from '../packets/drafts';
import { planForUse } from './use';

/** What is to be joined: a draft that is being prepared, where there is one, and templates, in their order. */
export interface JoinWanted {
	draft: string | null;
	templates: string[];
}

/** The plans to be joined. Refuses fewer than two, and a template that can't be used. */
export function partsOf(house: House, account: Account, wanted: JoinWanted): Part[] | Refusal {
	const parts: Part[] = [];
	if (wanted.draft !== null) {
		const draft = readDraft(house, wanted.draft);
		if (!draft || draft.template !== null || !permitted(house.db, account, 'see', 'draft', draft.id))
			return refuse('no-draft', 'This draft is gone: it has been sent or put away.');
		parts.push({ title: draft.plan.title || 'This packet', plan: draft.plan });
	}
	for (const id of wanted.templates) {
		const found = planForUse(house, account, id);
		if (isRefusal(found)) return found;
		parts.push(found);
	}
	return parts.length < 2 ? refuse('too-few', 'Choose two or more templates to join.') : parts;
}

/** Joins them as a new draft, whose locks are those of all parts. A draft that was a part stays as it was. */
export function joinAsDraft(house: House, account: Account, wanted: JoinWanted, joining: Joining): Draft | Refusal {
	const parts = partsOf(house, account, wanted);
	if (isRefusal(parts)) return parts;
	const members = joining.people.flatMap((group) => group.members.map((m) => `${m.part} ${m.person}`));
	const people = parts.flatMap((part, n) => part.plan.people.map((p) => `${n} ${p.id}`));
	const stops = joining.stops.flat();
	const groups = joining.people.map((group) => group.id);
	if ([...members].sort().join() !== people.sort().join() || [...stops].sort().join() !== [...groups].sort().join())
		return refuse('parts-changed', 'One of these has been changed meanwhile. Look at it again, and join them anew.');
	const plan: Plan | Refusal = joined(parts, joining);
	return isRefusal(plan) ? plan : newDraft(house, account, plan, { base: freezePlan(house.db, plan) });
}
