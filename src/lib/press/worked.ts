import { readFileSync, readlinkSync } from 'node:fs';

/** The number by which Linux knows the thread that asks (proc(5), `thread-self`); null where there is no such thing. */
export function threadHere(): string | null {
	try {
		return readlinkSync('/proc/thread-self').split('/').at(-1)!;
	} catch {
		return null;
	}
}

/**
 * How long a processor has worked for a thread of this process, in ms, by hundredths of a second (proc(5), `stat`, fields 14 and
 * 15); null where that can't be told, or the thread is gone.
 */
export function workedMs(thread: string): number | null {
	try {
		// what stands after the closing bracket begins at field 3
		const fields = readFileSync(`/proc/self/task/${thread}/stat`, 'utf8').split(') ').at(-1)!.split(' ');
		return (Number(fields[11]) + Number(fields[12])) * 10;
	} catch {
		return null;
	}
}
