import { ACTS } from '../../notary';
import { actorsOf, beforeNotary, notaryIn, stopOf } from '../../route';
import type { Plan, PlanPerson } from '../plan';
import type { Finding } from './finding';

const whoIs = (person: PlanPerson): string => person.name.trim() || person.role || 'the notary';

/** What is wrong with how a notary stands in a plan: after an act nothing may be changed, and nobody notarises for themselves. */
export function checkNotary(plan: Plan): Finding[] {
	const notary = notaryIn(plan);
	if (!notary) return [];
	const place = { what: 'person', id: notary.id } as const;
	const found: Finding[] = [];
	const fault = (code: string, say: string, of = place, mild?: true) =>
		found.push({ code, say, place: of, ...(mild && { mild }) });
	const others = actorsOf(plan).filter((one) => one.id !== notary.id);
	const second = others.find((one) => one.duty === 'notarises');
	if (second)
		fault('two-notaries', 'There are two notaries. One packet has one act.', { what: 'person', id: second.id });
	if (!notary.notary || notary.notary.commission === '')
		fault('no-commission', `${whoIs(notary)} notarises: choose the notary and the act.`);
	if ((notary.deliver ?? 'mail') !== 'mail')
		fault(
			'notary-by-mail',
			`${whoIs(notary)} notarises, and is written to by mail: whoever has the link is the notary.`
		);
	const at = stopOf(plan, notary.id);
	if (plan.stops[at]?.anyOne) fault('notary-in-group', 'A notary can’t be one of a group of whom any one is enough.');
	const later = others.find((one) => stopOf(plan, one.id) > at);
	if (later)
		fault(
			'after-notary',
			`${whoIs(later)} comes after the notary. Nothing may change after the act: move them before.`,
			{
				what: 'person',
				id: later.id
			}
		);
	const self = others.find((one) => sameAddress(one, notary));
	if (self)
		fault('notary-signs', `${whoIs(notary)} takes part in the packet and can’t notarise it. Choose another notary.`);
	const comers = beforeNotary(plan);
	if (notary.notary && comers.length < ACTS[notary.notary.act].people)
		fault('nobody-before', `Nobody comes before the notary: put those who sign beside ${whoIs(notary)}, at one stop.`);
	for (const one of comers) {
		const of = { what: 'person', id: one.id } as const;
		if (one.duty !== 'signs')
			fault('only-signers-before', `${whoIs(one)} stands beside the notary, but doesn’t sign. Move them before.`, of);
		if (one.ink) fault('ink-before', `${whoIs(one)} signs before the notary, which can’t be done on paper.`, of);
		if (!one.identity)
			fault(
				'not-shown-before',
				`${whoIs(one)} is not asked to show who they are; the notary will have to know them.`,
				of,
				true
			);
	}
	return found;
}

const sameAddress = (one: PlanPerson, other: PlanPerson): boolean =>
	one.email.trim() !== '' && one.email.trim().toLowerCase() === other.email.trim().toLowerCase();
