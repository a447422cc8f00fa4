import {
	answersRight,
	sidesFor,
	type DocumentKind,
	type IdentityWay,
	type PictureFault,
	type Side
} from '../../core/identity';
import { addressOf, stillAt, stillToShow, type From, type SentPacket } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { seeSideInWorker } from '../../press';
import { inTransaction } from '../db';
import type { House } from '../house';
import { queue } from '../jobs/outbox';
import { act } from '../packets/act';
import { codeFits } from '../packets/codes';
import type { Visitor } from '../signing';
import { knownSince, noteKnown } from './known';
import { identitySetting } from './setting';
import { keepPicture, markHandedIn, openTry, picturesOf, triesOf } from './store';

/** What somebody does to show who they are. */

/** So many tries one person may begin for one packet: each keeps its pictures. */
const MOST_TRIES = 40;

/** Refuses where nothing of this way is to be shown by this visitor now. */
function notNow({ packet, person, coded }: Visitor, way: IdentityWay): Refusal | null {
	if (!coded) return refuse('not-proved', 'Enter your code first. What you entered is kept.');
	if (packet.status !== 'out' || !stillAt(packet).includes(person.id) || !stillToShow(packet, person).includes(way))
		return refuse('nothing-to-show', 'Nothing of that kind is asked of you now.');
	return null;
}

/** A picture of one side, judged at once; it takes the place of an earlier one. Refuses `not-a-picture`, `too-often`. */
export async function addIdentityPicture(
	house: House,
	visitor: Visitor,
	side: Side,
	bytes: Uint8Array
): Promise<{ faults: PictureFault[] } | Refusal> {
	const no = notNow(visitor, 'document');
	if (no) return no;
	const { packet, person } = visitor;
	const taken = triesOf(house.db, packet.packet, person.id).length;
	if (taken > MOST_TRIES)
		return refuse('too-often', 'Too many pictures were taken here. Use those that are there, or ask the sender.');
	const seen = await seeSideInWorker({ bytes, side });
	if (isRefusal(seen)) return seen;
	const open = openTry(house, packet.packet, person.id);
	keepPicture(house, open, side, seen.kept, { ...seen.measures, faults: seen.faults });
	return { faults: seen.faults };
}

/** The pictures go to the desk. Refuses `picture-missing` where a side is not there. */
export function handInIdentity(
	house: House,
	visitor: Visitor,
	kind: DocumentKind,
	from: From
): { handedIn: true } | Refusal {
	const no = notNow(visitor, 'document');
	if (no) return no;
	const { packet, person } = visitor;
	const wanted = sidesFor(person.identity!.document!, kind);
	return inTransaction(house.db, () => {
		const open = openTry(house, packet.packet, person.id);
		const pictures = picturesOf(house.db, open.id).filter((one) => wanted.includes(one.side));
		if (wanted.some((side) => !pictures.some((one) => one.side === side)))
			return refuse('picture-missing', 'A picture is missing. Take it, then hand them in.');
		const done = act(
			house,
			packet.packet,
			{ kind: 'person', person: person.id },
			{
				do: 'handInIdentity',
				person: person.id,
				try: open.id,
				kind,
				pictures: pictures.map(({ side, digest }) => ({ side, digest })),
				from
			}
		);
		if (isRefusal(done)) return done;
		markHandedIn(house.db, open.id, kind, house.now().toISOString());
		queue(house, 'identity', `${packet.packet}:identity:${open.id}`, { packet: packet.packet, try: open.id });
		house.changes.emit('jobs');
		return { handedIn: true as const };
	});
}

/** Answers are compared and forgotten. Wrong: how many more times they may be given. */
export function answerQuestions(
	house: House,
	visitor: Visitor,
	given: Record<string, string>,
	from: From
): { right: true } | Refusal {
	const no = notNow(visitor, 'questions');
	if (no) return no;
	const { packet, person } = visitor;
	const { questions, tries } = person.identity!;
	const counted = answersRight(questions!, given, (answer, hash) => codeFits(house, answer, hash));
	const done = act(
		house,
		packet.packet,
		{ kind: 'person', person: person.id },
		{ do: 'answerQuestions', person: person.id, ...counted, from }
	);
	if (isRefusal(done)) return done;
	if (counted.enough) {
		note(house, done, person.id, 'questions');
		return { right: true };
	}
	if (done.status === 'held')
		return refuse('held', 'The sender is looking at something here first. You get a message when it goes on.');
	const left = tries - (done.proofs[person.id]?.failed.questions ?? 0);
	return refuse('answers-wrong', `That is not what is known here. You can try ${left} more times.`, undefined, {
		left
	});
}

/** They have shown it: whoever asks them next may spare them. */
export function note(house: House, packet: SentPacket, id: string, way: IdentityWay): void {
	const person = packet.plan.people.find((one) => one.id === id);
	if (person && addressOf(packet, id))
		noteKnown(house.db, addressOf(packet, id), way, person.name, packet.packet, house.now().toISOString());
}

/** Spares whoever showed it lately, where the packet wants that and the office permits it. */
export function spareKnown(house: House, { packet, person, coded }: Visitor): boolean {
	const asked = person.identity;
	if (!coded || !asked?.goodFor || packet.status !== 'out') return false;
	const days = Math.min(asked.goodFor, identitySetting(house.db).known);
	if (days === 0) return false;
	const since = new Date(house.now().getTime() - days * 86_400_000).toISOString();
	let spared = false;
	for (const way of stillToShow(packet, person)) {
		const known = knownSince(house.db, addressOf(packet, person.id), way, person.name, since);
		if (!known || known.packet === packet.packet) continue;
		const done = act(
			house,
			packet.packet,
			{ kind: 'pellum' },
			{ do: 'knowIdentity', person: person.id, way, packet: known.packet, shownAt: known.at }
		);
		spared ||= !isRefusal(done);
	}
	return spared;
}
