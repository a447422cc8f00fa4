import { dayIn } from '../../core/calendar';
import { localeOf, type PlanPerson, type SentPacket } from '../../core/packet';
import { filledIn } from '../../core/template';
import type { Db } from '../db';
import { unveiled } from './private-words';

/** The sender's letter to a person, their own or everybody's, with its values filled in as they are known now. */
export function letterFor(db: Db, packet: SentPacket, person: PlanPerson): { subject: string; message: string } {
	const { plan, answers, sender, deadline, zone } = packet;
	const facts = {
		plan,
		answers,
		sender,
		until: deadline && dayIn(zone, deadline),
		locale: person.locale ?? localeOf(plan)
	};
	return {
		subject: filledIn(person.subject === undefined ? (plan.subject ?? '') : unveiled(db, person.subject), facts),
		message: filledIn(person.message === undefined ? plan.message : unveiled(db, person.message), facts)
	};
}
