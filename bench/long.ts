import { readFileSync } from 'node:fs';
import { isRefusal } from '../src/lib/core/refusal';
import { closePool, compareInWorker, takeInInWorker } from '../src/lib/press';

/** What taking a long document in and comparing it costs: milliseconds, and the bytes held at the peak. */
export interface LongTaking {
	taking: number;
	comparing: number;
	peak: number;
}

/** Takes in the document `long.ts FILE` in a process that holds nothing else, as a server's does; prints what it cost. */
const bytes = new Uint8Array(readFileSync(process.argv[2]!));
let peak = 0;
const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 50);
const start = performance.now();
const taken = await takeInInWorker(bytes);
if (isRefusal(taken)) throw new Error(taken.say);
const taking = performance.now() - start;
await compareInWorker({
	original: bytes,
	taken: taken.bytes,
	widths: taken.pages.map((page) => page.width),
	hidden: taken.hidden
});
const comparing = performance.now() - start - taking;
clearInterval(watch);
await closePool();
console.log(JSON.stringify({ taking, comparing, peak } satisfies LongTaking));
