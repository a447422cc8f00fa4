import { wrap, type Remote } from 'comlink';
import type { Side } from '../../../core/identity/asked';
import type { Looker, Seen } from './seen.worker';

/** Looks at pictures beside the page. Begin it in `onMount`, end it when the page goes. */
export class Seeing {
	private worker = new Worker(new URL('./seen.worker.ts', import.meta.url), { type: 'module' });
	private looker: Remote<Looker> = wrap<Looker>(this.worker);

	/** null where that is no picture that this browser reads. */
	async see(file: Blob, side: Side): Promise<Seen | null> {
		try {
			return await this.looker.see(file, side);
		} catch {
			return null;
		}
	}

	end(): void {
		this.worker.terminate();
	}
}
