import { dayIn } from '../../core/calendar';
import { localeOf, type PlanPerson, type SentPacket } from '../../core/packet';
import { filledIn } from '../../core/template';

/** The sender's letter to a person, their own or everybody's, with its values filled in as they are known now. */
export function letterFor(packet: SentPacket, person: PlanPerson): { subject: string; message: string } {
	const { plan, answers, sender, deadline, zone } = packet;
	const facts = {
		plan,
		answers,
		sender,
		until: deadline && dayIn(zone, deadline),
		locale: person.locale ?? localeOf(plan)
	};
	return {
		subject: filledIn(person.subject ?? plan.subject ?? '', facts),
		message: filledIn(person.message ?? plan.message, facts)
	};
}
