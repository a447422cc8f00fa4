import type { Identity } from '../../press';
import type { House } from '../house';
import { provesUntil } from '../keys';

/** Writes down until when a packet's copies are proven, whose last time-stamp is of this clock. Runs in the caller's transaction. */
export function keepLasting(house: House, packet: string, stamp: Identity): void {
	const { until, method } = provesUntil(stamp);
	house.db
		.prepare(
			`INSERT INTO lasting (packet, until, method) VALUES (?, ?, ?)
			 ON CONFLICT (packet) DO UPDATE SET until = excluded.until, method = excluded.method`
		)
		.run(packet, until, method);
}
