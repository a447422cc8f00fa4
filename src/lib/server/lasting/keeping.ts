import type { House } from '../house';
import type { Proven } from '../keys';

/** What the certificate of a disposal is called among copies that last. */
export const ofDisposal = (number: number): string => `disposal:${number}`;

/** Writes down until when copies are proven, and by which method. @param of a packet, or {@link ofDisposal}. Runs in the caller's transaction. */
export function keepLasting(house: House, of: string, { until, method }: Proven): void {
	house.db
		.prepare(
			`INSERT INTO lasting (of, until, method) VALUES (?, ?, ?)
			 ON CONFLICT (of) DO UPDATE SET until = excluded.until, method = excluded.method`
		)
		.run(of, until, method);
}
