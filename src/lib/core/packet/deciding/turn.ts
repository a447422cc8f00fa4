import { isOver } from '../../calendar';
import { refuse, type Refusal } from '../../refusal';
import type { PacketEvent } from '../events';
import { personIn, type PlanPerson } from '../plan';
import { isOpen, isShut, type OpenPacket, type SentPacket, type Standing } from '../state';

export type Out = Extract<SentPacket, { status: 'out' }>;
export type Decided = PacketEvent[] | Refusal;

/** Runs `then` while something can still happen to the packet, also while it is held. */
export function whileOpen(state: SentPacket, then: (open: OpenPacket) => Decided): Decided {
	return isOpen(state) ? then(state) : ended(state);
}

/** Runs `then` only while it is that person's turn; otherwise says which of the many other cases it is. */
export function onTurn(
	state: SentPacket,
	id: string,
	now: string,
	then: (out: Out, standing: Standing, person: PlanPerson) => Decided
): Decided {
	return whileOpen(state, (open) => {
		const person = personIn(open.plan, id);
		const standing = open.people[id];
		if (!person || !standing) return refuse('no-person', 'This packet has no such person.');
		const no = notTheirs(standing);
		if (no) return no;
		if (isOver(open.deadline, now))
			return refuse('expired', 'The time for this has run out. Ask the sender for a new one.');
		if (open.status === 'held')
			return refuse(
				'held',
				'The sender is looking at something here first. What you entered is kept; you get a message when it goes on.'
			);
		if (isShut(open, now))
			return refuse('being-corrected', 'This is being put right. Try again shortly; what you entered is kept.');
		return then(open, standing, person);
	});
}

function notTheirs(standing: Standing): Refusal | null {
	switch (standing.is) {
		case 'done':
		case 'copied':
			return refuse('already-finished', 'You have finished already; thank you.');
		case 'waiting':
			return refuse('not-your-turn', 'It is not your turn yet. You get a message when it is.');
		case 'skipped':
			return refuse('not-needed', 'Your part is no longer needed.');
		case 'declined':
			return refuse('you-declined', 'You have declined this. If that was a mistake, write to the sender.');
		default:
			return null;
	}
}

/** Runs `then` where that person has opened it and agreed to do it electronically. */
export function onceAgreed(
	state: SentPacket,
	id: string,
	now: string,
	then: (out: Out, person: PlanPerson) => Decided
): Decided {
	return onTurn(state, id, now, (out, standing, person) => {
		if (standing.is !== 'opened' || standing.consented === null)
			return refuse('no-consent', 'Agree to do this electronically first.');
		return out.toTell[id]
			? refuse('corrected-meanwhile', 'This has been put right since you opened it. Look at it again first.')
			: then(out, person);
	});
}

function ended(state: Exclude<SentPacket, OpenPacket>): Refusal {
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
