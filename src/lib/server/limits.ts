import { RateLimiterMemory } from 'rate-limiter-flexible';

/** How often something may be tried, by whom; memory is enough for one process. */
const limits = {
	/** wrong passwords for one address, in 15 minutes */
	account: new RateLimiterMemory({ points: 10, duration: 900 }),
	/** wrong passwords from one network address, in 15 minutes */
	signIn: new RateLimiterMemory({ points: 40, duration: 900 }),
	/** links that lead nowhere, from one network address, in 10 minutes */
	link: new RateLimiterMemory({ points: 60, duration: 600 }),
	/** codes sent to one link, in 10 minutes */
	code: new RateLimiterMemory({ points: 5, duration: 600 }),
	/** uploads through signers' links, by link, in 10 minutes */
	upload: new RateLimiterMemory({ points: 60, duration: 600 })
};
export type Limit = keyof typeof limits;

/** Whether the limit has been used up already. */
export async function isOverLimit(limit: Limit, who: string): Promise<boolean> {
	const used = await limits[limit].get(who);
	return used !== null && used.remainingPoints <= 0;
}

/** Counts one; false when that was one too many. */
export async function count(limit: Limit, who: string): Promise<boolean> {
	try {
		await limits[limit].consume(who);
		return true;
	} catch {
		return false;
	}
}

export async function forgive(limit: Limit, who: string): Promise<void> {
	await limits[limit].delete(who);
}
