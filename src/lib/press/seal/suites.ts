import { createHash, type KeyObject } from 'node:crypto';
import { fault } from './fault';

/** How something is signed: a hash, the keys that go with it, and how both are named. */
export interface Suite {
	hash: HashName;
	/** object identifiers of the hash and of the signature */
	digest: string;
	signature: string;
	/** of keys on a curve: which, and its order (SEC 2 §2.4.2, §2.5.1); null: RSA (RFC 8017 §8.2) */
	curve: { named: 'prime256v1' | 'secp384r1'; web: 'P-256' | 'P-384'; order: bigint } | null;
}
export type HashName = 'sha256' | 'sha384';

/** RFC 5754 §2.2, §2.3 and §3.2; RFC 5758 §3.2. */
export const SUITES = {
	p256: {
		hash: 'sha256',
		digest: '2.16.840.1.101.3.4.2.1',
		signature: '1.2.840.10045.4.3.2',
		curve: {
			named: 'prime256v1',
			web: 'P-256',
			order: BigInt('0xffffffff00000000ffffffffffffffffbce6faada7179e84f3b9cac2fc632551')
		}
	},
	p384: {
		hash: 'sha384',
		digest: '2.16.840.1.101.3.4.2.2',
		signature: '1.2.840.10045.4.3.3',
		curve: {
			named: 'secp384r1',
			web: 'P-384',
			order: BigInt(
				'0xffffffffffffffffffffffffffffffffffffffffffffffffc7634d81f4372ddf581a0db248b0a77aecec196accc52973'
			)
		}
	},
	rsa: { hash: 'sha256', digest: '2.16.840.1.101.3.4.2.1', signature: '1.2.840.113549.1.1.11', curve: null }
} as const satisfies Record<string, Suite>;

/** Bits that an RSA key must have at least (NIST SP 800-57 part 1, table 2). */
const LEAST_RSA = 2048;

/** The way in which this key signs; null where it is of a kind that isn't permitted. */
export function suiteFor(key: KeyObject): Suite | null {
	const { namedCurve, modulusLength } = key.asymmetricKeyDetails ?? {};
	if (key.asymmetricKeyType === 'rsa') return (modulusLength ?? 0) >= LEAST_RSA ? SUITES.rsa : null;
	if (key.asymmetricKeyType !== 'ec') return null;
	return [SUITES.p256, SUITES.p384].find((suite) => suite.curve.named === namedCurve) ?? null;
}

/** The one that both identifiers name. Faults where there is none. */
export function suiteNamed(digest: string, signature: string): Suite {
	const found = Object.values(SUITES).find((suite) => suite.digest === digest && suite.signature === signature);
	return found ?? fault('The seal uses a method that is not permitted.');
}

/** The hash of that identifier. Faults where there is none. */
export function hashNamed(digest: string): HashName {
	const found = Object.values(SUITES).find((suite) => suite.digest === digest);
	return found?.hash ?? fault('The time-stamp uses a method that is not permitted.');
}

export function hashed(hash: HashName, ...parts: Uint8Array[]): Buffer {
	const made = createHash(hash);
	for (const part of parts) made.update(part);
	return made.digest();
}
