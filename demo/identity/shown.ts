import type { House } from '../../src/lib/server/house';
import { addIdentityPicture, handInIdentity } from '../../src/lib/server/identity';
import { isRefusal } from '../../src/lib/core/refusal';
import type { From } from '../../src/lib/core/packet';
import type { Visitor } from '../../src/lib/server/signing';
import { drawnDocument } from './drawn';
import { photographed, type Shot } from './photographed';
import type { Specimen } from './specimens';

/** Both sides of a made card, photographed and handed in by whoever is asked for it. */
export async function showsCard(
	house: House,
	visitor: () => Visitor,
	from: From,
	card: Specimen,
	shot: Partial<Shot> = {}
): Promise<void> {
	const made = await drawnDocument(card);
	for (const [side, picture] of [
		['front', made.front],
		['back', made.back!]
	] as const) {
		const taken = await addIdentityPicture(house, visitor(), side, await photographed(picture, shot));
		if (isRefusal(taken)) throw new Error(taken.say);
	}
	const done = handInIdentity(house, visitor(), card.kind, from);
	if (isRefusal(done)) throw new Error(done.say);
}
