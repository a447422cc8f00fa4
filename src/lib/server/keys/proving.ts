import { X509Certificate } from 'node:crypto';
import { suiteFor, type HashName, type Identity } from '../../press';
import type { Db } from '../db';
import { inName } from './names';

/** How long certificates are good, and what was stamped by them with it. */

/** When its certificate ends, in ms. */
export const endOf = ({ certificate }: Pick<Identity, 'certificate'>): number =>
	Date.parse(new X509Certificate(certificate).validTo);

/** Until when something is proven by its time-stamp, ISO 8601, and by which method. */
export interface Proven {
	until: string;
	method: HashName;
}

/** Until when what this clock has stamped is proven by it. */
export const provesUntil = (stamp: Pick<Identity, 'certificate'>): Proven => ({
	until: new Date(endOf(stamp)).toISOString(),
	method: suiteFor(new X509Certificate(stamp.certificate).publicKey)?.hash ?? 'sha256'
});

/** As {@link provesUntil}, of what was stamped at that moment (ISO 8601). */
export function stampsOver(db: Db, at: string): Proven {
	const row = db
		.prepare<[string], { certificate: Buffer }>(
			`SELECT certificate FROM keys WHERE name = 'stamp' OR (name LIKE 'stamp-until-%' AND name >= 'stamp-until-' || ?)
			 ORDER BY name = 'stamp', name LIMIT 1`
		)
		.get(inName(at));
	return row ? provesUntil(row) : { until: at, method: 'sha256' };
}
