import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import type { SheetWord } from '../../src/lib/core/paper';
import { chance } from '../identity/photographed';
import * as documents from '../documents';
import { goesOut, type Gone } from './pages';
import { SCALE, scanned, tornOff, type Pen, type Scan } from './scanned';

/** Made returns: pages of many documents, signed or not, changed or not, copied in every way that comes to mind. */
export interface Case {
	name: string;
	gone: Gone;
	/** which page it is, from 0 */
	page: number;
	picture: Uint8Array;
	scan: Scan;
	/** of each place, whether somebody wrote there */
	inked: boolean[];
	/** what was done to the page's words, and to which */
	change: { how: Change; word: SheetWord } | null;
	/** its code was torn off */
	torn: boolean;
}

const CHANGES = ['seven', 'strikes', 'written over', 'printed otherwise', 'written beside'] as const;
type Change = (typeof CHANGES)[number];

/** What the bounds were found on; and what was kept out until they stood: other producers, other languages. */
export const TUNED = [
	'hallHire',
	'tenancy-of-a-practice-room',
	'loan',
	'mietvertrag-saal',
	'engagement',
	'contrat-de-pr-t',
	'youthConsent',
	'repair-order',
	'recordingRelease',
	'loan-of-sheet-music',
	'plain-paper',
	'examination-entry',
	'overeenkomst-zaalhuur',
	'guarantee-of-a-lease',
	'expenses-of-a-member',
	'consent-to-film'
] as const;
export const KEPT_OUT = [
	'arbeitsvertrag-aushilfe',
	'purchase-of-a-van',
	'plain-handbook',
	'catering-agreement',
	'plain-slides'
] as const;

async function document(name: (typeof TUNED | typeof KEPT_OUT)[number]): Promise<Uint8Array> {
	switch (name) {
		case 'hallHire':
			return (await documents.hallHire('Hall 2', '£185')).bytes;
		case 'loan':
			return (await documents.loan('Harp', '£11,400')).bytes;
		case 'engagement':
			return (await documents.engagement('Noel Hartigan', 'second horn', 'the spring tour', '£210')).bytes;
		case 'youthConsent':
			return (await documents.youthConsent('Wren Atterby')).bytes;
		case 'recordingRelease':
			return (await documents.recordingRelease('Serenade in D')).bytes;
		default:
			return new Uint8Array(readFileSync(`demo/forms/others/${name}.pdf`));
	}
}

/** Two places on each page where nothing stands: a wide one to sign, a small one for initials. */
async function placed(bytes: Uint8Array): Promise<Gone> {
	const bare = await goesOut(bytes);
	const free = (
		words: readonly SheetWord[],
		width: number,
		height: number,
		wide: number,
		high: number,
		from: number
	) => {
		for (let top = height - 90 - high; top > 60; top -= 6)
			for (let left = from; left < width - 60 - wide; left += 24)
				if (
					!words.some(
						(w) =>
							w.left < left + wide + 18 &&
							w.left + w.width > left - 18 &&
							w.top < top + high + 16 &&
							w.top + w.height > top - 16
					)
				)
					return { left, top, width: wide, height: high };
		return null;
	};
	const places = bare.sheets.flatMap(({ words, width, height }, page) => {
		const sign = free(words, width, height, 150, 30, 60);
		const taken = sign ? [...words, { ...sign, text: '' }] : words;
		const small = free(taken, width, height, 44, 22, 60);
		return [
			...(sign ? [{ page, label: 'Signature', signed: true, ...sign }] : []),
			...(small ? [{ page, label: 'Initials', signed: true, ...small }] : [])
		];
	});
	return goesOut(bytes, places);
}

export async function* cases(which: 'tuned' | 'kept out', count: number, first = 0): AsyncGenerator<Case> {
	const names = which === 'tuned' ? TUNED : KEPT_OUT;
	const gone = new Map<string, Gone>();
	for (let i = first; i < first + count; i++) {
		const next = chance((which === 'tuned' ? 1000 : 123_000) + i);
		const name = names[i % names.length]!;
		if (!gone.has(name)) gone.set(name, await placed(await document(name)));
		yield oneCase(`${name} ${i}`, gone.get(name)!, next, i);
	}
}

async function oneCase(name: string, gone: Gone, next: () => number, i: number): Promise<Case> {
	const page = Math.floor(next() * Math.min(gone.sheets.length, 4));
	const sheet = gone.sheets[page]!;
	const scan = conditions(next, i);
	const pens: Pen[] = [];
	const inked = sheet.places.map((place) => {
		const writes = next() < 0.6;
		if (writes)
			pens.push({
				does: place.label === 'Signature' ? 'signs' : 'initials',
				...boxed(place, 0.05 + 0.2 * next(), 0.1 * (next() - 0.5))
			});
		return writes;
	});
	const how = i % 3 === 0 ? CHANGES[Math.floor(i / 3) % CHANGES.length]! : null;
	const word = how === null ? null : wordFor(how, sheet.words, next);
	const torn = i % 12 === 5;
	let printed = gone.printed[page]!;
	if (how && word) {
		if (how === 'seven') pens.push({ does: 'seven', ...digitBox(word) });
		else if (how === 'strikes') pens.push({ does: 'strikes', ...box(word) });
		else if (how === 'written over') pens.push({ does: 'scribbles', ...box(word) });
		else if (how === 'written beside')
			pens.push({ does: 'scribbles', left: word.left, top: word.top - 8, width: Math.max(40, word.width), height: 8 });
		else printed = await otherwise(printed, word, sheet.words);
	}
	if (torn) printed = await tornOff(printed, sheet.code!);
	const picture = await scanned(printed, sheet, pens, scan);
	return { name, gone, page, picture, scan, inked, torn, change: how && word ? { how, word } : null };
}

const box = ({ left, top, width, height }: SheetWord) => ({ left, top, width, height });
const boxed = (place: { left: number; top: number; width: number; height: number }, inset: number, off: number) => ({
	left: place.left + place.width * inset,
	top: place.top + place.height * off,
	width: place.width * (1 - inset - 0.1),
	height: place.height
});

function conditions(next: () => number, i: number): Scan {
	const kind = i % 10;
	const base = { aside: 0, shadow: 1, ring: false, seed: i + 1, turn: 5 * (next() - 0.5), noise: 2 + 5 * next() };
	if (kind === 0) return { ...base, by: 'fax', dpi: 100, blur: 0.3, turn: 2 * (next() - 0.5) };
	if (kind <= 3)
		return {
			...base,
			by: 'phone',
			dpi: 170 + 60 * next(),
			blur: 0.5 + 0.6 * next(),
			aside: 0.3 * next(),
			shadow: kind === 2 ? 0.6 : 1,
			turn: 8 * (next() - 0.5)
		};
	return {
		...base,
		by: 'scanner',
		dpi: [100, 150, 200, 300][Math.floor(4 * next())]!,
		blur: 0.3 + 0.6 * next(),
		turn: base.turn + (kind === 5 ? 180 : 0),
		ring: kind === 7,
		shadow: kind === 8 ? 0.7 : 1
	};
}

function wordFor(how: Change, words: readonly SheetWord[], next: () => number): SheetWord | null {
	const fit = words.filter((word) =>
		how === 'seven'
			? /1/.test(word.text) && word.height > 6
			: /^\p{L}{4,}/u.test(word.text) && word.height > 5 && word.width > word.height
	);
	const some = fit.length > 0 ? fit : words.filter((word) => /^\p{L}{4,}/u.test(word.text));
	return some.length === 0 ? null : some[Math.floor(next() * some.length)]!;
}

/** Where the first one of a number stands, by the average width of a letter. */
function digitBox(word: SheetWord) {
	const at = Math.max(0, word.text.indexOf('1'));
	const one = word.width / word.text.length;
	return { left: word.left + at * one, top: word.top, width: one, height: word.height };
}

/** Another word of about that size stands where it stood. */
async function otherwise(printed: Uint8Array, word: SheetWord, words: readonly SheetWord[]): Promise<Uint8Array> {
	const other = words
		.filter((one) => one.text !== word.text && /^\p{L}{3,}/u.test(one.text) && Math.abs(one.height - word.height) < 1.5)
		.toSorted((a, b) => Math.abs(a.width - word.width) - Math.abs(b.width - word.width))
		.find((one) => one.text.slice(0, 3) !== word.text.slice(0, 3));
	if (!other) return printed;
	const cut = (one: SheetWord) => ({
		left: Math.round((one.left - 0.5) * SCALE),
		top: Math.round((one.top - 1) * SCALE),
		width: Math.round((one.width + 1) * SCALE),
		height: Math.round((one.height + 2) * SCALE)
	});
	const from = cut(other);
	const to = cut(word);
	const piece = await sharp(printed).extract(from).png().toBuffer();
	const blank = await sharp({ create: { width: to.width, height: to.height, channels: 3, background: '#fff' } })
		.png()
		.toBuffer();
	const out = await sharp(printed)
		.composite([
			{ input: blank, left: to.left, top: to.top },
			{ input: piece, left: to.left, top: to.top }
		])
		.png()
		.toBuffer();
	return new Uint8Array(out);
}
