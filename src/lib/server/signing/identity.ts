import { isOpen, stillAt, type From } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { queue } from '../jobs/outbox';
import { inTransaction } from '../db';
import type { House } from '../house';
import { act } from '../packets/act';
import { forgetCode, isRight } from '../packets/codes';
import { newPass, type Visitor } from './visit';

/** So many wrong codes in a row hold the packet. */
export const CODES_ALLOWED = 5;

/** Sends a one-time code; a new one at most once a minute. The code is made when its message is, and never stands in a job. */
export function sendCode(house: House, { packet, person }: Visitor): { sent: true } | Refusal {
	const by = person.check?.by;
	if (by !== 'mail' && by !== 'text') return refuse('no-check', 'No code is sent for this.');
	if (!isOpen(packet) || !stillAt(packet).includes(person.id))
		return refuse('not-your-turn', 'It is not your turn. Nothing can be entered here now.');
	const minute = Math.floor(house.now().getTime() / 60_000);
	queue(house, 'message', `${packet.packet}:code:${person.id}:${minute}`, {
		packet: packet.packet,
		person: person.id,
		purpose: 'code',
		channel: by
	});
	house.changes.emit('jobs');
	return { sent: true };
}

/** A code is entered. Right: gives what the browser shows from now on. Wrong: how many more there are. */
export function enterCode(house: House, visitor: Visitor, code: string, from: From): { pass: string } | Refusal {
	const { packet, person } = visitor;
	return inTransaction(house.db, () => {
		const right = isRight(house, packet.packet, person, code);
		if (isRefusal(right)) return right;
		const after = act(
			house,
			packet.packet,
			{ kind: 'person', person: person.id },
			{ do: 'enterCode', person: person.id, right, most: CODES_ALLOWED, from }
		);
		if (isRefusal(after)) return after;
		if (after.status === 'held')
			return refuse('held', 'The sender is looking at something here first. You get a message when it goes on.');
		if (!right) {
			const left = CODES_ALLOWED - (after.proofs[person.id]?.wrong ?? 0);
			return refuse('code-wrong', `That is not the code. You can try ${left} more times.`, undefined, { left });
		}
		forgetCode(house, packet.packet, person.id);
		return { pass: newPass(house, packet.packet, person.id) };
	});
}
