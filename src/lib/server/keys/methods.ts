import type { HashName } from '../../press';
import type { Db } from '../db';
import { readSetting } from '../settings';

/** Which methods are relied on: hashes and the keys that go with them (press/seal/suites). */

/** As the standard writes them (FIPS 180-4). */
export const METHODS: Record<HashName, string> = { sha256: 'SHA-256', sha384: 'SHA-384' };

/** Those that are not relied on any more, from when on (ISO 8601). */
export type Ended = Partial<Record<HashName, string>>;

export const methods = (db: Db): Ended => JSON.parse(readSetting(db, 'methods') ?? '{}') as Ended;

/** The method of new keys: the first that nobody has declared ended, be it for a later day. */
export function hashNow(db: Db): HashName {
	const ended = methods(db);
	return ended.sha256 === undefined ? 'sha256' : 'sha384';
}
