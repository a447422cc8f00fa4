import type { Fitting, PageDrawing } from '../core/page';
import type { Side } from '../core/identity';
import { isRefusal, refuse, type Refusal } from '../core/refusal';
import type { Bundled, fitDocument } from './bundle';
import type { AgainJob, DisposalJob, EvidenceJob, PaperJob, Sealed } from './jobs';
import { closeLanes, inLane, JobEnded, type Wish } from './lanes';
import { endReader } from './ocr';
import type { SideSeen } from './identity/side';
import { NO_PICTURE } from './no-picture';
import type { ChangesSheet, ReadingCopy } from './amendment';
import type { PersonSheet } from './person';
import type { JournalSheet } from './notary';
import type { FlatSheet } from './paper/flat';
import type { HeldJob, SheetHeld } from './paper/held';
import type { InkedJob } from './paper/inked';
import type { PaperOut, PaperOutJob } from './paper/out';
import type { PagePlace } from './page-order';
import type { Identity, SealKeys } from './seal/keys';
import type { OwnFile } from './seal/own';
import type { Known, Verdict } from './seal/verify';
import type { Stamp } from './stamp';
import type { Compared, TakeInLimits, TakenIn } from './take-in';
import type { TakenInText, ToCompare } from './take-in/job';
import type { PlainWay } from './word/plain-way';
import type { Read, Written } from './word/word';

/** How long one job may work, in ms of a processor's time, before its worker is ended. A hostile file must not hold a worker for ever. */
const TIME = {
	short: 12_000,
	takeIn: 60_000,
	compare: 120_000,
	seal: 120_000,
	picture: 20_000,
	word: 10_000,
	office: 70_000
};
/** What is no larger than this is likely to be done soon; and what is larger than that holds much memory. */
const SMALL = 1_500_000;
const LARGE = 8_000_000;

/** Who follows a job, and may call it off. */
export type Following = Pick<Wish, 'told' | 'signal'>;

/** Small work in the short lane; what turns out not to be soon done goes on among the long. */
export async function bySize<T>(
	name: string,
	job: object,
	size: number,
	time: number,
	following: Following = {}
): Promise<T> {
	if (size <= SMALL) {
		try {
			return await inLane<T>(name, job, { lane: 'short', time: TIME.short, ...following });
		} catch (error) {
			if (!(error instanceof JobEnded) || error.why !== 'heavy') throw error;
		}
	}
	return inLane<T>(name, job, { lane: Number.isFinite(size) && size > LARGE ? 'heavy' : 'long', time, ...following });
}

const BUNDLE_HEAVY = refuse('bundle-heavy', 'The ZIP takes more time or memory than is permitted. Give it in parts.');

/** See `openBundle`. */
export async function openBundleInWorker(bytes: Uint8Array): Promise<Bundled[] | Refusal> {
	try {
		return await bySize('openBundle', { bytes }, bytes.length, TIME.takeIn);
	} catch (error) {
		return refusedFor(error, BUNDLE_HEAVY, BUNDLE_HEAVY);
	}
}

/** See `fitDocument`. Refuses `fit-heavy`. */
export async function fitInWorker(job: Parameters<typeof fitDocument>[0]): Promise<Fitting | Refusal> {
	const heavy = refuse('fit-heavy', 'Its fields take more time to be laid than is permitted. Exchange it by hand.');
	try {
		return await bySize('fitDocument', job, 0, TIME.takeIn);
	} catch (error) {
		return refusedFor(error, heavy, heavy);
	}
}

const CANCELLED = refuse('cancelled', 'Called off. Nothing was added.');

/** The refusal for a job that came to nothing; what is no such end is thrown on. */
export function refusedFor(error: unknown, heavy: Refusal, broken: Refusal): Refusal {
	if (!(error instanceof JobEnded)) throw error;
	return error.why === 'cancelled' ? CANCELLED : error.why === 'heavy' ? heavy : broken;
}

/** Takes a PDF in, in a worker with a time and memory bound: a file that breaks it is refused, not fatal. */
export async function takeInInWorker(
	bytes: Uint8Array,
	limits?: TakeInLimits,
	following?: Following
): Promise<TakenInText | Refusal> {
	try {
		return await bySize('takeInJob', { bytes, limits }, bytes.length, TIME.takeIn, following);
	} catch (error) {
		return refusedFor(
			error,
			refuse(
				'pdf-too-heavy',
				'The PDF takes more time or memory to open than is permitted. Save it anew, or split it.'
			),
			refuse(
				'pdf-unreadable',
				'The PDF has something in it that Pellum can’t read. Print it as a new PDF and add that.'
			)
		);
	}
}

/** A document of more pages is compared by two workers at once; of more than `anew`, in more parts than two. */
const MANY = { pages: 60, anew: 300 };

/**
 * Draws every page of a document and of what it was made from, and tells which look different; large ones in parts
 * side by side, as PDFium keeps what it has drawn until the document is closed. Refuses `cancelled`; what can't be compared at all counts as different throughout.
 */
export async function compareInWorker(job: ToCompare, following?: Following): Promise<Compared | Refusal> {
	const of = job.widths.length;
	const large = job.original.length > LARGE;
	const part = of > MANY.pages && !large ? Math.ceil(of / 2 / Math.ceil(of / MANY.anew)) : of;
	const parts = Array.from({ length: Math.ceil(of / part) }, (_, i) => [i * part, Math.min(of, (i + 1) * part)]);
	const done = parts.map(() => 0);
	try {
		const found = await Promise.all(
			parts.map(([from, to], i) =>
				bySize<Compared>(
					'compareJob',
					{ ...job, from, to },
					large || of <= MANY.pages ? job.original.length : Infinity,
					TIME.compare,
					{
						signal: following?.signal,
						told: (what) => {
							if (what.is === 'page') done[i] = what.page;
							following?.told?.({ is: 'page', page: done.reduce((a, b) => a + b, 0), of });
						}
					}
				)
			)
		);
		return { differ: found.flatMap((one) => one.differ), blank: found.flatMap((one) => one.blank) };
	} catch (error) {
		if (error instanceof JobEnded && error.why === 'cancelled') return CANCELLED;
		if (!(error instanceof JobEnded)) throw error;
		return { differ: job.widths.map((_, page) => page), blank: [] };
	}
}

/** A page of a document, or of what it was made from, as a PNG so many pixels wide. */
export function pageInWorker(job: { bytes: Uint8Array; page: number; width: number; hidden?: TakenIn['hidden'] }) {
	return bySize<Uint8Array>('pageJob', job, 0, TIME.takeIn);
}

/** How many pages a PDF has. */
export function pageCountInWorker(bytes: Uint8Array): Promise<number> {
	return bySize('pageCount', { bytes }, bytes.length, TIME.takeIn);
}

/** Lines and boxes of a document that is here already. */
export function drawnInWorker(bytes: Uint8Array): Promise<PageDrawing[]> {
	return bySize('drawn', { bytes }, bytes.length, TIME.takeIn);
}

const SEALING = { lane: 'seal', time: TIME.seal } as const;

export function sealPaperInWorker(job: PaperJob): Promise<Sealed> {
	return inLane('sealPaper', job, SEALING);
}

export function sealEvidenceInWorker(job: EvidenceJob): Promise<Sealed> {
	return inLane('sealEvidence', job, SEALING);
}

export function disposalSheetInWorker(job: DisposalJob): Promise<Sealed> {
	return inLane('sealDisposal', job, SEALING);
}

/** See `journalSheet`. */
export function journalSheetInWorker(job: JournalSheet): Promise<Uint8Array> {
	return inLane('journalSheet', job, SEALING);
}

/** Judges a sealed file in a worker, within bounds: whatever is handed in may be made to hurt. Refuses what breaks them. */
export async function verifyInWorker(job: {
	file: Uint8Array;
	trusted: string[];
	known: Known;
}): Promise<Verdict | Refusal> {
	const heavy = refuse(
		'pdf-too-heavy',
		'It takes more time or memory to look at than is permitted, as no sealed copy does.'
	);
	try {
		return await bySize<Verdict>('judgeSealed', job, job.file.length, TIME.takeIn);
	} catch (error) {
		return refusedFor(error, heavy, heavy);
	}
}

/** See `stampAgain`. */
export function stampAgainInWorker(job: AgainJob): Promise<Sealed> {
	return inLane('stampAgain', job, SEALING);
}

/** See `trySeal`. */
export function trySealInWorker(job: { keys: SealKeys; now: string }): Promise<Verdict> {
	return inLane('trySeal', job, SEALING);
}

/** See `readOwn`; within bounds, since a file may ask for its password to be stretched without end. Refuses `key-file-heavy`, `key-file-unreadable`. */
export async function readOwnInWorker(job: OwnFile): Promise<Identity | Refusal> {
	const heavy = refuse('key-file-heavy', 'The file takes more time to open than is permitted. Export it anew.', 'file');
	const broken = refuse(
		'key-file-unreadable',
		'There is something in the file that Pellum can’t read. Export it anew.',
		'file'
	);
	try {
		return await inLane('readOwnFile', job, { lane: 'short', time: TIME.picture });
	} catch (error) {
		return refusedFor(error, heavy, broken);
	}
}

/** See `personSheet`. */
export function personSheetInWorker(job: PersonSheet): Promise<Uint8Array> {
	return inLane('personSheet', job, SEALING);
}

/** See `changesSheet`. */
export function changesSheetInWorker(job: ChangesSheet): Promise<Uint8Array> {
	return inLane('changesSheet', job, SEALING);
}

/** See `stampedPaper`. */
export function stampedPaperInWorker(job: { paper: Uint8Array; stamps: Stamp[] }): Promise<Uint8Array> {
	return inLane('stampedPaper', job, SEALING);
}

/** See `readingCopy`. */
export function readingCopyInWorker(job: ReadingCopy): Promise<Uint8Array> {
	return inLane('readingCopy', job, SEALING);
}

/** See `withPage`. */
export function withPageInWorker(job: { paper: Uint8Array; width: number; height: number }): Promise<Uint8Array> {
	return inLane('withPage', job, SEALING);
}

/** Stamps that can't be seen on a sealed copy. */
export function unseenInWorker(job: { paper: Uint8Array; sealed: Uint8Array; stamps: Stamp[] }): Promise<Stamp[]> {
	return inLane('unseenStamps', job, SEALING);
}

export async function markPictureInWorker(bytes: Uint8Array): Promise<Sealed | Refusal> {
	try {
		return await inLane('markPicture', { bytes }, { lane: 'short', time: TIME.picture });
	} catch (error) {
		const none = refuse('not-a-picture', 'This is not a picture that can be read. Use a PNG or JPEG.');
		return refusedFor(error, none, none);
	}
}

/** Pictures as the pages of one PDF. */
export async function picturesInWorker(pictures: Uint8Array[], following?: Following): Promise<Uint8Array | Refusal> {
	const size = pictures.reduce((sum, one) => sum + one.length, 0);
	try {
		return await bySize('picturesToPdf', { pictures }, size, TIME.takeIn, following);
	} catch (error) {
		return refusedFor(
			error,
			refuse('not-a-picture', 'The pictures take more time or memory than is permitted. Save them smaller.'),
			refuse('not-a-picture', 'A picture among them can’t be read. Use PNG or JPEG.')
		);
	}
}

/**
 * A Word document as a PDF, in a worker with a time and memory bound.
 * @param time of its own work, in ms of a processor's, whatever the markup holds; LibreOffice's time is its own
 */
export async function wordInWorker(
	bytes: Uint8Array,
	changes: 'ask' | 'accepted' | 'before',
	following?: Following,
	time = TIME.word
): Promise<Written | Refusal> {
	const lane = bytes.length <= SMALL ? 'short' : 'long';
	let left = time;
	try {
		const begun = performance.now();
		const read = await inLane<Read | Refusal>('readWord', { bytes, changes }, { lane, time: left, ...following });
		if (isRefusal(read)) return read;
		left = Math.max(1, left - (performance.now() - begun));
		const { document, ...facts } = read;
		const made = await inLane<Uint8Array | null>(
			'wordByOffice',
			{ bytes: document },
			{ lane: 'long', time: TIME.office, ...following }
		);
		if (made) return { ...facts, pdf: made, by: 'office' };
		const plain = await inLane<PlainWay | Refusal>(
			'wordByPlainWay',
			{ bytes: document },
			{ lane, time: left, ...following }
		);
		return isRefusal(plain)
			? plain
			: { ...facts, pdf: plain.pdf, by: 'plain', notes: [...facts.notes, ...plain.notes] };
	} catch (error) {
		return refusedFor(
			error,
			refuse('docx-too-heavy', 'The Word document takes more time or memory than is permitted. Save it as PDF.'),
			refuse('docx-unreadable', 'The Word document can’t be read. Save it as PDF and add that.')
		);
	}
}

/** See `seeSide`: a picture by which somebody shows who they are. */
export async function seeSideInWorker(job: { bytes: Uint8Array; side: Side }): Promise<SideSeen | Refusal> {
	try {
		return await bySize('seeSide', job, job.bytes.length, TIME.picture);
	} catch (error) {
		return refusedFor(error, NO_PICTURE, NO_PICTURE);
	}
}

/** See `paperOut`: what somebody takes away to sign in ink. */
export function paperOutInWorker(job: PaperOutJob): Promise<PaperOut> {
	return bySize(
		'paperOut',
		job,
		job.papers.reduce((sum, one) => sum + one.bytes.length, 0),
		TIME.takeIn
	);
}

/** See `flatSheet`: a picture of a sheet that came back. */
export async function flatSheetInWorker(bytes: Uint8Array): Promise<FlatSheet | Refusal> {
	try {
		return await bySize('flatSheet', { bytes }, bytes.length, TIME.picture);
	} catch (error) {
		return refusedFor(error, NO_PICTURE, NO_PICTURE);
	}
}

/** See `heldSheet`: the sheet held against the page that went out. */
export function heldSheetInWorker(job: HeldJob): Promise<SheetHeld> {
	return inLane('heldSheet', job, { lane: 'long', time: TIME.takeIn });
}

/** See `inkedPaper`: the document with its scanned pages. */
export function inkedPaperInWorker(job: InkedJob): Promise<Uint8Array> {
	return inLane('inkedPaper', job, { lane: 'long', time: TIME.takeIn });
}

export function reorderInWorker(bytes: Uint8Array, pages: PagePlace[]): Promise<Uint8Array> {
	return bySize('reorderPages', { bytes, pages }, bytes.length, TIME.takeIn);
}

export async function closePool(): Promise<void> {
	await Promise.all([closeLanes(), endReader()]);
}
