import { median } from '../median';
import type { ShownRect } from '../page';
import { boxThrough, type Grey, type Projection } from '../picture';
import { besideOf, inkOn, leastAlike } from './alike';
import { grown, inkIn } from './ink';
import { bare } from './matching';
import type { ReadWordAt, SheetWord } from './sheet';

/** Words that are not what they were: struck, written over, printed otherwise, or gone. */

/** A word that is another one now; `reads`: what a machine reads there. */
export type ChangedWord = ShownRect & { text: string; reads: string };

/**
 * Ink on a word where none was printed, in pixels; of letters higher than so many points, more. `least` counts where the word is unlike
 * the others too, `little` on a clean copy where it is much so, `much` in any case.
 */
const ON_WORD = { little: 6, least: 14, much: 40, doubt: 5, height: 9, clean: 0.5 };

/** Whether there is ink on a word that changes it. `below`: by how many median deviations it is less alike than the others. */
const isInked = (ink: number, below: number, noise: number): boolean =>
	ink >= ON_WORD.much ||
	(ink >= ON_WORD.least && below >= 2) ||
	(ink >= ON_WORD.little && below >= 4 && noise <= ON_WORD.clean);

/** How much less alike than most words a word is (in median deviations), and in all, to be another one; and how little is left of one that is gone. */
const ALIKE = { doubt: 3, doubtBelow: 0.62, sure: 7, sureBelow: 0.3, gone: 0.3 };
/** A machine this sure of another word is worth listening to. */
const READS = 60;
/** A point or a dash can't be told from dust. */
const LEAST_PRINT = 40;

/** A page and its picture in the page's frame, in greys and as ink. */
export interface InFrame {
	original: Grey;
	laid: Grey;
	ink: {
		printed: Uint8Array;
		laid: Uint8Array;
		/** only what is as dark as a pen */
		pen: Uint8Array;
	};
}

/** @param way from the page into the picture that `read` is of */
export function changedWords(
	all: readonly SheetWord[],
	{ original, laid, ink }: InFrame,
	read: readonly ReadWordAt[],
	way: Projection
): ChangedWord[] {
	// a line to write on is no word
	const words = all.filter((word) => bare(word.text) !== '');
	const { width, height } = laid;
	const soft = softer(original);
	const near = grown(ink.printed, width, height, 1);
	const measured = words.map((word) => {
		const beside = besideOf({ original: ink.printed, laid: ink.laid }, laid, word);
		return {
			word,
			alike: leastAlike(soft, laid, word, beside),
			print: inkIn(ink.printed, width, height, word),
			spilt: inkOn({ near, pen: ink.pen }, laid, word, beside)
		};
	});
	// a poor copy makes all letters fatter
	const fatter = median(measured.map(({ spilt, print }) => spilt / Math.max(1, print)));
	const added = ({ spilt, print }: (typeof measured)[number]) => spilt - 2 * fatter * print;
	// what nine of ten words have on them is how the copy is, not what somebody wrote
	const noise = measured.map(added).toSorted((a, b) => a - b)[Math.floor(0.9 * measured.length)] ?? 0;
	const usual = median(measured.map((one) => one.alike));
	const spread = Math.max(0.02, median(measured.map((one) => Math.abs(one.alike - usual))));
	return measured.flatMap((one): ChangedWord[] => {
		const { word, alike, print } = one;
		const more = added(one);
		const below = (usual - alike) / spread;
		const reads = readAt(word, read, way);
		const another = reads.text !== '' && bare(reads.text) !== bare(word.text) && reads.sure >= READS;
		const unlike = below > ALIKE.sure && alike < ALIKE.sureBelow && print >= LEAST_PRINT;
		const changed =
			isInked(more / Math.max(0.7, word.height / ON_WORD.height), below, noise) ||
			(below > ALIKE.doubt && alike < ALIKE.doubtBelow && another && more >= ON_WORD.doubt) ||
			(unlike && (more >= ON_WORD.doubt || inkIn(ink.pen, width, height, word) < ALIKE.gone * print));
		const { left, top, width: wide, height: high } = word;
		return changed ? [{ text: word.text, reads: reads.text, left, top, width: wide, height: high }] : [];
	});
}

/** A page as drawn is sharper than any picture of it. */
function softer({ width, height, data }: Grey): Grey {
	const out = new Uint8Array(data);
	for (let y = 1; y < height - 1; y++)
		for (let x = 1; x < width - 1; x++) {
			const at = y * width + x;
			let sum = 4 * data[at]!;
			sum += 2 * (data[at - 1]! + data[at + 1]! + data[at - width]! + data[at + width]!);
			sum += data[at - width - 1]! + data[at - width + 1]! + data[at + width - 1]! + data[at + width + 1]!;
			out[at] = sum / 16;
		}
	return { width, height, data: out };
}

/** What a machine has read where a word stands. */
function readAt(word: SheetWord, read: readonly ReadWordAt[], way: Projection): { text: string; sure: number } {
	const { left, top, width, height } = boxThrough(way, word);
	const here = read.filter((one) => {
		const [x, y] = [one.left + one.width / 2, one.top + one.height / 2];
		return x > left && x < left + width && y > top - 2 && y < top + height + 2;
	});
	return {
		text: here.map((one) => one.text).join(' '),
		sure: Math.min(100, ...here.map((one) => one.sure))
	};
}
