import type { Live } from '../../core/field';
import type { Plan } from '../../core/packet';

/** What a rule is written over: the Bench's plan, or that of an intake. */
export interface Ground {
	plan: Plan;
	/** ISO 8601 */
	today: string;
	/** the plan with an answer to everything, to show what a rule gives */
	withSamples(): Live;
}
