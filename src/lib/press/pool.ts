import { existsSync } from 'node:fs';
import path from 'node:path';
import { Piscina } from 'piscina';
import type { PageDrawing } from '../core/page';
import { refuse, type Refusal } from '../core/refusal';
import type { TakeInLimits, TakenIn } from './take-in';
import type { PagePlace } from './page-order';
import type { Written } from './word';
import type { EvidenceJob, PaperJob, Sealed } from './jobs';

/** How long one job may take before its worker is ended. A hostile file must not hold a worker for ever. */
const TIME = { takeIn: 60_000, seal: 120_000, picture: 20_000, word: 90_000 };

let pool: Piscina | null = null;

/** The workers. Looks for their file first: a missing one would hang every request. */
function workers(): Piscina {
	if (pool) return pool;
	const filename = path.resolve(process.env['PELLUM_WORKER'] ?? 'dist/press/worker.js');
	if (!existsSync(filename)) throw new Error(`the press worker is not built: ${filename} is missing`);
	pool = new Piscina({
		filename,
		minThreads: 1,
		maxThreads: 2,
		idleTimeout: 600_000,
		resourceLimits: { maxOldGenerationSizeMb: 1024 }
	});
	return pool;
}

async function run<T>(name: string, job: unknown, time: number): Promise<T> {
	return (await workers().run(job, { name, signal: AbortSignal.timeout(time) })) as T;
}

/** Takes a PDF in, in a worker with a time and memory bound: a file that breaks it is refused, not fatal. */
export async function takeInInWorker(bytes: Uint8Array, limits?: TakeInLimits): Promise<TakenIn | Refusal> {
	try {
		return await run('takeInJob', { bytes, limits }, TIME.takeIn);
	} catch {
		return refuse(
			'pdf-too-heavy',
			'The PDF takes more time or memory to open than is permitted. Save it anew, or split it.'
		);
	}
}

/** Lines and boxes of a document that is here already. */
export function drawnInWorker(bytes: Uint8Array): Promise<PageDrawing[]> {
	return run('drawn', { bytes }, TIME.takeIn);
}

export function sealPaperInWorker(job: PaperJob): Promise<Sealed> {
	return run('sealPaper', job, TIME.seal);
}

export function sealEvidenceInWorker(job: EvidenceJob): Promise<Sealed> {
	return run('sealEvidence', job, TIME.seal);
}

export async function markPictureInWorker(bytes: Uint8Array): Promise<Sealed | Refusal> {
	try {
		return await run('markPicture', { bytes }, TIME.picture);
	} catch {
		return refuse('not-a-picture', 'This is not a picture that can be read. Use a PNG or JPEG.');
	}
}

/** Pictures as the pages of one PDF. */
export async function picturesInWorker(pictures: Uint8Array[]): Promise<Uint8Array | Refusal> {
	try {
		return await run('picturesToPdf', { pictures }, TIME.takeIn);
	} catch {
		return refuse('not-a-picture', 'The pictures take more time or memory than is permitted. Save them smaller.');
	}
}

/** A Word document as a PDF, in a worker with a time and memory bound. */
export async function wordInWorker(bytes: Uint8Array): Promise<Written | Refusal> {
	try {
		return await run('wordToPdf', { bytes }, TIME.word);
	} catch {
		return refuse('docx-too-heavy', 'The Word document takes more time or memory than is permitted. Save it as PDF.');
	}
}

export function reorderInWorker(bytes: Uint8Array, pages: PagePlace[]): Promise<Uint8Array> {
	return run('reorderPages', { bytes, pages }, TIME.takeIn);
}

export async function closePool(): Promise<void> {
	await pool?.destroy();
	pool = null;
}
