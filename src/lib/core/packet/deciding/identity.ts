import { refuse, refuseWith } from '../../refusal';
import type { Command } from '../commands';
import { personIn, type PlanPerson } from '../plan';
import type { SentPacket } from '../state';
import { onTurn, whileOpen, type Decided } from './turn';

/** Whether that person must prove who they are before anything is shown to them. */
export function mustProve(packet: SentPacket, person: PlanPerson): boolean {
	return person.check !== undefined && packet.proofs[person.id]?.spared !== true;
}

/** Seconds to wait after so many wrong codes in a row: 2, 4, 8 … a minute at most. */
export function pauseAfter(wrong: number): number {
	return wrong === 0 ? 0 : Math.min(60, 2 ** wrong);
}

/**
 * A code has been entered; whoever keeps the hashes says whether it is right. Too early after a wrong one it doesn't
 * count at all; the last wrong one that is allowed holds the packet.
 */
export function enterCode(state: SentPacket, command: Extract<Command, { do: 'enterCode' }>, now: string): Decided {
	return onTurn(state, command.person, now, (out, _standing, person) => {
		const { check } = person;
		if (!check) return refuse('no-check', 'No code is asked of you.');
		const { wrong, lastWrong } = out.proofs[person.id] ?? { wrong: 0, lastWrong: null };
		const wait = lastWrong === null ? 0 : pauseAfter(wrong) - (Date.parse(now) - Date.parse(lastWrong)) / 1000;
		if (wait > 0)
			return refuseWith('code-too-soon', `Wait ${Math.ceil(wait)} seconds, then try again. That one did not count.`, {
				seconds: Math.ceil(wait)
			});
		if (command.right) return [{ type: 'CodeRight', person: person.id, way: check.by, from: command.from }];
		return [
			{ type: 'CodeWrong', person: person.id, from: command.from },
			...(wrong + 1 >= command.most ? [{ type: 'PersonHeld' as const, person: person.id }] : [])
		];
	});
}

/** The sender lets a held person try again, or through without a code. */
export function release(state: SentPacket, command: Extract<Command, { do: 'release' }>): Decided {
	return whileOpen(state, (open) => {
		if (open.status !== 'held' || open.person !== command.person)
			return refuse('not-held', `${personIn(open.plan, command.person)?.name ?? 'Nobody'} is not held here.`);
		return [{ type: 'HoldReleased', person: command.person, how: command.how, note: command.note.trim() }];
	});
}
