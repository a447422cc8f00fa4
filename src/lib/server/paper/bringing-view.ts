import type { BroughtPicture, PaperToBring } from '../../core/paper';
import { isOpen, noPaper, stillAt, type PlanPerson, type SentPacket } from '../../core/packet';
import type { House } from '../house';
import { sha256Text } from '../ids';
import { paperSetting } from './setting';
import { picturesOf, readOut, type OutKept, type PictureKept } from './store';

/** Pictures below this are too dark, or too blurred, to be read well; they are taken all the same. */
const BAD = { light: 70, sharp: 55 };

/** Where somebody is with their paper; null where they can't sign on paper at all. */
export function paperState(house: House, packet: SentPacket, person: PlanPerson): PaperToBring | null {
	const setting = paperSetting(house.db);
	const ink = packet.inks[person.id];
	if (!isOpen(packet) || !stillAt(packet).includes(person.id) || !setting.permitted) return null;
	if (!ink && noPaper(packet, person)) return null;
	const is = ink && ink.is !== 'accepted' ? (ink.is === 'doubts' || ink.is === 'sure' ? 'looking' : ink.is) : null;
	// only who may bring something sees what lies there
	const out = is === 'fetched' || is === 'again' ? readOut(house.db, ink!.out) : null;
	const pictures = out ? brought(out, picturesOf(house.db, out.id)) : [];
	const has = new Set(pictures.map((one) => one.page));
	const all = out?.sheets.map((_, i) => i + 1) ?? [];
	// a PDF is taken apart later: nobody knows yet what is in it
	const known = pictures.every((one) => !one.pdf && one.page !== null);
	return {
		is,
		pages: all.length,
		pictures,
		missing: known && pictures.length > 0 ? all.filter((page) => !has.has(page)) : [],
		again: ink?.is === 'again' ? ink.pages.map((page) => page + 1) : [],
		word: ink?.word ?? '',
		post: setting.post
	};
}

export function brought(out: OutKept, pictures: readonly PictureKept[]): BroughtPicture[] {
	const mine = sha256Text(out.person).slice(0, 8);
	return pictures
		.filter((one) => one.parts === null)
		.map((one) => ({
			id: one.id,
			name: one.name,
			page: pageOf(one, mine),
			faults: faultsOf(one),
			pdf: one.media === 'application/pdf',
			handedIn: one.handedAt !== null
		}));
}

function pageOf({ flat, seen }: PictureKept, mine: string): number | null {
	if (seen) return seen.number === null ? null : seen.number + 1;
	const [code] = flat?.codes ?? [];
	return code?.person === mine ? code.page : null;
}

function faultsOf({ flat }: PictureKept): BroughtPicture['faults'] {
	if (!flat) return [];
	return [
		...(flat.light < BAD.light ? (['too dark'] as const) : []),
		...(flat.sharp < BAD.sharp ? (['blurred'] as const) : [])
	];
}
