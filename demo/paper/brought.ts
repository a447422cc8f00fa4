import { isRefusal, type Refusal } from '../../src/lib/core/refusal';
import type { From } from '../../src/lib/core/packet';
import type { House } from '../../src/lib/server/house';
import { addReturned, bringerOf, fetchPaper, handInReturn } from '../../src/lib/server/paper';
import { lastOut } from '../../src/lib/server/paper/store';
import type { Visitor } from '../../src/lib/server/signing';
import { printedPages } from './pages';
import { scanned, type Pen, type Scan } from './scanned';

function must<T>(done: T | Refusal): T {
	if (isRefusal(done)) throw new Error(`${done.code}: ${done.say}`);
	return done;
}

/** How each page was copied: by telephone, then on the parish's old machine. */
const COPIED: Partial<Scan>[] = [
	{ by: 'phone', turn: -1.5, aside: 0.09, dpi: 170, noise: 5, blur: 0.6 },
	{ by: 'scanner', turn: 1.1, dpi: 150 }
];

/** Somebody fetches it, prints it, changes a word of it by hand, signs, and brings the pictures back in the wrong order. */
export async function bringsBack(house: House, visitor: () => Visitor, from: From): Promise<void> {
	const { bytes } = must(await fetchPaper(house, visitor(), 'en', from));
	const { sheets } = lastOut(house.db, visitor().packet.packet, visitor().person.id)!;
	const printed = await printedPages(new Uint8Array(bytes), sheets.length);
	const pictures = await Promise.all(
		sheets.map((sheet, page) => {
			const pens: Pen[] = sheet.places.map(({ signed, left, top, width, height }) => ({
				does: signed ? 'signs' : 'scribbles',
				left: left + 4,
				top: top + (signed ? 0 : 0.2 * height),
				width: width * 0.7,
				height
			}));
			const rent = sheet.words.find((word) => word.text === 'hour');
			if (page === 0 && rent)
				pens.push({ does: 'strikes', ...rent }, { does: 'scribbles', ...rent, top: rent.top - 9, height: 8 });
			return scanned(printed[page]!, sheet, pens, { ...COPIED[page % 2], seed: page + 3 });
		})
	);
	for (const [i, picture] of pictures.toReversed().entries())
		must(await addReturned(house, must(bringerOf(visitor(), from)), `IMG_${4410 + i}.jpg`, picture));
	must(handInReturn(house, must(bringerOf(visitor(), from))));
}
