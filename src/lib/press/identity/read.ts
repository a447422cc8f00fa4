import sharp from 'sharp';
import { readZone, zoneLines, type SideRead, type Side } from '../../core/identity';
import { readPicture, type ReadPicture, type ReadWord } from '../ocr';
import type { SideSeen } from './side';

/** Of the height of a document, where its zone is looked for: a card's three lines take the most. */
const BAND = 0.52;
/** Longer than this it is a card (ID-1 is 1.586), which lies; a passport that lies open has its zone at any side. */
const CARD = 1.5;

/** Reads what stands on one side: its zone, where it has one, and its other words. Nothing leaves the machine. */
export async function readSide(
	side: Side,
	seen: Pick<SideSeen, 'measures' | 'faults' | 'document'>
): Promise<SideRead> {
	const { measures, faults, document } = seen;
	const bare: SideRead = { side, measures, faults, zone: null, nameSure: false, words: [] };
	if (!document || faults.length > 0) return bare;
	const { width, height } = await sharp(document).metadata();
	for (const turn of width / height > CARD ? [0, 180] : [0, 180, 90, 270]) {
		const upright = turn === 0 ? document : new Uint8Array(await sharp(document).rotate(turn).png().toBuffer());
		const found = await zoneIn(upright);
		if (found) return { ...bare, zone: found.zone, nameSure: found.nameSure };
	}
	const { words } = await readPicture(document, 'eng');
	return { ...bare, words: words.map((word) => word.text) };
}

/**
 * A zone is read at one size after the other: letters are told better now at this one, now at that. Its check digits say which
 * reading of a line is right; of the name, which has none, two readings must be the same.
 */
const SIZES = [1, 0.8, 1.25, 0.65, 0.9, 1.1];
/** So many readings of a line are put together with those of the others. */
const MOST_LINES = 4;

async function zoneIn(document: Uint8Array): Promise<Pick<SideRead, 'zone' | 'nameSure'> | null> {
	const { width, height } = await sharp(document).metadata();
	const top = Math.round(height * (1 - BAND));
	const read: string[][] = [];
	for (const size of SIZES) {
		const band = await sharp(document)
			.extract({ left: 0, top, width, height: height - top })
			.resize({ width: Math.round(width * size) })
			.withMetadata({ density: 300 })
			.png({ compressionLevel: 2 })
			.toBuffer();
		const rows = rowsOf(await readPicture(new Uint8Array(band), 'eng', 'zones'));
		const zone = zoneLines(rows.map((row) => row.map((word) => word.text).join('')));
		if (zone) read.push(zone);
		// what shows no line of a zone in two sizes has none
		else if (read.length === 0 && size === SIZES[1] && !rows.some(likeZone)) return null;
		const best = bestOf(read);
		if (best?.nameSure && best.faults === 0) return best;
	}
	return bestOf(read);
}

/** A row that may be a zone's, though it was misread. */
const likeZone = (row: ReadWord[]): boolean => {
	const text = row.map((word) => word.text).join('');
	return text.length >= 20 && text.includes('<<');
};

/** The lines, of all that were read, with the fewest faults; of the line with the name, the one that was read most often. */
function bestOf(read: string[][]): { zone: string[]; faults: number; nameSure: boolean } | null {
	const lines = Math.max(0, ...read.map((zone) => zone.length));
	const same = read.filter((zone) => zone.length === lines && zone[0]!.length === read[0]![0]!.length);
	if (same.length === 0) return null;
	const named = lines === 3 ? 2 : 0;
	const ways = Array.from({ length: lines }, (_, at) => mostRead(same.map((zone) => zone[at]!)));
	const [name, times] = ways[named]![0]!;
	let zones: string[][] = [[]];
	ways.forEach((way, at) => {
		const some = at === named ? [name] : way.slice(0, MOST_LINES).map(([line]) => line);
		zones = zones.flatMap((zone) => some.map((line) => [...zone, line]));
	});
	return zones
		.map((zone) => ({ zone, faults: readZone(zone, ANY_DAY)?.faults.length ?? 99, nameSure: times > 1 }))
		.reduce((best, one) => (one.faults < best.faults ? one : best));
}

/** Each different text with how often it was read, the most frequent first. */
function mostRead(texts: string[]): [string, number][] {
	const times = new Map<string, number>();
	for (const text of texts) times.set(text, (times.get(text) ?? 0) + 1);
	return [...times].toSorted((a, b) => b[1] - a[1]);
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
