import { RateLimiterMemory } from 'rate-limiter-flexible';
import { refuse } from '../core/refusal';

/** How often something may be tried, by whom; memory is enough for one process. */
const limits = {
	/** tries at one account's password from one network address, in 15 minutes; a right one gives them back */
	account: new RateLimiterMemory({ points: 10, duration: 900 }),
	/** tries at one account's password from anywhere; more, so that nobody is easily shut out by somebody elsewhere */
	everywhere: new RateLimiterMemory({ points: 100, duration: 900 }),
	/** tries at passwords from one network address, in 15 minutes; a right one gives its own back */
	signIn: new RateLimiterMemory({ points: 40, duration: 900 }),
	/** second factors tried at one account, in 15 minutes; a right one gives them back */
	second: new RateLimiterMemory({ points: 10, duration: 900 }),
	/** times that the office's record tells of the same refusal, in 15 minutes */
	told: new RateLimiterMemory({ points: 1, duration: 900 }),
	/** refusals by access that the office's record tells of, by account or network address, in 15 minutes */
	refused: new RateLimiterMemory({ points: 20, duration: 900 }),
	/** letters to choose a new password, asked for from one network address, in an hour */
	reset: new RateLimiterMemory({ points: 20, duration: 3600 }),
	/** the same to one e-mail address */
	resetFor: new RateLimiterMemory({ points: 3, duration: 3600 }),
	/** codes entered on the set-up page from one network address, in 15 minutes */
	setUp: new RateLimiterMemory({ points: 20, duration: 900 }),
	/** links that lead nowhere, from one network address, in 10 minutes */
	link: new RateLimiterMemory({ points: 60, duration: 600 }),
	/** codes sent to one link, in 10 minutes */
	code: new RateLimiterMemory({ points: 5, duration: 600 }),
	/** saves of what is being entered, by link, in 10 minutes: one a second */
	save: new RateLimiterMemory({ points: 600, duration: 600 }),
	/** wishes, hand-overs, looks at pages: what one link may write into the record, in 10 minutes */
	deed: new RateLimiterMemory({ points: 60, duration: 600 }),
	/** calls by one API key, in a minute */
	api: new RateLimiterMemory({ points: 600, duration: 60 }),
	/** calls with no key or a wrong one, from one network address, in 10 minutes */
	apiUnknown: new RateLimiterMemory({ points: 60, duration: 600 }),
	/** cases begun at one intake from one network address, in 10 minutes */
	caseBegun: new RateLimiterMemory({ points: 60, duration: 600 }),
	/** codes tried at the door of an intake from one network address, in 15 minutes; a right one gives them back */
	caseDoor: new RateLimiterMemory({ points: 10, duration: 900 }),
	/** codes sent for one case, in 10 minutes */
	caseCode: new RateLimiterMemory({ points: 5, duration: 600 }),
	/** codes sent to one e-mail address, for whichever case, in an hour */
	caseCodeFor: new RateLimiterMemory({ points: 10, duration: 3600 }),
	/** codes asked for from one network address, in 10 minutes */
	caseCodeFrom: new RateLimiterMemory({ points: 60, duration: 600 }),
	/** what one case may have kept, in 10 minutes: one a second */
	caseKept: new RateLimiterMemory({ points: 600, duration: 600 }),
	/** pictures of pages that come back on paper, by link, in 10 minutes */
	pages: new RateLimiterMemory({ points: 200, duration: 600 }),
	/** files held up to be judged by one network address, in 10 minutes */
	verify: new RateLimiterMemory({ points: 30, duration: 600 }),
	/** uploads through signers' links, by link, in 10 minutes */
	upload: new RateLimiterMemory({ points: 60, duration: 600 })
};
export type Limit = keyof typeof limits;

/** What a visitor or signer is told whose last try was one too many. */
export const TOO_OFTEN = refuse(
	'too-often',
	'That was very often in a short while. Wait ten minutes; what you entered is kept.'
);
export const TOO_MANY_LINKS = refuse(
	'too-often',
	'Too many links that lead nowhere. Wait ten minutes, then try again.'
);

/** Counts one; false when that was one too many. */
export async function count(limit: Limit, who: string): Promise<boolean> {
	try {
		await limits[limit].consume(who);
		return true;
	} catch {
		return false;
	}
}

/** How many of how many are left, and in how many seconds they are all there again. */
export async function left(limit: Limit, who: string): Promise<{ points: number; of: number; seconds: number }> {
	const { points: of, duration } = limits[limit];
	const used = await limits[limit].get(who);
	return {
		points: used ? Math.max(0, used.remainingPoints) : of,
		of,
		seconds: Math.max(1, Math.ceil(used ? used.msBeforeNext / 1000 : duration))
	};
}

/** Gives one back. */
export async function giveBack(limit: Limit, who: string): Promise<void> {
	await limits[limit].reward(who);
}

export async function forgive(limit: Limit, who: string): Promise<void> {
	await limits[limit].delete(who);
}
