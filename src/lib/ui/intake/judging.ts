import { wrap, type Remote } from 'comlink';
import type { Judge } from './judge.worker';

/** The worker in which intakes are judged, and what ends it. */
export function judgeBeside(): { ask: Remote<Judge>; stop: () => void } {
	const worker = new Worker(new URL('./judge.worker.ts', import.meta.url), { type: 'module' });
	return { ask: wrap<Judge>(worker), stop: () => worker.terminate() };
}
