import { endsOf, type EndStep } from './ends';
import { Z95, type Bounded } from './survival';
import type { Wait } from './waits';

/** Somebody's part, and after how many days of waiting something was done about it for the first time: a reminder, a text, a letter. */
export interface Touched extends Wait {
	/** null: nothing was */
	touched: number | null;
}

/** What came within so many days after it, beside like parts that had waited as long without. Seen, not caused. */
export interface CameAfter {
	within: number;
	/** how many were touched that had their like, and how many different ones those were */
	touched: number;
	like: number;
	/** the share that was done within that time */
	after: Bounded;
	without: Bounded;
	/** of the two shares; its bounds hold 0 where nothing can be said */
	difference: Bounded;
}

/**
 * Sets each part that was touched beside those that had waited as long and had not been, from that moment on (landmarks: whoever would
 * have been done by then is in neither). A like part counts until it is touched itself, and each moment counts as much as one part.
 * @returns null where nothing was touched that has its like
 */
export function cameAfter(parts: readonly Touched[], within: number): CameAfter | null {
	const after: Wait[] = [];
	const without: Wait[] = [];
	const like = new Set<Touched>();
	for (const part of parts) {
		const at = part.touched;
		if (at === null || part.days <= at) continue;
		const others = parts.filter((one) => one !== part && until(one) > at);
		if (others.length === 0) continue;
		after.push({ days: part.days - at, end: part.end });
		for (const one of others) {
			like.add(one);
			const days = until(one) - at;
			without.push({ days, end: until(one) < one.days ? null : one.end, n: 1 / others.length });
		}
	}
	if (after.length === 0) return null;
	// the same like part stands beside several: no more is known than there are of them
	const scale = Math.min(1, like.size / after.length);
	const a = doneWithin(after, within);
	const b = doneWithin(
		without.map((wait) => ({ ...wait, n: wait.n! * scale })),
		within
	);
	const spread = Z95 * Math.hypot(spreadOf(a), spreadOf(b));
	const share = a.share - b.share;
	const { share: x, low, high } = a;
	return {
		within,
		touched: after.length,
		like: like.size,
		after: { share: x, low, high },
		without: { share: b.share, low: b.low, high: b.high },
		difference: { share, low: Math.max(-1, share - spread), high: Math.min(1, share + spread) }
	};
}

/** How long it is without a touch: from then on it is another matter. */
const until = (part: Touched): number => Math.min(part.days, part.touched ?? Infinity);

/** None that was done is no bound at all: as if one of three more than there were had been (the rule of three). */
function doneWithin(waits: Wait[], days: number): Bounded {
	const step: EndStep | undefined = endsOf(waits).done.findLast((one) => one.days <= days);
	if (step && step.share < 1) return step;
	const n = waits.reduce((sum, wait) => sum + (wait.n ?? 1), 0);
	const open = Math.min(1, 3 / Math.max(1, n));
	return step ? { share: 1, low: 1 - open, high: 1 } : { share: 0, low: 0, high: open };
}

/** The standard deviation that bounds stand for. */
const spreadOf = ({ low, high }: Bounded): number => (high - low) / 2 / Z95;
