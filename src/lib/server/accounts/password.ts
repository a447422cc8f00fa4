import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';

/** How passwords are kept and judged: scrypt (RFC 7914), a few at once, so that a burst of tries makes nobody else wait. */

/** OWASP's minimum for scrypt at the time of writing: N = 2^17, r = 8, p = 1; needs 128 MB for a moment. */
const COST: ScryptOptions = { N: 2 ** 17, r: 8, p: 1, maxmem: 192 * 1024 * 1024 };
/** Of the four threads that all of Node's slow work shares, files among it, two stay free. */
const AT_ONCE = 2;
const MOST_WAITING = 20;

let judging = 0;
const waiting: (() => void)[] = [];

export async function hashPassword(password: string): Promise<string> {
	const salt = randomBytes(16);
	return `${salt.toString('base64')}$${(await derive(password, salt)).toString('base64')}`;
}

/** What nobody's password fits, so that an address without an account takes as long as one with. */
const NOBODY = `${Buffer.alloc(16).toString('base64')}$${Buffer.alloc(32).toString('base64')}`;

/** Whether it is the one; `busy` where too many wait to be judged. */
export async function passwordFits(password: string, stored: string | null): Promise<boolean | 'busy'> {
	if (judging >= AT_ONCE && waiting.length >= MOST_WAITING) return 'busy';
	const [salt, key] = (stored ?? NOBODY).split('$').map((part) => Buffer.from(part, 'base64')) as [Buffer, Buffer];
	return timingSafeEqual(await derive(password, salt), key);
}

async function derive(password: string, salt: Buffer): Promise<Buffer> {
	while (judging >= AT_ONCE) await new Promise<void>((go) => waiting.push(go));
	judging += 1;
	try {
		return await new Promise((resolve, reject) =>
			scrypt(password.normalize('NFKC'), salt, 32, COST, (error, key) => (error ? reject(error) : resolve(key)))
		);
	} finally {
		judging -= 1;
		waiting.shift()?.();
	}
}
