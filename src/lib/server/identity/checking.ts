import type { DocumentKind } from '../../core/identity';
import { personIn, type PlanPerson, type SentPacket } from '../../core/packet';
import { isRefusal } from '../../core/refusal';
import { isoDay } from '../../core/calendar';
import { inTransaction } from '../db';
import type { House } from '../house';
import { act, packetState } from '../packets/act';
import { standInDesk } from './desk';
import { note } from './showing';
import { identitySetting } from './setting';
import { keepFound, pictureBytes, picturesOf, readTry } from './store';

export interface IdentityJob {
	packet: string;
	try: string;
}

/** Asks the desk about one try. @returns why it could not be asked; null when it is done, or there is nothing to ask any more */
export async function checkIdentity(house: House, job: IdentityJob, done: () => void): Promise<string | null> {
	const packet = packetState(house.db, job.packet);
	const one = readTry(house.db, job.try);
	const person = packet.status !== 'none' && one ? personIn(packet.plan, one.person) : undefined;
	const asked = person?.identity?.document;
	if (
		packet.status === 'none' ||
		!one ||
		one.deleted ||
		!person ||
		!asked ||
		packet.proofs[person.id]?.waiting !== one.id
	) {
		done();
		return null;
	}
	const sides = picturesOf(house.db, one.id).map(({ side }) => ({ side, bytes: pictureBytes(house, one.id, side)! }));
	const found = await standInDesk(house).look({
		sides,
		wanted: {
			asked,
			kind: one.kind as DocumentKind,
			name: person.name,
			born: bornOf(packet, person),
			today: isoDay(packet.zone, house.now().toISOString()),
			lettersOff: identitySetting(house.db).lettersOff
		}
	});
	if (typeof found === 'string') return found;
	return inTransaction(house.db, () => {
		const { verdict } = found;
		const checks = found.checks.map(({ check, outcome }) => ({ check, outcome }));
		const digest = keepFound(house, one.id, found.checks);
		const after = act(
			house,
			job.packet,
			{ kind: 'pellum' },
			{ do: 'judgeIdentity', person: person.id, try: one.id, verdict, checks, found: digest }
		);
		if (!isRefusal(after) && verdict === 'right') note(house, after, person.id, 'document');
		done();
		return null;
	});
}

/** The day of birth that the packet knows: the answer under the key that was chosen for it. */
function bornOf({ plan, answers }: SentPacket, person: PlanPerson): string | null {
	const key = person.identity?.document?.born;
	const field = key === undefined ? undefined : plan.fields.find((one) => one.kind === 'date' && one.key === key);
	const answer = field && answers[field.id];
	return answer && 'day' in answer ? (answer.day ?? null) : null;
}
