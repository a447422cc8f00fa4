import sharp from 'sharp';
import { isRefusal, type Refusal } from '../../core/refusal';
import { shareable, sweepAfter, sweepMemory } from '../memory';
import { openPdf, type OpenPdf } from '../pdfium';
import { compared, type Compared } from './compare';
import { isLeftOut } from './flatten';
import { takeIn, type TakeInLimits, type TakenIn } from './take-in';

/** What a worker can be asked about a file that comes from outside. */

export type TellPage = (page: number, of: number) => void;

/**
 * A document taken in, what was read of it as the JSON that is kept: a thousand dense pages are 50 MB of words, which
 * whoever has asked need not hold as objects, nor wait for while they are put together.
 */
export interface TakenInText extends Omit<TakenIn, 'words' | 'drawn' | 'widgets'> {
	words: { count: number; json: string };
	/** `drawn` and `widgets` of {@link TakenIn} */
	drawnJson: string;
}

/** Takes a PDF in; see {@link takeIn}. */
export async function takeInJob(
	{ bytes, limits }: { bytes: Uint8Array; limits?: TakeInLimits },
	tell?: TellPage
): Promise<TakenInText | Refusal> {
	const taken = await takeIn(bytes, limits, tell);
	if (isRefusal(taken)) return taken;
	// what it was worked out with goes before its bytes are doubled
	sweepAfter(taken.bytes.length);
	const text = asText({ ...taken, bytes: shareable(taken.bytes) });
	// once this has come back nothing holds the objects any more
	if (text.words.count > MANY_WORDS) setImmediate(sweepMemory);
	return text;
}

function asText({ words, drawn, widgets, ...rest }: TakenIn): TakenInText {
	const count = words.reduce((sum, page) => sum + page.length, 0);
	return { ...rest, words: { count, json: JSON.stringify(words) }, drawnJson: JSON.stringify({ drawn, widgets }) };
}

/** So many words are 100 MB and more while they are objects. */
const MANY_WORDS = 150_000;

/** Two forms of a document that should look alike; `widths` of all its pages as shown, in points. */
export interface ToCompare {
	original: Uint8Array;
	taken: Uint8Array;
	widths: number[];
	hidden: TakenIn['hidden'];
}

/** Compares the pages from `from` on up to before `to`; see {@link compared}. */
export async function compareJob(
	{ original, taken, widths, hidden, from, to }: ToCompare & { from: number; to: number },
	tell: TellPage = () => {}
): Promise<Compared> {
	const [before, after] = [await opened(original, hidden), await opened(taken)];
	try {
		return compared(before, after, widths.slice(from, to), (page) => tell(page, to - from), from);
	} finally {
		before.close();
		after.close();
	}
}

/** A page as a PNG; with `hidden` as the original shows it, its form included. */
export async function pageJob(job: {
	bytes: Uint8Array;
	page: number;
	width: number;
	hidden?: TakenIn['hidden'];
}): Promise<Uint8Array> {
	const pdf = await opened(job.bytes, job.hidden);
	try {
		const { width, height, rgba } = pdf.picture(job.page, job.width);
		const raw = { width, height, channels: 4 } as const;
		return new Uint8Array(await sharp(rgba, { raw }).png().toBuffer());
	} finally {
		pdf.close();
	}
}

/** How many pages a document has. */
export async function countJob({ bytes }: { bytes: Uint8Array }): Promise<number> {
	const pdf = await opened(bytes);
	pdf.close();
	return pdf.pages;
}

async function opened(bytes: Uint8Array, hidden?: TakenIn['hidden']): Promise<OpenPdf> {
	const pdf = await openPdf(bytes);
	if (typeof pdf === 'string') throw new Error(`a document that was opened before is ${pdf} now`);
	if (hidden) pdf.showForms(isLeftOut, hidden);
	return pdf;
}
