import { CircuitState, circuitBreaker, ConsecutiveBreaker, handleAll, type CircuitBreakerPolicy } from 'cockatiel';
import type { House } from '../house';
import type { Kind } from './outbox';

/**
 * One lane a kind of work, so that one standing still leaves the others: how many of its jobs go side by side, and a
 * circuit breaker. After so many failures in a row the lane pauses, then tries one.
 */
const SIDE_BY_SIDE: Record<Kind, number> = {
	seal: 1,
	message: 4,
	letter: 2,
	batch: 1,
	read: 1,
	backup: 1,
	hook: 4,
	case: 2,
	follow: 1,
	identity: 1,
	paper: 1,
	notary: 1,
	words: 1,
	forget: 1,
	keeping: 1,
	pace: 1
};
const FAILURES = 5;
const PAUSE = 30_000;

export class Lane {
	private breaker: CircuitBreakerPolicy;
	/** the machine's own time, in ms, until which nothing is tried */
	private until = 0;
	readonly running = new Set<number>();

	/** @param pause how long it pauses, in ms */
	constructor(
		readonly kind: Kind,
		private readonly house: House,
		private readonly pause = PAUSE
	) {
		this.breaker = this.closed();
	}

	private closed(): CircuitBreakerPolicy {
		const { house, kind, pause } = this;
		const breaker = circuitBreaker(handleAll, { halfOpenAfter: pause, breaker: new ConsecutiveBreaker(FAILURES) });
		breaker.onBreak((reason) => {
			this.until = Date.now() + pause;
			const since = house.paused.get(kind)?.since ?? house.now().toISOString();
			house.paused.set(kind, { since, error: 'error' in reason ? reason.error.message : '' });
			house.changes.emit('packet', '');
		});
		breaker.onReset(() => {
			house.paused.delete(kind);
			house.changes.emit('packet', '');
			house.changes.emit('jobs');
		});
		return breaker;
	}

	/** How many jobs may begin now: none while it pauses, then one, to see whether it goes again. */
	get room(): number {
		if (this.breaker.state === CircuitState.Closed) return SIDE_BY_SIDE[this.kind] - this.running.size;
		return Date.now() < this.until || this.running.size > 0 ? 0 : 1;
	}

	/** Somebody has asked for it: no pause, and failures are counted anew. */
	open(): void {
		this.breaker = this.closed();
		this.house.paused.delete(this.kind);
	}

	/** Does the work, and counts whether it failed. */
	through<T>(work: () => Promise<T>): Promise<T> {
		return this.breaker.execute(work);
	}
}
