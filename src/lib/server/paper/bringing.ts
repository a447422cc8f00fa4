import { fileTypeFromBuffer } from 'file-type';
import { isOpen, stillAt, type From, type Ink, type SentPacket } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { flatSheetInWorker, glance } from '../../press';
import type { Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId, sha256Bytes } from '../ids';
import { queue } from '../jobs/outbox';
import { bareName } from '../names';
import { act, office } from '../packets/act';
import { somebodyIn } from '../packets/somebody';
import { unproved, type Visitor } from '../signing/visit';
import {
	countPictures,
	dropPicture,
	keepPicture,
	markHandedIn,
	picturesOf,
	readOut,
	type FlatKept,
	type PictureKept
} from './store';

/** What comes back on paper: pictures and PDFs, one after another, in any order, by whoever it went out to or by the office. */

/** Whose paper it is, and who brings it: the person by their link, or somebody of the office for them. */
export type Bringer = { packet: SentPacket; person: string } & ({ from: From } | { account: Account });

/** So many pictures may lie there for one that went out. */
const MOST = 200;
const MB = 1024 * 1024;
const LARGEST = 60 * MB;

export function bringerOf(visitor: Visitor, from: From): Bringer | Refusal {
	return unproved(visitor) ?? { packet: visitor.packet, person: visitor.person.id, from };
}

export function officeBringer(house: House, account: Account, id: string, person: string): Bringer | Refusal {
	const found = somebodyIn(house, account, 'change', id, person);
	return isRefusal(found) ? found : { packet: found.packet, person, account };
}

const NOTHING_OUT = refuse(
	'nothing-out',
	'Nothing of yours is out on paper. Fetch it first; what is printed then has its codes.'
);

/** What is out to them now, while something can still be brought. */
function outNow({ packet, person }: Bringer): Ink | Refusal {
	const ink = packet.inks[person];
	if (!isOpen(packet) || !stillAt(packet).includes(person))
		return refuse('not-your-turn', 'It is not your turn. Nothing can be entered here now.');
	if (!ink || ink.is === 'refused' || ink.is === 'accepted') return NOTHING_OUT;
	return ink.is === 'looking'
		? refuse('being-looked-at', 'What came back is being looked at. Wait until that is done.')
		: ink;
}

/** A picture is looked at at once; a PDF is taken apart when it is handed in. Refuses `not-a-page`, `too-often`, `file-too-large`. */
export async function addReturned(
	house: House,
	bringer: Bringer,
	name: string,
	bytes: Uint8Array
): Promise<PictureKept | Refusal> {
	const ink = outNow(bringer);
	if (isRefusal(ink)) return ink;
	if (countPictures(house.db, ink.out) >= MOST)
		return refuse('too-often', 'Too many pictures lie here already. Take out what is not needed.');
	if (bytes.length > LARGEST)
		return refuse('file-too-large', 'The file may have 60 MB at most. Scan fewer pages at a time.', undefined, {
			megabytes: 60
		});
	const made = await readable(bytes);
	if (isRefusal(made)) return made;
	const one = {
		id: newId(house.now()),
		out: ink.out,
		name: bareName(name),
		media: made.media,
		digest: sha256Bytes(made.bytes),
		flat: made.flat,
		at: house.now().toISOString(),
		handedAt: null
	};
	keepPicture(house.db, one, made.bytes);
	return { ...one, seen: null, parts: null };
}

async function readable(
	bytes: Uint8Array
): Promise<{ media: string; bytes: Uint8Array; flat: FlatKept | null } | Refusal> {
	const none = refuse('not-a-page', 'That is neither a picture nor a PDF that can be read. Use PNG, JPEG or PDF.');
	if (glance(bytes) === null) return { media: 'application/pdf', bytes, flat: null };
	if (!(await fileTypeFromBuffer(bytes))?.mime.startsWith('image/')) return none;
	const flat = await flatSheetInWorker(bytes);
	if (isRefusal(flat)) return none;
	return { media: 'image/jpeg', bytes: flat.picture, flat: flatKept(flat) };
}

type Flat = Exclude<Awaited<ReturnType<typeof flatSheetInWorker>>, Refusal>;

/** What is kept of it beside the picture. */
export function flatKept({ picture: _picture, codes, ...rest }: Flat): FlatKept {
	return {
		...rest,
		codes: codes.map(({ corners: _corners, ...code }) => code),
		corners: codes[0]?.corners ? [...codes[0].corners] : null
	};
}

/** Takes a picture out again, as long as it was not handed in. */
export function takeOut(house: House, bringer: Bringer, id: string): { gone: true } | Refusal {
	const ink = outNow(bringer);
	if (isRefusal(ink)) return ink;
	dropPicture(house.db, ink.out, id);
	return { gone: true };
}

/** All that lies there is held against what went out; in parts as well. */
export function handInReturn(house: House, bringer: Bringer): { handedIn: true } | Refusal {
	const ink = outNow(bringer);
	if (isRefusal(ink)) return ink;
	const { packet, person } = bringer;
	if (!readOut(house.db, ink.out)) return NOTHING_OUT;
	const pictures = picturesOf(house.db, ink.out).filter((one) => one.handedAt === null);
	const own = 'from' in bringer;
	return inTransaction(house.db, () => {
		const done = act(house, packet.packet, own ? { kind: 'person', person } : office(bringer.account), {
			do: 'handInReturn',
			person,
			out: ink.out,
			pictures: pictures.map((one) => one.digest),
			post: !own,
			...(own && { from: bringer.from })
		});
		if (isRefusal(done)) return done;
		markHandedIn(house.db, ink.out, house.now().toISOString());
		queue(house, 'paper', `${packet.packet}:paper:${newId(house.now())}`, {
			packet: packet.packet,
			person,
			out: ink.out
		});
		house.changes.emit('jobs');
		return { handedIn: true as const };
	});
}
