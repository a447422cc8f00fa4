import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { median } from '../src/lib/core/median';

/** How fast the machine itself was, beside figures in milliseconds: the same code is half as fast where it is. */

const MB = 100;

/** Of all cores since the machine started, in ticks: the time there was, and what the host gave to others (proc(5), `steal`). */
function ticks(): { all: number; taken: number } | null {
	if (!existsSync('/proc/stat')) return null;
	const row = readFileSync('/proc/stat', 'utf8').split('\n')[0]!.split(/\s+/).slice(1, 9).map(Number);
	return { all: row.reduce((sum, n) => sum + n, 0), taken: row[7] ?? 0 };
}

const first = ticks();

/** A sentence, of now and of the time since the bench began. */
export function yardstick(): string {
	const bytes = Buffer.alloc(MB * 1_000_000);
	const times = Array.from({ length: 5 }, () => {
		const from = performance.now();
		createHash('sha256').update(bytes).digest();
		return performance.now() - from;
	});
	const last = ticks();
	const taken = first && last ? (last.taken - first.taken) / Math.max(1, last.all - first.all) : null;
	const others = taken === null ? '' : `; ${Math.round(taken * 100)} % of its time went to others`;
	return `The machine took ${Math.round(median(times))} ms for SHA-256 of ${MB} MB${others}.`;
}
