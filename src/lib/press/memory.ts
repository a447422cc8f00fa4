import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

/** From so many bytes on a file's forms, left for the collector to find in its own time, are most of what a process holds. */
const LARGE = 4_000_000;

/** @param bytes of a file */
export const isLarge = (bytes: number): boolean => bytes > LARGE;

let collect: (() => void) | null = null;

/** Gives up what is no longer held, at once: a worker that waits for work would keep it for long. */
export function sweepMemory(): void {
	if (!collect) {
		setFlagsFromString('--expose-gc');
		collect = runInNewContext('gc') as () => void;
	}
	collect();
}

/** The same between two steps with a file, where it is large enough to matter. @param bytes of the file */
export function sweepAfter(bytes: number): void {
	if (isLarge(bytes)) sweepMemory();
}

/** A large file in memory that threads share, so that handing it over makes no copy; a small one as it is. */
export function shareable(bytes: Uint8Array): Uint8Array {
	if (!isLarge(bytes.length) || bytes.buffer instanceof SharedArrayBuffer) return bytes;
	const shared = new Uint8Array(new SharedArrayBuffer(bytes.length));
	shared.set(bytes);
	return shared;
}
