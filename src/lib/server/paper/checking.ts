import { toldByCode, type Foreign } from '../../core/paper';
import { personIn, type SentPacket } from '../../core/packet';
import { boxThrough, cornersThrough, projection, whole, type Projection, type Spot } from '../../core/picture';
import { isRefusal } from '../../core/refusal';
import {
	flatSheetInWorker,
	heldSheetInWorker,
	languagesFor,
	pageCountInWorker,
	pageInWorker,
	tellSheet
} from '../../press';
import { readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId, sha256Bytes, sha256Text } from '../ids';
import { act, packetState } from '../packets/act';
import { fromOf, takeForDocument } from './accepting';
import { flatKept } from './bringing';
import { judged } from './judged';
import { paperSetting } from './setting';
import {
	keepPicture,
	keepSeen,
	picturesOf,
	pictureBytes,
	readOut,
	markTakenApart,
	type OutKept,
	type PictureKept,
	type SeenKept
} from './store';

export interface PaperJob {
	packet: string;
	person: string;
	out: string;
}

const PDF = 'application/pdf';
/** PDFs are taken apart at this many pixels to the inch of A4's width. */
const SCAN_WIDTH = 1820;
/** Fewer words than this were read on a page that is blank, or a picture of something else. */
const FEW = 4;

/** Holds all that was handed in against what went out, page by page, each kept as soon as it is done; then judges the whole. */
export async function checkReturn(house: House, job: PaperJob, done: () => void): Promise<null> {
	const out = readOut(house.db, job.out);
	const packet = packetState(house.db, job.packet);
	const person = packet.status === 'none' ? undefined : personIn(packet.plan, job.person);
	if (packet.status === 'none' || !out || !person || packet.inks[job.person]?.is !== 'looking') {
		done();
		return null;
	}
	for (const pdf of picturesOf(house.db, out.id).filter(
		(one) => one.media === PDF && one.handedAt && one.parts === null
	))
		await takeApart(house, out, pdf);
	const languages = languagesFor(person.locale ?? packet.plan.locale);
	for (const one of picturesOf(house.db, out.id).filter(
		(picture) => picture.media !== PDF && picture.handedAt && !picture.seen
	)) {
		await seeOne(house, packet, out, one, languages);
		if (!house.db.open) return null;
	}
	const { doubts } = judged(out, picturesOf(house.db, out.id));
	const checked = act(
		house,
		job.packet,
		{ kind: 'pellum' },
		{
			do: 'checkReturn',
			person: job.person,
			out: out.id,
			pages: out.sheets.length,
			doubts: doubts.map(({ what, page }) => ({ what, page }))
		}
	);
	if (!isRefusal(checked) && checked.inks[job.person]?.is === 'sure' && paperSetting(house.db).goesOn)
		await takeForDocument(house, out, {
			account: null,
			confirmed: {},
			note: '',
			from: fromOf(checked, person)
		});
	done();
	return null;
}

async function takeApart(house: House, out: OutKept, pdf: PictureKept): Promise<void> {
	const bytes = new Uint8Array(pictureBytes(house.db, out.id, pdf.id, 'bytes')!);
	const count = await pageCountInWorker(bytes);
	const pages: { bytes: Uint8Array; flat: PictureKept['flat'] }[] = [];
	for (let page = 0; page < count; page++) {
		const flat = await flatSheetInWorker(await pageInWorker({ bytes, page, width: SCAN_WIDTH }));
		if (!isRefusal(flat)) pages.push({ bytes: flat.picture, flat: flatKept(flat) });
	}
	if (!house.db.open) return;
	inTransaction(house.db, () => {
		for (const [i, page] of pages.entries())
			keepPicture(
				house.db,
				{
					id: newId(house.now()),
					out: out.id,
					name: `${pdf.name}, ${i + 1}`,
					media: 'image/jpeg',
					digest: sha256Bytes(page.bytes),
					flat: page.flat,
					at: pdf.at,
					handedAt: pdf.handedAt
				},
				page.bytes
			);
		markTakenApart(house.db, pdf.id, pages.length);
	});
}

async function seeOne(
	house: House,
	packet: SentPacket,
	out: OutKept,
	one: PictureKept,
	languages: string
): Promise<void> {
	const flat = one.flat!;
	const bytes = new Uint8Array(pictureBytes(house.db, out.id, one.id, 'bytes')!);
	const code = toldByCode(flat.codes, {
		reference: packet.reference,
		person: sha256Text(out.person),
		digest: out.digest,
		pages: out.sheets.length
	});
	const bare: SeenKept = {
		id: one.id,
		number: null,
		by: null,
		share: null,
		foreign: null,
		dots: 0,
		sharp: flat.sharp,
		found: null,
		words: []
	};
	if (typeof code === 'string') return keepSeen(house.db, one.id, { ...bare, foreign: code }, null);
	const corners = flat.corners as [Spot, Spot, Spot, Spot] | null;
	const told = await tellSheet(
		{ picture: bytes, edges: flat.edges },
		out.sheets,
		code === null ? null : { number: code, corners },
		languages
	);
	if (told.number === null || !told.way) {
		const foreign: Foreign = told.read.length < FEW ? 'blank' : 'not known';
		return keepSeen(house.db, one.id, { ...bare, share: told.share, foreign }, null);
	}
	const sheet = out.sheets[told.number]!;
	const { laid, ...found } = await heldSheetInWorker({
		picture: told.picture,
		content: new Uint8Array(readBlob(house.db, out.digest)!.bytes),
		number: told.number,
		sheet,
		read: told.read,
		way: told.way
	});
	if (!house.db.open) return;
	const { number, by, share, dots } = told;
	const words = onPage(told.read, told.way, sheet);
	keepSeen(house.db, one.id, { ...bare, number, by, share, dots, found, words }, laid);
}

/** Words that were read, as they stand on the page. */
function onPage(
	read: readonly { text: string; left: number; top: number; width: number; height: number; sure: number }[],
	way: Projection,
	{ width, height }: { width: number; height: number }
): SeenKept['words'] {
	const corners = whole({ width, height });
	const back = projection(cornersThrough(way, corners), corners);
	if (!back) return [];
	return read.flatMap((word) => {
		const { left, top, ...size } = boxThrough(back, word);
		const on = left >= 0 && top >= 0 && left < width && top < height && word.sure >= 30;
		const r = (n: number) => Math.round(n * 10) / 10;
		return on ? [{ text: word.text, left: r(left), top: r(top), width: r(size.width), height: r(size.height) }] : [];
	});
}
