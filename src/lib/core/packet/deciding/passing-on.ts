import { refuse } from '../../refusal';
import { stopOf } from '../../route';
import { isAddress } from '../address';
import type { Command } from '../commands';
import { addressOf, othersOfGroup, type SentPacket } from '../state';
import { onTurn, type Decided } from './turn';

/** Ways out for somebody who won't do it themselves: decline, or hand it over. */

/** Ends it for everyone, unless another one of their group can still do it. */
export function decline(state: SentPacket, command: Extract<Command, { do: 'decline' }>, now: string): Decided {
	return onTurn(state, command.person, now, (out) => {
		const reason = command.reason.trim();
		if (reason === '') return refuse('reason-missing', 'Say in a few words why you decline.', 'reason');
		const others = othersOfGroup(out, command.person);
		return [
			{
				type: 'PersonDeclined',
				person: command.person,
				reason,
				from: command.from,
				...(others && { others: true as const })
			}
		];
	});
}

/**
 * Gives a person's part to somebody else, who takes all of it that is unfinished. Refuses `no-hand-over` where the sender
 * doesn't allow it, oneself, somebody at the same stop, and somebody who has declined.
 */
export function handOver(state: SentPacket, command: Extract<Command, { do: 'handOver' }>, now: string): Decided {
	return onTurn(state, command.person, now, (out, _standing, person) => {
		if (out.plan.sending?.handOver !== true)
			return refuse('no-hand-over', 'The sender has not allowed this to be handed over. Ask them.');
		if (person.duty === 'notarises')
			return refuse('no-hand-over', 'A notary’s act can’t be handed over. Decline instead.');
		if (person.deliver === 'in person')
			return refuse('no-hand-over', 'What is done in front of somebody can’t be handed over.');
		const name = command.name.trim();
		const email = command.email.trim();
		const why = command.why.trim();
		if (name === '') return refuse('name-missing', 'Say to whom you hand it over.', 'name');
		if (!isAddress(email)) return refuse('bad-address', `“${email}” can't be an e-mail address.`, 'email');
		if (why === '') return refuse('reason-missing', 'Say in a few words why; the sender reads it.', 'why');
		const same = (id: string) => addressOf(out, id).toLowerCase() === email.toLowerCase();
		if (same(person.id)) return refuse('handed-to-oneself', 'That is your own address. Give somebody else’s.', 'email');
		const declined = out.plan.people.find((p) => out.people[p.id]?.is === 'declined' && same(p.id));
		if (declined)
			return refuse('has-declined', `${declined.name} has declined this. Ask somebody else.`, 'email', {
				name: declined.name
			});
		const beside = out.plan.stops[stopOf(out.plan, person.id)]?.people ?? [];
		if (beside.some((id) => id !== person.id && same(id)))
			return refuse('twice-at-stop', `${email} has a part here already.`, 'email');
		return [
			{
				type: 'PartHandedOver',
				person: person.id,
				was: { name: person.name, email: addressOf(out, person.id) },
				name,
				email,
				why,
				from: command.from
			}
		];
	});
}
