import { sidesFor, type IdentityToShow } from '../../core/identity';
import { isOpen, NOTHING_SHOWN, stillAt, stillToShow, triesLeft } from '../../core/packet';
import type { House } from '../house';
import type { Visitor } from '../signing';
import { picturesOf, triesOf } from './store';

/** Somebody whose turn it is not yet is asked nothing yet. */
export function identityState(
	house: House,
	{ packet, person }: Visitor
): { state: 'waiting' } | ({ state: 'identity' } & IdentityToShow) {
	const asked = person.identity!;
	if (!isOpen(packet) || !stillAt(packet).includes(person.id)) return { state: 'waiting' };
	const proof = packet.proofs[person.id] ?? NOTHING_SHOWN;
	const open = triesOf(house.db, packet.packet, person.id)[0];
	return {
		state: 'identity',
		ways: stillToShow(packet, person),
		either: asked.either === true,
		kinds: asked.document?.kinds ?? [],
		sides: Object.fromEntries((asked.document?.kinds ?? []).map((kind) => [kind, sidesFor(asked.document!, kind)])),
		taken:
			open && open.handedAt === null && !open.deleted
				? picturesOf(house.db, open.id).map(({ side, measures }) => ({ side, faults: measures.faults }))
				: [],
		asks: (asked.questions?.asks ?? []).map(({ id, ask, as }) => ({ id, ask, as })),
		left: {
			document: triesLeft(packet, person, 'document'),
			questions: triesLeft(packet, person, 'questions')
		},
		looking: proof.waiting !== null,
		last: proof.last,
		word: proof.word
	};
}
