import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';

/** How passwords are kept and judged: scrypt (RFC 7914), a few at once, so that a burst of tries makes nobody else wait. */

/**
 * What new ones cost, as a power of two of scrypt's N, with r = 8 and p = 1. OWASP's minimum at the time of writing: 2^17, which needs
 * 128 MB for a moment. Less only where all passwords are published, which is what the tests set.
 */
const COST = process.env['PELLUM_PUBLISHED_PASSWORDS'] === '1' ? 10 : 17;
const costing = (cost: number): ScryptOptions => ({ N: 2 ** cost, r: 8, p: 1, maxmem: 192 * 1024 * 1024 });
/** Of the four threads that all of Node's slow work shares, files among it, two stay free. */
const AT_ONCE = 2;
const MOST_WAITING = 20;

let judging = 0;
const waiting: (() => void)[] = [];

/** What is kept of a password: the cost, the salt and the key, by `$`. */
export async function hashPassword(password: string): Promise<string> {
	const salt = randomBytes(16);
	return [COST, salt.toString('base64'), (await derive(password, salt, COST)).toString('base64')].join('$');
}

/** What nobody's password fits, so that an address without an account takes as long as one with. */
const NOBODY = `${COST}$${Buffer.alloc(16).toString('base64')}$${Buffer.alloc(32).toString('base64')}`;

/** Whether it is the one; `busy` where too many wait to be judged. */
export async function passwordFits(password: string, stored: string | null): Promise<boolean | 'busy'> {
	if (judging >= AT_ONCE && waiting.length >= MOST_WAITING) return 'busy';
	const kept = (stored ?? NOBODY).split('$');
	// the first ones kept no cost
	const [cost, salt, key] = (kept.length === 2 ? ['17', ...kept] : kept) as [string, string, string];
	const derived = await derive(password, Buffer.from(salt, 'base64'), Number(cost));
	return timingSafeEqual(derived, Buffer.from(key, 'base64'));
}

async function derive(password: string, salt: Buffer, cost: number): Promise<Buffer> {
	while (judging >= AT_ONCE) await new Promise<void>((go) => waiting.push(go));
	judging += 1;
	try {
		return await new Promise((resolve, reject) =>
			scrypt(password.normalize('NFKC'), salt, 32, costing(cost), (error, key) =>
				error ? reject(error) : resolve(key)
			)
		);
	} finally {
		judging -= 1;
		waiting.shift()?.();
	}
}
