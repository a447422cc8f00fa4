import { deadlineAfter, isOver } from '../calendar';
import { finishAnswers } from '../field';
import { refuse, isRefusal, type Refusal } from '../refusal';
import { actorsAt, dutyVerb, nextStop, stopOf, toBeNamedBy } from '../route';
import { isAddress } from './address';
import type { Command, Names } from './commands';
import type { PacketEvent } from './events';
import { localeOf, personIn, type PlanPerson } from './plan';
import { preflight } from './preflight';
import { addressOf, type Packet, type SentPacket, type Standing } from './state';

type Out = Extract<SentPacket, { status: 'out' }>;

/**
 * What happens when a command meets a state: events, or a refusal with a sentence for a person.
 * Pure: the moment comes in as `now` (ISO 8601, UTC). An empty list means that it has been done already.
 */
export function decide(state: Packet, command: Command, now: string): PacketEvent[] | Refusal {
	if (command.do === 'send') return send(state, command, now);
	if (state.status === 'none') return refuse('no-packet', 'There is no such packet.');
	switch (command.do) {
		case 'recordMessage':
			return command.refused === undefined
				? [{ type: 'MessageSent', person: command.person, purpose: command.purpose, to: command.to }]
				: [
						{
							type: 'MessageRefused',
							person: command.person,
							purpose: command.purpose,
							to: command.to,
							why: command.refused
						}
					];
		case 'recordFetched':
			return [{ type: 'CopyFetched', person: command.person, what: command.what }];
		case 'recordSealed':
			return recordSealed(state, command);
		case 'openPaper':
			return onTurn(state, command.person, now, (_out, standing) =>
				standing.is === 'opened' ? [] : [{ type: 'PaperOpened', person: command.person, from: command.from }]
			);
		case 'consent':
			return onTurn(state, command.person, now, (_out, standing) => {
				if (standing.is !== 'opened') return refuse('not-opened', 'Open the document first.');
				return standing.consented === command.text
					? []
					: [{ type: 'ConsentGiven', person: command.person, text: command.text, from: command.from }];
			});
		case 'finish':
			return finish(state, command, now);
		case 'decline':
			return onTurn(state, command.person, now, () =>
				command.reason.trim() === ''
					? refuse('reason-missing', 'Say in a few words why you decline.', 'reason')
					: [{ type: 'PersonDeclined', person: command.person, reason: command.reason, from: command.from }]
			);
		case 'correctAddress':
			return correctAddress(state, command);
		case 'withdraw':
			return whileOut(state, () =>
				command.reason.trim() === ''
					? refuse('reason-missing', 'Say why it is withdrawn; everyone who has acted is told.', 'reason')
					: [{ type: 'PacketWithdrawn', reason: command.reason }]
			);
		case 'expire':
			return whileOut(state, (out) =>
				isOver(out.deadline, now) ? [{ type: 'PacketExpired' }] : refuse('not-over', 'Its time has not run out yet.')
			);
	}
}

function send(state: Packet, command: Extract<Command, { do: 'send' }>, now: string): PacketEvent[] | Refusal {
	if (state.status !== 'none') return refuse('already-sent', 'This packet has been sent already.');
	const first = preflight(command.plan).find((finding) => !finding.mild);
	if (first) return refuse(first.code, first.say, 'id' in first.place ? first.place.id : first.place.what);
	const { plan } = command;
	const stop = nextStop(plan, -1);
	return [
		{
			type: 'PacketSent',
			packet: command.packet,
			reference: command.reference,
			plan: command.planDigest,
			sender: command.sender,
			deadline: plan.days === null ? null : deadlineAfter(now, plan.days, command.zone),
			zone: command.zone
		},
		{ type: 'StopOpened', stop, people: actorsAt(plan, stop).map((person) => person.id) }
	];
}

function finish(state: SentPacket, command: Extract<Command, { do: 'finish' }>, now: string): PacketEvent[] | Refusal {
	// A second press, or a second tab, meets what the first one did: the same end, not an error.
	if (state.people[command.person]?.is === 'done') return [];
	return onTurn(state, command.person, now, (out, standing, person) => {
		if (standing.is !== 'opened' || standing.consented === null)
			return refuse('no-consent', `Agree to ${dutyVerb(person.duty)} electronically first.`);
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
			Object.keys(out.people).filter((id) => out.people[id]?.is === 'done')
		);
		if (isRefusal(answers)) return answers;
		const named = namings(out, person, command.names ?? {});
		if (isRefusal(named)) return named;
		return [
			{ type: 'PersonFinished', person: person.id, answers, shown: command.shown, from: command.from },
			...named,
			...whatFollows(out, person.id)
		];
	});
}

/** Whom a person names on finishing. Refuses a place left without name or address, naming oneself, and one address twice. */
function namings(out: Out, by: PlanPerson, names: Names): PacketEvent[] | Refusal {
	const events: PacketEvent[] = [];
	for (const place of toBeNamedBy(out.plan, by.id)) {
		const name = names[place.id]?.name.trim() ?? '';
		const email = names[place.id]?.email.trim() ?? '';
		const role = place.role || 'the next person';
		if (name === '') return refuse('name-missing', `Say who is to be ${role}.`, place.id);
		if (!isAddress(email)) return refuse('bad-address', `${role}: “${email}” can't be an e-mail address.`, place.id);
		if (email.toLowerCase() === addressOf(out, by.id).toLowerCase())
			return refuse('named-oneself', `You can't name yourself as ${role}.`, place.id);
		const beside = actorsAt(out.plan, stopOf(out.plan, place.id)).filter((p) => p.id !== place.id);
		const taken = [...beside.map((p) => addressOf(out, p.id)), ...events.map((e) => ('email' in e ? e.email : ''))];
		if (taken.some((address) => address.toLowerCase() === email.toLowerCase()))
			return refuse('twice-at-stop', `${email} has a place there already.`, place.id);
		events.push({ type: 'PersonNamed', person: place.id, name, email });
	}
	return events;
}

/** When the last one at a stop has finished, the next stop opens, or the packet is complete. */
function whatFollows(out: Out, justFinished: string): PacketEvent[] {
	const rest = actorsAt(out.plan, out.stop).filter((p) => p.id !== justFinished && out.people[p.id]?.is !== 'done');
	if (rest.length > 0) return [];
	const stop = nextStop(out.plan, out.stop);
	return stop < 0
		? [{ type: 'PacketCompleted' }]
		: [{ type: 'StopOpened', stop, people: actorsAt(out.plan, stop).map((person) => person.id) }];
}

function correctAddress(
	state: SentPacket,
	command: Extract<Command, { do: 'correctAddress' }>
): PacketEvent[] | Refusal {
	return whileOut(state, (out) => {
		const person = personIn(out.plan, command.person);
		if (!person) return refuse('no-person', 'This packet has no such person.');
		if (out.people[person.id]?.is === 'done')
			return refuse('finished-part-locked', `${person.name} has finished; that part is locked.`);
		if (!isAddress(command.email))
			return refuse('bad-address', `“${command.email}” can't be an e-mail address.`, 'email');
		const was = addressOf(out, person.id);
		if (was === command.email) return [];
		const beside = actorsAt(
			out.plan,
			out.plan.stops.findIndex((stop) => stop.people.includes(person.id))
		);
		if (beside.some((p) => p.id !== person.id && addressOf(out, p.id).toLowerCase() === command.email.toLowerCase()))
			return refuse('twice-at-stop', `${command.email} stands at this stop already.`, 'email');
		return [{ type: 'AddressCorrected', person: person.id, was, now: command.email }];
	});
}

function recordSealed(state: SentPacket, command: Extract<Command, { do: 'recordSealed' }>): PacketEvent[] | Refusal {
	if (state.status !== 'completed') return refuse('not-complete', 'Only a completed packet is sealed.');
	if (state.evidence !== null) return [];
	return [
		...Object.entries(command.papers).map(([paper, digest]): PacketEvent => ({ type: 'CopySealed', paper, digest })),
		{ type: 'EvidenceSealed', digest: command.evidence }
	];
}

function whileOut(state: SentPacket, then: (out: Out) => PacketEvent[] | Refusal): PacketEvent[] | Refusal {
	return state.status === 'out' ? then(state) : ended(state);
}

/** Runs `then` only while it is that person's turn; otherwise says which of the many other cases it is. */
function onTurn(
	state: SentPacket,
	id: string,
	now: string,
	then: (out: Out, standing: Standing, person: PlanPerson) => PacketEvent[] | Refusal
): PacketEvent[] | Refusal {
	return whileOut(state, (out) => {
		const person = personIn(out.plan, id);
		const standing = out.people[id];
		if (!person || !standing) return refuse('no-person', 'This packet has no such person.');
		if (standing.is === 'done') return refuse('already-finished', 'You have finished already; thank you.');
		if (standing.is === 'waiting')
			return refuse('not-your-turn', 'It is not your turn yet. You get a message when it is.');
		if (isOver(out.deadline, now))
			return refuse('expired', 'The time for this has run out. Ask the sender for a new one.');
		return then(out, standing, person);
	});
}

function ended(state: Exclude<SentPacket, { status: 'out' }>): Refusal {
	switch (state.status) {
		case 'completed':
			return refuse('completed', 'This has been completed; nothing can be changed any more.');
		case 'declined':
			return refuse(
				'declined',
				`${personIn(state.plan, state.person)?.name ?? 'Somebody'} declined, so this has ended.`
			);
		case 'withdrawn':
			return refuse('withdrawn', `The sender has withdrawn this: ${state.reason}`);
		case 'expired':
			return refuse('expired', 'The time for this has run out. Ask the sender for a new one.');
	}
}
