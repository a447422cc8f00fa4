import type { Plan, SentPacket } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { lockedChange, used, withKnown, type Given } from '../../core/template';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { freezePlan } from '../packets/act';
import { hashedCode } from '../packets/codes';
import { newDraft, type Draft } from '../packets/drafts';
import { sendPlan, trimmed } from '../packets/sending';
import { isPaper } from '../papers';
import { readTemplate } from './store';

/** The plan of a template as a packet is made from it: it says where it is from. Refuses one that can't be used now. */
export function planForUse(house: House, account: Account, id: string): { plan: Plan; title: string } | Refusal {
	const template = readTemplate(house, account, id);
	if (isRefusal(template)) return template;
	if (template.binned)
		return refuse('template-binned', `“${template.title}” is in the bin. Take it out of there to use it.`);
	if (!template.plan)
		return refuse('template-unfinished', `“${template.title}” is not in use yet: its owner is still making it.`);
	const lost = template.plan.papers.find((paper) => !isPaper(house, paper.digest));
	if (lost)
		return refuse(
			'paper-lost',
			`The document “${lost.name}” of “${template.title}” is not here any more. Exchange it in the template, then use it.`
		);
	return { plan: { ...template.plan, from: [{ template: id, version: template.version }] }, title: template.title };
}

/** A draft made from a template, with what is given filled in; its locks hold from here on. */
export function draftFromTemplate(house: House, account: Account, id: string, given: Given): Draft | Refusal {
	return inTransaction(house.db, () => {
		const found = planForUse(house, account, id);
		if (isRefusal(found)) return found;
		const plan = used(found.plan, given);
		const no = lockedChange(found.plan, plan);
		if (no) return no;
		return newDraft(house, account, plan, { base: freezePlan(house.db, found.plan) });
	});
}

/** Sends a template with what is given, at once. Whatever stands in the way is refused, and nothing is left behind. */
export function sendTemplate(
	house: House,
	account: Account,
	id: string,
	given: Given,
	batch?: string
): SentPacket | Refusal {
	const found = planForUse(house, account, id);
	return isRefusal(found) ? found : sendUsed(house, account, found.plan, given, batch);
}

/** The same with a template's plan that was looked up already (`planForUse`): a batch sends it many times. */
export function sendUsed(
	house: House,
	account: Account,
	template: Plan,
	given: Given,
	batch?: string
): SentPacket | Refusal {
	const filled = used(template, given);
	const plan = {
		...filled,
		people: filled.people.map((person) =>
			withKnown(person, given.known?.[person.id] ?? {}, (answer) => hashedCode(house, answer))
		)
	};
	return lockedChange(template, plan) ?? sendPlan(house, account, trimmed(plan), { batch });
}
