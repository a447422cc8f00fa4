import sharp from 'sharp';
import { readZone, zoneLines, type SideRead, type Side } from '../../core/identity';
import { readPicture, type ReadPicture, type ReadWord } from '../ocr';
import type { SideSeen } from './side';

/** Of the height of a document, where its zone is looked for: a card's three lines take the most. */
const BAND = 0.52;

/** Reads what stands on one side: its zone, where it has one, and its other words. Nothing leaves the machine. */
export async function readSide(
	side: Side,
	seen: Pick<SideSeen, 'measures' | 'faults' | 'document'>
): Promise<SideRead> {
	const { measures, faults, document } = seen;
	const bare: SideRead = { side, measures, faults, zone: null, words: [] };
	if (!document || faults.length > 0) return bare;
	// a passport that lies open is as high as it is wide: its zone may be at any side
	for (const turn of [0, 180, 90, 270]) {
		const upright = turn === 0 ? document : new Uint8Array(await sharp(document).rotate(turn).png().toBuffer());
		const zone = await zoneIn(upright);
		if (zone) return { ...bare, zone };
	}
	const { words } = await readPicture(document, 'eng');
	return { ...bare, words: words.map((word) => word.text) };
}

/** A zone is read at one size after the other until its check digits hold: letters are told better now at this size, now at that. */
const SIZES = [1, 0.8, 0.65, 1.25];

async function zoneIn(document: Uint8Array): Promise<string[] | null> {
	const { width, height } = await sharp(document).metadata();
	const top = Math.round(height * (1 - BAND));
	let best: { zone: string[]; faults: number } | null = null;
	for (const size of SIZES) {
		const band = await sharp(document)
			.extract({ left: 0, top, width, height: height - top })
			.resize({ width: Math.round(width * size) })
			.withMetadata({ density: 300 })
			.png({ compressionLevel: 2 })
			.toBuffer();
		const rows = rowsOf(await readPicture(new Uint8Array(band), 'eng', 'zones'));
		const zone = zoneLines(rows.map((row) => row.map((word) => word.text).join('')));
		const faults = zone ? (readZone(zone, ANY_DAY)?.faults.length ?? 99) : 99;
		if (zone && faults < (best?.faults ?? 99)) best = { zone, faults };
		// what has no zone at this size has none at another
		if (faults === 0 || (!zone && size === SIZES[1] && !best)) break;
	}
	return best?.zone ?? null;
}

/** Which century a day is in is no matter to its check digit. */
const ANY_DAY = '2000-01-01';

/** Words in their rows, from the top and from the left. */
function rowsOf({ words }: ReadPicture): ReadWord[][] {
	const rows: ReadWord[][] = [];
	for (const word of words.toSorted((a, b) => a.top - b.top)) {
		const middle = word.top + word.height / 2;
		const row = rows.find((one) => one.some((other) => middle > other.top && middle < other.top + other.height));
		if (row) row.push(word);
		else rows.push([word]);
	}
	return rows.map((row) => row.toSorted((a, b) => a.left - b.left));
}
