import { isoDay } from '../../calendar';
import { finishAnswers, live, type Answers } from '../../field';
import { isRefusal, refuse } from '../../refusal';
import { actorsOf, following, guestsOf, notaryIn, opensBy, ruleOfNaming, stopOf, toBeNamedBy } from '../../route';
import { isAddress } from '../address';
import type { Command, Names } from '../commands';
import type { PacketEvent } from '../events';
import { localeOf, type PlanPerson } from '../plan';
import { addressOf, stillAt, type SentPacket } from '../state';
import { notaryCannot, notBeforeNotary } from './notary';
import { onceAgreed, type Decided, type Out } from './turn';

/** A person's part is done: answers checked, people named, guests confirmed, and what follows on the route. */
export function finish(state: SentPacket, command: Extract<Command, { do: 'finish' }>, now: string): Decided {
	// A second press, or a second tab, meets what the first one did: the same end, not an error.
	if (state.people[command.person]?.is === 'done') return [];
	return onceAgreed(state, command.person, now, (out, person) => {
		const no = notBeforeNotary(out, person) ?? notaryCannot(out, person, command, now);
		if (no) return no;
		const answers = finishAnswers(
			out.plan,
			person.id,
			command.answers,
			{
				person: { ...person, email: addressOf(out, person.id) },
				now,
				zone: out.zone,
				locale: localeOf(out.plan)
			},
			out.answers,
			Object.keys(out.people).filter((id) => ['done', 'skipped'].includes(out.people[id]!.is))
		);
		if (isRefusal(answers)) return answers;
		const named = namings(out, person, command.names ?? {}, { ...out.answers, ...answers }, isoDay(out.zone, now));
		if (isRefusal(named)) return named;
		const hosted = confirmations(out, person, command.guests ?? {});
		if (isRefusal(hosted)) return hosted;
		return [
			...hosted,
			{
				type: 'PersonFinished',
				person: person.id,
				answers,
				shown: command.shown,
				from: command.from,
				...(out.session.turn === person.id && { before: notaryIn(out.plan)!.id })
			},
			...named,
			...whatFollows(out, person.id, { ...out.answers, ...answers }, now)
		];
	});
}

/**
 * Whom a person names on finishing, but for those whom the rules leave out by what is answered. Refuses a place left without name
 * or address, naming oneself, and anybody who acts elsewhere already, unless the sender permits that.
 */
function namings(out: Out, by: PlanPerson, names: Names, answers: Answers, today: string): Decided {
	const events: PacketEvent[] = [];
	const after = live(out.plan, answers, today);
	for (const place of toBeNamedBy(out.plan, by.id)) {
		const rule = ruleOfNaming(out.plan, by.id, place.id);
		if (rule !== null && !opensBy(rule, after)) continue;
		const given = names[place.id];
		const name = given?.name.trim() ?? '';
		const email = given?.email.trim() ?? '';
		const note = given?.note?.trim() ?? '';
		const role = place.role || 'the next person';
		if (name === '') return refuse('name-missing', `Say who is to be ${role}.`, place.id);
		if (!isAddress(email)) return refuse('bad-address', `${role}: “${email}” can't be an e-mail address.`, place.id);
		if (out.plan.sending?.selfNaming !== true && email.toLowerCase() === addressOf(out, by.id).toLowerCase())
			return refuse('named-oneself', `You can't name yourself as ${role}.`, place.id);
		const beside = actorsOf(out.plan).filter(
			(p) =>
				p.id !== place.id &&
				p.id !== by.id &&
				(out.plan.sending?.selfNaming !== true || stopOf(out.plan, p.id) === stopOf(out.plan, place.id))
		);
		const taken = [...beside.map((p) => addressOf(out, p.id)), ...events.map((e) => ('email' in e ? e.email : ''))];
		if (taken.some((address) => address.toLowerCase() === email.toLowerCase()))
			return refuse('twice-at-stop', `${email} has a place there already.`, place.id);
		events.push({ type: 'PersonNamed', person: place.id, name, email, ...(note && { note }) });
	}
	return events;
}

/** A host has to say of each guest how they know them, and only once the guest is done. */
function confirmations(out: Out, host: PlanPerson, how: Record<string, string>): Decided {
	if (host.duty !== 'hosts') return [];
	const events: PacketEvent[] = [];
	for (const guest of guestsOf(out.plan, host.id)) {
		const standing = out.people[guest.id]!.is;
		if (standing === 'skipped') continue;
		if (standing !== 'done')
			return refuse('guest-not-done', `${guest.name} has not finished yet. Hand them the device first.`, guest.id, {
				name: guest.name
			});
		const known = how[guest.id]?.trim() ?? '';
		if (known === '')
			return refuse('guest-unconfirmed', `Say how you know that it was ${guest.name}.`, guest.id, { name: guest.name });
		events.push({ type: 'GuestConfirmed', person: host.id, guest: guest.id, how: known });
	}
	return events;
}

/**
 * What a person's end brings about: the others of a group are spared; when nobody is left at the stop, the next one opens
 * or the packet is complete.
 */
export function whatFollows(out: Out, justDone: string, answers: Out['answers'], now: string): PacketEvent[] {
	const rest = stillAt(out).filter((id) => id !== justDone);
	const group = out.plan.stops[out.stop]?.anyOne === true;
	if (rest.length > 0 && !group) return [];
	return [
		...rest.map((person): PacketEvent => ({ type: 'PersonSpared', person, doneBy: justDone })),
		...opening(out.plan, out.stop, answers, isoDay(out.zone, now))
	];
}

/** The stops that are left out, then the one that opens, or the end. */
export function opening(plan: Out['plan'], after: number, answers: Out['answers'], today: string): PacketEvent[] {
	const { skipped, opens } = following(plan, after, answers, today);
	return [
		...skipped.map((one): PacketEvent => ({ type: 'StopSkipped', ...one })),
		opens
			? {
					type: 'StopOpened',
					stop: opens.stop,
					people: opens.people,
					...(plan.sending?.earlyCopies && opens.copies.length > 0 && { copies: opens.copies })
				}
			: { type: 'PacketCompleted' }
	];
}
