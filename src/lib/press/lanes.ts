import { existsSync } from 'node:fs';
import path from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { workedMs } from './worked';

/**
 * Workers by what they do, so that one kind of work never waits for another: what is soon done, what takes long, what is
 * large, sealing, and reading pictures.
 */
export type Lane = 'short' | 'long' | 'heavy' | 'seal' | 'read';
const THREADS: Record<Lane, number> = { short: 1, long: 2, heavy: 1, seal: 1, read: 1 };
/** How long a worker waits for more, in ms. One that held a large file goes at once: what it took it would never give back. */
const IDLE: Record<Lane, number> = { short: 600_000, long: 600_000, heavy: 0, seal: 600_000, read: 600_000 };
/** By how much a lane's threads give way to the server's own and to what is soon done (nice(2), a thread's own on Linux). */
const GIVES_WAY: Record<Lane, number> = { short: 0, long: 10, heavy: 12, seal: 2, read: 15 };

/**
 * A job's time is a processor's, so that what is done elsewhere on a busy machine isn't held against a file; one that only waits is
 * ended after so many times as long.
 */
const WAITS = 5;

/** What a job tells while it is under way. */
export type Told = { is: 'queued' } | { is: 'working' } | { is: 'page'; page: number; of: number };

/** How a job is to be run: its lane, how long it may work, and who wants to hear of it or may call it off. */
export interface Wish {
	lane: Lane;
	/** milliseconds of a processor's time from when a worker takes it, not from when it was asked for */
	time: number;
	told?: (what: Told) => void;
	signal?: AbortSignal;
}

/** Why a job came to nothing: it took too long or too much memory, was called off, or broke. */
export class JobEnded extends Error {
	constructor(
		readonly why: 'heavy' | 'cancelled' | 'broken',
		message: string
	) {
		super(message);
	}
}

const pools = new Map<Lane, Piscina>();

/** The workers of a lane. Looks for their file first: a missing one would hang every request. */
function workers(lane: Lane): Piscina {
	let pool = pools.get(lane);
	if (pool) return pool;
	const filename = path.resolve(process.env['PELLUM_WORKER'] ?? 'dist/press/worker.js');
	if (!existsSync(filename)) throw new Error(`the press worker is not built: ${filename} is missing`);
	pool = new Piscina({
		filename,
		minThreads: 0,
		maxThreads: THREADS[lane],
		idleTimeout: IDLE[lane],
		niceIncrement: GIVES_WAY[lane],
		// a young generation grows to three times 16 MB and never shrinks; seven of them would be a third of what is held
		resourceLimits: { maxOldGenerationSizeMb: 1024, maxYoungGenerationSizeMb: 12 }
	});
	pools.set(lane, pool);
	return pool;
}

/** Runs a task of `worker.ts`. Throws {@link JobEnded}. */
export async function inLane<T>(name: string, job: object, { lane, time, told, signal }: Wish): Promise<T> {
	const { port1, port2 } = new MessageChannel();
	const ending = new AbortController();
	let why: JobEnded['why'] = 'broken';
	const end = (reason: JobEnded['why']) => {
		why = reason;
		ending.abort();
	};
	let watch: NodeJS.Timeout | undefined;
	port1.on('message', (what: Told | { thread: string | null }) => {
		if ('thread' in what) watch = watched(what.thread, time, () => end('heavy'));
		else told?.(what);
	});
	const cancel = () => end('cancelled');
	signal?.addEventListener('abort', cancel);
	if (signal?.aborted) cancel();
	told?.({ is: 'queued' });
	if (lane === 'heavy') heavy += 1;
	try {
		return (await workers(lane).run({ job, port: port2 }, { name, signal: ending.signal, transferList: [port2] })) as T;
	} catch (error) {
		const code = (error as { code?: string }).code;
		throw new JobEnded(code === 'ERR_WORKER_OUT_OF_MEMORY' ? 'heavy' : why, (error as Error).message);
	} finally {
		clearInterval(watch);
		signal?.removeEventListener('abort', cancel);
		port1.close();
		if (lane === 'heavy') {
			heavy -= 1;
			await emptied();
		}
	}
}

/** Looks now and then at how long a thread has worked, and says when that was longer than it may. */
function watched(thread: string | null, time: number, over: () => void): NodeJS.Timeout {
	const [began, before] = [performance.now(), thread === null ? null : workedMs(thread)];
	return setInterval(
		() => {
			const since = performance.now() - began;
			// nobody works longer than has gone by
			if (since < time) return;
			const now = before === null ? null : workedMs(thread!);
			if (now === null || now - before! >= time || since >= WAITS * time) over();
		},
		Math.min(500, time / 2)
	);
}

/** How many heavy jobs are asked for. */
let heavy = 0;

/** Whoever goes on with a large file does so when the worker that held it is gone, and what it held given back. */
async function emptied(): Promise<void> {
	const pool = pools.get('heavy');
	if (heavy > 0 || !pool) return;
	pools.delete('heavy');
	await pool.destroy();
}

export async function closeLanes(): Promise<void> {
	await Promise.all([...pools.values()].map((pool) => pool.destroy()));
	pools.clear();
}
