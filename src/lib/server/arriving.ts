import { createWriteStream } from 'node:fs';
import { mkdir, open, readFile, rm } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import { sweepMemory } from '../press';
import type { House } from './house';
import { newToken } from './ids';

/** Files as they come in: read to their end before anything is done with them, the large ones on the disk. */

const MB = 1024 * 1024;

/** Bodies up to here are held in memory while they wait. */
const SMALL = 1.5 * MB;
/** Of larger ones, this many at once; the others lie on the disk until it is their turn. */
const LARGE_AT_ONCE = 1;

let large = 0;
const waiting: (() => void)[] = [];

/** A body that has come in whole. */
export interface Arrived {
	/** its media type as told */
	media: string;
	/** its bytes; large ones in memory that the press's workers share */
	bytes(): Promise<Uint8Array>;
	form(): Promise<FormData>;
}

/**
 * Reads a body to its end; a large one into a file, so that ten at once don't fill the memory.
 * @returns does some work with it, once; with a large one when it is its turn
 */
export async function arrived(
	house: House,
	request: Request
): Promise<<T>(work: (body: Arrived) => Promise<T>) => Promise<T>> {
	const media = request.headers.get('content-type') ?? '';
	const size = Number(request.headers.get('content-length') ?? 0);
	const formOfBytes = (bytes: BodyInit) => new Response(bytes, { headers: { 'content-type': media } }).formData();
	if (size <= SMALL || !request.body) {
		const bytes = await request.arrayBuffer();
		const body = { media, bytes: async () => new Uint8Array(bytes), form: () => formOfBytes(bytes) };
		return (work) => work(body);
	}
	const folder = arriving(house);
	await mkdir(folder, { recursive: true, mode: 0o700 });
	const file = path.join(folder, newToken().hash);
	try {
		await pipeline(Readable.fromWeb(request.body as NodeStream<Uint8Array>), createWriteStream(file, { mode: 0o600 }));
	} catch (error) {
		await rm(file, { force: true });
		throw error;
	}
	return async (work) => {
		try {
			await turn();
			try {
				return await work({
					media,
					bytes: async () => inShared(file),
					form: async () => formOfBytes(await readFile(file))
				});
			} finally {
				// shared memory weighs nothing to a collector, which would let it lie
				setImmediate(sweepMemory);
				large -= 1;
				waiting.shift()?.();
			}
		} finally {
			await rm(file, { force: true });
		}
	};
}

async function inShared(file: string): Promise<Uint8Array> {
	const handle = await open(file);
	try {
		const { size } = await handle.stat();
		const bytes = new Uint8Array(new SharedArrayBuffer(size));
		for (let at = 0; at < size;) {
			const { bytesRead } = await handle.read(bytes, at, Math.min(MB, size - at), at);
			if (bytesRead === 0) break;
			at += bytesRead;
		}
		return bytes;
	} finally {
		await handle.close();
	}
}

/** Bytes that no thread shares, for those who can't read shared ones. */
export const ownBytes = (bytes: Uint8Array): Uint8Array =>
	bytes.buffer instanceof SharedArrayBuffer ? bytes.slice() : bytes;

const arriving = (house: House): string => path.join(house.config.folder, 'arriving');

/** What a server that was killed has left behind. */
export async function sweepArriving(house: House): Promise<void> {
	await rm(arriving(house), { recursive: true, force: true });
}

async function turn(): Promise<void> {
	while (large >= LARGE_AT_ONCE) await new Promise<void>((go) => waiting.push(go));
	large += 1;
}
