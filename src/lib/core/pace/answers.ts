import { endsOf, type EndStep } from './ends';
import { FEW } from './likeness';
import type { Bounded } from './survival';
import { ENDS, type End, type Wait } from './waits';

/** A length of time with its bounds, in days; null: the records do not reach that far. */
export interface Length {
	days: number | null;
	low: number | null;
	high: number | null;
}

/** How waits of one sort went, ready to be drawn and said. */
export interface Course {
	/** how many there were, and how many of them are over by now, however that was */
	n: number;
	over: number;
	/** so few are over that nothing can be said from them */
	few: boolean;
	/** the share that was done after so many days */
	done: EndStep[];
	/** after how many days half, and nine tenths, of all that began were done */
	half: Length;
	nine: Length;
	/** the share that has ended otherwise by now */
	ends: Record<Exclude<End, 'done'>, Bounded>;
	ended: Record<Exclude<End, 'done'>, EndStep[]>;
}

const NONE: Bounded = { share: 0, low: 0, high: 0 };

/** The course of waits, with those that are still open counted as far as they go and each way of ending beside the others. */
export function courseOf(waits: readonly Wait[]): Course {
	const { done, ...ended } = endsOf(waits);
	const sum = (fits: (wait: Wait) => boolean) =>
		waits.reduce((all, wait) => all + (fits(wait) && !Number.isNaN(wait.days) ? (wait.n ?? 1) : 0), 0);
	const over = sum(({ end }) => end !== null);
	const last = (steps: readonly EndStep[]): Bounded => {
		const step = steps.at(-1);
		return step ? { share: step.share, low: step.low, high: step.high } : NONE;
	};
	return {
		n: sum(() => true),
		over,
		few: over < FEW,
		done,
		half: lengthOf(done, 0.5),
		nine: lengthOf(done, 0.9),
		ends: { declined: last(ended.declined), expired: last(ended.expired), withdrawn: last(ended.withdrawn) },
		ended
	};
}

/** A hair below by the way it was added up has been reached. */
const HAIR = 1e-9;

/** After how many days that share of all was done, with bounds where those of the curve reach it (Brookmeyer and Crowley 1982). */
function lengthOf(done: readonly EndStep[], share: number): Length {
	const reached = (value: (step: EndStep) => number) => done.find((step) => value(step) >= share - HAIR)?.days ?? null;
	return { days: reached((step) => step.share), low: reached((step) => step.high), high: reached((step) => step.low) };
}

/** The ways in which something ends that was not done. */
export const BAD_ENDS = ENDS.filter((end): end is Exclude<End, 'done'> => end !== 'done');

/** Whether two lengths differ by more than their bounds allow for: what may be chance is not called a change. */
export function differs(a: Length, b: Length): boolean {
	if (a.days === null || b.days === null) return false;
	return (a.low ?? 0) > (b.high ?? Infinity) || (b.low ?? 0) > (a.high ?? Infinity);
}
